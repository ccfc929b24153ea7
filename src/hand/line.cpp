#include "hand/line.hpp"

#include <cmath>

namespace corvex::hand {

double Product::value() const {
  double v = sign;
  for (const Factor& p : parts) v = p.divides ? v / p.value : v * p.value;
  return v;
}

double value(const Sum& sum) {
  double v = 0;
  for (const Product& p : sum) v += p.value();
  return v;
}

Product number_of(double value, const Dimension& dimension) {
  Product p{.sign = value < 0 ? -1.0 : 1.0};
  if (std::abs(value) != 1 || !dimension.none()) p.parts.push_back({{}, std::abs(value), dimension});
  return p;
}

Product times(Product a, const Product& b) {
  a.sign *= b.sign;
  a.parts.insert(a.parts.end(), b.parts.begin(), b.parts.end());
  return a;
}

namespace {

void write(Line& line, const Product& product, Show show) {
  bool first = true;
  for (const Factor& p : product.parts) {
    if (!first) line.say(p.divides ? "/" : "·");
    if (first && p.divides) line.say("1/");
    first = false;
    if (!p.name.empty() && show == Show::names)
      line.say(p.name);
    else
      line.put(show == Show::names ? p.value : std::abs(p.value), p.dimension, p.name.empty() ? "#" : p.name);
  }
  if (first) line.say("1");
}

}  // namespace

void write(Line& line, const Sum& sum, Show show, bool first) {
  for (const Product& p : sum) {
    // Of numbers the sign of the whole product stands before it.
    const bool minus = (show == Show::names ? p.sign : p.value()) < 0;
    line.say(first ? (minus ? "-" : "") : (minus ? " - " : " + "));
    first = false;
    write(line, p, show);
  }
  if (first) line.say("0");
}

void write_factor(Line& line, const Sum& sum, Show show) {
  if (sum.size() < 2) return write(line, sum, show);
  line.say("(");
  write(line, sum, show);
  line.say(")");
}

}  // namespace corvex::hand
