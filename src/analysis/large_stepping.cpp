#include "analysis/large_stepping.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "analysis/large_kinematics.hpp"
#include "modes/span_pencil.hpp"

namespace corvex::solver {

using Eigen::Vector3d;

namespace {

// A share of the load.
constexpr double shortest_step = 1e-9;
// Of pieces, for each span: rods that bend through several turns take up to 6,000.
constexpr std::size_t most_evaluations = 8'000;

bool reaches_last_digit(const LargeMesh& mesh, double load) {
  constexpr double left_out = 1e-13;
  return std::all_of(mesh.pieces.begin(), mesh.pieces.end(), [&](const LargePiece& p) {
    return p.link || course(p.rod, load, pose_of(mesh, p.a), p.start).tail() <= left_out;
  });
}

}  // namespace

// The first step stays where the structure is nearly linear, so that it does not leap over a limit point to another
// branch: the force EA ψ²/2 that the turn ψ of a piece in compression would bring, if it were held at its length,
// stays below a twentieth of its axial force. Both are found under a very small load.
//
// 0 where nothing is found under a billionth of the load either: going through all steps between would find nothing.
double LoadStepping::first_step(LargeMesh& mesh) {
  constexpr double usual = 0.1, small = 1e-6, least = 1e-6;
  const LargeMesh unloaded = mesh;
  if (newton_.balance(mesh, small)) {
    const double step = step_by_turns(mesh, usual, small);
    mesh = unloaded;
    return std::max(step, least);
  }
  mesh = unloaded;
  const bool found = newton_.balance(mesh, shortest_step);
  mesh = unloaded;
  return found ? shortest_step : 0;
}

// No longer than `step`, from the equilibrium under a very small load.
double LoadStepping::step_by_turns(const LargeMesh& mesh, double step, double load) const {
  constexpr double little = 0.05, along = 0.05;
  double largest = 0;
  const auto force = [&](const LargePiece& p) { return p.link ? std::abs(p.pull) : p.start.n.norm(); };
  for (const LargePiece& p : mesh.pieces) largest = std::max(largest, force(p));
  for (std::size_t i = 0; i < mesh.pieces.size(); ++i) {
    const LargePiece& p = mesh.pieces[i];
    const Vector3d before = (reference(given_, mesh, p, p.rod.length) - reference(given_, mesh, p, 0)).normalized(),
                   after = (pose_of(mesh, p.b).r - pose_of(mesh, p.a).r).normalized();
    const double N = (p.link ? p.pull : after.dot(p.start.n)) / load, turn = (after - before).norm() / load;
    if (!(-N * load > along * largest) || !(turn > 0)) continue;
    const double EA = given_.system.elements[p.span].rigidity().EA;
    step = std::min(step, 2 * little * -N / (EA * turn * turn));
  }
  return step;
}

LoadStepping::Outcome LoadStepping::follow(LargeMesh& mesh) {
  constexpr double longest = 0.1;
  steps_.clear();
  load_ = 0;
  double step = first_step(mesh);
  if (step == 0) return Outcome::ends;
  while (load_ < 1) {
    if (newton_.evaluations() > most_evaluations * given_.system.spans.all.size()) return Outcome::endless;
    const LargeMesh before = mesh;
    const double next = load_ + step > 1 - 1e-12 ? 1 : load_ + step;
    const bool found = newton_.balance(mesh, next);
    overloaded_ = found ? overloaded_link(mesh) : "";
    if (!found || !overloaded_.empty()) {
      mesh = before;
      step /= 2;
      if (step < shortest_step) return Outcome::ends;
      continue;
    }
    if (!reaches_last_digit(mesh, next)) {
      coarse_at_ = next;
      return Outcome::coarse;
    }
    load_ = next;
    double moved = 0;
    for (std::size_t p = 0; p < given_.structure.points().size(); ++p)
      moved = std::max(moved, (mesh.nodes[p].pose.r - mesh.nodes[p].first).norm());
    steps_.emplace_back(load_, moved);
    step = std::min(step * 1.5, longest);
  }
  newton_.polish(mesh);
  return Outcome::done;
}

// A link that is in compression beyond the force at which it buckles between its ends; empty where there is none.
std::string LoadStepping::overloaded_link(const LargeMesh& mesh) const {
  for (const LargePiece& p : mesh.pieces) {
    if (!p.link) continue;
    const Span& span = given_.system.spans.all[p.span];
    const Member& m = given_.structure.members()[span.member];
    const Rigidity r = span_body(given_.structure, m).rigidity;
    const double EI = given_.structure.is_plane() ? r.EIz : std::min(r.EIy, r.EIz);
    if (EI > 0 && -p.pull > std::numbers::pi * std::numbers::pi * EI / (span.length * span.length)) return m.name;
  }
  return {};
}

}  // namespace corvex::solver
