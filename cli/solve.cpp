#include "solve.hpp"

#include <fmt/format.h>

#include "corvex/file.hpp"
#include "hand_table.hpp"
#include "solve_page.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

Page verify_page(const Model& model, const Verification& hand, const Style& style) {
  Page page{Heading{model.structure.title()}};
  add_hand(page, hand, model.units, style.width);
  return page;
}

}  // namespace

int solve(const SolveOptions& o, bool hand_only) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  if (o.stations > 0 && *form != Form::json) return refuse("--stations is for JSON: add --json");
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
  // A page for people has the notes in it; what is for other programs is whole.
  const bool for_people = o.output.csv_folder.empty() && (*form == Form::table || *form == Form::markdown);
  Wanted wanted = o.wanted;
  wanted.all = wanted.all || !for_people;
  const auto shown = select(solution, wanted);
  if (!shown) return refuse(shown.error());

  progress.doing("working out forces and stresses");
  std::string json;
  Page page;
  if (*form == Form::json) {
    const JsonOptions options{.stations = o.stations, .hand = *hand, .limits = *limits, .units = model.units};
    json = hand_only ? verification_json(solution, options) : results_json(solution, options);
  } else if (hand_only) {
    page = verify_page(model, *hand, style_of(o.output));
  } else {
    page = solve_page(model, solution, *hand, *limits, *shown, style_of(o.output));
  }
  progress.done();

  if (hand_only || !for_people)
    for (const Problems* notes : {&model.notes, &solution.notes(), &limits->notes})
      for (const Problem& p : model.located(*notes)) tell(p);
  const int status =
      *form == Form::json ? put_text(json, o.output) : put_page(page, model.structure.title(), *form, o.output);
  if (status != 0) return status;
  return hand->all_kept() && limits->all_kept() ? 0 : limit_not_met;
}

}  // namespace corvex::cli
