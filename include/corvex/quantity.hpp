// Corvex: physical quantities.
//
// `Measure` is a number with its dimension in the type: a length and a force do not add, and the mistake is
// found by the compiler. All values are stored in SI units (m, kg, s, K, rad). `Quantity` is the same with
// the dimension known at run time, for formulas and for results that may be of any kind.
//
//     using namespace corvex::literals;
//     corvex::Length span = 2.4_m;
//     corvex::MomentSize moment = 3.2_kN * span / 4;
//     fmt::print("{:.0f} N·m\n", moment.in(corvex::units::N_m));   // 1920 N·m
//     fmt::print("{}\n", corvex::to_text(moment));   // 1920 N·m
//
// Accuracy: one rounding an operation, as for double.
#pragma once

#include <cmath>
#include <compare>
#include <stdexcept>

#include "corvex/dimension.hpp"

#pragma GCC visibility push(default)

namespace corvex {

template <int L, int M, int T, int K = 0, int A = 0>
class Measure {
 public:
  constexpr Measure() = default;
  // From a value in SI units; named so that a bare number never becomes a quantity by accident.
  static constexpr Measure si(double value) {
    Measure m;
    m.si_ = value;
    return m;
  }
  constexpr double si() const { return si_; }
  // The number of `unit`s in this: (2.4_m).in(mm) is 2400.
  constexpr double in(Measure unit) const { return si_ / unit.si_; }
  static constexpr Dimension dimension() { return Dimension::of(L, M, T, K, A); }

  constexpr Measure operator-() const { return si(-si_); }
  constexpr Measure operator+(Measure o) const { return si(si_ + o.si_); }
  constexpr Measure operator-(Measure o) const { return si(si_ - o.si_); }
  constexpr Measure& operator+=(Measure o) { return si_ += o.si_, *this; }
  constexpr Measure& operator-=(Measure o) { return si_ -= o.si_, *this; }
  constexpr Measure operator*(double f) const { return si(si_ * f); }
  constexpr Measure operator/(double f) const { return si(si_ / f); }
  constexpr Measure& operator*=(double f) { return si_ *= f, *this; }
  constexpr Measure& operator/=(double f) { return si_ /= f, *this; }
  friend constexpr Measure operator*(double f, Measure m) { return m * f; }
  friend constexpr auto operator/(double f, Measure m) { return Measure<-L, -M, -T, -K, -A>::si(f / m.si_); }
  constexpr auto operator<=>(const Measure&) const = default;

 private:
  double si_ = 0;
};

template <int L, int M, int T, int K, int A, int L2, int M2, int T2, int K2, int A2>
constexpr auto operator*(Measure<L, M, T, K, A> a, Measure<L2, M2, T2, K2, A2> b) {
  if constexpr (L + L2 == 0 && M + M2 == 0 && T + T2 == 0 && K + K2 == 0 && A + A2 == 0)
    return a.si() * b.si();
  else
    return Measure<L + L2, M + M2, T + T2, K + K2, A + A2>::si(a.si() * b.si());
}

template <int L, int M, int T, int K, int A, int L2, int M2, int T2, int K2, int A2>
constexpr auto operator/(Measure<L, M, T, K, A> a, Measure<L2, M2, T2, K2, A2> b) {
  if constexpr (L == L2 && M == M2 && T == T2 && K == K2 && A == A2)
    return a.si() / b.si();
  else
    return Measure<L - L2, M - M2, T - T2, K - K2, A - A2>::si(a.si() / b.si());
}

template <int L, int M, int T, int K, int A>
Measure<L, M, T, K, A> abs(Measure<L, M, T, K, A> m) {
  return Measure<L, M, T, K, A>::si(std::abs(m.si()));
}
template <int L, int M, int T, int K, int A>
Measure<L, M, T, K, A> hypot(Measure<L, M, T, K, A> a, Measure<L, M, T, K, A> b) {
  return Measure<L, M, T, K, A>::si(std::hypot(a.si(), b.si()));
}
// Of an even dimension only: the root of an area is a length.
template <int L, int M, int T, int K, int A>
requires(L % 2 == 0 && M % 2 == 0 && T % 2 == 0 && K % 2 == 0 &&
         A % 2 == 0) Measure<L / 2, M / 2, T / 2, K / 2, A / 2> sqrt(Measure<L, M, T, K, A> m) {
  return Measure<L / 2, M / 2, T / 2, K / 2, A / 2>::si(std::sqrt(m.si()));
}

using Length = Measure<1, 0, 0>;
using Area = Measure<2, 0, 0>;
using SectionModulus = Measure<3, 0, 0>;
using SecondMoment = Measure<4, 0, 0>;
using WarpingConstant = Measure<6, 0, 0>;
using Mass = Measure<0, 1, 0>;
using Density = Measure<-3, 1, 0>;
using MassInertia = Measure<2, 1, 0>;
using AccelerationSize = Measure<1, 0, -2>;
using ForceSize = Measure<1, 1, -2>;
using MomentSize = Measure<2, 1, -2>;
using LineForceSize = Measure<0, 1, -2>;
using Stress = Measure<-1, 1, -2>;
using Expansion = Measure<0, 0, 0, -1>;
using Angle = Measure<0, 0, 0, 0, 1>;
using Frequency = Measure<0, 0, -1>;
// Always a difference.
using Temperature = Measure<0, 0, 0, 1>;
using Stiffness = LineForceSize;
using TurningStiffness = Measure<2, 1, -2, 0, -1>;

inline double sin(Angle a) {
  return std::sin(a.si());
}
inline double cos(Angle a) {
  return std::cos(a.si());
}
inline double tan(Angle a) {
  return std::tan(a.si());
}

// A value in SI units with its dimension known at run time.
struct Quantity {
  double si = 0;
  Dimension dimension{};

