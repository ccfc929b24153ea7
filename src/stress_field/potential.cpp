#include "stress_field/potential.hpp"

#include <Eigen/LU>
#include <cmath>
#include <numbers>

#include "corvex/stop.hpp"

namespace corvex::section {

Potential::Potential(const Region& region, double grading, int order)
    : left_right_(region.left_right),
      up_down_(region.up_down),
      rule_(order),
      panels_(section::panels(region, grading)) {
  const std::size_t p = rule_.node.size();
  for (const Panel& panel : panels_) {
    pieces_.emplace_back(panel.edge);
    for (std::size_t j = 0; j < p; ++j) {
      const Edge::Point there = panel.edge.point(rule_.node[j]);
      nodes_.push_back({there.at, there.tangent, there.speed * rule_.weight[j]});
    }
  }
  legendre_.resize(p * p);
  for (std::size_t j = 0; j < p; ++j) {
    double before = 0, value = 1;
    for (std::size_t n = 0; n < p; ++n) {
      const double m = static_cast<double>(n);
      legendre_[j * p + n] = (2 * m + 1) * value * rule_.weight[j];
      const double next = ((2 * m + 1) * rule_.node[j] * value - m * before) / (m + 1);
      before = value;
      value = next;
    }
  }
  const auto size = static_cast<Eigen::Index>(nodes_.size());
  z_.resize(size), y_.resize(size);
  for (Eigen::Index i = 0; i < size; ++i) {
    z_(i) = nodes_[static_cast<std::size_t>(i)].at.real();
    y_(i) = nodes_[static_cast<std::size_t>(i)].at.imag();
  }
  twin_ = swapped();
  for (int i = 0; i < images(); ++i) {
    stop_point();
    angle_.emplace_back(size, size);
    fill_angles(i, angle_.back());
  }
  // The other half of a square section: the mirrors left-right and up-down change places in the diagonal.
  for (int i = 0; i < images() && !twin_.empty(); ++i) {
    const Eigen::MatrixXd& other = angle_[i == 1 ? 2 : i == 2 ? 1 : static_cast<std::size_t>(i)];
    for (Eigen::Index column = 0; column < size; ++column) {
      const Eigen::Index twin_column = twin_[static_cast<std::size_t>(column)];
      for (Eigen::Index row = 0; row < size; ++row)
        if (const Eigen::Index t = twin_[static_cast<std::size_t>(row)]; t < row)
          angle_[static_cast<std::size_t>(i)](row, column) = other(t, twin_column);
    }
  }
}

std::vector<Eigen::Index> Potential::swapped() const {
  if (!left_right_ || !up_down_) return {};
  const auto n = static_cast<Eigen::Index>(nodes_.size());
  std::vector<Eigen::Index> twin(nodes_.size());
  const double tiny = 1e-12 * (z_.abs().maxCoeff() + y_.abs().maxCoeff());
  // Each contour is run through from one axis to the other: its nodes pair from both ends.
  for (Eigen::Index first = 0; first < n;) {
    Eigen::Index end = first;
    const auto contour = [&](Eigen::Index i) {
      return panels_[static_cast<std::size_t>(i) / rule_.node.size()].contour;
    };
    while (end < n && contour(end) == contour(first)) ++end;
    if ((end - first) % 2 != 0) return {};
    for (Eigen::Index i = first; i < end; ++i) {
      const Eigen::Index t = first + end - 1 - i;
      if (std::abs(z_(i) - y_(t)) > tiny || std::abs(y_(i) - z_(t)) > tiny) return {};
      twin[static_cast<std::size_t>(i)] = t;
    }
    first = end;
  }
  return twin;
}

// Gauss's rule for all places first, whole columns at a time; then the exact integrals for those that are near.
void Potential::fill_angles(int which, Eigen::MatrixXd& angle) const {
  const std::size_t p = rule_.node.size();
  const Complex mirror = image({1, 1}, which, {}).first;
  const Eigen::ArrayXd z = z_ * mirror.real(), y = y_ * mirror.imag();
  // Rows that are computed: all, or those that the others follow from.
  std::vector<std::pair<Eigen::Index, Eigen::Index>> ranges;
  const auto wanted = [&](Eigen::Index row) { return twin_.empty() || twin_[static_cast<std::size_t>(row)] > row; };
  for (Eigen::Index row = 0; row < z.size(); ++row) {
    if (!wanted(row)) continue;
    if (ranges.empty() || ranges.back().second != row) ranges.emplace_back(row, row);
    ranges.back().second = row + 1;
  }
  Weights w;
  for (std::size_t panel = 0; panel < panels_.size(); ++panel) {
    for (std::size_t j = 0; j < p; ++j) {
      const Node& node = nodes_[panel * p + j];
      const double tz = node.tangent.real() * node.weight, ty = node.tangent.imag() * node.weight,
                   across = node.at.real() * ty - node.at.imag() * tz;
      for (const auto& [from, end] : ranges) {
        const auto z_here = z.segment(from, end - from), y_here = y.segment(from, end - from);
        angle.col(static_cast<Eigen::Index>(panel * p + j)).segment(from, end - from) =
            (across - z_here * ty + y_here * tz) /
            ((node.at.real() - z_here).square() + (node.at.imag() - y_here).square());
      }
    }
    const auto first = static_cast<Eigen::Index>(panel * p), count = static_cast<Eigen::Index>(p);
    for (std::size_t other = 0; other < panels_.size(); ++other) {
      const auto seen_from = static_cast<Eigen::Index>(other * p);
      const bool same_side = which == 0 && !panels_[other].edge.is_arc() &&
                             panels_[other].contour == panels_[panel].contour && panels_[other].of == panels_[panel].of;
      // A straight side is seen from itself without any angle.
      if (same_side) {
        angle.block(seen_from, first, count, count).setZero();
        continue;
      }
      for (Eigen::Index i = 0; i < count; ++i) {
        const Eigen::Index row = seen_from + i;
        if (!wanted(row)) continue;
        const Complex from(z(row), y(row));
        if (!near(pieces_[panel], from)) continue;
        const bool own = which == 0 && other == panel;
        weigh_near(panel, from, own ? std::optional(static_cast<std::size_t>(i)) : std::nullopt, false, w);
        for (Eigen::Index j = 0; j < count; ++j) angle(row, first + j) = w.angle[static_cast<std::size_t>(j)];
      }
    }
  }
}

std::pair<Complex, int> Potential::image(Complex at, int which, Parity parity) const {
  int sign = 1;
  const bool mirror_z = left_right_ && (which & 1);
  const bool mirror_y = up_down_ && (left_right_ ? (which & 2) : (which & 1));
  if (mirror_z) at = -std::conj(at), sign *= parity.left_right;
  if (mirror_y) at = std::conj(at), sign *= parity.up_down;
  return {at, sign};
}

namespace {

// As std::complex has them, without its care for infinities: none come here, and this is where all the time goes.
Complex logarithm(Complex x) {
  if (x == 0.0) return 0;
  return {std::log(std::norm(x)) / 2, std::atan2(x.imag(), x.real())};
}
Complex times(Complex a, Complex b) {
  return {a.real() * b.real() - a.imag() * b.imag(), a.real() * b.imag() + a.imag() * b.real()};
}

}  // namespace

namespace {

// Legendre's recurrence: (n + 1) Q[n+1] = (2n + 1) t Q[n] − n Q[n−1].
struct Recurrence {
  constexpr Recurrence() {
    for (int n = 0; n < 16; ++n) of_this[n] = (2.0 * n + 1) / (n + 1), of_last[n] = n / (n + 1.0);
  }
  double of_this[16] = {}, of_last[16] = {};
};
constexpr Recurrence recurrence;

// The ends ±1 of a piece seen from a place t0 of the complex plane.
struct Ends {
  explicit Ends(Complex t0) : end(1.0 - t0), start(-1.0 - t0) {
    const auto logarithm_of = [](double square) { return square > 0 ? std::log(square) / 2 : 0; };
    log_end = logarithm_of(std::norm(end));
    log_start = logarithm_of(std::norm(start));
    const Complex turn = times(start, std::conj(end));
    between = turn == 0.0 ? 0 : std::atan2(turn.imag(), turn.real());
  }
  // Legendre's function of the second kind, Q0(t0) = ½ ∫ dt/(t0 − t).
  Complex Q0() const { return {(log_start - log_end) / 2, between / 2}; }
  // ∫ ln|t − t0| dt
  double of_log() const { return end.real() * log_end - start.real() * log_start + end.imag() * between - 2; }

