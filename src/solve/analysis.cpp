#include "solve/analysis.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "solve/factor.hpp"
#include "solve/mechanism.hpp"
#include "solve/motion_words.hpp"
#include "solve/spin.hpp"

namespace corvex::solver {
namespace {

Vector12 ends_of(const std::vector<Six>& movement, const Span& s) {
  Vector12 d;
  for (int k = 0; k < 6; ++k) {
    d(k) = movement[s.a][static_cast<std::size_t>(k)];
    d(6 + k) = movement[s.b][static_cast<std::size_t>(k)];
  }
  return d;
}

class Run {
 public:
  explicit Run(const Structure& s) : s_(s) {}

  Expected<Analysis, Problems> operator()() {
    Problems problems = s_.validate();
    const auto refused = [&] {
      return std::any_of(problems.begin(), problems.end(),
                         [](const Problem& p) { return p.severity == Problem::Severity::error; });
    };
    if (refused()) return problems;
    a_.spans = cut(s_);
    a_.freedoms = freedoms(s_, a_.spans);
    for (Problem& p : loads_without_hold()) problems.push_back(std::move(p));
    for (Problem& p : rigid_motions(s_, a_.spans, a_.freedoms)) problems.push_back(std::move(p));
    if (refused()) return problems;
    mark_idle_spins(s_, a_.spans, a_.freedoms);
    assemble();
    if (K_.n > 0) {
      factor_.emplace(K_);
      if (!factor_->sound()) {
        const std::vector<int> weak = factor_->weak().empty() ? null_pivots(K_) : factor_->weak();
        if (!weak.empty()) problems = inner_motions(s_, a_.spans, a_.freedoms, K_, weak);
        if (!problems.empty()) return problems;
        factor_ = Factor::tolerant(K_);
      }
    }
    solve_cases();
    problems = spinning_loads();
    if (refused()) return problems;
    a_.notes = notes();
    return std::move(a_);
  }

 private:
  // Loads where the structure has nothing to take them.
  Problems loads_without_hold() const {
    Problems problems;
    for (const LoadCase& c : s_.load_cases())
      for (std::size_t i = 0; i < c.loads().size(); ++i) {
        const Subject subject{Subject::Kind::load, c.name(), i};
        if (const auto* l = std::get_if<PointLoad>(&c.loads()[i])) {
          const std::string& name = s_[l->at].name;
          const double moment[] = {l->moment.x, l->moment.y, l->moment.z};
          if (!a_.freedoms.used[l->at.index]) {
            problems.push_back(
                {fmt::format("no member goes through point {}: nothing carries this load", name), subject,
                 "at"});
          } else {
            for (int k = 0; k < 3; ++k)
              if (moment[k] != 0 && !a_.freedoms.exists(l->at.index, 3 + k))
                problems.push_back(
                    {fmt::format(
                         "nothing at point {} can take a moment: only links and hinged ends meet there",
                         name),
                     subject, "moment"});
          }
        }
        if (const auto* l = std::get_if<MemberLoad>(&c.loads()[i])) {
          const Member& m = s_[l->on];
          if (m.kind == MemberKind::link &&
              std::abs(local_axes(s_, m).local(l->moment).x) > 1e-9 * length(l->moment))
            problems.push_back(
                {fmt::format("'{}' is a link and cannot take torsion", m.name), subject, "moment"});
        }
      }
    return problems;
  }

  void assemble() {
    Freedoms& f = a_.freedoms;
    const PointGraph g = point_graph(a_.spans, f);
    const std::vector<int> order = elimination_order(g.graph, g.weight);
    std::vector<std::size_t> points;
    points.reserve(order.size());
    for (const int v : order) points.push_back(g.point[static_cast<std::size_t>(v)]);
    number(f, points);
    Assembly assembly(g, order, f);
    for (const Span& s : a_.spans.all) {
      const Member& m = s_.members()[s.member];
      assembly.add(s, to_global(local_axes(s_, m), Element(rigidity(s_, m), s).stiffness()));
    }
    K_ = assembly.take();
  }

