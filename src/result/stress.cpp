#include "result/stress.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/stop.hpp"
#include "result/polynomial.hpp"

namespace corvex::result {
namespace {

using section::Actions;
using section::Complex;
using section::StressField;
using solver::CoursePiece;
using solver::Polynomial;

// The best of all that is offered: larger wins, then the smaller place, then who came first.
class BestStress {
 public:
  void offer(double at, double value, std::optional<Length> y, std::optional<Length> z) {
    const double equal = any_ ? 1e-11 * std::abs(best_.value) : 0;
    const bool larger = !any_ || value > best_.value + equal;
    const bool sooner = any_ && value >= best_.value - equal && at < best_.at - 1e-12;
    if (!larger && !sooner) return;
    any_ = true;
    best_ = {at, value};
    y_ = y;
    z_ = z;
  }
  bool could_beat(double bound) const { return !any_ || bound > best_.value; }
  double value() const { return best_.value; }
  StressExtreme take(double sign) const { return {Stress::si(sign * best_.value), Length::si(best_.at), y_, z_}; }

 private:
  bool any_ = false;
  result::Candidate best_;
  std::optional<Length> y_, z_;
};

Polynomial combine(std::initializer_list<std::pair<double, const Polynomial*>> terms) {
  Polynomial r;
  for (const auto& [factor, p] : terms)
    for (std::size_t i = 0; i < 6; ++i) r.c[i] += factor * p->c[i];
  return r;
}

// The same polynomial of the distance from another place.
Polynomial shifted(const Polynomial& p, double by) {
  Polynomial r = p;
  for (std::size_t i = 0; i < 5; ++i)
    for (std::size_t k = 4; k + 1 > i; --k) r.c[k] += by * r.c[k + 1];
  return r;
}

// Between which values a polynomial stays on [0, h]: the least and the largest of its coefficients in Bernstein's form.
std::pair<double, double> range(const Polynomial& p, double h) {
  // binomial(i, k)/binomial(5, k)
  static constexpr double share[6][6] = {{1, 0, 0, 0, 0, 0},       {1, 0.2, 0, 0, 0, 0},       {1, 0.4, 0.1, 0, 0, 0},
                                         {1, 0.6, 0.3, 0.1, 0, 0}, {1, 0.8, 0.6, 0.4, 0.2, 0}, {1, 1, 1, 1, 1, 1}};
  double power[6], low = p.c[0], high = p.c[0];
  power[0] = p.c[0];
  double x = 1;
  for (std::size_t k = 1; k < 6; ++k) power[k] = p.c[k] * (x *= h);
  for (const auto& row : share) {
    double b = 0;
    for (std::size_t k = 0; k < 6; ++k) b += row[k] * power[k];
    low = std::min(low, b);
    high = std::max(high, b);
  }
  return {low, high};
}

// On [0, h] a polynomial leaves the straight line between its values at both ends by no more than s(1 − s) of this,
// s = x/h: x^k differs from the line by s(1 − s)(1 + s + … + s^(k−2)) of h^k.
double off_the_chord(const Polynomial& p, double h) {
  double most = 0, power = h;
  for (std::size_t k = 2; k < 6; ++k) most += static_cast<double>(k - 1) * std::abs(p.c[k] * (power *= h));
  return most;
}

// No more than this in size.
double bound(const Polynomial& p, double h) {
  const auto [low, high] = range(p, h);
  return std::max(high, -low);
}

double mises(double sigma, double tau) {
  return std::sqrt(sigma * sigma + 3 * tau * tau);
}

// Without loads stresses are linear along the piece, so any stress measure that is convex is largest at an end.
bool loaded(const CoursePiece& p) {
  return p.N.c[1] != 0 || p.N.c[2] != 0 || p.Vy.c[1] != 0 || p.Vy.c[2] != 0 || p.Vz.c[1] != 0 || p.Vz.c[2] != 0;
}

}  // namespace

StressCourse::StressCourse(const Structure& structure, const Member& member, const Inner& inner) : inner_(inner) {
  stop_point();
  const Section& section = structure.section_of(member);
  area_ = section.area().si();
  if (member.kind == MemberKind::link) {
    lines_.push_back({.n = 1 / area_, .y = Length(), .z = Length()});
    return;
  }
  const section::Solved& solved = section::solved(section);
  switch (solved.stress_map.kind) {
    case StressMap::Kind::field:
      section_ = &solved;
      add_actions(solved.properties, structure.is_plane());
      break;
    case StressMap::Kind::moduli: {
      const bool turned = !bending_axes(structure, member).z;
      add_moduli(std::get<GivenProperties>(section.shape()),
                 {!structure.is_plane() || turned, !structure.is_plane() || !turned});
      break;
    }
    case StressMap::Kind::unknown: shear_known_ = false; break;
  }
}

// Held in its plane a section bends as if its product of inertia were none; the plane's other half of the stress stays
// with what holds it.
void StressCourse::add_actions(const SectionProperties& p, bool held) {
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = held ? 0 : p.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
  actions_.reserve(inner_.pieces.size());
  for (const CoursePiece& c : inner_.pieces)
    actions_.push_back({c.from, c.to - c.from, loaded(c), c.N * (1 / area_),
                        combine({{-Iy / D, &c.Mz}, {Iyz / D, &c.My}}), combine({{-Iz / D, &c.My}, {Iyz / D, &c.Mz}}),
                        combine({{Iy / D, &c.Vy}, {-Iyz / D, &c.Vz}}), combine({{Iz / D, &c.Vz}, {-Iyz / D, &c.Vy}}),
                        c.T});
}

void StressCourse::add_moduli(const GivenProperties& given, const BendingAxes& about) {
  shear_known_ = false;
  if ((about.y && !given.Wy) || (about.z && !given.Wz)) return;
  for (const double sy : {1.0, -1.0})
    for (const double sz : {1.0, -1.0})
      lines_.push_back(
          {.n = 1 / area_, .my = about.y ? sy / given.Wy->si() : 0, .mz = about.z ? sz / given.Wz->si() : 0});
}

std::optional<StressExtreme> StressCourse::normal(double sign) const {
  if (section_) return field_normal(sign);
  if (lines_.empty()) return std::nullopt;
  return line_normal(sign);
}

std::optional<StressExtreme> StressCourse::von_mises() const {
  if (section_) return field_von_mises(actions_);
  if (lines_.empty() || !shear_known_) return std::nullopt;
  // A link: its axial stress alone.
  const StressExtreme pull = *line_normal(1), push = *line_normal(-1);
  return pull.value.si() >= -push.value.si() ? pull : StressExtreme{-push.value, push.at, push.y, push.z};
}

// Of shear alone the von Mises stress is √3 τ.
std::optional<StressExtreme> StressCourse::shear() const {
  if (!section_) return shear_known_ && lines_.size() == 1 ? std::optional(StressExtreme{}) : std::nullopt;
  std::vector<ActionCourse> shear = actions_;
  for (ActionCourse& p : shear) p.n = p.gy = p.gz = Polynomial();
  StressExtreme most = field_von_mises(shear);
  most.value = most.value / std::sqrt(3.0);
  return most;
}

std::optional<std::pair<StressExtreme, StressExtreme>> StressCourse::along(double y, double z) const {
  if (!section_) return std::nullopt;
  std::pair<StressExtreme, StressExtreme> both;
  for (const double sign : {1.0, -1.0}) {
    BestStress best;
    for (const ActionCourse& p : actions_) {
      const Polynomial s = combine({{sign, &p.n}, {sign * y, &p.gy}, {sign * z, &p.gz}});
      best.offer(p.from, s(0), Length::si(y), Length::si(z));
      if (p.loaded)
        for (const double x : sign_changes(derivative(s.c), p.length))
          best.offer(p.from + x, s(x), Length::si(y), Length::si(z));
      best.offer(p.from + p.length, s(p.length), Length::si(y), Length::si(z));
    }
    (sign > 0 ? both.first : both.second) = best.take(sign);
  }
  return both;
}

std::optional<Stress> StressCourse::normal_at(double y, double z) const {
  if (!section_) {
    if (lines_.size() != 1) return std::nullopt;
    return Stress::si(lines_.front().n * inner_.pieces.front().N.c[0]);
  }
  const Actions f = actions_.front().at(0);
  return Stress::si(f.n + f.gy * y + f.gz * z);
}

std::optional<StressExtreme> StressCourse::line_normal(double sign) const {
  BestStress best;
  for (const CoursePiece& p : inner_.pieces)
    for (const Line& l : lines_) {
      const Polynomial s = combine({{sign * l.n, &p.N}, {sign * l.my, &p.My}, {sign * l.mz, &p.Mz}});
      const double h = p.to - p.from;
      best.offer(p.from, s(0), l.y, l.z);
      if (loaded(p))
        for (const double x : sign_changes(derivative(s.c), h)) best.offer(p.from + x, s(x), l.y, l.z);
      best.offer(p.to, s(h), l.y, l.z);
    }
  return best.take(sign);
}

// Ends first: their values show which corners and arcs need their roots found. On an arc of radius r about c the
// stress is σ(c) + r·√Q, Q = gy² + gz², where the gradient points into the arc; along the member it is extreme where
// 4 σ'(c)² Q = r² Q'².
StressExtreme StressCourse::field_normal(double sign) const {
  BestStress best;
  const section::Fibres& fibres = section_->fibres;
  const auto corner = [&](Complex c, const ActionCourse& p) {
    return combine({{sign, &p.n}, {sign * c.imag(), &p.gy}, {sign * c.real(), &p.gz}});
  };
  const auto offer_arc = [&](const section::Fibres::Arc& arc, const ActionCourse& p, double x) {
    const Actions f = p.at(x);
    const double steep = std::hypot(f.gy, f.gz);
    const double centre = sign * (f.n + f.gy * arc.centre.imag() + f.gz * arc.centre.real());
    const bool bent = steep > inner_.moment_noise / section_->properties.Iz.si();
    const Complex way = bent ? sign * Complex(f.gz, f.gy) / steep : Complex(0, 1);
    if (!arc.covers(way)) return;
    const Complex at = arc.centre + arc.radius * way;
    best.offer(p.from + x, centre + arc.radius * steep, Length::si(at.imag()), Length::si(at.real()));
  };
  for (const ActionCourse& p : actions_) {
    for (const double x : {0.0, p.length}) {
      const Actions f = p.at(x);
      for (const Complex& c : fibres.corners)
        best.offer(p.from + x, sign * (f.n + f.gy * c.imag() + f.gz * c.real()), Length::si(c.imag()),
                   Length::si(c.real()));
      for (const auto& arc : fibres.arcs) offer_arc(arc, p, x);
    }
  }
  for (const ActionCourse& p : actions_) {
    if (!p.loaded) continue;
    for (const Complex& c : fibres.corners) {
      const Polynomial s = corner(c, p);
      if (!best.could_beat(range(s, p.length).second)) continue;
      for (const double x : sign_changes(derivative(s.c), p.length))
        best.offer(p.from + x, s(x), Length::si(c.imag()), Length::si(c.real()));
    }
    if (fibres.arcs.empty()) continue;
    const Coefficients Q = sum(product(p.gy.c, p.gy.c), product(p.gz.c, p.gz.c)), dQ = derivative(Q);
    const double steepest = std::hypot(bound(p.gy, p.length), bound(p.gz, p.length));
    for (const auto& arc : fibres.arcs) {
      const Polynomial centre = corner(arc.centre, p);
      if (!best.could_beat(range(centre, p.length).second + arc.radius * steepest)) continue;
      for (const double x : sign_changes(dQ, p.length)) offer_arc(arc, p, x);
      const Coefficients slope = derivative(centre.c);
      Coefficients condition = product(product(slope, slope), Q);
      for (double& c : condition) c *= 4;
      condition = sum(condition, product(dQ, dQ), -arc.radius * arc.radius);
      for (const double x : sign_changes(condition, p.length)) offer_arc(arc, p, x);
    }
  }
  return best.take(sign);
}

namespace {

// One cross-section. A bound of its stress is known at once; its worst sample, and its worst place, which take longer,
// are found when they are asked for.
class CrossSection {
 public:
  CrossSection(const StressField& field, const Actions& actions)
      : actions_(actions), most_(field.bound(actions) * slack) {}

