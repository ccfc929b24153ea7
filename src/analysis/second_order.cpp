#include "analysis/second_order.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "analysis/accuracy.hpp"
#include "analysis/mixing.hpp"
#include "beam/axes_matrix.hpp"
#include "beam/bent_span.hpp"
#include "beam/bent_state.hpp"
#include "beam/rigid_arm.hpp"
#include "corvex/number.hpp"
#include "corvex/stop.hpp"
#include "linear_system/signed_factor.hpp"
#include "modes/eigen_modes.hpp"
#include "modes/mode_shapes.hpp"
#include "structure/words.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;
using Eigen::VectorXd;

Matrix12 in_global(const Matrix12& own, const Axes& axes) {
  const Eigen::Matrix3d R = columns_of(axes).transpose();
  Matrix12 T = Matrix12::Zero();
  for (int i = 0; i < 4; ++i) T.block<3, 3>(3 * i, 3 * i) = R;
  return turned(own, T);
}

// One span for the movements that it has now.
struct Bent {
  std::optional<BentSpan> span;  // none of a link, which stays straight
  AxialCourse axial;
  std::vector<CoursePiece> along;  // N, T, u and twist
  Ends ends;                       // of the points or the arms
  Vector12 own, forces;
  Vector12 undisplaced;  // forces at first order for these movements
};

class Displaced {
 public:
  Displaced(const Structure& s, const System& system, Reusable& reusable, const LoadedCase& load_case,
            const Solved& first)
      : s_(s),
        system_(system),
        reusable_(reusable),
        case_(load_case),
        first_(first),
        elements_(first.elements ? *first.elements : system.elements),
        K_(reusable.K) {
    lay_imperfections();
    start();
  }

  Expected<Solved, Problems> operator()() {
    // Near a limit point it takes many rounds.
    constexpr int most_rounds = 200, few_rounds = 12;
    constexpr double exact = 1e-14, good = 1e-9;
    Mixing mixing;
    double before = 0;
    for (int round = 0; round < most_rounds; ++round) {
      stop_point();
      const Step at = step();
      if (!at.problems.empty()) return at.problems;
      if (!at.ok) break;
      // Beyond the critical load at once: what follows would be found, and would not be stable.
      if (round == 0 && negative_ > 0) break;
      const double share = share_of(at.by);
      if (!std::isfinite(share)) break;
      if (share <= exact || (share <= good && round > 0 && share > before / 2)) {
        if (negative_ > 0 || (round > few_rounds && !is_below_limit(at.by))) break;
        return finished(share);
      }
      before = share;
      x_ = mixing.next(x_, at.by);
    }
    return Problems{buckled()};
  }

 private:
  // The movements that would be in equilibrium with the axial forces of x, less x.
  struct Step {
    VectorXd by;
    bool ok = false;
    Problems problems{};
  };
  Step step() {
    bend();
    if (Problems problems = rope_like(); !problems.empty()) return {VectorXd(), false, std::move(problems)};
    const VectorXd lack = residual();
    stiffen();
    const SignedFactor factor(K_);
    if (!factor.ok()) return {};
    negative_ = factor.negative() + inner_negative();
    return {factor.solve(lack), true};
  }

  // Whether an equilibrium holds against axial forces that change with the movements: beyond a limit point a movement
  // changes them by so much that it drives itself on, which the stiffness under given axial forces does not show. Then
  // the derivative of x + step(x) has an eigenvalue above 1. It is looked for by Arnoldi's method (Golub and Van Loan,
  // Matrix Computations, ch. 10), beginning with what was added to the movements of first order.
  bool is_below_limit(const VectorXd& rest) {
    const VectorXd x = x_;
    const bool is_below = largest_growth(x, rest) < 1;
    x_ = x;
    return step().ok && is_below;
  }
  double largest_growth(const VectorXd& x, const VectorXd& rest) {
    constexpr Index most = 8;
    constexpr double by = 1e-6, vanishing = 1e-9;
    start();
    const double size = (x - x_).norm();
    if (!(size > vanishing * x.norm())) return 0;
    std::vector<VectorXd> v{(x - x_) / size};
    Eigen::MatrixXd h = Eigen::MatrixXd::Zero(most, most);
    Index n = 0;
    while (n < most) {
      const auto last = static_cast<std::size_t>(n);
      x_ = x + by * x.norm() * v[last];
      const Step there = step();
      if (!there.ok) break;
      VectorXd w = v[last] + (there.by - rest) / (by * x.norm());
      for (Index i = 0; i <= n; ++i) {
        h(i, n) = v[static_cast<std::size_t>(i)].dot(w);
        w -= h(i, n) * v[static_cast<std::size_t>(i)];
      }
      ++n;
      const double left = w.norm();
      if (n == most || left < vanishing) break;
      h(n, n - 1) = left;
      v.push_back(w / left);
    }
    double most_growth = 0;
    if (n > 0)
      for (const double e : real_eigenvalues_of_hessenberg(h.topLeftCorner(n, n)))
        most_growth = std::max(most_growth, e);
    return most_growth;
  }

