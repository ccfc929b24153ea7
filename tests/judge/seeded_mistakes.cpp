// Mistakes that engineers make, put into every model that ships where they fit, in several sizes. Nearly all of them
// must be found, with a finding that names the object. With CORVEX_ALL_SEEDS in the environment they are put into each
// place where they fit, which takes some minutes.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <iostream>
#include <map>
#include <random>
#include <set>

#include "support/draft.hpp"
#include "support/models.hpp"
#include "support/rows.hpp"

namespace tests_of_judge_seeded_mistakes {

using namespace corvex;
using namespace corvex::test;

namespace {

struct Seed {
  std::string kind, model, what;
  Draft draft;
  std::set<std::string> names;  // of the objects, any of which may be named
};

class Sower {
 public:
  Sower(std::string model, Draft sound, std::vector<Seed>& all)
      : model_(std::move(model)), sound_(std::move(sound)), size_(sound_.size()), all_(all) {}

  void run() {
    supports();
    joints();
    members();
    gravity();
    loads();
    cases();
    materials();
    coordinates();
    limits();
    sections();
  }

 private:
  const std::string& point(std::size_t p) const { return sound_.points[p].name; }
  void add(const std::string& kind, const std::string& what, Draft d, std::set<std::string> names) {
    all_.push_back({kind, model_, what, std::move(d), std::move(names)});
  }
  bool supported(std::size_t p) const {
    return std::any_of(sound_.supports.begin(), sound_.supports.end(),
                       [&](const DraftSupport& s) { return s.at == p; });
  }

  void supports() {
    for (std::size_t i = 0; i < sound_.supports.size(); ++i) {
      Draft d = sound_;
      const std::size_t at = d.supports[i].at;
      // A support that settles is needed by its load.
      const auto settles = [&](const Load& l) {
        const auto* s = std::get_if<SettlementLoad>(&l);
        return s && s->at.index == at;
      };
      for (auto& [name, loads] : d.cases) std::erase_if(loads, settles);
      d.supports.erase(d.supports.begin() + static_cast<std::ptrdiff_t>(i));
      add("forgotten support", point(at), d, {point(at)});
      d = sound_;
      for (auto& [name, loads] : d.cases) std::erase_if(loads, settles);
      d.points.push_back({"beside", d.points[at].position + Vector{size_ / 3, 0, 0}});
      d.supports[i].at = d.points.size() - 1;
      add("support on a point without a member", point(at), d, {"beside"});
    }
  }

  void joints() {
    for (std::size_t m = 0; m < sound_.members.size(); ++m) {
      const DraftMember& member = sound_.members[m];
      for (std::size_t k = 0; k < member.through.size(); ++k) {
        const std::size_t p = member.through[k];
        const bool inner = k > 0 && k + 1 < member.through.size();
        if (inner && sound_.members_at(p) > 1) {
          Draft d = sound_;
          d.members[m].through.erase(d.members[m].through.begin() + static_cast<std::ptrdiff_t>(k));
          add("touching, not joined", member.name + " without " + point(p), d, {member.name, point(p)});
        }
        if (inner || sound_.members_at(p) < 2) continue;
        // A point of its own instead of the joint, at the same place, by a slip of 1 mm or 0.05 in beside it, or by a
        // slip of an axis measure.
        for (const auto& [kind, off] : {std::pair("two points at one place", 0.0),
                                        {"two points 1 mm apart", 1e-3},
                                        {"two points 0.05 in apart", 1.27e-3},
                                        {"end beside its joint", 0.045 * size_}}) {
          Draft d = sound_;
          const Vector other = d.points[member.through[k == 0 ? 1 : k - 1]].position, here = d.points[p].position;
          const Vector along = (other - here) / length(other - here);
          if (off > 0 && off > 0.3 * length(other - here)) continue;
          if (off > 0 && off < 0.1 * length(other - here) && off > 0.005 * length(other - here) && off < 2e-3) continue;
          d.points.push_back({"slip", here + along * off});
          d.members[m].through[k] = d.points.size() - 1;
          add(kind, member.name + " at " + point(p), d, {"slip", point(p), member.name});
        }
      }
    }
  }

