#include "corvex/diagram.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "corvex/number.hpp"
#include "result/inner.hpp"
#include "result/polynomial.hpp"

namespace corvex {

Diagram::Diagram(Dimension dimension, std::vector<Piece> pieces, double noise)
    : dimension_(dimension), pieces_(std::move(pieces)), noise_(noise) {}

Quantity Diagram::at(Length place, Side side) const {
  const double x = place.si(), end = pieces_.back().to;
  constexpr double rounding = 1e-9;
  if (!(x >= -rounding * end && x <= end * (1 + rounding)))
    throw std::out_of_range("corvex: " + short_number(x, 6) + " m is not on the member, which is " +
                            short_number(end, 6) + " m long");
  const Piece& p = pieces_[result::piece_at(pieces_, x, side)];
  return {result::value(p.powers, std::clamp(place.si(), p.from, p.to) - p.from), dimension_};
}

Extreme Diagram::max() const {
  return extreme(1);
}
Extreme Diagram::min() const {
  return extreme(-1);
}

Quantity Diagram::largest() const {
  return {std::max(std::abs(max().value.si), std::abs(min().value.si)), dimension_};
}

Extreme Diagram::extreme(double sign) const {
  result::Best best;
  for (const Piece& p : pieces_) {
    const auto offer = [&](double s) { best.offer(p.from + s, sign * result::value(p.powers, s)); };
    offer(0);
    for (const double s : result::sign_changes(result::derivative(p.powers), p.to - p.from)) offer(s);
    offer(p.to - p.from);
  }
  const result::Candidate found = best.take(noise_);
  return {Quantity(sign * found.value, dimension_), Length::si(found.at)};
}

}  // namespace corvex
