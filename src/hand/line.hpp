// Lines of a derivation as they are put together: sums of products, whose parts are numbers with names.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "corvex/derive.hpp"

namespace corvex::hand {

// A text with numbers in it.
class Line {
 public:
  Line& say(std::string_view text) {
    line_.text += text;
    return *this;
  }
  // A number, represented in the text by this name until it is written.
  Line& put(double value, const Dimension& dimension, std::string_view name = "#") {
    line_.uses.push_back({line_.text.size(), name.size(), Quantity(value, dimension)});
    line_.text += name;
    return *this;
  }
  WorkedFormula take() { return std::move(line_); }

 private:
  WorkedFormula line_;
};
inline WorkedFormula sentence(std::string text) {
  return {std::move(text), {}};
}

// A factor of a product. Without a name it is a number everywhere; with one, equations show the name.
struct Factor {
  std::string name{};
  double value = 0;
  Dimension dimension{};
  bool divides = false;
};
struct Product {
  double sign = 1;
  std::vector<Factor> parts{};

  double value() const;
};
using Sum = std::vector<Product>;
double value(const Sum& sum);

// A number as a product: of its size, with its sign. 1 has no part.
Product number_of(double value, const Dimension& dimension = dimension::number);
Product times(Product a, const Product& b);

// Writes names where there are some, or the numbers alone.
enum class Show { names, numbers };
void write(Line& line, const Sum& sum, Show show, bool first = true);
// In brackets where it has several terms.
void write_factor(Line& line, const Sum& sum, Show show);

}  // namespace corvex::hand