  // Forces of the loads on the points of a span, in global axes.
  Vector12 fixed_end(const Span& s, std::span<const LoadPiece> loads) const {
    const Member& m = s_.members()[s.member];
    return to_global(local_axes(s_, m), Element(rigidity(s_, m), s).fixed_end(loads));
  }

  void solve_cases() {
    const Freedoms& f = a_.freedoms;
    const auto count = static_cast<Eigen::Index>(s_.load_cases().size());
    Eigen::MatrixXd right = Eigen::MatrixXd::Zero(K_.n, count);
    for (Eigen::Index c = 0; c < count; ++c) {
      const LoadCase& loads = s_.load_cases()[static_cast<std::size_t>(c)];
      a_.cases.push_back({SpanLoads(s_, a_.spans, loads), {}, {}, resultant(s_, loads), 0});
      const auto add = [&](std::size_t point, int k, double value) {
        if (const int e = f.equation[point][static_cast<std::size_t>(k)]; e >= 0) right(e, c) += value;
      };
      for_point_loads(loads, add);
      for (std::size_t i = 0; i < a_.spans.all.size(); ++i) {
        const auto pieces = a_.cases.back().loads.on(i);
        if (pieces.empty()) continue;
        const Span& s = a_.spans.all[i];
        const Vector12 force = fixed_end(s, pieces);
        for (int k = 0; k < 6; ++k) add(s.a, k, -force(k)), add(s.b, k, -force(6 + k));
      }
    }
    Eigen::MatrixXd x = right;
    if (K_.n > 0) {
      x = factor_->solve(right);
      refine(x, right);
    }
    for (Eigen::Index c = 0; c < count; ++c) finish_case(c, x);
  }

  template <class Add>
  static void for_point_loads(const LoadCase& loads, const Add& add) {
    for (const Load& load : loads.loads())
      if (const auto* l = std::get_if<PointLoad>(&load)) {
        const double six[] = {l->force.x, l->force.y, l->force.z, l->moment.x, l->moment.y, l->moment.z};
        for (int k = 0; k < 6; ++k) add(l->at.index, k, six[k]);
      }
  }

  // One step of refinement where the equations are not met to rounding.
  void refine(Eigen::MatrixXd& x, const Eigen::MatrixXd& right) {
    const auto residual = [&](const Eigen::MatrixXd& error) {
      for (Eigen::Index c = 0; c < x.cols(); ++c) {
        const double largest = right.col(c).cwiseAbs().maxCoeff();
        a_.cases[static_cast<std::size_t>(c)].residual =
            largest > 0 ? error.col(c).cwiseAbs().maxCoeff() / largest : 0;
      }
    };
    Eigen::MatrixXd error = right - K_.times(x);
    residual(error);
    const bool good =
        std::all_of(a_.cases.begin(), a_.cases.end(), [](const auto& c) { return c.residual < 1e-13; });
    if (good) return;
    x += factor_->solve(error);
    residual(right - K_.times(x));
  }

