#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "hand/write_chapters.hpp"
#include "section/worked.hpp"

namespace corvex::hand {
namespace {

// A place of a piece with its internal forces in local axes.
struct StressedPlace {
  std::size_t piece = 0;
  double at = 0;
  Side side = Side::after;
  Forces forces{};
};

// Ends of stretches and the extremes of bending moments in them.
std::vector<StressedPlace> candidates(const ForceMethod& m, std::size_t piece) {
  const Skeleton& k = m.skeleton();
  const Piece& p = k.pieces[piece];
  std::vector<StressedPlace> all;
  for (const Stretch& s : m.final.course[piece].stretches) {
    const double h = s.to - s.from;
    std::vector<double> places{0, h};
    if (p.beam)
      for (const std::size_t v : {Vy, Vz}) {
        const Course& c = s.forces[v];
        if (c[2] == 0 && c[1] != 0) places.push_back(-c[0] / c[1]);
        const double under = c[1] * c[1] - 4 * c[0] * c[2];
        if (c[2] != 0 && under >= 0)
          for (const double sign : {-1.0, 1.0}) places.push_back((-c[1] + sign * std::sqrt(under)) / (2 * c[2]));
      }
    for (const double x : places) {
      if (!(x >= 0 && x <= h)) continue;
      Forces f{};
      for (std::size_t c = 0; c < 6; ++c)
        if (p.beam || c == N) f[c] = at(s.forces[c], x);
      all.push_back({piece, s.from + x, x == h ? Side::before : Side::after, in_own_axes(k, p, f)});
    }
  }
  return all;
}

// A place of the outline with the stresses there.
struct Stressed {
  double y = 0, z = 0;  // m
  double normal = 0, shear = 0;
  double shear_factor_y = 0, shear_factor_z = 0, twist_factor = 0;
  double von_mises() const { return std::sqrt(normal * normal + 3 * shear * shear); }
};

// Curvatures times E: normal stress is N/A − κy·y − κz·z.
struct Bending {
  double y = 0, z = 0;
};
Bending bending(const Structure& s, const Section& section, const Forces& f) {
  const AreaProperties& p = section.area_properties();
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = s.is_plane() ? 0 : p.Iyz.si(), det = Iy * Iz - Iyz * Iyz;
  if (!(det > 0)) return {Iz > 0 ? f[Mz] / Iz : 0, Iy > 0 ? f[My] / Iy : 0};
  return {(Iy * f[Mz] - Iyz * f[My]) / det, (Iz * f[My] - Iyz * f[Mz]) / det};
}

std::vector<Stressed> stresses(const Structure& s, const Section& section, const Forces& f) {
  const Bending b = bending(s, section, f);
  const double along = f[N] / section.area().si();
  std::vector<Stressed> all;
  for (const StressPoint& p : section.stress_map().points) {
    Stressed one{.y = p.y, .z = p.z, .normal = along - b.y * p.y - b.z * p.z};
    one.shear_factor_y = s.is_plane() ? p.held_vy : p.vy;
    one.shear_factor_z = s.is_plane() ? p.held_vz : p.vz;
    one.twist_factor = p.t;
    one.shear = one.shear_factor_y * f[Vy] + one.shear_factor_z * f[Vz] + p.t * f[T];
    all.push_back(one);
  }
  return all;
}

// The place of the outline where the normal stress is largest without its sign: at a corner, or on an arc where the
// gradient of the stress is perpendicular to it.
Stressed worst_fibre(const Section& section, const Bending& b, double axial) {
  Stressed worst;
  const auto offer = [&](section::Complex at) {
    const double normal = axial - b.y * at.imag() - b.z * at.real();
    if (std::abs(normal) > std::abs(worst.normal)) worst = {.y = at.imag(), .z = at.real(), .normal = normal};
  };
  const section::Fibres& fibres = section::solved(section).fibres;
  for (const section::Complex& c : fibres.corners) offer(c);
  const double steep = std::hypot(b.y, b.z);
  for (const auto& arc : fibres.arcs)
    for (const double sign : {-1.0, 1.0}) {
      const section::Complex way = sign * section::Complex(b.z, b.y) / steep;
      if (steep > 0 && arc.covers(way)) offer(arc.centre + arc.radius * way);
    }
  return worst;
}

double worst_of(const Structure& s, const Member& member, const Forces& f) {
  const Section& section = s.section_of(member);
  const AreaProperties& p = section.area_properties();
  if (member.kind == MemberKind::link || section.stress_map().kind != StressMap::Kind::field) {
    double sum = std::abs(f[N]) / p.A.si();
    if (f[Mz] != 0 && p.Wz.si() > 0) sum += std::abs(f[Mz]) / p.Wz.si();
    if (f[My] != 0 && p.Wy.si() > 0) sum += std::abs(f[My]) / p.Wy.si();
    return sum;
  }
  double worst = 0;
  for (const Stressed& one : stresses(s, section, f)) worst = std::max(worst, one.von_mises());
  return worst;
}

class StressWriter {
 public:
  StressWriter(const ForceMethod& m, DerivationChapter& chapter)
      : m_(m), s_(*m.skeleton().structure), chapter_(chapter) {}

