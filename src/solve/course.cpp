#include "solve/course.hpp"

namespace corvex::solver {
namespace {

double per(double stiffness) {
  return stiffness > 0 ? 1 / stiffness : 0;
}

// One bending plane: shear, moment, slope and deflection from the load across.
void bend(double V0, double M0, double q0, double slope_q, double curve, double slope0, double v0, double flexibility,
          double shear_flexibility, Polynomial& V, Polynomial& M, Polynomial& slope, Polynomial& v) {
  Polynomial q;
  q.c[0] = q0;
  q.c[1] = slope_q;
  V = q.integral(V0);
  M = V.integral(M0);
  Polynomial curvature = M * flexibility;
  curvature.c[0] += curve;
  slope = curvature.integral(slope0);
  v = (slope - V * shear_flexibility).integral(v0);
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
  p.T.c[0] = s.T - load.jump_moment.x;
  p.twist = (p.T * per(r.GJ)).integral(s.twist);
  bend(s.Vy + load.jump_force.y, s.Mz - load.jump_moment.z, load.q0.y, load.slope.y, load.free.curve_y, s.slope_y, s.v,
       per(r.EIz), per(r.GAy), p.Vy, p.Mz, p.slope_y, p.v);
  bend(s.Vz + load.jump_force.z, s.My + load.jump_moment.y, load.q0.z, load.slope.z, load.free.curve_z, s.slope_z, s.w,
       per(r.EIy), per(r.GAz), p.Vz, p.My, p.slope_z, p.w);
  return p;
}

}  // namespace

std::vector<CoursePiece> integrate(const Rigidity& r, double length, std::span<const LoadPiece> loads,
                                   const State& start) {
  const LoadPiece nothing{0, length, {}, {}, {}, {}};
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

// One bending plane carried to the end of a piece: the integrals of `bend`, evaluated there.
void carry(double& V, double& M, double& slope, double& v, double q0, double slope_q, double curve, double flexibility,
           double shear_flexibility, double h) {
  constexpr double sixth = 1.0 / 6;
  const double rise = q0 / 2 + h * slope_q * sixth;  // (M after it less M before it)/h², the part of the load
  v += h * (slope + h * curve / 2 +
            h * flexibility * (M / 2 + h * (V * sixth + h * (q0 * (1.0 / 24) + h * slope_q * (1.0 / 120)))) -
            shear_flexibility * (V + h * rise));
  slope += h * curve + h * flexibility * (M + h * (V / 2 + h * (q0 * sixth + h * slope_q * (1.0 / 24))));
  M += h * (V + h * rise);
  V += h * (q0 + h * slope_q / 2);
}

}  // namespace

Flexibility::Flexibility(const Rigidity& r)
    : EA(per(r.EA)), EIy(per(r.EIy)), EIz(per(r.EIz)), GJ(per(r.GJ)), GAy(per(r.GAy)), GAz(per(r.GAz)) {}

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
    s.twist += h * f.GJ * s.T;
    carry(s.Vy, s.Mz, s.slope_y, s.v, l.q0.y, l.slope.y, l.free.curve_y, f.EIz, f.GAy, h);
    carry(s.Vz, s.My, s.slope_z, s.w, l.q0.z, l.slope.z, l.free.curve_z, f.EIy, f.GAz, h);
  }
  return s;
}

}  // namespace corvex::solver
