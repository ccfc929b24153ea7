#include <algorithm>

#include "corvex/formula.hpp"
#include "quantity/ascii.hpp"

namespace corvex {
namespace {

// Distance of Damerau and Levenshtein, optimal string alignment; letters of another case count half.
double keystrokes(std::string_view a, std::string_view b) {
  const auto same = [](char x, char y) {
    if (x == y) return 0.0;
    return ascii::lower(x) == ascii::lower(y) ? 0.5 : 1.0;
  };
  std::vector<double> before(b.size() + 1), above(b.size() + 1), row(b.size() + 1);
  for (std::size_t j = 0; j <= b.size(); ++j) above[j] = static_cast<double>(j);
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = static_cast<double>(i);
    for (std::size_t j = 1; j <= b.size(); ++j) {
      row[j] = std::min({above[j] + 1, row[j - 1] + 1, above[j - 1] + same(a[i - 1], b[j - 1])});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) row[j] = std::min(row[j], before[j - 2] + 1);
    }
    before.swap(above);
    above.swap(row);
  }
  return above[b.size()];
}

}  // namespace

std::string nearest(std::string_view word, const std::vector<std::string>& known) {
  if (word.size() > 64) return {};
  std::string best;
  double least = std::max(1.0, static_cast<double>(word.size()) * 0.4) + 1e-9;
  for (const std::string& k : known) {
    if (k.size() > word.size() + 6) continue;
    const double d = keystrokes(word, k);
    if (d < least && d < static_cast<double>(std::max(k.size(), word.size()))) {
      least = d;
      best = k;
    }
  }
  return best;
}

std::string did_you_mean(std::string_view word, const std::vector<std::string>& known) {
  const std::string near = nearest(word, known);
  return near.empty() ? "" : "; did you mean '" + near + "'?";
}

}  // namespace corvex