  void finish_case(Eigen::Index c, const Eigen::MatrixXd& x) {
    CaseAnalysis& result = a_.cases[static_cast<std::size_t>(c)];
    const Freedoms& f = a_.freedoms;
    result.movement.assign(s_.points().size(), Six{});
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      for (std::size_t k = 0; k < 6; ++k)
        if (f.equation[p][k] >= 0) result.movement[p][k] = x(f.equation[p][k], c);
    // What the points must be given so that every span is in balance.
    std::vector<bool> watched(s_.points().size(), false);
    for (const PointSupport& s : s_.supports()) watched[s.at.index] = true;
    for (std::size_t p = 0; p < f.status.size(); ++p)
      watched[p] =
          watched[p] || std::find(f.status[p].begin(), f.status[p].end(), Status::idle) != f.status[p].end();
    std::vector<Six> need(s_.points().size(), Six{});
    double largest = 0;
    for (std::size_t i = 0; i < a_.spans.all.size(); ++i) {
      const Span& s = a_.spans.all[i];
      if (!watched[s.a] && !watched[s.b]) continue;
      const Member& m = s_.members()[s.member];
      const Element element(rigidity(s_, m), s);
      const Axes axes = local_axes(s_, m);
      const auto loads = result.loads.on(i);
      const Vector12 own = element.own_ends(to_local(axes, ends_of(result.movement, s)), loads);
      const Vector12 local = element.end_forces(own, loads);
      largest = std::max(largest, local.cwiseAbs().maxCoeff());
      const Vector12 force = to_global(axes, local);
      for (int k = 0; k < 6; ++k) {
        need[s.a][static_cast<std::size_t>(k)] += force(k);
        need[s.b][static_cast<std::size_t>(k)] += force(6 + k);
      }
    }
    for_point_loads(s_.load_cases()[static_cast<std::size_t>(c)], [&](std::size_t p, int k, double v) {
      need[p][static_cast<std::size_t>(k)] -= v;
      largest = std::max(largest, std::abs(v));
    });
    for (const PointSupport& s : s_.supports()) {
      Six reaction{};
      for (std::size_t k = 0; k < 6; ++k)
        if (f.status[s.at.index][k] == Status::held) reaction[k] = need[s.at.index][k];
      result.reaction.push_back(reaction);
    }
    for (std::size_t p = 0; p < f.status.size(); ++p)
      for (std::size_t k = 3; k < 6; ++k)
        if (f.status[p][k] == Status::idle && std::abs(need[p][k]) > 1e-9 * largest)
          spun_.push_back({p, static_cast<std::size_t>(c)});
  }

  // A spin that nothing resists is harmless until a load works on it.
  Problems spinning_loads() const {
    Problems problems;
    for (std::size_t i = 0; i < spun_.size(); ++i) {
      if (i > 0 && spun_[i].first == spun_[i - 1].first) continue;
      problems.push_back(
          {fmt::format(
               "in case '{}' a load turns point {}, where only hinged ends and links meet: nothing holds it",
               s_.load_cases()[spun_[i].second].name(), s_.points()[spun_[i].first].name),
           {Subject::Kind::load_case, s_.load_cases()[spun_[i].second].name()}});
    }
    return problems;
  }

  Problems notes() const {
    Problems notes;
    const auto note = [&](std::string text, Subject subject) {
      notes.push_back({std::move(text), std::move(subject), {}, {}, Problem::Severity::note});
    };
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      if (!a_.freedoms.used[p])
        note(fmt::format("no member goes through point {}", s_.points()[p].name),
             {Subject::Kind::point, s_.points()[p].name});
    for (const LoadCase& c : s_.load_cases())
      if (c.loads().empty())
        note(fmt::format("load case '{}' is empty", c.name()), {Subject::Kind::load_case, c.name()});
    std::vector<std::string> loaded;
    for (std::size_t i = 0; i < a_.spans.all.size(); ++i) {
      const Span& s = a_.spans.all[i];
      const auto across = [](const LoadPiece& l) {
        return l.q0.y != 0 || l.q0.z != 0 || l.slope.y != 0 || l.slope.z != 0 || l.jump_force.y != 0 ||
               l.jump_force.z != 0 || l.jump_moment.y != 0 || l.jump_moment.z != 0;
      };
      const bool bends = !s.beam && std::any_of(a_.cases.begin(), a_.cases.end(), [&](const CaseAnalysis& c) {
        const auto pieces = c.loads.on(i);
        return std::any_of(pieces.begin(), pieces.end(), across);
      });
      if (bends) loaded.push_back(s_.members()[s.member].name);
    }
    if (!loaded.empty())
      note(fmt::format(
               "{}: loads on a link (its own weight too) go to its ends; its own bending is not computed",
               list(loaded)),
           {Subject::Kind::member, loaded.front()});
    return notes;
  }

  const Structure& s_;
  Analysis a_;
  LowerMatrix K_;
  std::optional<Factor> factor_;
  std::vector<std::pair<std::size_t, std::size_t>> spun_;  // point, case
};

}  // namespace

Expected<Analysis, Problems> analyse(const Structure& structure) {
  return Run(structure)();
}

}  // namespace corvex::solver
