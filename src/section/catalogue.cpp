#include "corvex/catalogue.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

#include "corvex/formula.hpp"
#include "section/catalogue_data.hpp"
#include "section/designation.hpp"

namespace corvex {
namespace section {
namespace {

using Outcome = Expected<Profile, std::string>;

struct Series {
  ProfileSeries info;
  std::function<Outcome(const Series&, const Designation&)> make;
  std::function<std::vector<std::string>()> list;  // designations
};

Length mm_of(double v) {
  return v * units::mm;
}

Profile profile_of(const Series& s, std::string designation, const Shape& shape) {
  Profile p;
  p.designation = std::move(designation);
  p.series = s.info.name;
  p.standard = s.info.standard;
  p.section = Section(shape);
  return p;
}

// A shape that cannot be is refused with its reason.
Outcome checked(Profile p) {
  const auto faults = check(p.section.shape());
  if (!faults.empty()) return fmt::format("{}: {}", p.designation, faults.front().text);
  return p;
}

std::string expected(const Series& s) {
  return fmt::format("a designation of {} was expected, for example '{}'", s.info.what, s.info.example);
}

// "not in the list of EN 10219-2; the nearest there is SHS 60x60x4".
void unlisted(Profile& p, const std::string& nearest) {
  p.listed = false;
  p.note = fmt::format("not in the list of {}; the nearest there is {}", p.standard.substr(0, p.standard.find(',')),
                       nearest);
}

// Named sizes ----------------------------------------------------------------------------------------------------

template <class Sizes>
Outcome size_of(const Series& s, const Sizes& sizes, const Designation& d,
                const std::function<Profile(const typename Sizes::value_type&)>& make) {
  if (d.numbers.size() != 1 || d.inches || !d.tail.empty()) return expected(s);
  const auto closest = std::min_element(sizes.begin(), sizes.end(), [&](const auto& a, const auto& b) {
    return std::abs(a.size - d.numbers[0]) < std::abs(b.size - d.numbers[0]);
  });
  if (closest->size != d.numbers[0])
    return fmt::format("there is no {} {}; the nearest is {} {}", s.info.name, plain(d.numbers[0]), s.info.name,
                       plain(closest->size));
  return make(*closest);
}

template <class Sizes>
std::vector<std::string> names(const std::string& series, const Sizes& sizes) {
  std::vector<std::string> all;
  for (const auto& size : sizes) all.push_back(fmt::format("{} {}", series, plain(size.size)));
  return all;
}

// The torsion constant that the tables of rolled profiles print (El Darwish and Johnston, 1965).
StandardTorsion table_torsion(const ISize& i) {
  const double h = i.height, b = i.width, w = i.web, f = i.flange, r = i.root;
  const double inscribed = ((r + w / 2) * (r + w / 2) + (r + f) * (r + f) - r * r) / (2 * r + f);
  const double J = 2.0 / 3 * (b - 0.63 * f) * std::pow(f, 3) + (h - 2 * f) * std::pow(w, 3) / 3 +
                   2 * (w / f) * (0.145 + 0.1 * r / f) * std::pow(inscribed, 4);
  return {J * units::mm4, J / f * units::mm3, "section tables, El Darwish and Johnston"};
}

Series i_series(const char* name, const char* what, const std::vector<ISize>& sizes) {
  const std::string example = std::string(name) + " 200";
  return {{name, what, "EN 10365", example},
          [&sizes](const Series& s, const Designation& d) {
            return size_of(s, sizes, d, [&](const ISize& i) {
              Profile p =
                  profile_of(s, fmt::format("{} {}", s.info.name, plain(i.size)),
                             IProfile{mm_of(i.height), mm_of(i.width), mm_of(i.web), mm_of(i.flange), mm_of(i.root)});
              p.torsion = table_torsion(i);
              return p;
            });
          },
          [name, &sizes] { return names(name, sizes); }};
}

Series channel_series(const char* name, const char* what, const char* standard, const std::vector<ChannelSize>& sizes) {
  const std::string example = std::string(name) + " 200";
  return {{name, what, standard, example},
          [&sizes](const Series& s, const Designation& d) {
            return size_of(s, sizes, d, [&](const ChannelSize& c) {
              Channel shape{mm_of(c.height), mm_of(c.width), mm_of(c.web), mm_of(c.flange), mm_of(c.root)};
              if (c.toe > 0) {
                // Up to 300 mm the flanges slope by 8 % and are measured at half their width, beyond by 5 %, at half of
                // the outstand.
                shape.toe = mm_of(c.toe);
                shape.slope = c.height <= 300 ? 0.08 : 0.05;
                shape.flange_at = mm_of(c.height <= 300 ? c.width / 2 : (c.width - c.web) / 2);
              }
              return profile_of(s, fmt::format("{} {}", s.info.name, plain(c.size)), shape);
            });
          },
          [name, &sizes] { return names(name, sizes); }};
}

// Angles ---------------------------------------------------------------------------------------------------------

std::string by_sizes(const std::string& series, std::initializer_list<double> sizes) {
  std::string text = series + " ";
  const char* between = "";
  for (const double v : sizes) text += between + plain(v), between = "x";
  return text;
}

Outcome make_angle(const Series& s, const Designation& d) {
  if ((d.numbers.size() != 2 && d.numbers.size() != 3) || d.inches || !d.tail.empty()) return expected(s);
  const double h = d.numbers[0], b = d.numbers.size() == 3 ? d.numbers[1] : h, t = d.numbers.back();
  // The standard has the longer leg first; here the first one is the upright one.
  const double wide = std::max(h, b), narrow = std::min(h, b);
  const AngleSize* best = nullptr;
  double best_wall = 0, least = 1e300;
  for (const AngleSize& a : angles())
    for (const double wall : a.walls) {
      const double apart = std::abs(a.height - wide) + std::abs(a.width - narrow) + 3 * std::abs(wall - t);
      if (apart < least) least = apart, best = &a, best_wall = wall;
    }
  // Where the radius of the nearest size is too large for another one, as much as fits.
  const double root = least == 0 ? best->root : std::max(0.0, std::min(best->root, 0.6 * (narrow - t)));
  const double toe = std::min(root / 2, t);
  Profile p =
      profile_of(s, by_sizes("L", {h, b, t}), AngleProfile{mm_of(h), mm_of(b), mm_of(t), mm_of(root), mm_of(toe)});
  if (least > 0) {
    const std::string nearest = by_sizes("L", {best->height, best->width, best_wall});
    unlisted(p, nearest);
    p.note += fmt::format(", whose root radius of {} mm is taken", plain(root));
  }
  return checked(p);
}

std::vector<std::string> list_angles() {
  std::vector<std::string> all;
  for (const AngleSize& a : angles())
    for (const double wall : a.walls) all.push_back(by_sizes("L", {a.height, a.width, wall}));
  return all;
}

// Hollow sections ------------------------------------------------------------------------------------------------

enum class Making { cold, hot };

// Outside and inside corner radii over the wall: EN 10219-2, annex B; EN 10210-2, annex A.
std::pair<double, double> corner_radii(Making making, double wall) {
  if (making == Making::hot) return {1.5, 1.0};
  if (wall <= 6) return {2.0, 1.0};
  return wall <= 10 ? std::pair{2.5, 1.5} : std::pair{3.0, 2.0};
}

StandardTorsion hollow_torsion(Making making, double h, double b, double t, double out, double in) {
  const double pi = 3.14159265358979323846, mean = (out + in) / 2;
  const double around = 2 * ((b - t) + (h - t)) - 2 * mean * (4 - pi);
  const double enclosed = (b - t) * (h - t) - mean * mean * (4 - pi);
  const double K = 2 * enclosed * t / around;
  const double J = t * t * t * around / 3 + 2 * K * enclosed;
  return {J * units::mm4, J / (t + K / t) * units::mm3,
          making == Making::cold ? "EN 10219-2, annex B" : "EN 10210-2, annex A"};
}

// An inch size as a fraction of sixteenths where it is one: 1/4, 2 1/2.
std::string inch_size(double v) {
  const double sixteenths = v * 16;
  if (std::abs(sixteenths - std::round(sixteenths)) > 1e-9) return plain(v);
  int top = static_cast<int>(std::lround(sixteenths)), below = 16;
  const int whole = top / 16;
  top %= 16;
  if (top == 0) return std::to_string(whole);
  while (top % 2 == 0) top /= 2, below /= 2;
  return whole > 0 ? fmt::format("{}-{}/{}", whole, top, below) : fmt::format("{}/{}", top, below);
}

// The nearest of a list, and how far it is.
std::pair<std::array<double, 3>, double> nearest_hollow(const std::vector<HollowSize>& list, bool square, double h,
                                                        double b, double t) {
  std::array<double, 3> best{};
  double least = 1e300;
  for (const HollowSize& size : list) {
    if ((size.height == size.width) != square) continue;
    for (const double wall : size.walls) {
      const double apart =
          std::abs(size.height - std::max(h, b)) + std::abs(size.width - std::min(h, b)) + 5 * std::abs(wall - t);
      if (apart < least) least = apart, best = {size.height, size.width, wall};
    }
  }
  return {best, least};
}

Shape hollow_shape(double h, double b, double t, double out, double in) {
  if (h == b) return SquareTube{mm_of(h), mm_of(t), mm_of(out), mm_of(in)};
  return RectangularTube{mm_of(h), mm_of(b), mm_of(t), mm_of(out), mm_of(in)};
}

Outcome make_inch_hollow(const Series& s, const Designation& d, double h, double b, double t) {
  const bool design = d.tail == "A500";
  if (!d.tail.empty() && !design)
    return fmt::format("after inches only 'A500' (design wall, 0.93 of the nominal one) is accepted, not '{}'", d.tail);
  constexpr double inch = 25.4, design_share = 0.93;
  const double wall = t * inch * (design ? design_share : 1);
  Profile p = profile_of(
      s, fmt::format("{} {}x{}x{} in{}", s.info.name, inch_size(h), inch_size(b), inch_size(t), design ? " A500" : ""),
      hollow_shape(h * inch, b * inch, wall, 2 * wall, wall));
  p.standard = design ? "ASTM A500, cold formed, design wall" : "ASTM A500, cold formed, nominal wall";
  p.note = design ? "0.93 of the nominal wall, the design wall of A500 tubes"
                  : "nominal wall; the design wall of A500 tubes is 0.93 of it: add A500 at the end";
  const auto [near, apart] = nearest_hollow(inch_hollow(), h == b, h, b, t);
  if (apart > 1e-9) {
    const std::string note = p.note;
    unlisted(p, fmt::format("{} {}x{}x{} in", s.info.name, inch_size(near[0]), inch_size(near[1]), inch_size(near[2])));
    p.note += "; " + note;
  }
  Outcome made = checked(p);
  if (made) {
    made.value().torsion = hollow_torsion(Making::cold, h * inch, b * inch, wall, 2 * wall, wall);
    made.value().torsion->formula = "EN 10219-2, annex B, with this section's radii";
  }
  return made;
}

Outcome make_hollow(const Series& s, const Designation& d, Making making, bool square) {
  const std::size_t n = d.numbers.size();
  if (n != 3 && !(square && n == 2)) return expected(s);
  const double h = d.numbers[0], b = n == 3 ? d.numbers[1] : h, t = d.numbers.back();
  if (square && h != b)
    return fmt::format("{} is square; a rectangular one is written as '{}'", s.info.name,
                       by_sizes(making == Making::hot  ? "HFRHS"
                                : s.info.name == "SHS" ? "RHS"
                                                       : "CFRHS",
                                {h, b, t}));
  if (d.inches) return make_inch_hollow(s, d, h, b, t);
  if (!d.tail.empty()) return expected(s);
  const auto [out, in] = corner_radii(making, t);
  Profile p = profile_of(s, by_sizes(s.info.name, {h, b, t}), hollow_shape(h, b, t, out * t, in * t));
  const auto [near, apart] = nearest_hollow(making == Making::cold ? cold_hollow() : hot_hollow(), h == b, h, b, t);
  if (apart > 1e-9) unlisted(p, by_sizes(s.info.name, {near[0], near[1], near[2]}));
  Outcome made = checked(p);
  if (made) {
    made.value().torsion = hollow_torsion(making, h, b, t, out * t, in * t);
    made.value().section = made->section.with_torsion_constant(made->torsion->J);
  }
  return made;
}

Series hollow_series(const char* name, Making making, bool square) {
  const std::string what = fmt::format("{} hollow sections, {}", square ? "square" : "rectangular",
                                       making == Making::cold ? "cold formed" : "hot finished");
  const std::string standard = making == Making::cold ? "EN 10219-2, cold formed" : "EN 10210-2, hot finished";
  return {{name, what, standard, std::string(name) + (square ? " 60x60x4" : " 100x50x5")},
          [making, square](const Series& s, const Designation& d) { return make_hollow(s, d, making, square); },
          [name, making, square] {
            std::vector<std::string> all;
            for (const HollowSize& size : making == Making::cold ? cold_hollow() : hot_hollow())
              if ((size.height == size.width) == square)
                for (const double wall : size.walls) all.push_back(by_sizes(name, {size.height, size.width, wall}));
            return all;
          }};
}

// Round ----------------------------------------------------------------------------------------------------------

Outcome make_round_hollow(const Series& s, const Designation& d) {
  if (d.numbers.size() != 2 || !d.tail.empty()) return expected(s);
  const double f = d.inches ? 25.4 : 1, D = d.numbers[0] * f, t = d.numbers[1] * f;
  Profile p = profile_of(s, by_sizes("CHS", {d.numbers[0], d.numbers[1]}) + (d.inches ? " in" : ""),
                         RoundTube{mm_of(D), mm_of(t)});
  double least = 1e300, near_D = 0, near_t = 0;
  for (const RoundSize& size : round_hollow())
    for (const double wall : size.walls)
      if (const double apart = std::abs(size.diameter - D) + 5 * std::abs(wall - t); apart < least)
        least = apart, near_D = size.diameter, near_t = wall;
  if (least > 1e-9) unlisted(p, by_sizes("CHS", {near_D, near_t}));
  return checked(p);
}

std::vector<std::string> list_round_hollow() {
  std::vector<std::string> all;
  for (const RoundSize& size : round_hollow())
    for (const double wall : size.walls) all.push_back(by_sizes("CHS", {size.diameter, wall}));
  return all;
}

// "1 1/2" as a number.
double inches_of(const char* text) {
  return take_apart(std::string("X ") + text)->numbers[0];
}

Outcome make_pipe(const Series& s, const Designation& d) {
  const bool by_dn = d.series == "PIPE DN";
  if (d.numbers.size() != 1 || (!by_dn && !d.inches)) return expected(s);
  std::vector<std::string> sizes;
  for (const PipeSize& size : pipes()) {
    sizes.push_back(by_dn ? fmt::format("DN{}", plain(size.dn)) : fmt::format("{} in", size.inches));
    if (by_dn ? size.dn != d.numbers[0] : std::abs(inches_of(size.inches) - d.numbers[0]) > 1e-9) continue;
    // Up to 10 inches STD is schedule 40, up to 8 inches XS is schedule 80.
    std::string wanted = d.tail;
    if (wanted == "STD" && size.dn <= 250) wanted = "SCH40";
    if (wanted == "XS" && size.dn <= 200) wanted = "SCH80";
    std::vector<std::string> walls;
    for (const PipeWall& wall : size.walls) {
      walls.emplace_back(wall.name);
      if (wall.name != wanted) continue;
      Profile p = profile_of(s,
                             by_dn ? fmt::format("PIPE DN{} {}", plain(size.dn), wall.name)
                                   : fmt::format("PIPE {} in {}", size.inches, wall.name),
                             RoundTube{mm_of(wall.diameter > 0 ? wall.diameter : size.diameter), mm_of(wall.wall)});
      const bool threaded = wanted == "MEDIUM" || wanted == "HEAVY";
      p.standard = threaded ? "EN 10255" : "ASME B36.10M";
      return p;
    }
    return fmt::format("a wall series was expected after the size of the pipe ({}), not '{}'", fmt::join(walls, ", "),
                       d.tail);
  }
  return fmt::format("there is no pipe of {}; there are {}",
                     by_dn ? "DN" + plain(d.numbers[0]) : plain(d.numbers[0]) + " in", fmt::join(sizes, ", "));
}

std::vector<std::string> list_pipes() {
  std::vector<std::string> all;
  for (const PipeSize& size : pipes())
    for (const PipeWall& wall : size.walls) all.push_back(fmt::format("PIPE DN{} {}", plain(size.dn), wall.name));
  return all;
}

// Bars -----------------------------------------------------------------------------------------------------------

Outcome make_bar(const Series& s, const Designation& d, std::size_t sizes,
                 const std::function<Shape(const std::vector<double>&)>& shape,
                 const std::vector<std::string>& listed) {
  if (d.numbers.size() != sizes || !d.tail.empty()) return expected(s);
  std::vector<double> numbers = d.numbers;
  std::string designation = fmt::format("{} {}", s.info.name, plain(numbers[0]));
  if (sizes == 2) designation += "x" + plain(numbers[1]);
  if (d.inches) designation += " in";
  for (double& v : numbers) v *= d.inches ? 25.4 : 1;
  Profile p = profile_of(s, designation, shape(numbers));
  // A flat that stands or lies is the same bar.
  const std::string turned =
      sizes == 2 ? fmt::format("{} {}x{}", s.info.name, plain(numbers[1]), plain(numbers[0])) : designation;
  const auto has = [&](const std::string& name) {
    return std::find(listed.begin(), listed.end(), name) != listed.end();
  };
  p.listed = has(designation) || has(turned);
  if (!p.listed) p.note = fmt::format("not among the usual sizes of {}", s.info.standard);
  return checked(p);
}

std::vector<std::string> list_flats() {
  std::vector<std::string> all;
  for (const FlatSize& f : flats())
    for (const double t : f.thicknesses) all.push_back(by_sizes("FLAT", {f.width, t}));
  return all;
}

std::vector<std::string> list_bars(const std::string& series, const std::vector<double>& sizes) {
  std::vector<std::string> all;
  for (const double v : sizes) all.push_back(series + " " + plain(v));
  return all;
}

const std::vector<Series>& all_series() {
  static const std::vector<Series> all = {
      i_series("IPE", "I profiles", ipe()),
      i_series("HEA", "wide flange profiles, light", hea()),
      i_series("HEB", "wide flange profiles", heb()),
      i_series("HEM", "wide flange profiles, heavy", hem()),
      channel_series("UPE", "channels with parallel flanges", "EN 10365", upe()),
      channel_series("UPN", "channels with tapered flanges", "EN 10365 (DIN 1026-1)", upn()),
      {{"L", "angles, equal and unequal", "EN 10056-1", "L 80x80x8"}, make_angle, list_angles},
      hollow_series("SHS", Making::cold, true),
      hollow_series("RHS", Making::cold, false),
      hollow_series("CFSHS", Making::cold, true),
      hollow_series("CFRHS", Making::cold, false),
      hollow_series("HFSHS", Making::hot, true),
      hollow_series("HFRHS", Making::hot, false),
      {{"CHS", "round hollow sections", "EN 10210-2, EN 10219-2", "CHS 48.3x3.2"},
       make_round_hollow,
       list_round_hollow},
      {{"PIPE", "steel pipes", "ASME B36.10M, EN 10255", "PIPE DN50 SCH40"}, make_pipe, list_pipes},
      {{"FLAT", "flat bars", "EN 10058", "FLAT 80x10"},
       [](const Series& s, const Designation& d) {
         return make_bar(
             s, d, 2,
             [](const auto& v) {
               return RectangularBar{mm_of(v[0]), mm_of(v[1])};
             },
             list_flats());
       },
       list_flats},
      {{"SQUARE", "square bars", "EN 10059", "SQUARE 30"},
       [](const Series& s, const Designation& d) {
         return make_bar(
             s, d, 1,
             [](const auto& v) {
               return RectangularBar{mm_of(v[0]), mm_of(v[0])};
             },
             list_bars("SQUARE", square_bars()));
       },
       [] { return list_bars("SQUARE", square_bars()); }},
      {{"ROUND", "round bars", "EN 10060", "ROUND 30"},
       [](const Series& s, const Designation& d) {
         return make_bar(
             s, d, 1, [](const auto& v) { return RoundBar{mm_of(v[0])}; }, list_bars("ROUND", round_bars()));
       },
       [] { return list_bars("ROUND", round_bars()); }}};
  return all;
}

const Series* find_series(std::string_view name) {
  for (const Series& s : all_series())
    if (s.info.name == name) return &s;
  return nullptr;
}

}  // namespace
}  // namespace section

Expected<Profile, std::string> profile(std::string_view text) {
  using namespace section;
  auto d = take_apart(text);
  std::vector<std::string> known;
  for (const Series& s : all_series()) known.push_back(s.info.name);
  if (!d)
    return fmt::format("'{}' is not a designation of a profile; expected was, for example, 'IPE 200' or 'SHS 60x60x4'",
                       text);
  if (d->fraction && !d->inches) return fmt::format("'{0}': fractions are inches; write '{0} in'", text);
  // HE 200 A is the same as HEA 200.
  if (d->series == "HE" && (d->tail == "A" || d->tail == "B" || d->tail == "M")) d->series += d->tail, d->tail.clear();
  const Series* s = find_series(d->series == "PIPE DN" ? "PIPE" : d->series);
  if (!s) {
    std::string hint = did_you_mean(d->series, known);
    if (hint.empty()) hint = fmt::format("; there are {}", fmt::join(known, ", "));
    return fmt::format("there is no series of profiles '{}'{}", d->series, hint);
  }
  return s->make(*s, *d);
}

const std::vector<ProfileSeries>& profile_series() {
  static const std::vector<ProfileSeries> all = [] {
    std::vector<ProfileSeries> infos;
    for (const section::Series& s : section::all_series()) infos.push_back(s.info);
    return infos;
  }();
  return all;
}

std::vector<Profile> profiles_of(std::string_view series) {
  std::vector<Profile> all;
  const section::Series* s = section::find_series(series);
  if (!s) return all;
  for (const std::string& designation : s->list())
    if (auto p = profile(designation)) all.push_back(std::move(p.value()));
  return all;
}

}  // namespace corvex