  // The slope of each span before it is loaded.
  void lay_imperfections() {
    initial_.resize(system_.spans.all.size());
    const auto& given = s_.analysis().imperfection;
    if (!given) return;
    const Vector up = s_.up_direction();
    for (std::size_t m = 0; m < s_.members().size(); ++m) {
      const Axes& axes = system_.spans.axes[m];
      const double L = s_.length_of(s_.members()[m]), sway = given->sway * dot(axes.x, up);
      // A bow goes with the given direction; where a member lies along it, downwards.
      const auto across = [&](const Vector& v) { return v - axes.x * dot(v, axes.x); };
      constexpr double along = 1e-3;
      Vector to = across(*given->toward);
      if (length(to) <= along) to = across(up * -1);
      const bool bows = length(to) > along && pressed(m);
      for (std::size_t i = system_.spans.first[m]; i < system_.spans.first[m + 1]; ++i) {
        InitialSlope& slope = initial_[i];
        slope.y_at = sway * dot(*given->toward, axes.y), slope.z_at = sway * dot(*given->toward, axes.z);
        if (!bows || !system_.spans.all[i].beam) continue;
        // A parabola of the height bow · L: its slope is 4 bow (1 − 2 x/L).
        to = to / length(to);
        const double at = 4 * given->bow * (1 - 2 * system_.spans.all[i].start / L), growth = -8 * given->bow / L;
        slope.y_at += at * dot(to, axes.y), slope.y_growth = growth * dot(to, axes.y);
        slope.z_at += at * dot(to, axes.z), slope.z_growth = growth * dot(to, axes.z);
      }
    }
  }

  // Whether a member is in compression at first order, as a whole.
  bool pressed(std::size_t member) const {
    double sum = 0;
    for (std::size_t i = system_.spans.first[member]; i < system_.spans.first[member + 1]; ++i)
      sum += along(i, first_.movement).axial.mean() * system_.spans.all[i].length;
    return sum < 0;
  }