  void members() {
    for (std::size_t m = 0; m < sound_.members.size(); ++m) {
      const DraftMember& member = sound_.members[m];
      Draft d = sound_;
      DraftMember again = member;
      again.name = "again";
      d.members.push_back(again);
      add("member twice", member.name, d, {member.name, "again"});
      if (member.through.size() > 2) {
        d = sound_;
        again.through = {member.through.front(), member.through[1]};
        d.members.push_back(again);
        add("member over another", member.name, d, {member.name, "again"});
      }
      // The other end was never joined to anything.
      d = sound_;
      again.through = {member.through.back()};
      d.points.push_back({"far", d.points[member.through.back()].position + Vector{0.11 * size_, 0.17 * size_, 0}});
      again.through.push_back(d.points.size() - 1);
      again.options.kind = MemberKind::beam;
      again.options.hinge = Hinge::none;
      again.options.acts = Acts::always;
      again.options.offset = {};
      d.members.push_back(again);
      add("loose end", member.name, d, {"far", "again"});
    }
    Draft d = sound_;
    d.points.push_back({"idle", d.points.front().position + Vector{0.31 * size_, 0.29 * size_, 0}});
    add("point without a member", "", d, {"idle"});
  }

  void gravity() {
    const Vector up = sound_.up == Up::y || sound_.plane ? Vector{0, 1, 0} : Vector{0, 0, 1};
    const double gn = 9.80665;
    for (std::size_t c = 0; c < sound_.cases.size(); ++c) {
      const auto weighs = [](const Load& l) { return std::holds_alternative<GravityLoad>(l); };
      const std::string& name = sound_.cases[c].first;
      const auto with = [&](const char* kind, const Vector& a, int times) {
        Draft d = sound_;
        std::erase_if(d.cases[c].second, weighs);
        for (int i = 0; i < times; ++i) d.cases[c].second.push_back(GravityLoad{a});
        add(kind, name, d, {name});
      };
      with("gravity upwards", up * gn, 1);
      with("gravity sideways", {gn, 0, 0}, 1);
      with("gravity a thousand times", up * (-gn * 1000), 1);
      with("gravity in mm/s^2", up * (-gn / 1000), 1);
      with("gravity twice", up * -gn, 2);
    }
  }

  void loads() {
    for (std::size_t c = 0; c < sound_.cases.size(); ++c)
      for (std::size_t i = 0; i < sound_.cases[c].second.size(); ++i) {
        const std::string& name = sound_.cases[c].first;
        const Load& load = sound_.cases[c].second[i];
        const auto* at = std::get_if<PointLoad>(&load);
        const auto* on = std::get_if<MemberLoad>(&load);
        const auto* line = std::get_if<LineLoad>(&load);
        if (!at && !on && !line) continue;
        const std::string object = at ? point(at->at.index) : sound_.members[on ? on->on.index : line->on.index].name;
        Draft d = sound_;
        d.cases[c].second.push_back(load);
        add("load twice", name + ", " + object, d, {object});
        for (const auto& [kind, times] :
             {std::pair("load of no size", 0.0), {"load a thousand times", 1e3}, {"load ten thousand times", 1e4}}) {
          d = sound_;
          Load& changed = d.cases[c].second[i];
          if (auto* l = std::get_if<PointLoad>(&changed)) l->force = l->force * times, l->moment = l->moment * times;
          if (auto* l = std::get_if<MemberLoad>(&changed)) l->force = l->force * times, l->moment = l->moment * times;
          if (auto* l = std::get_if<LineLoad>(&changed)) l->first = l->first * times, l->last = l->last * times;
          add(kind, name + ", " + object, d, {object, name});
        }
        if (!at || zero(at->force)) continue;
        for (const DraftSupport& s : sound_.supports) {
          if (!s.support.held()[0] || !s.support.held()[1] || (!sound_.plane && !s.support.held()[2])) continue;
          d = sound_;
          std::get<PointLoad>(d.cases[c].second[i]) = {PointId(s.at), at->force, {}};
          add("load on a support", name + " at " + point(s.at), d, {point(s.at)});
          break;
        }
      }
  }

