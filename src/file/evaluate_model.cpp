// A model of a file, evaluated: problems and findings have the lines where they stand.
#include "corvex/file.hpp"

namespace corvex {

EvaluationOptions evaluation_options(const Model& model) {
  return {.limits = model.limits, .hand = model.hand, .acceptances = model.acceptances, .notes = model.notes};
}

Evaluation evaluate(const Model& model) {
  return evaluate(model, solve(model.structure));
}

Evaluation evaluate(const Model& model, Solution solution) {
  return evaluate(model, std::move(solution), evaluation_options(model));
}

Evaluation evaluate(const Model& model, Solution solution, const EvaluationOptions& options) {
  Evaluation e = evaluate(std::move(solution), options);
  e.refused_hand = model.located(std::move(e.refused_hand));
  e.refused_limits = model.located(std::move(e.refused_limits));
  e.findings = model.located(std::move(e.findings));
  return e;
}

}  // namespace corvex
