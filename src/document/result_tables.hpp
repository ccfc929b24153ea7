// The tables of solve: of one case, and of the envelope.
#pragma once

#include "corvex/document.hpp"
#include "document/case_figures.hpp"

namespace corvex::document {

// Which members and points, in which order, and how many of how many.
struct Rows {
  std::vector<std::size_t> shown;
  std::size_t all = 0;

  // "and 12 more members", with how they are asked for: `one` is the request for a single one.
  std::string rest(const char* what, const std::string& one, const Requests& requests) const;
};

Table reactions_table(const CaseFigures& c, const Selection& selection);
// For data: what is applied and what is reacted, which for people stand below the reactions.
Table steps_table(const CaseFigures& c);
Table balance_table(const CaseFigures& c);
Table movements_table(const CaseFigures& c, const Selection& selection);
Table inner_forces_table(const CaseFigures& c, const Selection& selection);
Table stress_table(const CaseFigures& c, const Selection& selection);
Table ends_table(const CaseFigures& c, const Selection& selection);
Table faces_table(const CaseFigures& c, const Selection& selection);
// Links in one row each: what a truss is checked by.
Table bars_table(const CaseFigures& c, const Selection& selection);
// The reactions of several cases: of each support a row a case.
Table reactions_by_case(const std::vector<CaseFigures>& cases, const Selection& selection);

// Over all assessed cases, with the governing case.
class EnvelopeTables {
 public:
  EnvelopeTables(const ModelUnits& units, const Solution& solution, const Selection& selection);

  Table inner_forces() const;
  Table stresses() const;
  Table movements() const;
  Table reactions() const;

 private:
  std::size_t largest_first(std::vector<std::size_t>& order, const std::vector<double>& size) const;

  const Structure& s_;
  const ModelUnits& u_;
  const Solution& solution_;
  const Selection& selection_;
  std::vector<MemberEnvelope> members_;
  Sizes sizes_;
  Rows rows_;  // of members, in order of utilisation
};

}  // namespace corvex::document