  // No more than this is its worst stress; the worst stress itself once it was asked for.
  double most() const { return most_; }
  double sampled(const StressField& field) {
    if (!sampled_) {
      sampled_ = field.worst_sample(actions_);
      most_ = std::min(most_, field.most(actions_, *sampled_));
    }
    return sampled_->von_mises;
  }
  const StressField::Place& worst(const StressField& field) {
    if (!known_) {
      sampled(field);
      worst_ = field.worst(actions_, *sampled_);
      most_ = worst_.von_mises;
      known_ = true;
    }
    return worst_;
  }

 private:
  // Between samples of the outline the fields are a little larger than the largest sample.
  static constexpr double slack = 1.001;

  Actions actions_;
  double most_;
  std::optional<StressField::Sampled> sampled_;
  bool known_ = false;
  StressField::Place worst_;
};

// Of several cross-sections the one with the largest worst sample; of equal ones the first. Those whose bound is less
// than what was found are passed over.
template <class Sections, class Get>
std::size_t likely_worst(Sections& sections, const StressField& field, const Get& get) {
  std::size_t top = 0;
  for (std::size_t i = 1; i < sections.size(); ++i)
    if (get(sections[i]).most() > get(sections[top]).most()) top = i;
  double most = get(sections[top]).sampled(field);
  for (std::size_t i = 0; i < sections.size(); ++i) {
    CrossSection& other = get(sections[i]);
    if (i == top || other.most() < most) continue;
    const double sampled = other.sampled(field);
    if (sampled > most || (sampled == most && i < top)) top = i, most = sampled;
  }
  return top;
}

// The worst place along one loaded piece and across its section.
class LoadedPiece {
 public:
  // The cross-sections at its start and end were looked at.
  LoadedPiece(const StressField& field, const ActionCourse& piece, const CrossSection& start, const CrossSection& end,
              BestStress& best)
      : field_(field), p_(piece), start_(start), end_(end), best_(best) {}

