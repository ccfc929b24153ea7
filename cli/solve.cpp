#include "solve.hpp"

#include <fmt/format.h>

#include "corvex/file.hpp"
#include "hand_table.hpp"
#include "limits_table.hpp"
#include "number.hpp"
#include "solve_page.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

Page verify_page(const Model& model, const Verification& hand, const Style& style) {
  Page page{Heading{model.structure.title()}};
  add_hand(page, hand, model.units, style.width);
  return page;
}

// What makes the exit status 1, told even where the tables do not show it.
void tell_failures(const LimitCheck& limits, const Verification& hand, const ModelUnits& units) {
  for (const Verdict& v : limits.verdicts)
    if (v.state != Verdict::State::met) tell_failure(verdict_in_words(v, units));
  for (const Comparison& c : hand.comparisons)
    if (!c.agrees) tell_failure(comparison_in_words(c, units));
}

}  // namespace

int solve(SolveOptions o, bool hand_only) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  const bool json = *form == Form::json;
  if (o.places > 0 && !json) return refuse("--places is for JSON: add --json");
  const bool chosen = o.wanted.all || !o.wanted.cases.empty() || !o.wanted.members.empty() || !o.wanted.points.empty();
  if (json && chosen)
    return refuse("JSON holds every case, member and point: leave out --case, --member, --point, --all");
  Progress progress;
  // The line of progress makes room for what is said.
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  auto solved = read_and_solve(o.model, o.output, progress);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  if (hand_only && model.hand.expect.empty())
    return refuse(std::string("the model has nothing to verify: write what you worked out under hand: expect:"));
  progress.doing("working out limits and the hand calculation");
  const auto hand = verify(solution, model.hand);
  if (!hand) return refuse(model.located(hand.error()));
  const auto limits = check_limits(solution, hand_only ? Limits{} : model.limits);
  if (!limits) return refuse(model.located(limits.error()));
  // What is for other programs is whole.
  Wanted wanted = o.wanted;
  wanted.all = wanted.all || !o.output.csv_folder.empty() || (*form != Form::table && *form != Form::markdown);
  const auto shown = select(solution, wanted);
  if (!shown) return refuse(shown.error());

  progress.doing("working out forces and stresses");
  const Problems findings = findings_of(model, solution, *limits, !hand_only);
  std::string json_text;
  Page page;
  if (json) {
    const JsonOptions options{
        .places = o.places, .hand = *hand, .limits = *limits, .findings = findings, .units = model.units};
    json_text = hand_only ? verification_json(solution, options) : results_json(solution, options);
  } else if (hand_only) {
    page = verify_page(model, *hand, style_of(o.output));
  } else {
    page = solve_page(model, solution, *hand, *limits, *shown, style_of(o.output));
  }
  progress.done();

  for (const Problem& p : findings) tell(p);
  const int status = json ? put_text(json_text, o.output) : put_page(page, model.structure.title(), *form, o.output);
  if (status != 0) return status;
  if (hand->all_agree() && limits->all_met()) return 0;
  tell_failures(*limits, *hand, model.units);
  return limit_not_met;
}

}  // namespace corvex::cli
