// Corvex: a value, or the reason why there is none. (The standard's own comes with C++23.)
//
//     const corvex::Expected<double, std::string> half = 0.5;
//     if (half) fmt::print("{}\n", *half);   // 0.5
//     const corvex::Expected<double, std::string> none = std::string("no number");
//     if (!none) fmt::print("{}\n", none.error());   // no number
#pragma once

#include <utility>
#include <variant>

#pragma GCC visibility push(default)

namespace corvex {

template <class Value, class Error>
class [[nodiscard]] Expected {
 public:
  Expected(Value value) : content_(std::in_place_index<0>, std::move(value)) {}  // NOLINT: meant to convert
  Expected(Error error) : content_(std::in_place_index<1>, std::move(error)) {}  // NOLINT: meant to convert

  bool ok() const { return content_.index() == 0; }
  explicit operator bool() const { return ok(); }
  // Asking for the one that is not there throws std::bad_variant_access: a slip in the calling code.
  const Value& value() const& { return std::get<0>(content_); }
  Value& value() & { return std::get<0>(content_); }
  // Of a temporary by value, moved out of it: nothing is left that could dangle.
  Value value() && { return std::get<0>(std::move(content_)); }
  const Error& error() const& { return std::get<1>(content_); }
  Error error() && { return std::get<1>(std::move(content_)); }
  const Value& operator*() const& { return value(); }
  Value& operator*() & { return value(); }
  Value operator*() && { return std::move(*this).value(); }
  const Value* operator->() const { return &value(); }
  Value* operator->() { return &value(); }

 private:
  std::variant<Value, Error> content_;
};

}  // namespace corvex

#pragma GCC visibility pop