  Complex end, start;
  double log_end, log_start, between;  // the angle from the end to the start
};

}  // namespace

Potential::Piece::Piece(const Edge& e) : edge(e), middle(e.at(0)), half(e.derivative(0)), size(e.length() / 2) {}

Complex Potential::Piece::parameter(Complex place) const {
  if (!edge.is_arc()) {
    const Complex t = times(place - middle, std::conj(half));
    const double scale = 1 / (size * size);
    return {t.real() * scale, t.imag() * scale};
  }
  const Complex spoke = times(place - edge.centre, std::conj(middle - edge.centre)) / std::norm(middle - edge.centre);
  if (std::norm(spoke) < 1e-6) return {0, 1e3};
  return times({0, -2 / edge.sweep}, logarithm(spoke));
}

// Further away Gauss's rule is exact enough.
bool Potential::near(const Piece& piece, Complex from) const {
  constexpr double beyond = 3.5;
  return std::norm(from - piece.middle) <= beyond * beyond * piece.size * piece.size;
}

void Potential::weigh(std::size_t panel, Complex from, Weights& w) const {
  if (near(pieces_[panel], from)) return weigh_near(panel, from, std::nullopt, true, w);
  const std::size_t p = rule_.node.size();
  for (std::size_t j = 0; j < p; ++j) {
    const Node& node = nodes_[panel * p + j];
    const Complex d = node.at - from;
    const double square = std::norm(d);
    w.angle[j] = node.weight * (node.tangent.imag() * d.real() - node.tangent.real() * d.imag()) / square;
    w.log[j] = node.weight * std::log(square) / 2;
  }
}

void Potential::weigh_near(std::size_t panel, Complex from, std::optional<std::size_t> own_node, bool with_log,
                           Weights& w) const {
  const Piece& piece = pieces_[panel];
  const Edge& e = piece.edge;
  const std::size_t p = rule_.node.size();
  const double size = piece.size;
  const Complex t0 = own_node ? rule_.node[*own_node] : piece.parameter(from);
  // Legendre's functions of the second kind; on the panel itself their mean of both sides, which is real.
  const Ends ends(t0);
  std::array<Complex, 16> Q;
  Q[0] = ends.Q0();
  if (own_node) Q[0].imag(0);
  Q[1] = times(t0, Q[0]) - 1.0;
  for (std::size_t n = 1; n <= p; ++n) {
    const Complex next = times(t0, Q[n]);
    const double a = recurrence.of_this[n], b = recurrence.of_last[n];
    Q[n + 1] = {a * next.real() - b * Q[n - 1].real(), a * next.imag() - b * Q[n - 1].imag()};
  }
  // ∫ P_n/(t − t0) dt = −2 Q_n, and ∫ P_n ln|t − t0| dt by parts.
  for (std::size_t j = 0; j < p; ++j) {
    double angle = 0;
    for (std::size_t n = 0; n < p; ++n) angle -= legendre_[j * p + n] * Q[n].imag();
    w.angle[j] = angle;
  }
  if (with_log) {
    std::array<double, 16> of_log;
    of_log[0] = ends.of_log();
    for (std::size_t n = 1; n < p; ++n) of_log[n] = 2 * (Q[n + 1] - Q[n - 1]).real() / (2 * static_cast<double>(n) + 1);
    for (std::size_t j = 0; j < p; ++j) {
      double log = 0;
      for (std::size_t n = 0; n < p; ++n) log += legendre_[j * p + n] * of_log[n] / 2;
      w.log[j] = size * (log + std::log(size) * rule_.weight[j]);
    }
  }
  if (!e.is_arc()) return;
  // The difference between the kernel of the arc and that of a straight panel is smooth.
  for (std::size_t j = 0; j < p; ++j) {
    const double t = rule_.node[j];
    const Complex apart = nodes_[panel * p + j].at - from, own = t - t0;  // both vanish at the node itself
    if (own == 0.0) {
      w.angle[j] += rule_.weight[j] * e.sweep / 4;
      continue;
    }
    const Complex along = nodes_[panel * p + j].tangent * size;
    w.angle[j] +=
        rule_.weight[j] * (times(along, std::conj(apart)).imag() / std::norm(apart) + own.imag() / std::norm(own));
    if (with_log) w.log[j] += rule_.weight[j] * size * (std::log(std::norm(apart) / std::norm(own * size)) / 2);
  }
}

Values Potential::at_nodes(const Wanted& wanted) const {
  Values q(static_cast<Eigen::Index>(nodes_.size()));
  for (Eigen::Index i = 0; i < q.size(); ++i) {
    const Node& node = nodes_[static_cast<std::size_t>(i)];
    q(i) = wanted.q(node.at, node.tangent);
  }
  return q;
}

// Adds ∫ q ln r ds over an arc's panel and its images: Gauss's rule for all places, then the exact one where it is
// near. The images share one logarithm, of the product of their distances. Each function is added by itself, so that it
// comes out the same to the last digit whichever others are asked for.
void Potential::add_arc(std::size_t panel, const std::vector<Values>& q, const Eigen::MatrixXd& sign,
                        Eigen::MatrixXd& sum) const {
  const auto p = static_cast<Eigen::Index>(rule_.node.size()), first = static_cast<Eigen::Index>(panel) * p;
  std::vector<Eigen::ArrayXXd> square(static_cast<std::size_t>(images()), Eigen::ArrayXXd(sum.rows(), p));
  Weights w;
  for (int i = 0; i < images(); ++i) {
    Eigen::ArrayXXd& r2 = square[static_cast<std::size_t>(i)];
    const Complex mirror = image({1, 1}, i, {}).first;
    for (Eigen::Index j = 0; j < p; ++j) {
      const Node& node = nodes_[static_cast<std::size_t>(first + j)];
      r2.col(j) = (node.at.real() - z_ * mirror.real()).square() + (node.at.imag() - y_ * mirror.imag()).square();
    }
    for (Eigen::Index row = 0; row < sum.rows(); ++row) {
      const Complex from(z_(row) * mirror.real(), y_(row) * mirror.imag());
      if (!near(pieces_[panel], from)) continue;
      const bool own = i == 0 && row / p == static_cast<Eigen::Index>(panel);
      weigh_near(panel, from, own ? std::optional(static_cast<std::size_t>(row % p)) : std::nullopt, true, w);
      // Its logarithm is counted here.
      r2.row(row) = 1;
      for (Eigen::Index f = 0; f < sum.cols(); ++f)
        for (Eigen::Index j = 0; j < p; ++j)
          sum(row, f) += sign(i, f) * w.log[static_cast<std::size_t>(j)] * q[static_cast<std::size_t>(f)](first + j);
    }
  }
  Eigen::ArrayXXd product(sum.rows(), p);
  for (Eigen::Index f = 0; f < sum.cols(); ++f) {
    product = square.front();
    if (sign(0, f) < 0) product = product.inverse();
    for (int i = 1; i < images(); ++i) {
      if (sign(i, f) > 0)
        product *= square[static_cast<std::size_t>(i)];
      else
        product /= square[static_cast<std::size_t>(i)];
    }
    product = product.log();
    for (Eigen::Index j = 0; j < p; ++j) {
      const double weight = nodes_[static_cast<std::size_t>(first + j)].weight / 2;
      sum.col(f) += product.col(j).matrix() * (weight * q[static_cast<std::size_t>(f)](first + j));
    }
  }
}

namespace {

// ∫ P_n ln|t − t0| dt for n = 0, 1, 2 over a straight side, t from −1 to 1.
std::array<double, 3> integrals_of_log(const Complex& t0) {
  static const Gauss far_rule(4);
  std::array<double, 3> of_log{};
  // The recurrence loses digits far away, where Gauss's rule is exact.
  if (std::norm(t0) > 144) {
    for (std::size_t k = 0; k < far_rule.node.size(); ++k) {
      const double t = far_rule.node[k], part = far_rule.weight[k] * std::log(std::norm(t - t0)) / 2;
      of_log[0] += part, of_log[1] += part * t, of_log[2] += part * (3 * t * t - 1) / 2;
    }
  } else {
    const Ends ends(t0);
    const Complex Q0 = ends.Q0(), Q1 = times(t0, Q0) - 1.0, Q2 = 1.5 * times(t0, Q1) - 0.5 * Q0,
                  Q3 = 5.0 / 3 * times(t0, Q2) - 2.0 / 3 * Q1;
    of_log[0] = ends.of_log();
    of_log[1] = 2 * (Q2 - Q0).real() / 3;
    of_log[2] = 2 * (Q3 - Q1).real() / 5;
  }
  return of_log;
}

}  // namespace

// ∫ q ln r ds over the outline and its images, seen from every node: a row a node, a column a function.
//
// Over a straight side it is taken at once, q being c₀P₀ + c₁P₁ + c₂P₂ there; over arcs panel by panel.
Eigen::MatrixXd Potential::logarithmic(const std::vector<Wanted>& wanted) const {
  const auto n = static_cast<Eigen::Index>(nodes_.size()), count = static_cast<Eigen::Index>(wanted.size());
  Eigen::MatrixXd sum = Eigen::MatrixXd::Zero(n, count), sign(images(), count);
  for (Eigen::Index f = 0; f < count; ++f)
    for (int i = 0; i < images(); ++i) sign(i, f) = image({}, i, wanted[static_cast<std::size_t>(f)].parity).second;
  std::vector<Values> q;
  for (const Wanted& one : wanted) q.push_back(at_nodes(one));
  for (std::size_t first = 0; first < panels_.size();) {
    std::size_t end = first + 1;
    const Panel& p0 = panels_[first];
    if (p0.edge.is_arc()) {
      add_arc(first, q, sign, sum);
      first = end;
      continue;
    }
    while (end < panels_.size() && panels_[end].contour == p0.contour && panels_[end].of == p0.of) ++end;
    // A side that was cut on a line of symmetry is taken whole, and with it the images in that line.
    Complex from = p0.edge.from, to = panels_[end - 1].edge.to;
    const double tiny = 1e-12 * std::abs(to - from);
    const auto level = [&](double a, double b) { return std::abs(a - b) <= tiny; };
    const bool whole_z = left_right_ && level(from.imag(), to.imag()) && (level(from.real(), 0) || level(to.real(), 0));
    const bool whole_y = up_down_ && level(from.real(), to.real()) && (level(from.imag(), 0) || level(to.imag(), 0));
    if (whole_z) (level(from.real(), 0) ? from : to) = -std::conj(level(from.real(), 0) ? to : from);
    if (whole_y) (level(from.imag(), 0) ? from : to) = std::conj(level(from.imag(), 0) ? to : from);
    const Piece side(Edge::line(from, to));
    const Complex tangent = side.half / side.size;
    Eigen::MatrixXd c(3, count);
    for (Eigen::Index f = 0; f < count; ++f) {
      const auto value = [&](double t) { return wanted[static_cast<std::size_t>(f)].q(side.edge.at(t), tangent); };
      const double a = value(-1), b = value(0), d = value(1);
      c.col(f) << (a + 4 * b + d) / 6, (d - a) / 2, (a - 2 * b + d) / 3;
    }
    first = end;
    if (c.isZero(0)) continue;
    const double log_size = std::log(side.size);
    for (int i = 0; i < images(); ++i) {
      const Complex mirror = image({1, 1}, i, {}).first;
      if ((whole_z && mirror.real() < 0) || (whole_y && mirror.imag() < 0)) continue;
      for (Eigen::Index row = 0; row < n; ++row) {
        const Complex t0 = side.parameter(image(nodes_[static_cast<std::size_t>(row)].at, i, {}).first);
        std::array<double, 3> of_log = integrals_of_log(t0);
        of_log[0] += 2 * log_size;
        for (Eigen::Index f = 0; f < count; ++f)
          sum(row, f) += sign(i, f) * side.size * (c(0, f) * of_log[0] + c(1, f) * of_log[1] + c(2, f) * of_log[2]);
      }
    }
  }
  return sum;
}

Eigen::MatrixXd Potential::matrix(Parity parity) const {
  Eigen::MatrixXd A = -angle_[0];
  for (int i = 1; i < images(); ++i) {
    if (image({}, i, parity).second > 0)
      A -= angle_[static_cast<std::size_t>(i)];
    else
      A += angle_[static_cast<std::size_t>(i)];
  }
  A.diagonal().array() += std::numbers::pi;
  if (parity == Parity{}) {
    // A constant is left open: the mean shall vanish.
    double all = 0;
    for (const Node& node : nodes_) all += node.weight;
    for (Eigen::Index j = 0; j < A.cols(); ++j) A.col(j).array() += nodes_[static_cast<std::size_t>(j)].weight / all;
  }
  return A;
}

namespace {

// A system of equations solved in single precision, which takes half the time, and refined in double precision until
// the correction is rounding (Higham, Accuracy and Stability of Numerical Algorithms, chapter 12). The equations are of
// the second kind and well conditioned; where the corrections do not shrink, double precision is used throughout.
class Refined {
 public:
  explicit Refined(Eigen::MatrixXd A) : A_(std::move(A)), single_(Eigen::MatrixXf(A_.cast<float>())) {}

