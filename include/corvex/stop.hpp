// Corvex: ending long work early.
//
// Reading, solving and everything asked of a solution look now and then whether they are to stop. They do so on the
// thread of the scope, and on threads that they start themselves:
//
//     std::stop_source stop;
//     const corvex::StopScope scope(stop.get_token());
//     stop.request_stop();
//     try {
//       const corvex::Solution solution = corvex::solve(trestle);
//     } catch (const corvex::Stopped&) {
//       fmt::print("stopped\n");   // stopped
//     }
//
// A stop is not immediate: one factorisation of a large structure is finished first.
#pragma once

#include <exception>
#include <stop_token>

#pragma GCC visibility push(default)

namespace corvex {

// Thrown by work that was asked to stop. Nothing of it is kept.
class Stopped : public std::exception {
 public:
  const char* what() const noexcept override;
};

// While it lives, work on its thread stops when the token says so. Scopes may lie within each other: the innermost
// counts. A scope belongs to the thread that made it.
class StopScope {
 public:
  explicit StopScope(std::stop_token token);
  ~StopScope();
  StopScope(const StopScope&) = delete;
  StopScope& operator=(const StopScope&) = delete;

  // That of the innermost scope of this thread; one that never stops where there is none.
  static std::stop_token current();
  // Throws Stopped where current() says so.
  static void check();

 private:
  std::stop_token token_;
  const StopScope* outer_;
};

// Throws Stopped where the innermost scope of this thread says so. Costs a few nanoseconds.
inline void stop_point() {
  StopScope::check();
}

}  // namespace corvex

#pragma GCC visibility pop