  DerivedStress write(const StressedPlace& place) {
    const Piece& p = m_.skeleton().pieces[place.piece];
    const Member& member = s_.members()[p.member];
    const Section& section = s_.section_of(member);
    DerivedStress d{.member = MemberId(p.member), .at = Length::si(p.start + place.at), .side = place.side};
    Line where;
    where.say("The largest von Mises stress is in " + member.name + " at ").put(p.start + place.at, dimension::length);
    where.say(fmt::format(" from its start; section {}, material {}.", s_.sections()[member.section.index].name,
                          s_.material_of(member).name));
    chapter_.items.emplace_back(where.take());
    DerivationTable forces{.name = "worst place", .title = "Internal forces there"};
    std::vector<DerivationTable::Cell> row;
    static constexpr const char* names[] = {"N", "Vy", "Vz", "T", "My", "Mz"};
    for (std::size_t c = 0; c < 6; ++c) {
      if (place.forces[c] == 0) continue;
      forces.columns.push_back({names[c], c < T ? dimension::force : dimension::moment});
      row.push_back({{}, place.forces[c]});
    }
    if (!row.empty()) forces.rows.push_back(std::move(row)), chapter_.items.emplace_back(std::move(forces));
    if (const AreaProperties& a = section.area_properties();
        s_.is_plane() && a.Iyz.si() != 0 && member.kind != MemberKind::link)
      chapter_.items.emplace_back(sentence(
          "The section is unsymmetric. In a plane structure it is restrained in the plane, so that it bends about its local axis "
          "only; a hand calculation about principal axes, a mechanism sideways, is another theory and gives other "
          "stresses."));
    normal(place.forces, member, section, d);
    von_mises(place.forces, member, section, d);
    return d;
  }

 private:
  void step(std::string because, std::string unknown, WorkedFormula formula, double value, const Dimension& d,
            std::string remark = {}) {
    chapter_.items.emplace_back(DerivationStep{sentence(std::move(because)),
                                               {},
                                               std::move(unknown),
                                               std::move(formula),
                                               Quantity(value, d),
                                               std::move(remark)});
  }

  static Line& signed_number(Line& line, bool first, double v, const Dimension& d) {
    line.say(first ? (v < 0 ? "-" : "") : (v < 0 ? " - " : " + ")).put(std::abs(v), d);
    return line;
  }

