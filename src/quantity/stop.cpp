#include "corvex/stop.hpp"

#include <utility>

namespace corvex {
namespace {

thread_local const StopScope* innermost = nullptr;

}  // namespace

const char* Stopped::what() const noexcept {
  return "corvex: stopped as requested";
}

StopScope::StopScope(std::stop_token token) : token_(std::move(token)), outer_(innermost) {
  innermost = this;
}

StopScope::~StopScope() {
  innermost = outer_;
}

std::stop_token StopScope::current() {
  return innermost ? innermost->token_ : std::stop_token();
}

void StopScope::check() {
  if (innermost && innermost->token_.stop_requested()) throw Stopped();
}

}  // namespace corvex
