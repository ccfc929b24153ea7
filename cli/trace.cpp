#include "trace.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "corvex/number.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

// A point of the member, a share of its length or a length; an empty answer means success.
std::string place(const Structure& s, const Member& m, const ModelUnits& units, const std::string& text, Length& at) {
  const double L = s.length_of(m);
  for (std::size_t k = 0; k < m.through.size(); ++k)
    if (s[m.through[k]].name == text) return at = Length::si(s.place_of(m, k)), "";
  const auto e = evaluate(text, Scope());
  if (!e) return fmt::format("--at '{}': {}", text, e.error().text);
  const Quantity& q = e->quantity;
  if (q.dimension.none() && e->percent)
    at = Length::si(q.si * L);
  else if (q.dimension.none())
    at = Length::si(q.si * units.length.si);
  else if (q.dimension == dimension::length)
    at = Length::si(q.si);
  else
    return fmt::format("--at '{}' is {}; a place was expected: a length, a share as '50 %', or a point of {}", text,
                       name(q.dimension), m.name);
  if (at.si() >= -1e-9 * L && at.si() <= L * (1 + 1e-9)) return {};
  return fmt::format("--at '{}' is not on {}, which is {} {} long", text, m.name, short_number(L / units.length.si, 6),
                     units.length.text);
}

// Those that are asked for, from the start of the member on; where nothing is asked for, the extremes. `of` is a member
// of one case, or a solution and a member.
template <class... Of>
std::vector<TracePlace> places(const MemberResult& any, const std::vector<Length>& at, int steps, const Of&... of) {
  std::vector<TracePlace> all = steps > 0 ? even_places(any, steps) : std::vector<TracePlace>{};
  for (const Length x : at)
    for (TracePlace& p : places_at(of..., x)) all.push_back(std::move(p));
  if (all.empty()) all = extreme_places(of...);
  std::stable_sort(all.begin(), all.end(), [](const TracePlace& a, const TracePlace& b) { return a.at < b.at; });
  return all;
}

}  // namespace

int trace(TraceOptions o) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  Progress progress;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  const auto solved = read_and_solve(o.model, o.output, progress);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  const Structure& s = model.structure;
  const bool only_envelope = o.load_case == "envelope";
  Choice wanted{.members = {o.member}};
  if (!o.load_case.empty() && !only_envelope) wanted.cases = {o.load_case};
  const auto shown = select(solution, wanted);
  if (!shown) return refuse(shown.error());
  const auto id = s.find_member(o.member);
  if (!id)
    return refuse(fmt::format("'{0}' is a family of members; one of them was expected, for example '{0}.1'", o.member));
  const std::vector<std::size_t>& cases = shown->cases;
  if (*form == Form::json && cases.size() > 1 && !only_envelope)
    return refuse(
        fmt::format("with --json name one, for example --case '{}' or --case envelope", solution[cases[0]].name()));
  std::vector<Length> at;
  for (const std::string& text : o.at)
    if (const std::string why = place(s, s[*id], model.units, text, at.emplace_back()); !why.empty())
      return refuse(why);
  progress.done();
  for (const Problems* notes : {&model.notes, &solution.notes()})
    for (const Problem& p : model.located(*notes)) tell(p);

  const ModelUnits& u = model.units;
  const Style style = style_of(o.output);
  Page page{Heading{s.title()},
            Words{{{"", fmt::format("{}, {} {} long", o.member,
                                    short_number(s.length_of(s[*id]) / u.length.si, style.digits), u.length.text)}}}};
  std::string json;
  for (const std::size_t c : cases) {
    if (only_envelope) break;
    const MemberResult m = solution[c][*id];
    const std::vector<TracePlace> along = places(m, at, o.steps, m);
    if (*form == Form::json) json = trace_json(solution, m, solution[c].name(), along);
    page.emplace_back(Heading{solution[c].name(), 2});
    page.emplace_back(trace_table(s, m, along, u, solution[c].name()));
  }
  if (only_envelope || cases.size() > 1) {
    const std::vector<TracePlace> along = places(solution[cases.front()][*id], at, o.steps, solution, *id);
    if (*form == Form::json) json = trace_json(solution, *id, along);
    page.emplace_back(Heading{"envelope", 2});
    page.emplace_back(trace_envelope_table(solution, *id, along, u));
  }
  return *form == Form::json ? put_text(json, o.output) : put_page(page, s.title(), *form, o.output);
}

namespace {

Run add_trace_options(CLI::App& app) {
  const auto options = std::make_shared<TraceOptions>();
  TraceOptions& o = *options;
  add_model_options(app, o.model);
  app.add_option("MEMBER", o.member, "Name of the member")->required();
  app.add_option(
         "--at", o.at,
         "Print these places: lengths from the start, shares ('50 %') or points of the member; if not given, the places "
         "of extremes, zeros and loads")
      ->type_name("PLACE")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_option("--steps", o.steps, "Print this number of evenly spaced places from end to end")
      ->check(between(2, 100000))
      ->type_name("N");
  app.add_option(
         "--case", o.load_case,
         "Print this load case or combination, or \"envelope\"; all that `solve` shows and their envelope if not given")
      ->type_name("CASE");
  add_output_options(app, o.output);
  return run_with(options, trace);
}

}  // namespace

extern const Command trace_command{
    .name = "trace",
    .group = "Solve",
    .description = "Print all results of one member from place to place",
    .details =
        "Places are those where a result is largest or least, or those that are asked for; at a jump both sides are printed.",
    .add_options = add_trace_options};

}  // namespace corvex::cli