  Values solve(const Values& b) {
    if (double_) return double_->solve(b);
    Values x = roughly(b);
    double last = x.norm();
    for (int step = 0; step < 10; ++step) {
      const Values change = roughly(b - A_ * x);
      x += change;
      const double size = change.norm();
      if (size <= 1e-13 * x.norm()) return x;
      if (!(size < last / 8)) break;
      last = size;
    }
    double_.emplace(A_);
    return double_->solve(b);
  }

 private:
  Values roughly(const Values& b) const {
    const Eigen::VectorXf right = b.cast<float>(), x = single_.solve(right);
    return x.cast<double>();
  }

  Eigen::MatrixXd A_;
  Eigen::PartialPivLU<Eigen::MatrixXf> single_;
  std::optional<Eigen::PartialPivLU<Eigen::MatrixXd>> double_;
};

}  // namespace

// The sign with which b comes back when the diagonal of a square section exchanges y and z; 0 where it is another
// function then, or the equations are others.
int Potential::sign_in_the_diagonal(const Values& b, Parity parity) const {
  if (twin_.empty() || parity.left_right != parity.up_down) return 0;
  constexpr double rounding = 1e-12;
  const Values other = in_the_diagonal(b);
  for (const int sign : {1, -1})
    if ((other - sign * b).norm() <= rounding * b.norm()) return sign;
  return 0;
}

std::vector<Values> Potential::solve(const std::vector<Wanted>& wanted) {
  std::vector<Values> solved;
  std::vector<Wanted> all = wanted;
  // Without a mirror line, parity has no meaning.
  for (Wanted& one : all) one.parity = {left_right_ ? one.parity.left_right : 1, up_down_ ? one.parity.up_down : 1};
  const Eigen::MatrixXd right = logarithmic(all);
  std::vector<Eigen::Index> first, second;  // the nodes on either side of the diagonal
  for (std::size_t i = 0; i < twin_.size(); ++i)
    if (const auto node = static_cast<Eigen::Index>(i); node < twin_[i])
      first.push_back(node), second.push_back(twin_[i]);
  std::optional<Refined> factor;
  std::optional<std::pair<Parity, int>> factored;
  for (std::size_t f = 0; f < all.size(); ++f) {
    const Values b = -right.col(static_cast<Eigen::Index>(f));
    const int sign = sign_in_the_diagonal(b, all[f].parity);
    if (factored != std::pair(all[f].parity, sign)) {
      Eigen::MatrixXd A = matrix(all[f].parity);
      if (sign != 0) A = (A(first, first) + sign * A(first, second)).eval();
      factor.emplace(std::move(A));
      factored = {all[f].parity, sign};
    }
    if (sign == 0) {
      solved.push_back(factor->solve(b));
      continue;
    }
    const Values half = factor->solve(b(first));
    Values u(b.size());
    u(first) = half, u(second) = sign * half;
    solved.push_back(std::move(u));
  }
  angle_ = {};
  return solved;
}

Values Potential::in_the_diagonal(const Values& u) const {
  Values v(u.size());
  for (Eigen::Index i = 0; i < u.size(); ++i) v(i) = u(twin_[static_cast<std::size_t>(i)]);
  return v;
}

double Potential::inside(Complex at, const Values& u, const Values& q, Parity parity) const {
  double sum = 0;
  Weights w;
  const std::size_t p = rule_.node.size();
  for (int i = 0; i < images(); ++i) {
    const auto [from, sign] = image(at, i, parity);
    for (std::size_t panel = 0; panel < panels_.size(); ++panel) {
      weigh(panel, from, w);
      for (std::size_t j = 0; j < p; ++j) {
        const auto k = static_cast<Eigen::Index>(panel * p + j);
        sum += sign * (w.angle[j] * u(k) - w.log[j] * q(k));
      }
    }
  }
  return sum / (2 * std::numbers::pi);
}

double Potential::integral(const Values& f) const {
  double sum = 0;
  for (std::size_t i = 0; i < nodes_.size(); ++i) sum += nodes_[i].weight * f(static_cast<Eigen::Index>(i));
  return sum * images();
}

std::vector<double> Potential::differences(const Values& u) const {
  const std::size_t p = rule_.node.size();
  std::vector<double> all(u.data(), u.data() + u.size());
  for (std::size_t panel = 0; panel < panels_.size(); ++panel) {
    double* d = all.data() + panel * p;
    for (std::size_t k = 1; k < p; ++k)
      for (std::size_t j = p - 1; j >= k; --j) d[j] = (d[j] - d[j - 1]) / (rule_.node[j] - rule_.node[j - k]);
  }
  return all;
}

std::pair<double, double> Potential::on(std::size_t panel, double t, const std::vector<double>& differences) const {
  const std::size_t p = rule_.node.size();
  const double* d = differences.data() + panel * p;
  double value = d[p - 1], slope = 0;
  for (std::size_t k = p - 1; k-- > 0;) {
    slope = slope * (t - rule_.node[k]) + value;
    value = value * (t - rule_.node[k]) + d[k];
  }
  return {value, slope / pieces_[panel].size};
}

}  // namespace corvex::section
