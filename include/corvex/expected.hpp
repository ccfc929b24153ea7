// Corvex: a value, or the reason why there is none. (The standard's own comes with C++23.)
//
//     const corvex::Expected<double, std::string> half = 0.5;
//     if (half) fmt::print("{}\n", *half);   // 0.5
//     const corvex::Expected<double, std::string> none = std::string("no number");
//     if (!none) fmt::print("{}\n", none.error());   // no number
#pragma once

#include <utility>
#include <variant>

namespace corvex {

template <class Value, class Error>
class Expected {
 public:
  Expected(Value value) : content_(std::in_place_index<0>, std::move(value)) {}  // NOLINT: meant to convert
  Expected(Error error) : content_(std::in_place_index<1>, std::move(error)) {}  // NOLINT: meant to convert

  bool ok() const { return content_.index() == 0; }
  explicit operator bool() const { return ok(); }
  // Asking for the one that is not there throws std::bad_variant_access: a slip in the calling code.
  const Value& value() const { return std::get<0>(content_); }
  Value& value() { return std::get<0>(content_); }
  const Error& error() const { return std::get<1>(content_); }
  const Value& operator*() const { return value(); }
  const Value* operator->() const { return &value(); }

 private:
  std::variant<Value, Error> content_;
};

}  // namespace corvex