  // σ = N/A − M·y/I on the outermost fibre of the worse side; by moduli where the section bends about both axes.
  void normal(const Forces& f, const Member& member, const Section& section, DerivedStress& d) {
    const AreaProperties& a = section.area_properties();
    double axial = 0;
    if (f[N] != 0) {
      Line line;
      axial = f[N] / a.A.si();
      signed_number(line, true, f[N], dimension::force).say("/").put(a.A.si(), dimension::area);
      step("axial force over area", "σ_N", line.take(), axial, dimension::stress, f[N] > 0 ? "tension" : "compression");
    }
    double worst = axial;
    if (member.kind != MemberKind::link && (f[Mz] != 0 || f[My] != 0)) {
      const bool known = a.height.si() > 0;
      const bool round =
          std::holds_alternative<RoundTube>(section.shape()) || std::holds_alternative<RoundBar>(section.shape());
      if (f[My] != 0 && f[Mz] != 0 && round) {
        const double M = std::hypot(f[My], f[Mz]);
        Line both;
        both.say("sqrt(")
            .put(std::abs(f[My]), dimension::moment)
            .say("² + ")
            .put(std::abs(f[Mz]), dimension::moment)
            .say("²)");
        step("both bending moments together", "M", both.take(), M, dimension::moment);
        Line line;
        line.put(M, dimension::moment).say("/").put(a.Wz.si(), dimension::section_modulus);
        step("bending", "σ_M", line.take(), M / a.Wz.si(), dimension::stress, "on both sides");
        worst = axial < 0 ? axial - M / a.Wz.si() : axial + M / a.Wz.si();
      } else if (known && ((f[My] != 0 && f[Mz] != 0) || is_askew(section))) {
        worst = at_point(f, section, axial);
      } else {
        worst = on_fibres(f, a, known, axial);
      }
    }
    d.normal = Stress::si(std::abs(worst));
  }

  // Its principal axes are not those of the member, and it may bend about both.
  bool is_askew(const Section& section) const { return !s_.is_plane() && section.area_properties().Iyz.si() != 0; }

  double on_fibres(const Forces& f, const AreaProperties& a, bool known, double axial) {
    const bool about_z = f[Mz] != 0;
    const double M = about_z ? f[Mz] : f[My];
    const double I = (about_z ? a.Iz : a.Iy).si(), W = (about_z ? a.Wz : a.Wy).si();
    if (!known) {
      Line line;
      line.put(std::abs(M), dimension::moment).say("/").put(W, dimension::section_modulus);
      step("bending, by the section modulus", "σ_M", line.take(), std::abs(M) / W, dimension::stress, "on both sides");
      const double worst = axial < 0 ? axial - std::abs(M) / W : axial + std::abs(M) / W;
      return add(axial, axial < 0 ? -std::abs(M) / W : std::abs(M) / W, worst);
    }
    const double low = -(about_z ? a.centroid_y : a.centroid_z).si(), high = (about_z ? a.height : a.width).si() + low;
    // The fibre on which both add up to more.
    const double of_low = axial - M * low / I, of_high = axial - M * high / I;
    const double fibre = std::abs(of_low) > std::abs(of_high) ? low : high, bent = -M * fibre / I;
    Line line;
    line.say(bent < 0 ? "-" : "").put(std::abs(M), dimension::moment).say("·").put(std::abs(fibre), dimension::length);
    line.say("/").put(I, dimension::second_moment);
    step(fmt::format("bending, fibre on the side of {}{}", fibre < 0 ? "−" : "+", about_z ? "y" : "z"), "σ_M",
         line.take(), bent, dimension::stress, bent > 0 ? "tension" : "compression");
    return add(axial, bent, axial + bent);
  }

  double add(double axial, double bent, double worst) {
    if (axial == 0) return worst;
    Line line;
    signed_number(line, true, axial, dimension::stress);
    signed_number(line, false, bent, dimension::stress);
    step("together", "σ", line.take(), worst, dimension::stress);
    return worst;
  }