  // The section is looked at where one of the actions is extreme, and between; from the best of these the place along
  // the member and the place in the section are improved in turn. At last every sample of the outline is compared with
  // the extremes found, part by part. Most pieces are settled before that, since their actions hardly leave a straight
  // line.
  void search() {
    if (settled_by_chords() || !best_.could_beat(field_.most(ranges_of(p_)))) return;
    const std::vector<double> places = looked_at();
    std::vector<StressField::Sampled> on_outline;
    for (const double x : places) on_outline.push_back(field_.worst_sample(p_.at(x)));
    const auto most = [&](std::size_t i) { return field_.most(p_.at(places[i]), on_outline[i]); };
    std::size_t top = 0;
    for (std::size_t i = 0; i < places.size(); ++i) {
      if (on_outline[i].von_mises > on_outline[top].von_mises) top = i;
      // The ends are known already.
      const bool end = places[i] == 0 || places[i] == p_.length;
      if (!end && best_.could_beat(most(i))) offer(places[i]);
    }
    if (best_.could_beat(most(top))) improve(places[top]);
    for (std::size_t i = 0; i + 1 < places.size(); ++i)
      if (places[i + 1] > places[i]) hold_samples_against_best(places[i], places[i + 1]);
  }

 private:
  // No more is gained by a closer look.
  static constexpr double close = 1 + 5e-4;