  void cases() {
    Draft d = sound_;
    d.cases.emplace_back("forgotten", std::vector<Load>());
    if (!d.combinations.empty()) d.combinations.front().second.emplace_back("forgotten", 1);
    add("case without loads", "", d, {"forgotten"});
    if (!sound_.combinations.empty()) {
      d = sound_;
      d.cases.emplace_back("alone", d.cases.front().second);
      add("case in no combination", "", d, {"alone"});
    }
  }

  // Of the first member's material, under a name of its own.
  void materials() {
    const auto with = [&](const std::string& kind, auto&& change) {
      Draft d = sound_;
      for (DraftMember& m : d.members) {
        if (m.options.material.name != sound_.members.front().options.material.name) continue;
        Material material = m.options.material;
        material.name = "own";
        change(material);
        m.options.material = material;
      }
      add(kind, "", d, {"own"});
    };
    for (const double times : {1e3, 1e-3, 1e6, 1e-6}) {
      const std::string by = times > 1 ? (times > 1e4 ? " a million times" : " a thousand times")
                                       : (times < 1e-4 ? " a millionth" : " a thousandth");
      with("E" + by, [&](Material& m) { m.E = m.E * times; });
      with("density" + by, [&](Material& m) {
        if (m.density) m.density = *m.density * times;
      });
      with("strength" + by, [&](Material& m) {
        m.by_thickness.clear();
        if (m.yield) m.yield = *m.yield * times;
        if (m.allowable) m.allowable = *m.allowable * times;
      });
    }
    with("E of a tenth", [](Material& m) { m.E = m.E * 0.1; });
  }

  void coordinates() {
    for (std::size_t p = 0; p < sound_.points.size() && sound_.points.size() > 2; ++p)
      for (double Vector::*axis : {&Vector::x, &Vector::y, &Vector::z}) {
        if (sound_.points[p].position.*axis == 0 || sound_.members_at(p) == 0) continue;
        for (const auto& [kind, times] :
             {std::pair("coordinate in m among mm", 1e-3), {"coordinate in mm among m", 1e3}}) {
          Draft d = sound_;
          d.points[p].position.*axis *= times;
          std::set<std::string> names{point(p)};
          add(kind, point(p), d, names);
        }
      }
  }

  void limits() {
    Draft d = sound_;
    d.limits.push_back({.kind = Limit::Kind::sag, .required = 300.0});
    add("sag 300 for 1/300", "", d, {"limits"});
    d = sound_;
    d.limits.push_back({.kind = Limit::Kind::safety, .required = 0.5});
    add("safety below 1", "", d, {"limits"});
  }

