// Harmonic functions in a cross-section whose normal derivative is given on the outline: the warping of torsion and of
// shear. Solved as a boundary integral equation by collocation.
//
// Green's third identity for a harmonic u with ∂u/∂n = q: at a smooth place of the outline
//   π u = ∫ u dθ − ∫ q ln r ds
// (θ and r: direction and distance of the moving point), 2π on the left for a place inside. On each panel u and q are
// polynomials through Gauss points, and the two integrals of polynomials are taken exactly by Legendre's functions of
// the second kind, so that a panel may be as near as it likes.
#pragma once

#include <Eigen/Core>
#include <array>
#include <optional>
#include <vector>

#include "outline/gauss.hpp"
#include "outline/panels.hpp"

namespace corvex::section {

// A function on the outline: its values at the nodes of the panels.
using Values = Eigen::VectorXd;

struct Node {
  Complex at, tangent;
  double weight = 0;  // of ds
};

// Parity of a function in a mirror image: +1 keeps its sign, −1 changes it.
struct Parity {
  int left_right = 1, up_down = 1;
  bool operator==(const Parity&) const = default;
};

class Potential {
 public:
  // `grading` as for panels(); `order` nodes a panel.
  Potential(const Region& region, double grading, int order);

  const std::vector<Node>& nodes() const { return nodes_; }
  const std::vector<Panel>& panels() const { return panels_; }
  int order() const { return static_cast<int>(rule_.node.size()); }

  // A function is asked for by its normal derivative and its parity. The derivative is given as a function of the place
  // and of the unit tangent there; on a straight side it must be a polynomial of the second degree at most.
  struct Wanted {
    double (*q)(Complex at, Complex tangent) = nullptr;
    Parity parity;
  };
  // The normal derivative at the nodes.
  Values at_nodes(const Wanted& wanted) const;
  // The functions on the outline; a constant that is left open is such that their mean vanishes. The equations are
  // dropped then, for they take most of the memory: call once.
  std::vector<Values> solve(const std::vector<Wanted>& wanted);
  // The outline is its own image in the diagonal z = y, as that of a square tube; and a function seen in it.
  bool has_diagonal() const { return !twin_.empty(); }
  Values in_the_diagonal(const Values& u) const;
  // The same function at a place inside; `q` is at_nodes(wanted).
  double inside(Complex at, const Values& u, const Values& q, Parity parity) const;

  // ∮ f ds over the whole outline, of a function that every mirror image leaves as it is.
  double integral(const Values& f) const;
  // Newton's divided differences of the polynomial through the nodes, panel by panel.
  std::vector<double> differences(const Values& u) const;
  // u and du/ds at a place of a panel, t in [−1, 1].
  std::pair<double, double> on(std::size_t panel, double t, const std::vector<double>& differences) const;

 private:
  // The weights of u and of q in the two integrals over one panel, seen from a place.
  struct Weights {
    std::array<double, 12> angle, log;
  };
  // Data for the integrals over a panel, or over a whole straight side.
  struct Piece {
    explicit Piece(const Edge& edge);

    Edge edge;
    Complex middle, half;  // the place at t = 0 and dz/dt there
    double size = 0;       // ds/dt
    // A place in the parameter of the piece, continued into the complex plane: there the piece is [−1, 1].
    Complex parameter(Complex place) const;
  };
  bool near(const Piece& piece, Complex from) const;
  // A node of the panel itself is named, since rounding could put it on either side.
  void weigh_near(std::size_t panel, Complex from, std::optional<std::size_t> own_node, bool with_log,
                  Weights& w) const;
  void weigh(std::size_t panel, Complex from, Weights& w) const;
  // Of each node the one at (y, z) instead of (z, y); empty where the outline is not its own image in the diagonal.
  std::vector<Eigen::Index> swapped() const;
  void fill_angles(int image, Eigen::MatrixXd& angle) const;
  void add_arc(std::size_t panel, const std::vector<Values>& q, const Eigen::MatrixXd& sign,
               Eigen::MatrixXd& sum) const;
  Eigen::MatrixXd logarithmic(const std::vector<Wanted>& wanted) const;
  Eigen::MatrixXd matrix(Parity parity) const;
  int sign_in_the_diagonal(const Values& b, Parity parity) const;
  int images() const { return (left_right_ ? 2 : 1) * (up_down_ ? 2 : 1); }
  // The mirror image of a place, and the sign that goes with it.
  std::pair<Complex, int> image(Complex at, int which, Parity parity) const;

  bool left_right_, up_down_;
  std::vector<Eigen::Index> twin_;  // as swapped() has it
  Gauss rule_;
  std::vector<Panel> panels_;
  std::vector<Piece> pieces_;  // of the panels
  std::vector<Node> nodes_;
  Eigen::ArrayXd z_, y_;          // of the nodes
  std::vector<double> legendre_;  // (2n+1)·P_n at node j times the node's weight: [j][n]
  // The integral of dθ of every node against every node, one matrix an image.
  std::vector<Eigen::MatrixXd> angle_;
};

}  // namespace corvex::section
