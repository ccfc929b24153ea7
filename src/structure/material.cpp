#include "corvex/material.hpp"

#include <array>
#include <stdexcept>
#include <utility>

#include "corvex/formula.hpp"

namespace corvex {
namespace {

using namespace literals;

constexpr std::array<std::pair<std::string_view, Stress>, 3> structural_steels = {
    {{"S235", 235_MPa}, {"S275", 275_MPa}, {"S355", 355_MPa}}};

}  // namespace

std::optional<Material> find_material(std::string_view name) {
  for (const auto& [grade, yield] : structural_steels) {
    if (grade != name) continue;
    Material steel;
    steel.name = grade;
    steel.E = 210_GPa;
    steel.density = 7850_kg_m3;
    steel.expansion = Expansion::si(12e-6);
    steel.yield = yield;
    return steel;
  }
  return std::nullopt;
}

std::vector<std::string> material_names() {
  std::vector<std::string> names;
  for (const auto& steel : structural_steels) names.emplace_back(steel.first);
  return names;
}

Material material(std::string_view name) {
  if (auto found = find_material(name)) return *found;
  throw std::invalid_argument("corvex: no material '" + std::string(name) + "'" + did_you_mean(name, material_names()));
}

}  // namespace corvex
