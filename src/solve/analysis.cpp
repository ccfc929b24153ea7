#include "solve/analysis.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "solve/balance.hpp"
#include "solve/equilibrium.hpp"
#include "solve/kept.hpp"
#include "solve/load_checks.hpp"
#include "solve/mechanism.hpp"
#include "solve/memory.hpp"
#include "solve/spin.hpp"

namespace corvex::solver {
namespace {

bool refused(const Problems& problems) {
  return std::any_of(problems.begin(), problems.end(),
                     [](const Problem& p) { return p.severity == Problem::Severity::error; });
}

std::vector<std::pair<std::size_t, std::size_t>> ends_of(const Spans& spans) {
  std::vector<std::pair<std::size_t, std::size_t>> ends;
  ends.reserve(spans.all.size());
  for (const Span& s : spans.all) ends.emplace_back(s.a, s.b);
  return ends;
}

}  // namespace

bool Kept::fits(const Spans& spans, const Freedoms& f) const {
  return pattern && f.status == freedoms.status && ends_of(spans) == ends;
}

namespace {

class Run {
 public:
  Run(const Structure& s, Kept& kept) : s_(s), kept_(kept), K_(kept.K), factor_(kept.factor) {}

  Expected<Analysis, Problems> operator()() {
    Problems problems = s_.validate();
    if (refused(problems)) return problems;
    a_.spans = cut(s_);
    a_.freedoms = freedoms(s_, a_.spans);
    for (Problem& p : loads_without_hold(s_, a_.freedoms)) problems.push_back(std::move(p));
    for (Problem& p : rigid_motions(s_, a_.spans, a_.freedoms)) problems.push_back(std::move(p));
    if (refused(problems)) return problems;
    a_.elements = elements(s_, a_.spans);
    mark_idle_spins(s_, a_.spans, a_.elements, a_.freedoms);
    for (const LoadCase& loads : s_.load_cases())
      a_.cases.push_back(
          {SpanLoads(s_, a_.spans, loads), std::vector<Movement>(s_.points().size()), {}, resultant(s_, loads)});
    assemble();
    std::vector<Need> need = needs_at_rest(s_, a_);
    problems = solve_cases(need);
    if (refused(problems)) return problems;
    finish(need);
    problems = spinning_loads();
    if (refused(problems)) return problems;
    problems = imbalances(s_, a_);
    if (refused(problems)) return problems;
    a_.notes = notes(s_, a_);
    a_.notes.insert(a_.notes.end(), problems.begin(), problems.end());
    return std::move(a_);
  }

 private:
  void assemble() {
    if (kept_.fits(a_.spans, a_.freedoms)) {
      a_.freedoms = kept_.freedoms;
    } else {
      kept_.pattern.emplace(a_.spans, a_.freedoms);
      kept_.freedoms = a_.freedoms;
      kept_.ends = ends_of(a_.spans);
      K_ = {};
      factor_.reset();
    }
    kept_.pattern->assemble(a_.spans, a_.elements, a_.freedoms, K_);
  }

  // Solves for what the points lack. Where rounding may have left more of it than a well-shaped structure would, what
  // still lacks is solved for again: each step gains as many digits as the first one had.
  Problems solve_cases(std::vector<Need>& need) {
    if (K_.n == 0) return {};
    Eigen::MatrixXd block = lacking(need);
    if (!factor_) factor_.emplace(K_);
    if (factor_->bytes_needed() > memory_limit())
      return {{fmt::format("solving {} freedoms takes about {:.1f} GB of memory, and there are {:.1f} GB", K_.n,
                           factor_->bytes_needed() / 1e9, memory_limit() / 1e9),
               {},
               "members"}};
    factor_->factorise(K_, block);
    if (!factor_->sound()) {
      if (Problems problems = motions(); !problems.empty()) return problems;
      block = factor_->solve(lacking(need));
    }
    move(block);
    add_elastic(a_, need);
    if (!digits_stand(need)) need = refine();
    return {};
  }

  // What moves where the pivots vanish; or, if nothing does, a factor that lives with them.
  Problems motions() {
    // What follows is of this matrix alone, as it was before it was scaled.
    kept_.pattern->assemble(a_.spans, a_.elements, a_.freedoms, K_);
    kept_.pattern.reset();
    const std::vector<int> weak = factor_->weak().empty() ? null_pivots(K_) : factor_->weak();
    if (!weak.empty())
      if (Problems problems = inner_motions(s_, a_.spans, a_.freedoms, K_, weak); !problems.empty()) return problems;
    // Soft, but nothing moves.
    factor_ = Factor::tolerant(K_);
    if (factor_->sound()) return {};
    return {
        {"the stiffness matrix is singular to working precision, though nothing moves freely: some members are "
         "stiffer than others by more than the digits can hold",
         {},
         "members"}};
  }

  // Whether the first solution is as good as further ones would make it.
  bool digits_stand(const std::vector<Need>& need) const {
    constexpr double well_shaped = 1e6, expected = 5e-12;
    const Eigen::MatrixXd lack = lacking(need);
    if (!(remainder(need, lack) < expected)) return false;
    return factor_->amplification() < well_shaped || errors_are_rounding(lack);
  }