  void sections() {
    for (std::size_t i = 0; i < sound_.sections.size(); ++i) {
      std::vector<std::string> members;
      for (const DraftMember& m : sound_.members)
        if (m.options.section.index == i) members.push_back(m.name);
      if (members.empty()) continue;
      const std::string& name = sound_.sections[i].name;
      std::set<std::string> names{name};
      names.insert(members.begin(), members.end());
      const auto with = [&](const char* kind, const Shape& shape) {
        Draft d = sound_;
        d.sections[i].section = Section(shape);
        add(kind, name, d, names);
      };
      const Shape& shape = sound_.sections[i].section.shape();
      if (const auto* s = std::get_if<SquareTube>(&shape)) {
        with("wall ten times", SquareTube{.width = s->width, .wall = std::min(s->wall * 10.0, s->width * 0.45)});
        with("wall a tenth of a tenth", SquareTube{.width = s->width, .wall = s->wall / 100.0});
        with("section in m for mm", SquareTube{.width = s->width * 1000.0, .wall = s->wall * 1000.0});
        with("section in mm for m", SquareTube{.width = s->width / 1000.0, .wall = s->wall / 1000.0});
      }
      if (const auto* s = std::get_if<RectangularTube>(&shape); s && s->height != s->width)
        with("wall ten times", RectangularTube{.height = s->height,
                                               .width = s->width,
                                               .wall = std::min(s->wall * 10.0, std::min(s->height, s->width) * 0.45)});
      const AreaProperties& p = sound_.sections[i].section.area_properties();
      if (p.Iz.si() <= 1.6 * p.Iy.si()) continue;
      // Turned by a quarter, where it lies level and bends.
      Draft d = sound_;
      const Structure s = sound_.build();
      bool level = false;
      for (std::size_t m = 0; m < d.members.size(); ++m) {
        const Axes axes = local_axes(s, s.members()[m]);
        if (d.members[m].options.section.index != i || d.members[m].options.kind == MemberKind::link) continue;
        if (std::abs(dot(axes.x, s.up_direction())) > 0.05 || std::abs(dot(axes.y, s.up_direction())) < 0.9) continue;
        d.members[m].options.roll = d.members[m].options.roll + Angle::si(1.5707963267948966);
        level = true;
      }
      if (level) add("section on its side", name, d, names);
    }
  }

