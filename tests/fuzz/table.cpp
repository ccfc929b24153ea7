// Tables beside a model file.
#include <corvex/file.hpp>
#include <corvex/writing.hpp>
#include <cstdint>
#include <cstdlib>

using namespace corvex;

namespace {

std::string folder() {
  static const std::string made = [] {
    char name[] = "/tmp/corvex-fuzz-XXXXXX";
    if (!mkdtemp(name)) std::abort();
    return std::string(name);
  }();
  return made;
}

constexpr const char* model = R"(
corvex: 1
units: {length: m, force: kN}
tables: {points: t.csv}
sections: {t: SHS 60x60x4}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {A: pinned, B: roller}
loads: {x: [{on: beam, at: 50 %, force: {down: 1}}]}
)";

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string_view text(reinterpret_cast<const char*>(data), size);
  if (!write_file(folder() + "/t.csv", text).empty()) std::abort();
  const auto read = read_model_text(model, folder() + "/m.yaml");
  if (!read)
    for (const Problem& p : read.error()) static_cast<void>(describe(p));
  return 0;
}
