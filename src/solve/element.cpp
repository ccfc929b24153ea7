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

Ends Element::own_ends(Ends e, std::span<const LoadPiece> loads) const {
  if (freed_.empty()) return e;
  // Beside the rigid motion of the span, the freed rotations are those that its other deformations and its
  // loads bring.
  const Vector12 rigid = e.movement - e.bent;
  for (const int i : freed_) e.bent(i) = 0;
  const Vector12 force = whole_ * e.bent + fixed_end_whole(loads);
  const Eigen::VectorXd turned = -spread_ * Eigen::VectorXd(force(freed_));
  for (std::size_t k = 0; k < freed_.size(); ++k) {
    e.bent(freed_[k]) = turned(static_cast<Eigen::Index>(k));
    e.movement(freed_[k]) = rigid(freed_[k]) + e.bent(freed_[k]);
  }
  return e;
}

Vector12 Element::end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const {
  Vector12 f = whole_ * own_ends.bent + fixed_end_whole(loads);
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

Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b) {
  using Eigen::Map, Eigen::Vector3d;
  const Eigen::Matrix3d R = rows(axes);
  const auto part = [](const Six& six, std::size_t from) { return Vector3d(Map<const Vector3d>(six.data() + from)); };
  Ends e;
  e.movement << R * part(a.value, 0), R * part(a.value, 3), R * part(b.value, 0), R * part(b.value, 3);
  const Vector3d apart = R * ((part(b.value, 0) - part(a.value, 0)) + (part(b.rest, 0) - part(a.rest, 0)));
  // The chord turns about y and z only.
  const Vector3d turn(0, -apart.z() / length, apart.y() / length);
  const Vector3d bent_a = (R * part(a.value, 3) - turn) + R * part(a.rest, 3);
  const Vector3d bent_b = (R * part(b.value, 3) - turn) + R * part(b.rest, 3);
  const double twist = (R * ((part(b.value, 3) - part(a.value, 3)) + (part(b.rest, 3) - part(a.rest, 3)))).x();
  e.bent << 0, 0, 0, 0, bent_a.y(), bent_a.z(), apart.x(), 0, 0, twist, bent_b.y(), bent_b.z();
  return e;
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

}  // namespace corvex::solver