  Quantity() = default;
  Quantity(double value, const Dimension& d) : si(value), dimension(d) {}
  template <int L, int M, int T, int K, int A>
  Quantity(Measure<L, M, T, K, A> m) : si(m.si()), dimension(m.dimension()) {}  // NOLINT: meant to convert

  // The number of `unit`s in this. Throws std::invalid_argument where the dimensions differ: a slip in the
  // calling code, never caused by a model.
  template <int L, int M, int T, int K, int A>
  double in(Measure<L, M, T, K, A> unit) const {
    if (!compatible(dimension, unit.dimension()))
      throw std::invalid_argument("corvex: " + name(dimension) + " was asked for in a unit of " +
                                  name(unit.dimension()));
    return si / unit.si();
  }
  bool operator==(const Quantity& o) const { return si == o.si && dimension == o.dimension; }
};

// Standard gravity (ISO 80000-3).
inline constexpr AccelerationSize gn = AccelerationSize::si(9.80665);

// Units as quantities: `using namespace corvex::units;` where they are wanted by their short names.
namespace units {
inline constexpr Length m = Length::si(1), mm = Length::si(1e-3), cm = Length::si(1e-2), inch = Length::si(0.0254),
                        ft = Length::si(0.3048);
inline constexpr Area mm2 = mm * mm, cm2 = cm * cm, m2 = m * m;
inline constexpr SectionModulus mm3 = mm2 * mm, cm3 = cm2 * cm;
inline constexpr SecondMoment mm4 = mm2 * mm2, cm4 = cm2 * cm2;
inline constexpr Mass kg = Mass::si(1), tonne = Mass::si(1000);
inline constexpr Density kg_m3 = Density::si(1);
inline constexpr MassInertia kg_m2 = MassInertia::si(1);
inline constexpr AccelerationSize m_s2 = AccelerationSize::si(1);
inline constexpr ForceSize N = ForceSize::si(1), kN = ForceSize::si(1e3), lbf = ForceSize::si(4.4482216152605);
inline constexpr MomentSize N_m = N * m, kN_m = kN * m, N_mm = N * mm;
inline constexpr LineForceSize N_per_m = N / m, kN_per_m = kN / m, N_per_mm = N / mm;
inline constexpr Stress Pa = Stress::si(1), MPa = Stress::si(1e6), GPa = Stress::si(1e9);
inline constexpr Temperature K = Temperature::si(1);
inline constexpr TurningStiffness N_m_per_rad = TurningStiffness::si(1), kN_m_per_rad = TurningStiffness::si(1e3);
inline constexpr Expansion per_K = Expansion::si(1);
inline constexpr Frequency Hz = Frequency::si(1);
inline constexpr Angle rad = Angle::si(1), mrad = Angle::si(1e-3), deg = Angle::si(0.017453292519943295);
}  // namespace units

namespace literals {
#define CORVEX_LITERAL(suffix, unit)                         \
  constexpr auto operator""_##suffix(long double v) {        \
    return static_cast<double>(v) * units::unit;             \
  }                                                          \
  constexpr auto operator""_##suffix(unsigned long long v) { \
    return static_cast<double>(v) * units::unit;             \
  }
CORVEX_LITERAL(m, m)
CORVEX_LITERAL(cm, cm)
CORVEX_LITERAL(mm, mm)
CORVEX_LITERAL(inch, inch)
CORVEX_LITERAL(ft, ft)
CORVEX_LITERAL(mm2, mm2)
CORVEX_LITERAL(cm2, cm2)
CORVEX_LITERAL(m2, m2)
CORVEX_LITERAL(mm3, mm3)
CORVEX_LITERAL(cm3, cm3)
CORVEX_LITERAL(mm4, mm4)
CORVEX_LITERAL(cm4, cm4)
CORVEX_LITERAL(kg, kg)
CORVEX_LITERAL(kg_m3, kg_m3)
CORVEX_LITERAL(m_s2, m_s2)
CORVEX_LITERAL(N, N)
CORVEX_LITERAL(kN, kN)
CORVEX_LITERAL(lbf, lbf)
CORVEX_LITERAL(N_m, N_m)
CORVEX_LITERAL(kN_m, kN_m)
CORVEX_LITERAL(N_mm, N_mm)
CORVEX_LITERAL(kN_per_m, kN_per_m)
CORVEX_LITERAL(N_per_m, N_per_m)
CORVEX_LITERAL(N_per_mm, N_per_mm)
CORVEX_LITERAL(Pa, Pa)
CORVEX_LITERAL(MPa, MPa)
CORVEX_LITERAL(GPa, GPa)
CORVEX_LITERAL(K, K)
CORVEX_LITERAL(kN_m_per_rad, kN_m_per_rad)
CORVEX_LITERAL(N_m_per_rad, N_m_per_rad)
CORVEX_LITERAL(per_K, per_K)
CORVEX_LITERAL(Hz, Hz)
CORVEX_LITERAL(tonne, tonne)
CORVEX_LITERAL(kg_m2, kg_m2)
CORVEX_LITERAL(rad, rad)
CORVEX_LITERAL(mrad, mrad)
CORVEX_LITERAL(deg, deg)
#undef CORVEX_LITERAL
}  // namespace literals

}  // namespace corvex

#pragma GCC visibility pop
