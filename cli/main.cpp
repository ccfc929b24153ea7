// The program: arguments in, text out; no engineering.
#include <csignal>
#include <cstdio>
#include <exception>
#include <new>
#include <string>
#include <system_error>

#include "arguments.hpp"
#include "faults.hpp"
#include "memory.hpp"
#include "output.hpp"

namespace {

namespace cli = corvex::cli;

// Problems of the model are reported as such; these are the rest.
int guarded(int argc, char** argv) {
  try {
    return cli::run_arguments(argc, argv);
  } catch (const std::bad_alloc&) {
    std::fputs(cli::no_memory.data(), stderr);
  } catch (const std::system_error& e) {
    // No thread could be begun: no memory is left for its stack.
    if (e.code() == std::errc::resource_unavailable_try_again)
      std::fputs(cli::no_memory.data(), stderr);
    else
      cli::say("corvex: error: {}\n", std::string(e.what()));
  } catch (const std::exception& e) {
    cli::say("corvex: error: a fault of the program, not of the model: {}\n", std::string(e.what()));
  }
  return cli::refused;
}

}  // namespace

int main(int argc, char** argv) {
  // Beyond the largest size that a file may have, writing fails and the reason is reported.
  std::signal(SIGXFSZ, SIG_IGN);
  cli::report_faults();
  cli::keep_a_reserve();
  return cli::with_enough_stack([&] { return guarded(argc, argv); });
}