  std::vector<Need> refine() {
    constexpr int most_steps = 20;
    constexpr double good_enough = 1e-14, hardly_less = 0.7;
    std::vector<Need> need = needs(s_, a_);
    Eigen::MatrixXd lack = lacking(need);
    double worst = remainder(need, lack);
    for (int i = 0; i < most_steps && worst > good_enough; ++i) {
      const Eigen::MatrixXd step = factor_->solve(lack);
      move(step);
      need = needs(s_, a_);
      lack = lacking(need);
      const double before = worst;
      worst = remainder(need, lack);
      if (worst < hardly_less * before) continue;
      if (worst > before) {
        move(-step);
        need = needs(s_, a_);
      }
      break;
    }
    return need;
  }

  // The step that the cases still ask for, tried on a mixture of them all: where it is nothing beside the movements it
  // need not be made for each.
  bool errors_are_rounding(const Eigen::MatrixXd& lack) const {
    constexpr double nothing = 1e-11;
    Eigen::VectorXd mixture = Eigen::VectorXd::Zero(lack.rows());
    for (Eigen::Index c = 0; c < lack.cols(); ++c) {
      double largest = 0;
      for (const Movement& m : a_.cases[static_cast<std::size_t>(c)].movement)
        for (const double v : m.value) largest = std::max(largest, std::abs(v));
      if (largest > 0) mixture += lack.col(c) * ((c % 2 ? -1 : 1) / largest);
    }
    return factor_->solve(mixture).cwiseAbs().maxCoeff() < nothing;
  }

  // Minus the need of each free freedom; one column a case.
  Eigen::MatrixXd lacking(const std::vector<Need>& need) const {
    const Freedoms& f = a_.freedoms;
    Eigen::MatrixXd lack(K_.n, static_cast<Eigen::Index>(need.size()));
    for (std::size_t c = 0; c < need.size(); ++c) {
      double* column = lack.col(static_cast<Eigen::Index>(c)).data();
      for (std::size_t p = 0; p < f.equation.size(); ++p)
        for (std::size_t k = 0; k < 6; ++k)
          if (const int e = f.equation[p][k]; e >= 0) column[e] = -need[c].at[p][k];
    }
    return lack;
  }

  // The largest remainder of a case against its largest force; the worst of all cases.
  static double remainder(const std::vector<Need>& need, const Eigen::MatrixXd& lack) {
    double worst = 0;
    for (std::size_t c = 0; c < need.size() && lack.rows() > 0; ++c)
      if (need[c].largest > 0)
        worst = std::max(worst, lack.col(static_cast<Eigen::Index>(c)).cwiseAbs().maxCoeff() / need[c].largest);
    return worst;
  }

  void move(const Eigen::MatrixXd& step) {
    const Freedoms& f = a_.freedoms;
    for (std::size_t c = 0; c < a_.cases.size(); ++c) {
      const double* column = step.col(static_cast<Eigen::Index>(c)).data();
      for (std::size_t p = 0; p < f.equation.size(); ++p)
        for (std::size_t k = 0; k < 6; ++k)
          if (const int e = f.equation[p][k]; e >= 0) a_.cases[c].movement[p].add(k, column[e]);
    }
  }

  void finish(const std::vector<Need>& need) {
    const Freedoms& f = a_.freedoms;
    for (std::size_t c = 0; c < need.size(); ++c) {
      for (const PointSupport& s : s_.supports()) {
        Six reaction{};
        for (std::size_t k = 0; k < 6; ++k)
          if (f.status[s.at.index][k] == Status::held) reaction[k] = need[c].at[s.at.index][k];
        a_.cases[c].reaction.push_back(reaction);
      }
      for (std::size_t p = 0; p < f.status.size(); ++p)
        for (std::size_t k = 3; k < 6; ++k)
          if (f.status[p][k] == Status::idle && std::abs(need[c].at[p][k]) > 1e-9 * need[c].largest)
            spun_.push_back({p, c});
    }
  }

  // A spin that nothing resists is harmless until a load works on it.
  Problems spinning_loads() const {
    Problems problems;
    for (std::size_t i = 0; i < spun_.size(); ++i) {
      const auto [point, load_case] = spun_[i];
      if (i > 0 && point == spun_[i - 1].first) continue;
      const std::string& name = s_.load_cases()[load_case].name();
      problems.push_back(
          {fmt::format("in case '{}' a load turns point {}, where only hinged ends and links meet: nothing holds it",
                       name, s_.points()[point].name),
           {Subject::Kind::load_case, name}});
    }
    return problems;
  }

  const Structure& s_;
  Kept& kept_;
  Analysis a_;
  LowerMatrix& K_;
  std::optional<Factor>& factor_;
  std::vector<std::pair<std::size_t, std::size_t>> spun_;  // point, case
};

}  // namespace

Expected<Analysis, Problems> analyse(const Structure& structure, Kept& kept) {
  return Run(structure, kept)();
}

}  // namespace corvex::solver
