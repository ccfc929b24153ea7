// Stiffness, mass and the effect of axial forces of one span, with its inner shapes: what buckling and vibration are
// found from. In the degrees of freedom of its two points, in global axes, then inner ones.
#pragma once

#include <Eigen/Core>
#include <Eigen/LU>

#include "beam/axial_course.hpp"
#include "beam/element.hpp"
#include "modes/span_shapes.hpp"

namespace corvex::solver {

// Properties of a span in addition to its static stiffness.
struct SpanBody {
  Rigidity rigidity{};                  // of links too: they bend between their joints
  double mass = 0;                      // per length
  double rotary_y = 0, rotary_z = 0;    // ρIy and ρIz; 0 without deformation by shear
  double polar = 0;                     // ρ(Iy + Iz), of torsion
  bool held_y = false, held_z = false;  // bracing along the whole span: the axial force does nothing there
};
SpanBody span_body(const Structure& structure, const Member& member);

struct SpanPencil {
  // 12 degrees of freedom of its points, then inner ones.
  Eigen::MatrixXd stiffness, geometric, mass;
  // Movement of places evenly along the span, ends included, in global axes: three rows for each.
  static constexpr int places = 21;
  Eigen::MatrixXd movement;
};
// Legendre polynomials of inner shapes: in each direction of bending, and along the span and in torsion. Where the
// axial force jumps inside the span it is cut in two, each with its share of them.
struct InnerShapes {
  int bending = 0, lengthwise = 0;
  auto operator<=>(const InnerShapes&) const = default;
};
struct SpanInput {
  const Span& span;
  const Axes& axes;
  double turn;  // of the section's axes against those of the member
  const SpanBody& body;
  const AxialCourse& axial;
  bool plane;
  bool slack;  // without axial stiffness, and without inner shapes along it
  InnerShapes inner;

  bool bends_y() const { return body.rigidity.EIz > 0; }
  bool bends_z() const { return plane || body.rigidity.EIy > 0; }
};
SpanPencil span_pencil(const SpanInput& input);

}  // namespace corvex::solver