  std::string model_;
  Draft sound_;
  double size_;
  std::vector<Seed>& all_;
};

std::vector<Seed> seeds() {
  std::vector<Seed> all;
  for (const NamedModel& m : shipped_models()) {
    const auto model = read_model_text(m.text, m.name);
    REQUIRE(model);
    Sower(m.name, Draft::of(model->structure, model->limits), all).run();
  }
  return all;
}

// Of each kind in each model no more than a few, from first to last.
std::vector<Seed> some_of(std::vector<Seed> all) {
  if (std::getenv("CORVEX_ALL_SEEDS")) return all;
  const std::size_t few = test::rows<std::size_t>(3, 1);
  std::map<std::pair<std::string, std::string>, std::vector<Seed>> groups;
  for (Seed& seed : all) groups[{seed.model, seed.kind}].push_back(std::move(seed));
  std::vector<Seed> some;
  for (auto& [which, seeds] : groups) {
    const std::size_t n = std::min(few, seeds.size());
    for (std::size_t i = 0; i < n; ++i)
      some.push_back(std::move(seeds[i * (seeds.size() - 1) / std::max<std::size_t>(n - 1, 1)]));
  }
  return some;
}

// What is told of a structure with a mistake.
Problems told_of(const Seed& seed) {
  const Model model{.structure = seed.draft.build(), .limits = seed.draft.limits};
  return told(model);
}

bool names_it(const Problem& p, const Seed& seed) {
  for (const std::string& name : objects_of(p))
    if (seed.names.contains(name)) return true;
  if (seed.names.contains("limits") && p.subject.kind == Subject::Kind::limit) return true;
  if (!p.finding.empty()) return false;
  // A refusal of the description names what is wrong in its sentence.
  return std::any_of(seed.names.begin(), seed.names.end(),
                     [&](const std::string& name) { return p.text.find(name) != std::string::npos; });
}

}  // namespace

TEST_CASE("Seeded mistakes are found and named") {
  std::map<std::string, std::pair<int, int>> by_kind;  // sown, found
  std::vector<std::string> missed;
  int sown = 0, found = 0, refused_otherwise = 0;
  for (const Seed& seed : some_of(seeds())) {
    const Problems all = told_of(seed);
    const bool named = std::any_of(all.begin(), all.end(), [&](const Problem& p) { return names_it(p, seed); });
    ++sown, ++by_kind[seed.kind].first;
    if (named) {
      ++found, ++by_kind[seed.kind].second;
    } else {
      std::string line = seed.kind + ": " + seed.model + ", " + seed.what;
      for (const Problem& p : all)
        if (p.severity != Problem::Severity::note) line += "\n    " + describe(p);
      missed.push_back(line);
      const auto refuses = [](const Problem& p) { return p.severity == Problem::Severity::error; };
      refused_otherwise += std::any_of(all.begin(), all.end(), refuses);
    }
  }
  std::cout << "Seeded mistakes: " << found << " of " << sown << " found, " << by_kind.size() << " kinds\n";
  for (const auto& [kind, n] : by_kind)
    if (n.second < n.first) std::cout << "  " << kind << ": " << n.second << " of " << n.first << "\n";
  for (const std::string& line : missed) UNSCOPED_INFO(line);
  CHECK(sown >= 150);
  CHECK(found >= 0.95 * sown);
  CHECK(refused_otherwise == 0);
  for (const auto& [kind, n] : by_kind) {
    INFO(kind << ": " << n.second << " of " << n.first);
    CHECK(n.second >= 0.6 * n.first);
  }
}

TEST_CASE("No model that ships raises an error or a warning") {
  const std::vector<NamedModel> models = shipped_models();
  CHECK(models.size() > 20);
  for (const NamedModel& m : models) {
    const auto model = read_model_text(m.text, m.name);
    REQUIRE(model);
    for (const Problem& p : told(*model)) {
      INFO(m.name << ": " << describe(p));
      CHECK((p.severity == Problem::Severity::note || p.is_accepted()));
    }
  }
}

namespace {

// Frames, girders and space frames as engineers build them, of any size, in mm and in inches, loaded well within what
// they bear.
Draft sound_frame(unsigned seed) {
  std::mt19937 random(seed);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  const auto any = [&](int a, int b) { return std::uniform_int_distribution<int>(a, b)(random); };
  const double measure = seed % 2 ? 1e-3 : 25.4e-3;
  const auto rounded = [&](double metres) { return std::round(metres / measure) * measure; };
  Draft d{.title = "sound", .plane = seed % 3 != 0, .up = Up::z};
  const Vector up = d.plane ? Vector{0, 1, 0} : Vector{0, 0, 1};
  d.sections = {
      {"tube", SquareTube{.width = Length::si(0.1), .wall = Length::si(0.005)}},
      {"rail", RectangularTube{.height = Length::si(0.12), .width = Length::si(0.08), .wall = Length::si(0.005)}}};
  const auto material = corvex::material(seed % 5 ? "S235" : "S355");
  const auto member = [&](std::string name, std::vector<std::size_t> through, std::size_t section,
                          MemberKind kind = MemberKind::beam) {
    MemberOptions o{.section = SectionId(section), .material = material, .kind = kind};
    d.members.push_back({std::move(name), std::move(through), o});
  };
  const auto point = [&](const Vector& v) {
    d.points.push_back({"P" + std::to_string(d.points.size() + 1), v});
    return d.points.size() - 1;
  };
  std::vector<Load> product, push;
  if (d.plane && seed % 2) {
    // A girder whose chords run through, posts and diagonals between.
    const int bays = any(3, 8);
    const double a = rounded(between(0.8, 1.6)), h = rounded(between(0.7, 1.4));
    std::vector<std::size_t> lower, upper;
    for (int i = 0; i <= bays; ++i) lower.push_back(point({a * i, 0, 0})), upper.push_back(point({a * i, h, 0}));
    member("lower chord", lower, 0), member("upper chord", upper, 0);
    for (std::size_t i = 0; i < lower.size(); ++i) {
      member("post " + std::to_string(i), {lower[i], upper[i]}, 0, MemberKind::link);
      if (i + 1 < lower.size()) member("diagonal " + std::to_string(i), {lower[i + 1], upper[i]}, 0, MemberKind::link);
    }
    d.supports = {{lower.front(), Support::pinned()}, {lower.back(), Support::roller()}};
    for (std::size_t i = 1; i + 1 < upper.size(); ++i)
      product.push_back(PointLoad{PointId(upper[i]), up * -between(500, 2500), {}});
    push.push_back(LineLoad{MemberId(0), 0, {}, up * -between(100, 400), up * -between(100, 400)});
  } else {
    // Storeys of columns and rails; in space two such frames with rails between.
    const int bays = any(1, 3), storeys = any(1, 3), frames = d.plane ? 1 : 2;
    const double deep = rounded(between(1, 2));
    std::vector<double> x{0}, z{0};
    for (int i = 0; i < bays; ++i) x.push_back(x.back() + rounded(between(1.2, 3)));
    for (int i = 0; i < storeys; ++i) z.push_back(z.back() + rounded(between(0.9, 2.2)));
    std::map<std::array<int, 3>, std::size_t> at;
    for (int f = 0; f < frames; ++f)
      for (int i = 0; i <= bays; ++i)
        for (int k = 0; k <= storeys; ++k)
          at[{f, i, k}] = point(d.plane ? Vector{x[i], z[k], 0} : Vector{x[i], deep * f, z[k]});
    for (int f = 0; f < frames; ++f) {
      for (int i = 0; i <= bays; ++i) {
        std::vector<std::size_t> column;
        for (int k = 0; k <= storeys; ++k) column.push_back(at[{f, i, k}]);
        member("column " + std::to_string(f) + std::to_string(i), column, 0);
        d.supports.push_back({at[{f, i, 0}], any(0, 1) ? Support::fixed() : Support::pinned()});
      }
      for (int k = 1; k <= storeys; ++k) {
        std::vector<std::size_t> rail;
        for (int i = 0; i <= bays; ++i) rail.push_back(at[{f, i, k}]);
        member("rail " + std::to_string(f) + std::to_string(k), rail, 1);
        const double q = between(200, 900);
        product.push_back(LineLoad{MemberId(d.members.size() - 1), 0, {}, up * -q, up * -q});
      }
      push.push_back(PointLoad{PointId(at[{f, 0, storeys}]), {between(100, 400), 0, 0}, {}});
    }
    for (int i = 0; i <= bays && frames == 2; ++i)
      for (int k = 1; k <= storeys; ++k)
        member("cross " + std::to_string(i) + std::to_string(k), {at[{0, i, k}], at[{1, i, k}]}, 1);
    if (any(0, 1)) d.masses.push_back({PointId(at[{0, 0, storeys}]), between(20, 80)});
  }
  d.cases = {{"weight", {GravityLoad{up * -9.80665}}}, {"product", product}, {"push", push}};
  if (any(0, 1))
    d.combinations = {{"full", {{"weight", 1.35}, {"product", 1.5}}}, {"pushed", {{"weight", 1}, {"push", 1.5}}}};
  d.limits = {{.kind = Limit::Kind::safety, .required = 1.1}, {.kind = Limit::Kind::sag, .required = 1.0 / 200}};
  return d;
}

}  // namespace

TEST_CASE("Sound frames raise no error and no warning") {
  int alarms = 0;
  constexpr unsigned frames = 300;
  for (unsigned seed = 1; seed <= frames; ++seed) {
    const Draft d = sound_frame(seed);
    const Model model{.structure = d.build(), .limits = d.limits};
    REQUIRE(solve(model.structure).ok());
    for (const Problem& p : told(model))
      if (p.severity != Problem::Severity::note) {
        UNSCOPED_INFO("frame " << seed << ": " << describe(p));
        ++alarms;
      }
  }
  std::cout << "Sound frames: " << alarms << " false alarms in " << frames << "\n";
  CHECK(alarms == 0);
}

}  // namespace tests_of_judge_seeded_mistakes
