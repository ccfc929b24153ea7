// Formulas, with names that depend on each other.
#include <corvex/formula.hpp>
#include <cstdint>
#include <vector>

using namespace corvex;

// The first line is the formula; each further line defines a, b, c …
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string text(reinterpret_cast<const char*>(data), size);
  Definitions names;
  std::string formula;
  char name = 'a' - 1;
  for (std::size_t at = 0; at <= text.size() && name <= 'l';) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    const std::string line = text.substr(at, end - at);
    if (name < 'a')
      formula = line;
    else
      names.add(std::string(1, name), line);
    ++name;
    at = end + 1;
  }
  const auto result = evaluate(formula, names);
  if (!result && result.error().offset > formula.size()) __builtin_trap();
  std::vector<Use> uses;
  static_cast<void>(evaluate(formula, names, uses));
  for (const Use& u : uses)
    if (u.offset + u.length > formula.size()) __builtin_trap();
  static_cast<void>(why_not_a_parameter(formula));
  return 0;
}