  StressField::Place offer(double x) {
    CrossSection there(field_, p_.at(x));
    return offer(x, there);
  }
  const StressField::Place& offer(double x, CrossSection& there) {
    const StressField::Place& w = there.worst(field_);
    best_.offer(p_.from + x, w.von_mises, Length::si(w.y), Length::si(w.z));
    return w;
  }

  // The ends, and where one of the actions is extreme.
  std::vector<double> extremes() const {
    std::vector<double> places;
    places.reserve(8);  // seldom more
    places.push_back(0), places.push_back(p_.length);
    for (const Polynomial* q : {&p_.n, &p_.gy, &p_.gz, &p_.a, &p_.b, &p_.t}) {
      // A straight line has its extremes at the ends.
      if (q->c[2] == 0 && q->c[3] == 0 && q->c[4] == 0 && q->c[5] == 0) continue;
      for (const double x : sign_changes(derivative(q->c), p_.length)) places.push_back(x);
    }
    std::sort(places.begin(), places.end());
    return places;
  }

  struct Looked {
    double x;
    CrossSection section;
  };
  Looked look(double x) const { return {x, x == 0 ? start_ : x == p_.length ? end_ : CrossSection(field_, p_.at(x))}; }

  // Settles most pieces: those along which the actions hardly leave a straight line, or where one end is far worse.
  bool settled_by_chords() {
    const std::vector<double> places = extremes();
    std::vector<Looked> all;
    all.reserve(places.size());
    for (const double x : places) all.push_back(look(x));
    const std::size_t top = likely_worst(all, field_, [](Looked& l) -> CrossSection& { return l.section; });
    const auto all_settled = [&](double slack, int halvings) {
      for (std::size_t i = 0; i + 1 < all.size(); ++i)
        if (!settled(all[i], all[i + 1], slack, halvings)) return false;
      return true;
    };
    if (all_settled(1, 0)) return true;
    improve(all[top].x, all[top].section);
    return all_settled(close, 3);
  }

