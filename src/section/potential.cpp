#include "section/potential.hpp"

#include <Eigen/LU>
#include <cmath>
#include <numbers>

namespace corvex::section {

Potential::Potential(const Region& region, double grading, int order)
    : left_right_(region.left_right),
      up_down_(region.up_down),
      rule_(order),
      panels_(section::panels(region, grading)) {
  const std::size_t p = rule_.node.size();
  for (const Panel& panel : panels_)
    for (std::size_t j = 0; j < p; ++j) {
      const Complex d = panel.edge.derivative(rule_.node[j]);
      nodes_.push_back({panel.edge.at(rule_.node[j]), d / std::abs(d), std::abs(d) * rule_.weight[j]});
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
  Weights w;
  for (int i = 0; i < images(); ++i) {
    angle_.emplace_back(size, size);
    log_.emplace_back(size, size);
    for (std::size_t panel = 0; panel < panels_.size(); ++panel)
      for (Eigen::Index row = 0; row < size; ++row) {
        const auto node = static_cast<std::size_t>(row);
        const bool own = i == 0 && node / p == panel;
        weigh(panel, image(nodes_[node].at, i, {}).first, own ? std::optional(node % p) : std::nullopt, w);
        for (std::size_t j = 0; j < p; ++j) {
          const auto column = static_cast<Eigen::Index>(panel * p + j);
          angle_.back()(row, column) = w.angle[j];
          log_.back()(row, column) = w.log[j];
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

void Potential::weigh(std::size_t panel, Complex from, std::optional<std::size_t> own_node, Weights& w) const {
  const Edge& e = panels_[panel].edge;
  const std::size_t p = rule_.node.size();
  const double size = e.length() / 2;  // ds/dt
  // The place in the panel's own parameter, continued into the complex plane: there the panel is [−1, 1].
  const Complex middle = e.at(0);
  constexpr double beyond = 3.5;
  if (std::norm(from - middle) > beyond * beyond * size * size) {
    for (std::size_t j = 0; j < p; ++j) {
      const Node& node = nodes_[panel * p + j];
      const Complex d = node.at - from;
      const double square = std::norm(d);
      w.angle[j] = node.weight * (node.tangent.imag() * d.real() - node.tangent.real() * d.imag()) / square;
      w.log[j] = node.weight * std::log(square) / 2;
    }
    return;
  }
  Complex t0;
  if (e.is_arc()) {
    const Complex spoke = (from - e.centre) / (middle - e.centre);
    t0 = std::abs(spoke) < 1e-3 ? Complex(0, 1e3) : Complex(0, -2 / e.sweep) * std::log(spoke);
  } else {
    const Complex half = e.derivative(0);
    t0 = times(from - middle, std::conj(half)) / std::norm(half);
  }
  if (own_node) t0 = rule_.node[*own_node];
  // Legendre's functions of the second kind; on the panel itself their mean of both sides, which is real. Both
  // logarithms on one branch: t − t0 keeps its side of the real axis.
  const Complex to_end = 1.0 - t0, to_start = -1.0 - t0;
  const Complex log_end = logarithm(to_end), log_start = logarithm(to_start);
  std::array<Complex, 16> Q;
  Q[0] = (log_start - log_end) / 2.0;
  if (own_node) Q[0].imag(0);
  Q[1] = t0 * Q[0] - 1.0;
  for (std::size_t n = 1; n <= p; ++n) {
    const double m = static_cast<double>(n);
    Q[n + 1] = ((2 * m + 1) * times(t0, Q[n]) - m * Q[n - 1]) / (m + 1);
  }
  // ∫ P_n/(t − t0) dt = −2 Q_n, and ∫ P_n ln|t − t0| dt by parts.
  std::array<double, 16> of_log;
  of_log[0] = (times(to_end, log_end) - times(to_start, log_start)).real() - 2;
  for (std::size_t n = 1; n < p; ++n) of_log[n] = 2 * (Q[n + 1] - Q[n - 1]).real() / (2 * static_cast<double>(n) + 1);
  for (std::size_t j = 0; j < p; ++j) {
    double angle = 0, log = 0;
    for (std::size_t n = 0; n < p; ++n) {
      angle -= legendre_[j * p + n] * Q[n].imag();
      log += legendre_[j * p + n] * of_log[n] / 2;
    }
    w.angle[j] = angle;
    w.log[j] = size * (log + std::log(size) * rule_.weight[j]);
  }
  if (!e.is_arc()) return;
  // What the true kernel of the arc has beside the straight one is smooth.
  for (std::size_t j = 0; j < p; ++j) {
    const double t = rule_.node[j];
    const Complex apart = e.at(t) - from, own = t - t0;  // both vanish at the node itself
    if (own == 0.0) {
      w.angle[j] += rule_.weight[j] * e.sweep / 4;
      continue;
    }
    w.angle[j] += rule_.weight[j] * (e.derivative(t) / apart - 1.0 / own).imag();
    w.log[j] += rule_.weight[j] * size * (std::log(std::norm(apart) / std::norm(own * size)) / 2);
  }
}

Eigen::MatrixXd Potential::matrix(Parity parity) const {
  const auto n = static_cast<Eigen::Index>(nodes_.size());
  Eigen::MatrixXd A = Eigen::MatrixXd::Zero(n, n);
  for (int i = 0; i < images(); ++i) A -= image({}, i, parity).second * angle_[static_cast<std::size_t>(i)];
  A.diagonal().array() += std::numbers::pi;
  if (parity == Parity{}) {
    // A constant is left open: the mean shall vanish.
    double all = 0;
    for (const Node& node : nodes_) all += node.weight;
    for (Eigen::Index j = 0; j < n; ++j) A.col(j).array() += nodes_[static_cast<std::size_t>(j)].weight / all;
  }
  return A;
}

std::vector<Values> Potential::solve(const std::vector<Wanted>& wanted) const {
  std::vector<Values> solved;
  Eigen::PartialPivLU<Eigen::MatrixXd> factor;
  std::optional<Parity> factored;
  for (const auto& [q, given] : wanted) {
    // Where there is no mirror, parity means nothing.
    const Parity parity{left_right_ ? given.left_right : 1, up_down_ ? given.up_down : 1};
    if (factored != parity) factor.compute(matrix(parity));
    factored = parity;
    Values right = Values::Zero(q.size());
    for (int i = 0; i < images(); ++i) right -= image({}, i, parity).second * (log_[static_cast<std::size_t>(i)] * q);
    solved.push_back(factor.solve(right));
  }
  return solved;
}

double Potential::inside(Complex at, const Values& u, const Wanted& wanted) const {
  double sum = 0;
  Weights w;
  const std::size_t p = rule_.node.size();
  for (int i = 0; i < images(); ++i) {
    const auto [from, sign] = image(at, i, wanted.parity);
    for (std::size_t panel = 0; panel < panels_.size(); ++panel) {
      weigh(panel, from, std::nullopt, w);
      for (std::size_t j = 0; j < p; ++j) {
        const auto k = static_cast<Eigen::Index>(panel * p + j);
        sum += sign * (w.angle[j] * u(k) - w.log[j] * wanted.q(k));
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

std::pair<double, double> Potential::on(std::size_t panel, double t, const Values& u) const {
  // Newton's divided differences of the polynomial through the nodes.
  const std::size_t p = rule_.node.size();
  std::array<double, 12> d;
  for (std::size_t j = 0; j < p; ++j) d[j] = u(static_cast<Eigen::Index>(panel * p + j));
  for (std::size_t k = 1; k < p; ++k)
    for (std::size_t j = p - 1; j >= k; --j) d[j] = (d[j] - d[j - 1]) / (rule_.node[j] - rule_.node[j - k]);
  double value = d[p - 1], slope = 0;
  for (std::size_t k = p - 1; k-- > 0;) {
    slope = slope * (t - rule_.node[k]) + value;
    value = value * (t - rule_.node[k]) + d[k];
  }
  return {value, slope / (panels_[panel].edge.length() / 2)};
}

}  // namespace corvex::section
