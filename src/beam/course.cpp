#include "beam/course.hpp"

namespace corvex::solver {
namespace {

double per(double stiffness) {
  return stiffness > 0 ? 1 / stiffness : 0;
}

// One bending plane: shear, moment, slope and deflection from the load across.
struct Across {
  double V0, M0, q0, slope_q, m0, slope_m;  // m: moment per length, positive where it lets M grow
  double curve, slope0;
};
void bend(const Across& a, double flexibility, Polynomial& V, Polynomial& M, Polynomial& slope) {
  Polynomial q;
  q.c[0] = a.q0;
  q.c[1] = a.slope_q;
  V = q.integral(a.V0);
  Polynomial growth = V;
  growth.c[0] += a.m0;
  growth.c[1] += a.slope_m;
  M = growth.integral(a.M0);
  Polynomial curvature = M * flexibility;
  curvature.c[0] += a.curve;
  slope = curvature.integral(a.slope0);
}

CoursePiece piece(const Rigidity& r, const LoadPiece& load, const State& s) {
  CoursePiece p;
  p.from = load.from;
  p.to = load.to;
  Polynomial q;
  q.c[0] = -load.q0.x;
  q.c[1] = -load.slope.x;
  p.N = q.integral(s.N - load.jump_force.x);
  Polynomial elongation = p.N * per(r.EA);
  elongation.c[0] += load.free.along;
  p.u = elongation.integral(s.u);
  Polynomial turning;
  turning.c[0] = -load.m0.x;
  turning.c[1] = -load.m_slope.x;
  p.T = turning.integral(s.T - load.jump_moment.x);
  p.twist = (p.T * per(r.GJ)).integral(s.twist);
  bend({s.Vy + load.jump_force.y, s.Mz - load.jump_moment.z, load.q0.y, load.slope.y, -load.m0.z, -load.m_slope.z,
        load.free.curve_y, s.slope_y},
       per(r.EIz), p.Vy, p.Mz, p.slope_y);
  bend({s.Vz + load.jump_force.z, s.My + load.jump_moment.y, load.q0.z, load.slope.z, load.m0.y, load.m_slope.y,
        load.free.curve_z, s.slope_z},
       per(r.EIy), p.Vz, p.My, p.slope_z);
  p.v = (p.slope_y - p.Vy * per(r.GAy) - p.Vz * r.coupling).integral(s.v);
  p.w = (p.slope_z - p.Vz * per(r.GAz) - p.Vy * r.coupling).integral(s.w);
  return p;
}

}  // namespace

std::vector<CoursePiece> integrate(const Rigidity& r, double length, std::span<const LoadPiece> loads,
                                   const State& start) {
  const LoadPiece nothing{
      .from = 0, .to = length, .jump_force = {}, .jump_moment = {}, .q0 = {}, .slope = {}, .m0 = {}, .m_slope = {}};
  if (loads.empty()) loads = {&nothing, 1};
  std::vector<CoursePiece> course;
  course.reserve(loads.size());
  State s = start;
  for (const LoadPiece& load : loads) {
    course.push_back(piece(r, load, s));
    s = course.back().at(load.to - load.from);
  }
  return course;
}

namespace {

// One bending plane: its state, and the load along a piece.
struct PlaneState {
  double &V, &M, &slope, &v;
};
struct PlaneLoad {
  double q0, slope_q, m0, slope_m, curve;
};

// Carries the state to the end of a piece of length h: the integrals of `bend`, evaluated there. Returns ∫V.
double carry(const PlaneState& s, const PlaneLoad& load, double flexibility, double h) {
  auto& [V, M, slope, v] = s;
  const auto& [q0, slope_q, m0, slope_m, curve] = load;
  constexpr double sixth = 1.0 / 6;
  const double shear = h * (V + h * (q0 / 2 + h * slope_q * sixth));
  // M along the piece less M before it: V0 + m0, then (q0 + slope_m), then slope_q.
  const double rise = V + m0, bend = q0 + slope_m;
  v += h * (slope + h * curve / 2 +
            h * flexibility * (M / 2 + h * (rise * sixth + h * (bend * (1.0 / 24) + h * slope_q * (1.0 / 120)))));
  slope += h * curve + h * flexibility * (M + h * (rise / 2 + h * (bend * sixth + h * slope_q * (1.0 / 24))));
  M += shear + h * (m0 + h * slope_m / 2);
  V += h * (q0 + h * slope_q / 2);
  return shear;
}

}  // namespace

State particular(const Flexibility& f, std::span<const LoadPiece> loads) {
  State s;
  for (const LoadPiece& l : loads) {
    const double h = l.to - l.from;
    s.N -= l.jump_force.x;
    s.T -= l.jump_moment.x;
    s.Vy += l.jump_force.y;
    s.Mz -= l.jump_moment.z;
    s.Vz += l.jump_force.z;
    s.My += l.jump_moment.y;
    s.u += h * l.free.along + h * f.EA * (s.N - h * (l.q0.x / 2 + h * l.slope.x / 6));
    s.N -= h * (l.q0.x + h * l.slope.x / 2);
    s.twist += h * f.GJ * (s.T - h * (l.m0.x / 2 + h * l.m_slope.x / 6));
    s.T -= h * (l.m0.x + h * l.m_slope.x / 2);
    const double Vy =
        carry({s.Vy, s.Mz, s.slope_y, s.v}, {l.q0.y, l.slope.y, -l.m0.z, -l.m_slope.z, l.free.curve_y}, f.EIz, h);
    const double Vz =
        carry({s.Vz, s.My, s.slope_z, s.w}, {l.q0.z, l.slope.z, l.m0.y, l.m_slope.y, l.free.curve_z}, f.EIy, h);
    s.v -= f.GAy * Vy + f.coupling * Vz;
    s.w -= f.GAz * Vz + f.coupling * Vy;
  }
  return s;
}

}  // namespace corvex::solver