  // The von Mises stress at one place of the section is a norm of the actions. Between two cross-sections it is not
  // larger than on the chord between both, and what the actions add by leaving their own chords.
  bool settled(Looked& a, Looked& b, double slack, int halvings) {
    const double h = b.x - a.x;
    if (!(h > 0)) return true;
    const auto off = [&](const Polynomial& q) { return off_the_chord(shifted(q, a.x), h); };
    const double beyond = field_.bound({off(p_.n), off(p_.gy), off(p_.gz), off(p_.a), off(p_.b), off(p_.t)});
    const auto below = [&] {
      const double rise = b.section.most() - a.section.most();
      const double s = beyond > 0 ? std::clamp((1 + rise / beyond) / 2, 0.0, 1.0) : (rise > 0 ? 1.0 : 0.0);
      return a.section.most() + rise * s + beyond * s * (1 - s) <= best_.value() * slack;
    };
    if (below()) return true;
    for (Looked* end : {&a, &b}) end->section.sampled(field_);
    if (below()) return true;
    if (halvings == 0) return false;
    // The bounds of both ends leave room for the inside of the section; their worst stress itself does not.
    for (Looked* end : {&a, &b})
      if (best_.could_beat(end->section.most())) offer(end->x, end->section);
    if (below()) return true;
    Looked middle = look((a.x + b.x) / 2);
    return settled(a, middle, slack, halvings - 1) && settled(middle, b, slack, halvings - 1);
  }

  std::vector<double> looked_at() const {
    std::vector<double> places = extremes();
    for (std::size_t i = 0, n = places.size(); i + 1 < n; ++i) places.push_back((places[i] + places[i + 1]) / 2);
    std::sort(places.begin(), places.end());
    return places;
  }

  static section::ActionRanges ranges_of(const ActionCourse& p) {
    const auto of = [&](const Polynomial& q) {
      const auto [low, high] = range(q, p.length);
      return section::Around::between(low, high);
    };
    return {of(p.n), of(p.gy), of(p.gz), of(p.a), of(p.b), of(p.t)};
  }

  static Polynomial normal(const ActionCourse& p, const section::EdgeSample& e) {
    return combine({{1, &p.n}, {e.at.imag(), &p.gy}, {e.at.real(), &p.gz}});
  }
  static Polynomial shear(const ActionCourse& p, const section::EdgeSample& e) {
    return combine({{-e.up, &p.a}, {-e.right, &p.b}, {e.twist, &p.t}});
  }

