// Corvex: results as pages of tables, as the program prints them. (Target corvex::documents.)
//
//     const corvex::document::Page page = corvex::document::results_page({.solution = solution});
//     const std::string text = corvex::document::page_text(page, {.width = 100});
//     for (const corvex::document::DataTable& table : corvex::document::data_tables(page))
//       if (table.name == "reactions") fmt::print("{} rows\n", table.rows.size());   // 2 rows
//     const std::string markdown = corvex::document::page_markdown(page, 4);
//
// `write_spreadsheet` makes an .xlsx file of the tables. Units are those that are given; signs are explained at the end
// of a page. All calls may be made from several threads.
#pragma once

#include <string>
#include <vector>

#include "corvex/derive.hpp"
#include "corvex/evaluation.hpp"
#include "corvex/file.hpp"
#include "corvex/page.hpp"
#include "corvex/trace.hpp"

#pragma GCC visibility push(default)

namespace corvex::document {

// How the reader asks for what a shortened table leaves out, for example {.all = "--all", .member = "--member NAME"}:
// it is printed below the table. Nothing where empty.
struct Requests {
  std::string all{}, load_case{}, member{}, point{};
};

struct Selection {
  std::vector<std::size_t> cases;
  // Whether members (points) are shown at all, and which.
  std::vector<bool> members, points;
  bool some_members = true, some_points = true;
  // Nothing was chosen by name: the limits, sums and hand calculation are shown too.
  bool whole = true;
  // Tables whole and in the order of the model; else short, what governs first.
  bool all = false;
  // The envelope alone, of all assessed cases.
  bool only_envelope = false;
  // Additional tables: the model as it was read, the forces at the ends of members, stress by face.
  bool model = false, ends = false, faces = false;
  Requests requests{};
};

// Requested by name.
struct Choice {
  std::vector<std::string> cases{}, members{}, points{};
  bool all = false;
  // The envelope alone, of all assessed cases.
  bool only_envelope = false;
  // Additional tables: the model as it was read, the forces at the ends of members, stress by face.
  bool model = false, ends = false, faces = false;
  Requests requests{};
};

// All assessed cases if nothing is named; members alone, or points alone, omit the other tables. A name stands
// for a whole family too. The reason where a name is not known.
Expected<Selection, std::string> select(const Solution& solution, const Choice& choice);

// Results as an engineer likes to read them; the hand calculation at the end, where there is one.
Page solve_page(const ModelUnits& units, const Evaluation& evaluation, const Selection& shown, const Style& style);

// How signs and places are counted in the tables.
Words sign_rules(const Structure& structure);
// One line for each of these cases, in order of utilisation; if there are several, preceded by the governing values.
std::vector<Words> summaries_of(const ModelUnits& units, const Solution& solution,
                                const std::vector<std::size_t>& cases, bool all, int digits);
// Of one case: reactions with their balance, displacements, bars, internal forces, stresses.
std::vector<Table> tables_of_case(const ModelUnits& units, const Solution& solution, std::size_t index,
                                  const Selection& selection);
// Over all assessed cases: internal forces, stresses, displacements, reactions, each with the case that governs.
std::vector<Table> tables_of_envelope(const ModelUnits& units, const Solution& solution, const Selection& selection);

// The model as it was read: members with lengths, sections, materials and local axes, supports, sums of loads, parts.
void add_model(Page& page, const ModelUnits& units, const Structure& structure);

// Its parts: points with coordinates and masses; members; materials and sections that members have, with their figures;
// supports; the loads of one case, one by one, with components along the global axes; combinations; sums of the loads
// with their lines of action; length and mass by section.
Table points_table(const ModelUnits& units, const Structure& structure);
Table members_table(const ModelUnits& units, const Structure& structure);
Table materials_table(const ModelUnits& units, const Structure& structure);
Table sections_table(const ModelUnits& units, const Structure& structure);
Table supports_table(const ModelUnits& units, const Structure& structure);
// Without rows where there is none.
Table bracing_table(const Structure& structure);
Table loads_table(const ModelUnits& units, const Structure& structure, std::size_t load_case);
Table combinations_table(const Structure& structure);
Table load_sums_table(const ModelUnits& units, const Structure& structure);
Table parts_table(const ModelUnits& units, const Structure& structure);

// How equilibrium is set up where that is not the structure as described, as "second order, sway 1/200 toward x"; empty
// at first order.
std::string analysis_words(const AnalysisOptions& analysis);

// The title, and notes that should be read before the figures.
void add_head(Page& page, const ModelUnits& units, const Structure& structure, int digits);

// Everything found in the model without results, with lines; what is accepted comes last.
Inspection inspection_of(const Model& model);
// "2 errors, 1 warning, 3 notes, 1 accepted", or that there are none.
std::string findings_in_words(const Problems& findings);
// One row a finding, with its sentence and its remedy beneath.
Table findings_table(const Problems& findings);
// The findings, then the model as it was read.
Page inspection_page(const ModelUnits& units, const Structure& structure, const Inspection& inspection, int digits);

// The results alone, of all assessed cases, without a hand calculation. `all`: whole tables of every case, which the
// tables for other programs are made of; else what governs first, and short.
Page results_page(const Evaluation& evaluation, const ModelUnits& units = {}, bool all = false);

// Structures side by side: worst figures, verdicts, and the change against the first.
Page comparison_page(const std::string& title, const ModelUnits& units, const std::vector<Compared>& all,
                     const std::vector<ShownFigure>& show, int digits);

// The runs of a sweep: what was varied, the figures, whether the limits are met. `units`: of what has no unit of its
// own.
Page sweep_page(const std::string& title, const ModelUnits& units, const Sweep& sweep,
                const std::vector<SweepRun>& runs);

// The lightest sections and the runners-up.
Page choice_page(const std::string& title, const ModelUnits& units, const SectionChoice& choice,
                 const std::vector<ChoiceGroup>& groups);

// The limits with a verdict for each: what is not met first, then of each limit the worst that is met; or all.
Table limits_table(const LimitCheck& check, const ModelUnits& units, int digits, bool all);
// One row for each limit, at its highest utilisation; those that are not met first.
Table utilisation_table(const LimitCheck& check, const ModelUnits& units, int digits);
// Every verdict, for other programs.
Table limits_data(const LimitCheck& check, const ModelUnits& units);

// "limit exceeded: safety of rail in service: 0.648, at least 1.5 is required"
std::string verdict_in_words(const Verdict& verdict, const ModelUnits& units);

// The hand calculation next to the computed values, with its formulas broken to fit a terminal of that many columns (0:
// a page), and the values of `let` that it uses.
void add_hand(Page& page, const Verification& hand, const ModelUnits& units, std::size_t terminal);

// "hand value differs: reaction A y in product: 1.5 kN by hand, 0.75 kN computed"
std::string comparison_in_words(const Comparison& comparison, const ModelUnits& units);

// A derivation (derive.hpp) line by line, both calculations side by side at the end. `brief`: the result of each step
// only.
Page derivation_page(const Derivation& derivation, const std::vector<BothWays>& both, const ModelUnits& units,
                     int digits, bool brief);
// A derivation as a table whose last column names the rule used; and derived beside computed values.
Table derived_table(const DerivationTable& table, const ModelUnits& units, int digits);
Table both_ways_table(const std::vector<BothWays>& both, const ModelUnits& units);

// Natural frequencies and critical load factors, with a description of each mode.
Page modes_page(const Structure& structure, const Modes& modes, const ModelUnits& units);

// Places of a member in lines, what is asked of them in columns.
Table trace_table(const Structure& s, const MemberResult& m, const std::vector<TracePlace>& places, const ModelUnits& u,
                  const std::string& load_case);
// Of each figure the largest and least value over the assessed cases, and the governing case.
Table trace_envelope_table(const Solution& solution, MemberId member, const std::vector<TracePlace>& places,
                           const ModelUnits& u);

// Every figure of one section, under both naming habits of the axes.
void add_profile(Page& page, const Profile& profile, const CatalogueFormat& format, int digits);
// One line each.
Page profile_list(const std::vector<Profile>& profiles, const CatalogueFormat& format);
// All there is: series and materials.
Page contents_page(const std::vector<Material>& materials);
Page materials_page(const std::vector<Material>& materials);

}  // namespace corvex::document

#pragma GCC visibility pop
