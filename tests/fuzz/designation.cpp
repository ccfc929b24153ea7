// Designations of profiles and names of materials.
#include <corvex/catalogue.hpp>
#include <corvex/material.hpp>
#include <cstdint>

using namespace corvex;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string text(reinterpret_cast<const char*>(data), size);
  const auto found = profile(text);
  if (found && !check(found->section.shape()).empty()) __builtin_trap();
  static_cast<void>(find_material(text));
  return 0;
}