  // About both axes: the point of the outline where most comes together.
  double at_point(const Forces& f, const Section& section, double axial) {
    const AreaProperties& a = section.area_properties();
    const Bending b = bending(s_, section, f);
    const Stressed worst = worst_fibre(section, b, axial);
    Line line;
    signed_number(line, true, axial, dimension::stress);
    if (s_.is_plane() || a.Iyz.si() == 0) {
      const double by_z = -f[Mz] * worst.y, by_y = -f[My] * worst.z;
      line.say(by_z < 0 ? " - " : " + ").put(std::abs(f[Mz]), dimension::moment).say("·");
      line.put(std::abs(worst.y), dimension::length).say("/").put(a.Iz.si(), dimension::second_moment);
      line.say(by_y < 0 ? " - " : " + ").put(std::abs(f[My]), dimension::moment).say("·");
      line.put(std::abs(worst.z), dimension::length).say("/").put(a.Iy.si(), dimension::second_moment);
    } else {
      const Dimension curvature = dimension::stress / dimension::length;
      const double Iy = a.Iy.si(), Iz = a.Iz.si(), Iyz = a.Iyz.si();
      const auto slope = [&](const char* name, double I, double M, double other, double result) {
        Line l;
        l.say("(").put(I, dimension::second_moment).say("·").put(M, dimension::moment).say(" - ");
        l.put(Iyz, dimension::second_moment).say("·").put(other, dimension::moment).say(")/(");
        l.put(Iy, dimension::second_moment).say("·").put(Iz, dimension::second_moment).say(" - ");
        l.put(Iyz, dimension::second_moment).say("²)");
        step("bending of the unsymmetric section", name, l.take(), result, curvature);
      };
      slope("k_y", Iy, f[Mz], f[My], b.y);
      slope("k_z", Iz, f[My], f[Mz], b.z);
      const double by_y = -b.y * worst.y, by_z = -b.z * worst.z;
      line.say(by_y < 0 ? " - " : " + ")
          .put(std::abs(b.y), curvature)
          .say("·")
          .put(std::abs(worst.y), dimension::length);
      line.say(by_z < 0 ? " - " : " + ")
          .put(std::abs(b.z), curvature)
          .say("·")
          .put(std::abs(worst.z), dimension::length);
    }
    step("where both moments add up", "σ", line.take(), worst.normal, dimension::stress);
    return worst.normal;
  }

  void von_mises(const Forces& f, const Member& member, const Section& section, DerivedStress& d) {
    const std::optional<Stress> strength = s_.material_of(member).strength(section.thickness());
    double governing = d.normal.si();
    const bool sheared = f[Vy] != 0 || f[Vz] != 0 || f[T] != 0;
    if (member.kind == MemberKind::link || !sheared) {
      d.von_mises = d.normal;
    } else if (section.stress_map().kind == StressMap::Kind::field) {
      governing = with_shear(f, section, governing);
      d.von_mises = Stress::si(governing);
    } else {
      chapter_.items.emplace_back(sentence("The shear stress of this section is not known."));
      return;
    }
    if (!strength || !(governing > 0)) return;
    Line line;
    line.put(strength->si(), dimension::stress).say("/").put(governing, dimension::stress);
    d.safety = strength->si() / governing;
    step(
        fmt::format("safety factor against {}", s_.material_of(member).allowable ? "the allowable stress" : "yielding"),
        "S", line.take(), *d.safety, dimension::number);
  }

