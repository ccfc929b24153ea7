// Limits of unusual size, and limits of what cannot be checked.
#include "judge/suspect_limits.hpp"

#include <algorithm>
#include <set>

#include "corvex/number.hpp"

namespace corvex::inspection {
namespace {

// There are beams, and all limits of safety together are on links.
bool covers_ties_alone(const Structure& s, const Limits& limits) {
  const auto is_beam = [&](const Member& m) { return m.kind == MemberKind::beam; };
  if (std::none_of(s.members().begin(), s.members().end(), is_beam)) return false;
  for (const Limit& l : limits) {
    if (l.kind != Limit::Kind::safety) continue;
    if (l.on.empty()) return false;
    for (const MemberRef& m : l.on)
      if (const auto id = s.find(m); id && is_beam(s[*id])) return false;
  }
  return true;
}

// Unusual limits, by kind.
class LimitSuspicions {
 public:
  LimitSuspicions(Findings& f, const Limits& limits) : f_(f), s_(f.structure()), limits_(limits) {}

  void operator()() {
    for (number_ = 0; number_ < limits_.size(); ++number_) {
      const Limit& l = limits_[number_];
      switch (l.kind) {
        case Limit::Kind::safety: safety(l); break;
        case Limit::Kind::drift:
        case Limit::Kind::sag: deflection(l); break;
        case Limit::Kind::movement: movement(l); break;
        case Limit::Kind::buckling: buckling(l); break;
        case Limit::Kind::frequency: frequency(l); break;
        default: break;
      }
    }
  }

 private:
  Subject subject() const { return {Subject::Kind::limit, "", number_}; }
  void suspect(const char* key, std::string text, std::string remedy) {
    f_.add("limit-suspect", subject(), std::move(text), std::move(remedy)).key = key;
  }

  void safety(const Limit& l) {
    const double v = l.required.si();
    if (v < 1)
      suspect("safety", fmt::format("a safety factor of {} allows stress above the strength", short_number(v, 4)),
              "write a number over 1");
    else if (v > 30)
      suspect("safety", fmt::format("a safety factor of {} is unusually high", short_number(v, 4)), "check the number");
    if (covers_ties_alone(s_, limits_))
      suspect("on", "the safety limits cover links only, and no beam", "omit 'on', or include the beams");
    std::set<std::size_t> without;
    const auto look = [&](std::size_t m) {
      if (!s_.material_of(s_.members()[m]).strength()) without.insert(m);
    };
    for (const MemberRef& m : l.on)
      if (const auto id = s_.find(m)) look(id->index);
    for (std::size_t m = 0; l.on.empty() && m < s_.members().size(); ++m) look(m);
    if (without.empty()) return;
    std::vector<std::string> names;
    for (const std::size_t m : without) names.push_back(s_.members()[m].name);
    const std::string& material = s_.material_of(s_.members()[*without.begin()]).name;
    Problem& p = f_.add("no-strength", subject(),
                        fmt::format("the safety factor of {} cannot be checked: the material '{}' has no strength",
                                    list(names), material),
                        fmt::format("give '{}' a yield or an allowable stress", material));
    for (const std::size_t m : without) p.others.push_back(f_.member(m));
    p.others.push_back({Subject::Kind::material, material});
  }

  bool is_unusual_length(double v) const {
    const double size = s_.bounds().diagonal();
    return v > size / 10 || v < size * 1e-7;
  }

  void deflection(const Limit& l) {
    const double v = l.required.si();
    if (l.required.quantity().dimension == dimension::length) {
      if (is_unusual_length(v))
        suspect(
            l.kind == Limit::Kind::sag ? "sag" : "drift",
            fmt::format("a deflection of {} is unusual in a structure of {}", in_mm(v), in_mm(s_.bounds().diagonal())),
            "check its unit");
    } else if (v >= 1) {
      suspect("sag", fmt::format("a sag of {} times the span", short_number(v, 4)),
              fmt::format("write 1/{} if that was meant", short_number(v, 4)));
    } else if (v > 1.0 / 20 || v < 1.0 / 20000) {
      suspect("sag", fmt::format("a sag of 1/{} of the span is unusual", short_number(1 / v, 4)), "write it as 1/300");
    }
  }

  void movement(const Limit& l) {
    const double v = l.required.si();
    if (is_unusual_length(v))
      suspect(
          "movement",
          fmt::format("a displacement of {} is unusual in a structure of {}", in_mm(v), in_mm(s_.bounds().diagonal())),
          "check its unit");
    for (const PointId p : l.at)
      for (const PointSupport& support : s_.supports())
        if (s_.has(p) && support.at == p && holds(support, l.part))
          suspect("at",
                  fmt::format("the support at '{}' restrains this displacement: the limit is always met", s_[p].name),
                  "name a point that can move");
  }
  bool holds(const PointSupport& support, Part part) const {
    const std::size_t dims = s_.is_plane() ? 2 : 3;
    for (std::size_t k = 0; k < dims; ++k)
      if ((part == Part::size || static_cast<std::size_t>(part) == k + 1) && !support.held[k]) return false;
    return true;
  }

  void buckling(const Limit& l) {
    if (const double v = l.required.si(); v < 1)
      suspect("buckling", fmt::format("a load factor of {} allows buckling", short_number(v, 4)),
              "write a number over 1");
  }

  void frequency(const Limit& l) {
    if (const double v = l.required.si(); !l.band_end && (v < 0.5 || v > 1e4))
      suspect("frequency", fmt::format("a frequency of {} Hz is unusual", short_number(v, 4)), "check its unit");
  }

  Findings& f_;
  const Structure& s_;
  const Limits& limits_;
  std::size_t number_ = 0;
};

}  // namespace

void check_limits(Findings& f, const Limits& limits) {
  LimitSuspicions(f, limits)();
}

}  // namespace corvex::inspection
