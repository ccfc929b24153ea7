#include "judge/symmetry.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "inspect/findings.hpp"
#include "inspect/mirror.hpp"

namespace corvex::judging {
namespace {

using inspection::Mirror;

class Symmetry {
 public:
  Symmetry(const Structure& s, const Mirror& mirror) : s_(s), m_(mirror) {}

  // Whether each load of the case has its mirror image in it. Loads of kinds that are rarely symmetric count as not.
  bool is_symmetric(const LoadCase& c) const {
    return !c.loads().empty() && std::all_of(c.loads().begin(), c.loads().end(), [&](const Load& load) {
      if (const auto* g = std::get_if<GravityLoad>(&load)) return g->acceleration.*m_.axis == 0;
      return std::any_of(c.loads().begin(), c.loads().end(), [&](const Load& other) { return is_image(load, other); });
    });
  }

  // Difference between a member or support and its image; empty if there is none.
  std::string difference(std::vector<Subject>& about) const {
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Member &a = s_.members()[i], &b = s_.members()[m_.member[i]];
      const char* what = nullptr;
      if (a.kind != b.kind)
        what = "kind";
      else if (!is_same(s_.section_of(a), s_.section_of(b)))
        what = "section";
      else if (!(s_.material_of(a) == s_.material_of(b)))
        what = "material";
      else if ((m_.runs_back[i] ? b.freed_end : b.freed_start) != a.freed_start)
        what = "hinge";
      else if (a.acts != b.acts)
        what = "way of acting";
      if (!what) continue;
      about = {{Subject::Kind::member, a.name}, {Subject::Kind::member, b.name}};
      return fmt::format("'{}' and '{}' differ in their {}", a.name, b.name, what);
    }
    for (const PointSupport& p : s_.supports())
      if (!is_alike(p)) {
        const std::string &a = s_[p.at].name, &b = s_.points()[m_.point[p.at.index]].name;
        about = {{Subject::Kind::support, a}, {Subject::Kind::support, b}};
        return fmt::format("the supports at '{}' and '{}' differ", a, b);
      }
    return {};
  }

  bool supports_are_alike() const {
    return std::all_of(s_.supports().begin(), s_.supports().end(), [&](const PointSupport& p) { return is_alike(p); });
  }

  const Mirror& mirror() const { return m_; }

 private:
  Vector image(Vector v) const {
    v.*m_.axis = -(v.*m_.axis);
    return v;
  }
  // By their properties.
  static bool is_same(const Section& a, const Section& b) {
    const AreaProperties &p = a.area_properties(), &q = b.area_properties();
    return p.A == q.A && p.Iy == q.Iy && p.Iz == q.Iz;
  }
  // As the support at the image of its point.
  bool is_alike(const PointSupport& p) const {
    return std::any_of(s_.supports().begin(), s_.supports().end(), [&](const PointSupport& q) {
      return q.at.index == m_.point[p.at.index] && q.held == p.held && q.spring == p.spring;
    });
  }
  static bool same(const Vector& a, const Vector& b) { return length(a - b) <= 1e-9 * (length(a) + length(b)); }

  bool is_image(const Load& a, const Load& b) const {
    if (const auto* p = std::get_if<PointLoad>(&a)) {
      const auto* q = std::get_if<PointLoad>(&b);
      return q && q->at.index == m_.point[p->at.index] && same(q->force, image(p->force)) &&
             same(q->moment, -image(p->moment));
    }
    const auto *p = std::get_if<LineLoad>(&a), *q = std::get_if<LineLoad>(&b);
    if (!p || !q || p->axes != LoadAxes::global || q->axes != LoadAxes::global || p->per != q->per) return false;
    const double L = s_.length_of(s_[p->on]), from = p->from, to = p->to.value_or(L);
    const bool back = m_.runs_back[p->on.index];
    if (q->on.index != m_.member[p->on.index]) return false;
    const double other_from = q->from, other_to = q->to.value_or(L), close = 1e-9 * L;
    return std::abs(other_from - (back ? L - to : from)) <= close &&
           std::abs(other_to - (back ? L - from : to)) <= close && same(back ? q->last : q->first, image(p->first)) &&
           same(back ? q->first : q->last, image(p->last));
  }

  const Structure& s_;
  const Mirror& m_;
};

}  // namespace

Problems unsymmetric_answers(const Solution& solution) {
  constexpr std::size_t many = 2000;
  constexpr double clearly = 1e-3;
  const Structure& s = solution.structure();
  if (s.points().size() > many) return {};
  const Vector up = s.up_direction();
  for (double Vector::*axis : {&Vector::x, &Vector::y, &Vector::z}) {
    const bool there = s.is_plane() ? axis == &Vector::x : up.*axis == 0;
    if (!there) continue;
    const auto mirror = inspection::mirror(s, axis);
    if (!mirror) continue;
    const Symmetry symmetry(s, *mirror);
    for (std::size_t c = 0; c < s.load_cases().size(); ++c) {
      if (!symmetry.is_symmetric(s.load_cases()[c])) continue;
      double most = 0, apart = 0;
      const auto movement = [&](std::size_t p) {
        const Displacement d = solution[c].displacement(PointId{p});
        return Vector{d.x.si(), d.y.si(), d.z.si()};
      };
      // A pin and a roller let a girder grow to one side: then only what goes up and down is compared.
      const bool alike = symmetry.supports_are_alike();
      for (std::size_t p = 0; p < s.points().size(); ++p) {
        Vector other = movement(mirror->point[p]);
        other.*axis = -(other.*axis);
        const Vector off = movement(p) - other;
        most = std::max(most, length(movement(p)));
        apart = std::max(apart, alike ? length(off) : std::abs(dot(off, up)));
      }
      if (!(apart > clearly * most)) continue;
      std::vector<Subject> about;
      const std::string why = symmetry.difference(about);
      if (why.empty()) continue;
      inspection::Findings f(s);
      f.add("unsymmetric-answer", about.front(),
            fmt::format("structure and loads of case '{}' are symmetric, but the displacements are not: {}",
                        s.load_cases()[c].name(), why),
            "make them equal, if intended")
          .others.assign(about.begin() + 1, about.end());
      return f.take();
    }
  }
  return {};
}

}  // namespace corvex::judging