  // The worst von Mises stress of the section, where that is larger than the normal stress alone.
  double with_shear(const Forces& f, const Section& section, double governing) {
    Stressed most, worst;
    for (const Stressed& p : stresses(s_, section, f)) {
      if (std::abs(p.shear) > std::abs(most.shear)) most = p;
      if (p.von_mises() > worst.von_mises()) worst = p;
    }
    shear(f, most, "τ_max", "largest shear stress of the section");
    if (worst.von_mises() > governing * (1 + 1e-6)) {
      chapter_.items.emplace_back(Line()
                                      .say("Normal and shear stress together are worst at y = ")
                                      .put(worst.y, dimension::length)
                                      .say(", z = ")
                                      .put(worst.z, dimension::length)
                                      .say(" of the section.")
                                      .take());
      shear(f, worst, "τ", "shear stress there");
      if ((f[My] == 0 || f[Mz] == 0) && !is_askew(section)) {
        const AreaProperties& a = section.area_properties();
        const bool about_z = f[Mz] != 0;
        const double M = about_z ? f[Mz] : f[My], y = about_z ? worst.y : worst.z, I = (about_z ? a.Iz : a.Iy).si();
        Line line;
        signed_number(line, true, f[N] / a.A.si(), dimension::stress);
        if (M != 0) {
          line.say(-M * y < 0 ? " - " : " + ").put(std::abs(M), dimension::moment).say("·");
          line.put(std::abs(y), dimension::length).say("/").put(I, dimension::second_moment);
        }
        step("normal stress there", "σ_p", line.take(), worst.normal, dimension::stress);
      } else {
        chapter_.items.emplace_back(
            Line().say("Normal stress there, as above: ").put(worst.normal, dimension::stress).say(".").take());
      }
      Line line;
      line.say("sqrt(")
          .put(std::abs(worst.normal), dimension::stress)
          .say("² + 3·")
          .put(std::abs(worst.shear), dimension::stress)
          .say("²)");
      governing = worst.von_mises();
      step("by von Mises", "σ_v", line.take(), governing, dimension::stress);
    } else {
      chapter_.items.emplace_back(sentence("Shear stress vanishes where the normal stress is largest, which governs."));
    }
    return governing;
  }

  // The size of the shear stress: its shares count as positive where they act in its direction.
  void shear(const Forces& f, const Stressed& p, std::string name, std::string because) {
    Line line;
    bool first = true;
    const double sign = p.shear < 0 ? -1 : 1;
    const auto add = [&](double force, double factor, const Dimension& of_force, const Dimension& of_divisor) {
      if (std::abs(force * factor) < 1e-9 * std::abs(p.shear) || factor == 0) return;
      const double v = sign * force * factor;
      line.say(first ? (v < 0 ? "-" : "") : (v < 0 ? " - " : " + "));
      line.put(std::abs(force), of_force).say("/").put(1 / std::abs(factor), of_divisor);
      first = false;
    };
    add(f[Vy], p.shear_factor_y, dimension::force, dimension::area);
    add(f[Vz], p.shear_factor_z, dimension::force, dimension::area);
    add(f[T], p.twist_factor, dimension::moment, dimension::section_modulus);
    if (first) line.put(0, dimension::stress);
    step(because + ", force over the shear area at this place", std::move(name), line.take(), std::abs(p.shear),
         dimension::stress);
  }

  const ForceMethod& m_;
  const Structure& s_;
  DerivationChapter& chapter_;
};

}  // namespace

std::pair<DerivationChapter, std::optional<DerivedStress>> stress_chapter(const ForceMethod& m,
                                                                          const std::vector<MemberId>& members) {
  DerivationChapter c{.name = "stress", .title = "Stress at the worst place"};
  const Structure& s = *m.skeleton().structure;
  std::optional<StressedPlace> worst;
  double most = 0;
  for (std::size_t i = 0; i < m.skeleton().pieces.size(); ++i) {
    const std::size_t member = m.skeleton().pieces[i].member;
    if (!members.empty() &&
        std::none_of(members.begin(), members.end(), [&](MemberId id) { return id.index == member; }))
      continue;
    for (const StressedPlace& p : candidates(m, i))
      if (const double stress = worst_of(s, s.members()[member], p.forces); stress > most * (1 + 1e-9))
        most = stress, worst = p;
  }
  if (!worst) {
    c.items.emplace_back(sentence("No member has stress."));
    return {std::move(c), std::nullopt};
  }
  DerivedStress d = StressWriter(m, c).write(*worst);
  return {std::move(c), d};
}

}  // namespace corvex::hand
