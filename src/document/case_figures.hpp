// One case made ready for tables: what is large in it, what is only rounding, and what comes first.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/figures.hpp"
#include "corvex/file.hpp"
#include "corvex/page.hpp"
#include "format/sizes.hpp"

namespace corvex::document {

using format::clean;
using format::Sizes;

// Distance along a member, and the point at that place.
Cell place_cell(const Structure& s, const Member& m, Length at, const NamedUnit& unit);

bool is_internal_force(const MemberFigure& f);
// Those that the member can have.
std::vector<MemberFigure> internal_forces(const Structure& s, const Member& m);

class CaseFigures {
 public:
  struct Stresses {
    std::optional<StressExtreme> tension, compression, mises;
  };

  CaseFigures(const ModelUnits& units, const Solution& solution, std::size_t index);

  const Structure& structure() const { return s_; }
  const ModelUnits& units() const { return u_; }
  const CaseResult& result() const { return case_; }
  const Sizes& sizes() const { return sizes_; }
  const MemberResult& member(std::size_t i) const { return members_[i]; }
  // Found once: they take the most time of all.
  const Stresses& stresses(std::size_t i) const { return stresses_[i]; }

  // In order of utilisation, then of stress, then of force.
  std::vector<std::size_t> members_by_use() const;
  // Those that move most first.
  std::vector<std::size_t> points_by_movement() const;

  // How near the worst of it is to its limit: the largest share of a strength, or the largest stress in Pa.
  std::pair<double, double> use() const;
  double largest_displacement() const { return most_.value.si; }
  // "safety 2.68 of rail at C"; the stress if no strength is known; empty if there is no stress.
  std::string governing_words(int digits) const;
  std::string movement_words(int digits) const;
  // "moves 2.778 mm down at C; worst stress 74.13 MPa in rail at 1.2 m (safety 3.17); reactions balance"
  Line summary(int digits) const;
  // The same as figures, for data.
  std::vector<Cell> summary_row() const;

 private:
  std::string place_words(const MemberResult& m, Length at, int digits) const;
  std::string component_words(const Vector& v, int digits) const;

  const Structure& s_;
  const ModelUnits& u_;
  CaseResult case_;
  std::vector<MemberResult> members_;
  std::vector<Stresses> stresses_;
  Sizes sizes_;
  Extreme most_{};
  std::size_t most_member_ = 0;
  std::optional<StressExtreme> worst_stress_;
  std::size_t worst_member_ = 0;
};

// The columns of summary_row.
std::vector<Column> summary_columns(const ModelUnits& units);

}  // namespace corvex::document