  // The movements at first order, in the order of the equations; what supports move stays.
  void start() {
    const Dofs& f = system_.dofs;
    x_ = VectorXd::Zero(f.equations);
    ground_.resize(s_.points().size());
    for (std::size_t p = 0; p < ground_.size(); ++p) {
      Six own = f.in_frame(p, first_.movement[p].value);
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation.empty() ? -1 : f.equation[p][k]; e >= 0) x_(e) = own[k], own[k] = 0;
      ground_[p] = f.in_global(p, own);
    }
  }

  std::vector<Movement> movement() const {
    std::vector<Movement> all(ground_.size());
    for (std::size_t p = 0; p < all.size(); ++p) {
      all[p].value = ground_[p];
      const Six by = system_.dofs.of_point(p, x_.data());
      for (std::size_t k = 0; k < 6; ++k) all[p].add(k, by[k]);
    }
    return all;
  }

  // The axial part of a span: it does not depend on how the span bends.
  Bent along(std::size_t i, const std::vector<Movement>& movement) const {
    const Span& span = system_.spans.all[i];
    const Element& element = elements_[i];
    const auto loads = case_.acting->loads.on(i);
    Bent b;
    b.ends = ends<long double>(system_.spans.axes[span.member], span, movement[span.a], movement[span.b]);
    const Ends own = element.own_ends(b.ends, loads);
    const Vector12 forces = element.tidy_end_forces(own, loads);
    b.own = own.movement, b.undisplaced = forces;
    b.forces = Vector12::Zero();
    for (const int k : {0, 3, 6, 9}) b.forces(k) = forces(k);
    State at_start;
    at_start.N = -forces(0), at_start.T = -forces(3), at_start.u = own.movement(0), at_start.twist = own.movement(3);
    b.along = integrate(element.rigidity(), span.length, loads, at_start);
    for (const CoursePiece& p : b.along) {
      if (!(p.to > p.from)) continue;
      // From the start of the piece to that of the span.
      const double a = p.N.c[0], n = p.N.c[1], m = p.N.c[2], x = p.from;
      b.axial.pieces.push_back({p.from, p.to, {a - x * (n - x * m), n - 2 * m * x, m}});
    }
    if (!span.beam)
      for (const int k : {1, 2, 7, 8}) b.forces(k) = forces(k);
    return b;
  }

  void bend() {
    movement_ = movement();
    bent_.clear();
    for (std::size_t i = 0; i < system_.spans.all.size(); ++i) {
      const Span& span = system_.spans.all[i];
      Bent b = along(i, movement_);
      if (span.beam) {
        const Rigidity& r = elements_[i].rigidity();
        b.span.emplace(r, span, principal_turn(s_, s_.members()[span.member]), b.axial, case_.acting->loads.on(i),
                       initial_[i]);
        b.forces += b.span->forces(b.ends.movement, b.ends.bent);
        const Vector12 bending = b.span->own_movement(b.ends.movement, b.ends.bent);
        for (const int k : {1, 2, 4, 5, 7, 8, 10, 11}) b.own(k) = bending(k);
      } else {
        // A straight bar turns its axial force with it.
        const double N = b.axial.mean();
        const auto turn = [&](int across, double before) {
          const double by = N * ((b.ends.movement(across + 6) - b.ends.movement(across)) / span.length + before);
          b.forces(across) -= by, b.forces(across + 6) += by;
        };
        turn(1, initial_[i].y_at), turn(2, initial_[i].z_at);
      }
      bent_.push_back(std::move(b));
    }
  }

  Problems rope_like() const {
    for (std::size_t i = 0; i < bent_.size(); ++i)
      if (bent_[i].span && !bent_[i].span->follows()) {
        const std::string& name = s_.members()[system_.spans.all[i].member].name;
        return {
            {fmt::format(
                 "in case '{}' '{}' has so much tension compared with its stiffness that it is not a beam: make it a link",
                 case_.loads->name(), name),
             {Subject::Kind::member, name}}};
      }
    return {};
  }

  // Initial inclination of a rigid arm.
  Vector tilt(const Vector& arm) const {
    const auto& given = s_.analysis().imperfection;
    return given ? *given->toward * (given->sway * dot(arm, s_.up_direction())) : Vector{};
  }

  // Forces that the points need in addition to their loads.
  JointForces need() const {
    JointForces all = loads_on_points(s_, *case_.acting);
    const Spans& spans = system_.spans;
    for (std::size_t i = 0; i < bent_.size(); ++i) {
      const Span& span = spans.all[i];
      const Axes& axes = spans.axes[span.member];
      add_span_forces(all, span, axes, bent_[i].forces);
      if (span.armed)
        for (const int end : {0, 1}) {
          const std::size_t point = end == 0 ? span.a : span.b;
          const Vector moment = moment_of_turned_arm(i, end);
          all.at[point][3] += moment.x, all.at[point][4] += moment.y, all.at[point][5] += moment.z;
        }
    }
    for (const ActingMass& mass : weights()) {
      const Vector moment = moment_of_turned(mass.arm, mass.force, mass.at.index);
      double* const at = all.at[mass.at.index].data() + 3;
      at[0] -= moment.x, at[1] -= moment.y, at[2] -= moment.z;
    }
    add_spring_forces(all, system_.dofs, *case_.acting, movement_);
    return all;
  }

  Vector end_force(std::size_t i, int end) const { return end_force(i, bent_[i].forces, end); }
  Vector end_force(std::size_t i, const Vector12& f, int end) const {
    return system_.spans.axes[system_.spans.all[i].member].global({f(6 * end), f(6 * end + 1), f(6 * end + 2)});
  }
  Vector moment_of_turned_arm(std::size_t i, int end) const {
    const Span& span = system_.spans.all[i];
    const Vector &arm = end == 0 ? span.arm_a : span.arm_b, f = end_force(i, end);
    return moment_of_turned(arm, f, end == 0 ? span.a : span.b);
  }
  Vector moment_of_turned(const Vector& arm, const Vector& force, std::size_t point) const {
    const Six& moved = movement_[point].value;
    const Eigen::Vector3d m = turned_arm(arm, force) * Eigen::Vector3d(moved[3], moved[4], moved[5]);
    return Vector{m.x(), m.y(), m.z()} + cross(tilt(arm), force);
  }
  // Of masses with an arm, in each acceleration.
  std::vector<ActingMass> weights() const {
    std::vector<ActingMass> all = case_.acting->masses;
    std::erase_if(all, [](const ActingMass& m) { return zero(m.arm); });
    return all;
  }

  VectorXd residual() {
    need_ = need();
    const Dofs& f = system_.dofs;
    VectorXd lack(f.equations);
    for (std::size_t p = 0; p < f.equation.size(); ++p) {
      const Six own = f.in_frame(p, need_.at[p]);
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation[p][k]; e >= 0) lack(e) = -own[k];
    }
    return lack;
  }

  void stiffen() {
    std::vector<Matrix12> all;
    const Spans& spans = system_.spans;
    for (std::size_t i = 0; i < bent_.size(); ++i) {
      const Span& span = spans.all[i];
      const Axes& axes = spans.axes[span.member];
      Matrix12 k = Matrix12::Zero();
      if (span.beam) {
        k = bent_[i].span->stiffness();
        const DeformationStiffness d = elements_[i].deformation_stiffness();
        for (const auto& [at, stiffness] : {std::pair{0, d(0, 0)}, {3, d(1, 1)}}) {
          k(at, at) += stiffness, k(at + 6, at + 6) += stiffness;
          k(at, at + 6) -= stiffness, k(at + 6, at) -= stiffness;
        }
        k = in_global(k, axes);
      } else {
        const double pull = bent_[i].axial.mean() / span.length;
        for (const int across : {1, 2}) {
          k(across, across) = k(across + 6, across + 6) = pull;
          k(across, across + 6) = k(across + 6, across) = -pull;
        }
        k = elements_[i].stiffness(axes) + in_global(k, axes);
      }
      k = at_points(k, span);
      if (span.armed)
        for (const int end : {0, 1})
          k.block<3, 3>(6 * end + 3, 6 * end + 3) += turned_arm(end == 0 ? span.arm_a : span.arm_b, end_force(i, end));
      all.push_back(k);
    }
    for (const ActingMass& mass : weights())
      for (std::size_t i = 0; i < spans.all.size(); ++i) {
        const Span& span = spans.all[i];
        if (span.a != mass.at.index && span.b != mass.at.index) continue;
        const int at = span.a == mass.at.index ? 3 : 9;
        all[i].block<3, 3>(at, at) -= turned_arm(mass.arm, mass.force);
        break;
      }
    reusable_.pattern->assemble(spans, all, system_.dofs, K_);
  }

  // Of spans by themselves; a link buckles between its joints.
  int inner_negative() const {
    int count = 0;
    for (std::size_t i = 0; i < bent_.size(); ++i) {
      if (bent_[i].span) count += bent_[i].span->negative();
      if (!bent_[i].span && buckles(i)) ++count;
    }
    return count;
  }
  bool buckles(std::size_t i) const {
    const Span& span = system_.spans.all[i];
    const Member& member = s_.members()[span.member];
    // Tension-only members have been released where they would be in compression.
    if (member.acts == Acts::tension) return false;
    const Rigidity r = span_body(s_, member).rigidity;
    const double EI = s_.is_plane() ? r.EIz : std::min(r.EIy, r.EIz);
    return -bent_[i].axial.mean() > EI * std::pow(std::numbers::pi / span.length, 2);
  }

  double share_of(const VectorXd& step) const {
    std::vector<Movement> by(ground_.size());
    for (std::size_t p = 0; p < by.size(); ++p) by[p].value = system_.dofs.of_point(p, step.data());
    const double moved = largest_movement(s_, movement_), stepped = largest_movement(s_, by);
    return stepped == 0 ? 0 : moved > 0 ? stepped / moved : 1;
  }

  Solved finished(double share) {
    auto state = std::make_shared<BentState>();
    for (std::size_t i = 0; i < bent_.size(); ++i) {
      Bent& b = bent_[i];
      state->displaced += displaced_moment(i);
      state->spans.push_back({b.forces, b.own, course(i)});
    }
    for (const ActingMass& mass : weights()) state->displaced += moment_of_turned(mass.arm, mass.force, mass.at.index);
    // Each step would leave no more than the last one did.
    constexpr double least = 1e-12, margin = 3;
    return {std::move(movement_), std::max(least, margin * share), std::move(need_), first_.elements, std::move(state)};
  }

  // Residual of equilibrium about the undeformed places of a span.
  Vector displaced_moment(std::size_t i) const {
    const Span& span = system_.spans.all[i];
    const Vector12& f = bent_[i].forces;
    const State p = particular(Flexibility(elements_[i].rigidity()), case_.acting->loads.on(i));
    const double L = span.length;
    const Vector own{f(3) + f(9) - p.T, f(4) + f(10) + p.My - L * (f(8) + p.Vz),
                     f(5) + f(11) - p.Mz + L * (f(7) + p.Vy)};
    Vector moment = system_.spans.axes[span.member].global(own) * -1;
    if (span.armed)
      for (const int end : {0, 1}) moment = moment - moment_of_turned_arm(i, end);
    return moment;
  }

  std::vector<CoursePiece> course(std::size_t i) const {
    const Bent& b = bent_[i];
    if (!b.span) return {};
    std::vector<CoursePiece> all = b.span->course(b.ends.movement, b.ends.bent);
    std::size_t k = 0;
    for (CoursePiece& p : all) {
      while (k + 1 < b.along.size() && p.from >= b.along[k].to - 1e-12 * system_.spans.all[i].length) ++k;
      const double by = p.from - b.along[k].from;
      p.N = b.along[k].N.shifted(by), p.T = b.along[k].T.shifted(by);
      p.u = b.along[k].u.shifted(by), p.twist = b.along[k].twist.shifted(by);
    }
    return all;
  }

  Problem buckled() const {
    ModeInput input{.structure = &s_, .count = 1};
    for (std::size_t i = 0; i < system_.spans.all.size(); ++i) {
      const Bent b = along(i, first_.movement);
      const Span& span = system_.spans.all[i];
      input.axial.push_back(b.axial);
      if (span.armed) {
        input.turned_arms.emplace_back(span.a, turned_arm(span.arm_a, end_force(i, b.undisplaced, 0)));
        input.turned_arms.emplace_back(span.b, turned_arm(span.arm_b, end_force(i, b.undisplaced, 1)));
      }
      input.slack.push_back(elements_[i].is_slack());
    }
    for (const ActingMass& mass : weights())
      input.turned_arms.emplace_back(mass.at.index, -turned_arm(mass.arm, mass.force));
    const FoundModes modes = buckling_modes(input);
    const std::string what =
        modes.modes.empty() ? "" : ", " + described(s_, shape_of(s_, modes.spans, modes.modes.front()));
    const std::string& name = case_.loads->name();
    std::string text = fmt::format("in case '{}' ", name);
    if (modes.modes.empty())
      text += "no equilibrium of the displaced structure is found";
    else if (const double factor = modes.modes.front().value; factor < 1)
      text += fmt::format("the structure buckles ({}): its critical load factor is {}, which must be above 1",
                          what.substr(2), short_number(factor, 4));
    else
      text += fmt::format(
          "no stable equilibrium of the displaced structure is found: the linear critical load factor is {}{}",
          short_number(factor, 4), what);
    return as_finding("buckles", {std::move(text), {Subject::Kind::load_case, name}});
  }

  const Structure& s_;
  const System& system_;
  Reusable& reusable_;
  const LoadedCase& case_;
  const Solved& first_;
  const std::vector<Element>& elements_;
  LowerMatrix K_;
  std::vector<InitialSlope> initial_;
  std::vector<Six> ground_;
  VectorXd x_;
  std::vector<Movement> movement_;
  std::vector<Bent> bent_;
  JointForces need_;
  int negative_ = 0;
};

}  // namespace

Expected<Solved, Problems> SecondOrder::solve(const LoadedCase& load_case, const Solved& first) {
  return Displaced(structure_, system_, reusable_, load_case, first)();
}

}  // namespace corvex::solver