  // Of one place of the section the worst root along the piece; a stress below zero where there is none.
  std::pair<double, double> worst_root(const section::EdgeSample& e) const {
    const Polynomial sigma = normal(p_, e), tau = shear(p_, e);
    const Coefficients square = sum(product(sigma.c, sigma.c), product(tau.c, tau.c), 3);
    double at = 0, most = -1;
    for (const double x : sign_changes(derivative(square), p_.length))
      if (const double v = mises(sigma(x), tau(x)); v > most) most = v, at = x;
    return {at, most};
  }

  void improve(double x) {
    CrossSection there(field_, p_.at(x));
    improve(x, there);
  }
  void improve(double x, CrossSection& first) {
    constexpr int most_steps = 12;
    StressField::Place w = offer(x, first);
    for (int step = 1; step < most_steps; ++step) {
      const auto [next, value] = worst_root(w.fields);
      if (value < 0) return;
      const double last = w.von_mises;
      w = offer(next);
      if (w.von_mises <= last * (1 + 1e-10)) return;
    }
  }

  // Where a bound says that a sample could be worse somewhere in this part, its own roots are looked at: first by the
  // ranges of the actions, then by those of its stresses.
  void hold_samples_against_best(double from, double to) {
    const double h = to - from;
    const ActionCourse part{p_.from + from,
                            h,
                            true,
                            shifted(p_.n, from),
                            shifted(p_.gy, from),
                            shifted(p_.gz, from),
                            shifted(p_.a, from),
                            shifted(p_.b, from),
                            shifted(p_.t, from)};
    const section::ActionRanges ranges = ranges_of(part);
    const double enough = best_.value() * close;
    for (const StressField::Run& run : field_.runs()) {
      if (run.most(ranges) <= enough * enough) continue;
      for (std::size_t i = run.first; i < run.first + run.count; ++i) {
        const section::EdgeSample& e = field_.edge()[i];
        const StressField::Run one{i, 1, {e.at.imag()}, {e.at.real()}, {e.up}, {e.right}, {e.twist}};
        if (one.most(ranges) <= enough * enough) continue;
        if (mises(bound(normal(part, e), h), bound(shear(part, e), h)) <= enough) continue;
        if (const auto [x, value] = worst_root(e); value > best_.value() * close) improve(x);
      }
    }
  }

  const StressField& field_;
  const ActionCourse& p_;
  const CrossSection &start_, &end_;
  BestStress& best_;
};

}  // namespace

// Without loads the stress is worst at an end of the piece.
StressExtreme StressCourse::field_von_mises(const std::vector<ActionCourse>& actions) const {
  struct End {
    double at;  // along the member
    CrossSection section;
  };
  const StressField& field = section_->field;
  std::vector<End> ends;
  ends.reserve(2 * actions.size());
  for (const ActionCourse& p : actions)
    for (const double x : {0.0, p.length}) ends.push_back({p.from + x, CrossSection(field, p.at(x))});
  BestStress best;
  const auto offer = [&](End& end) {
    const StressField::Place& w = end.section.worst(field);
    best.offer(end.at, w.von_mises, Length::si(w.y), Length::si(w.z));
  };
  // The worst by its outline first; of the others only those that could reach it.
  if (!ends.empty()) {
    const std::size_t top = likely_worst(ends, field, [](End& e) -> CrossSection& { return e.section; });
    offer(ends[top]);
    for (std::size_t i = 0; i < ends.size(); ++i) {
      if (i == top || !best.could_beat(ends[i].section.most())) continue;
      ends[i].section.sampled(field);
      if (best.could_beat(ends[i].section.most())) offer(ends[i]);
    }
  }
  for (std::size_t i = 0; i < actions.size(); ++i)
    if (actions[i].loaded) LoadedPiece(field, actions[i], ends[2 * i].section, ends[2 * i + 1].section, best).search();
  return best.take(1);
}

}  // namespace corvex::result
