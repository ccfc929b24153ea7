// Numbers as text: correctly rounded, the same in the program and on the page.
#include "corvex/number.hpp"

#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>
#include <string>

namespace tests_of_quantity_number {

using corvex::number;
using corvex::short_number;

namespace {

// Digits and exponent of a value, from the exact decimal expansion that the C library gives, rounded by hand.
struct Decimal {
  std::string digits;
  int exponent;
};

Decimal rounded_by_hand(double value, int digits) {
  char text[1200];
  std::snprintf(text, sizeof text, "%.1080e", std::abs(value));  // every double ends before
  Decimal d{std::string(1, text[0]) + std::string(text + 2, 1080), std::atoi(std::strchr(text, 'e') + 1)};
  const bool up = d.digits[static_cast<std::size_t>(digits)] >= '5';
  d.digits.resize(static_cast<std::size_t>(digits));
  if (!up) return d;
  for (std::size_t i = d.digits.size(); i-- > 0;) {
    if (d.digits[i] != '9') {
      ++d.digits[i];
      return d;
    }
    d.digits[i] = '0';
  }
  d.digits = "1" + d.digits.substr(0, d.digits.size() - 1);
  ++d.exponent;
  return d;
}

// Reads what `number` wrote.
Decimal read(const std::string& text) {
  Decimal d{{}, 0};
  const std::size_t power = text.find('e');
  const std::string plain = text.substr(0, power);
  const std::size_t point = std::min(plain.find('.'), plain.size());
  for (const char c : plain)
    if (c >= '0' && c <= '9') d.digits += c;
  const std::size_t zeros = d.digits.find_first_not_of('0');
  d.exponent = static_cast<int>(point) - (plain.front() == '-') - 1 - static_cast<int>(zeros);
  d.digits.erase(0, zeros);
  if (power != std::string::npos) d.exponent += std::atoi(text.c_str() + power + 1);
  return d;
}

struct Sample {
  double value;
  int digits;
};

std::vector<Sample> samples() {
  std::vector<Sample> all;
  std::mt19937_64 random(17);
  for (int i = 0; i < 100'000; ++i) {
    const double mantissa = 1 + 9 * std::generate_canonical<double, 53>(random);
    double value = (random() % 2 ? 1 : -1) * mantissa * std::pow(10, static_cast<int>(random() % 31) - 15);
    // Among them multiples of powers of two, which are ties of few digits.
    if (random() % 4 == 0) value = static_cast<double>(random() % 20'000) / static_cast<double>(1 << random() % 12);
    all.push_back({value, 1 + static_cast<int>(random() % 15)});
  }
  return all;
}

}  // namespace

TEST_CASE("Numbers are rounded correctly, at 1 to 15 digits") {
  for (const auto& [value, digits] : samples()) {
    const std::string text = number(value, digits);
    INFO(fmt::format("{:.17g} at {} digits: {}", value, digits, text));
    if (value == 0) {
      CHECK(text == "0");
      continue;
    }
    const Decimal exact = rounded_by_hand(value, digits), told = read(text);
    // Whole numbers have zeros at their end that are not among the digits.
    const std::string head = told.digits.substr(0, exact.digits.size());
    CHECK((head == exact.digits && told.digits.find_first_not_of('0', head.size()) == std::string::npos));
    CHECK(told.exponent == exact.exponent);
    CHECK((text.front() == '-') == (value < 0));
  }
}

TEST_CASE("Numbers have the form that is stated") {
  CHECK(number(1312.5, 4) == "1313");
  CHECK(number(1312.499999999999, 4) == "1313");  // a tie but for round-off
  CHECK(number(1312.49999, 4) == "1312");
  CHECK(number(1.3125, 4) == "1.313");
  CHECK(number(-1.3125, 4) == "-1.313");
  CHECK(number(0.25, 1) == "0.3");
  CHECK(number(1, 14) == "1.0000000000000");
  CHECK(number(2, 15) == "2.00000000000000");
  CHECK(number(9.9996, 4) == "10.00");
  CHECK(number(123456, 3) == "123000");
  CHECK(number(9.99e9, 2) == "1.0e+10");
  CHECK(number(1.5e-5, 2) == "1.5e-05");
  CHECK(number(0.00012, 3) == "0.000120");
  CHECK(number(0, 4) == "0");
  CHECK(number(-0.0, 4) == "0");
  CHECK(number(INFINITY, 4) == "–");
  CHECK(number(1.7976931348623157e308, 4) == "1.798e+308");
  CHECK(number(5e-324, 3) == "4.94e-324");
  CHECK(short_number(2.5, 4) == "2.5");
  CHECK(short_number(2000, 4) == "2000");
  CHECK(short_number(2e12, 4) == "2e+12");
  CHECK(short_number(2.5e12, 4) == "2.5e+12");
  for (const int digits : {0, -1, 16, 1000}) {
    CHECK_THROWS_AS(number(1, digits), std::invalid_argument);
    CHECK_THROWS_AS(short_number(1, digits), std::invalid_argument);
  }
}

TEST_CASE("The page writes numbers as the program does") {
  if (std::system("node --version > /dev/null 2>&1") != 0) {
    WARN("not tested: there is no node");
    return;
  }
  const std::filesystem::path file =
      std::filesystem::temp_directory_path() / fmt::format("corvex-numbers-{}", std::random_device()());
  std::vector<Sample> all = samples();
  all.push_back({0, 4}), all.push_back({1312.499999999999, 4}), all.push_back({1.7976931348623157e308, 4});
  std::ofstream out(file);
  for (const auto& [value, digits] : all)
    out << fmt::format("{}\t{}\t{}\t{}\n", value, digits, number(value, digits), short_number(value, digits));
  out.close();
  const std::string script = fmt::format(
      "import {{number, shortNumber}} from '{}/src/view/page/format.js'; import fs from 'fs'; let n = 0;"
      "for (const line of fs.readFileSync('{}', 'utf8').split('\\n')) {{ if (!line) continue;"
      "  const [v, d, a, b] = line.split('\\t'); ++n;"
      "  if (number(Number(v), Number(d)) !== a || shortNumber(Number(v), Number(d)) !== b) {{"
      "    console.error(line, number(Number(v), Number(d)), shortNumber(Number(v), Number(d))); process.exit(1); }} }}"
      "process.exit(n === {} ? 0 : 2)",
      CORVEX_SOURCE, file.string(), all.size());
  CHECK(std::system(("node --input-type=module -e \"" + script + "\"").c_str()) == 0);
  std::filesystem::remove(file);
}

}  // namespace tests_of_quantity_number
