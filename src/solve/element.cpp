#include "solve/element.hpp"

#include <Eigen/LU>

namespace corvex::solver {
namespace {

// One bending plane at the freedoms (deflection a, slope a, deflection b, slope b); `sign` is −1 where the
// rotation about the axis is minus the slope.
void add_bending(Matrix12& K, double EI, double GA, double L, const std::array<int, 4>& f, double sign) {
  if (EI == 0) return;
  const double phi = GA > 0 ? 12 * EI / (GA * L * L) : 0;
  const double k = EI / (L * (1 + phi));
  const double kt = 12 * k / (L * L), kc = 6 * k / L * sign, kr = (4 + phi) * k, ko = (2 - phi) * k;
  const double block[4][4] = {{kt, kc, -kt, kc}, {kc, kr, -kc, ko}, {-kt, -kc, kt, -kc}, {kc, ko, -kc, kr}};
  for (int i = 0; i < 4; ++i)
    for (int j = 0; j < 4; ++j) K(f[i], f[j]) += block[i][j];
}

void add_pair(Matrix12& K, double k, int a, int b) {
  K(a, a) += k;
  K(b, b) += k;
  K(a, b) -= k;
  K(b, a) -= k;
}

}  // namespace

Element::Element(const Rigidity& r, const Span& span) : r_(r), length_(span.length), beam_(span.beam) {
  whole_.setZero();
  add_pair(whole_, r.EA / length_, 0, 6);
  if (!beam_) {
    condensed_ = whole_;
    return;
  }
  add_pair(whole_, r.GJ / length_, 3, 9);
  add_bending(whole_, r.EIz, r.GAy, length_, {1, 5, 7, 11}, 1);
  add_bending(whole_, r.EIy, r.GAz, length_, {2, 4, 8, 10}, -1);
  condensed_ = whole_;
  const auto free = [&](int i) {
    if (whole_(i, i) > 0) freed_.push_back(i);
  };
  if (span.hinge_a) free(4), free(5);
  if (span.hinge_b) free(10), free(11);
  if (freed_.empty()) return;
  spread_ = Eigen::MatrixXd(whole_(freed_, freed_)).inverse();
  condensed_ -= whole_(Eigen::all, freed_) * spread_ * whole_(freed_, Eigen::all);
  for (const int i : freed_) {
    condensed_.row(i).setZero();
    condensed_.col(i).setZero();
  }
}

Vector12 Element::fixed_end_whole(std::span<const LoadPiece> loads) const {
  Vector12 f = Vector12::Zero();
  if (loads.empty()) return f;
  const State p = particular(r_, loads);
  if (!beam_) {
    // Axial force exactly; across, the loads go to the ends as on a simple span.
    const double Va = -p.Mz / length_, Wa = -p.My / length_;
    const double pull = r_.EA > 0 ? p.u * r_.EA / length_ : 0;
    f << pull, Va, Wa, 0, 0, 0, p.N - pull, -(Va + p.Vy), -(Wa + p.Vz), 0, 0, 0;
    return f;
  }
  Vector12 d = Vector12::Zero();
  d.tail<6>() << p.u, p.v, p.w, p.twist, -p.slope_z, p.slope_y;
  f.tail<6>() << p.N, -p.Vy, -p.Vz, p.T, -p.My, p.Mz;
  return f - whole_ * d;
}

Vector12 Element::fixed_end(std::span<const LoadPiece> loads) const {
  Vector12 f = fixed_end_whole(loads);
  if (freed_.empty() || loads.empty()) return f;
  const Eigen::VectorXd freed = f(freed_);
  f -= whole_(Eigen::all, freed_) * (spread_ * freed);
  for (const int i : freed_) f(i) = 0;
  return f;
}

Vector12 Element::own_ends(const Vector12& ends, std::span<const LoadPiece> loads) const {
  if (freed_.empty()) return ends;
  // Beside the rigid motion of the span, the freed rotations are those that its other deformations and its
  // loads bring.
  Vector12 d = ends, bent = deforming_part(ends, length_);
  for (const int i : freed_) bent(i) = 0;
  const Vector12 force = whole_ * bent + fixed_end_whole(loads);
  const Eigen::VectorXd turned = -spread_ * Eigen::VectorXd(force(freed_));
  const Vector12 rigid = ends - deforming_part(ends, length_);
  for (std::size_t k = 0; k < freed_.size(); ++k)
    d(freed_[k]) = rigid(freed_[k]) + turned(static_cast<Eigen::Index>(k));
  return d;
}

Vector12 Element::end_forces(const Vector12& own_ends, std::span<const LoadPiece> loads) const {
  Vector12 f = whole_ * deforming_part(own_ends, length_) + fixed_end_whole(loads);
  for (const int i : freed_) f(i) = 0;
  return f;
}

namespace {

Eigen::Matrix3d rows(const Axes& a) {
  Eigen::Matrix3d R;
  R << a.x.x, a.x.y, a.x.z, a.y.x, a.y.y, a.y.z, a.z.x, a.z.y, a.z.z;
  return R;
}

}  // namespace

Vector12 to_local(const Axes& axes, const Vector12& global) {
  const Eigen::Matrix3d R = rows(axes);
  Vector12 r;
  for (int i = 0; i < 12; i += 3) r.segment<3>(i) = R * global.segment<3>(i);
  return r;
}

Vector12 to_global(const Axes& axes, const Vector12& local) {
  const Eigen::Matrix3d R = rows(axes);
  Vector12 r;
  for (int i = 0; i < 12; i += 3) r.segment<3>(i) = R.transpose() * local.segment<3>(i);
  return r;
}

Matrix12 to_global(const Axes& axes, const Matrix12& local) {
  const Eigen::Matrix3d R = rows(axes);
  Matrix12 K;
  for (int i = 0; i < 12; i += 3)
    for (int j = 0; j < 12; j += 3) K.block<3, 3>(i, j) = R.transpose() * local.block<3, 3>(i, j) * R;
  return K;
}

Vector12 deforming_part(const Vector12& d, double length) {
  const double turn_z = (d(7) - d(1)) / length, turn_y = -(d(8) - d(2)) / length;
  Vector12 r = Vector12::Zero();
  r(4) = d(4) - turn_y;
  r(5) = d(5) - turn_z;
  r(6) = d(6) - d(0);
  r(9) = d(9) - d(3);
  r(10) = d(10) - turn_y;
  r(11) = d(11) - turn_z;
  return r;
}

}  // namespace corvex::solver
