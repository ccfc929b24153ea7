// Random calls of the interface: a structure is described, changed, solved and asked, in any order. What is wrong is
// refused by a problem or by one of the exceptions that the headers name.
#include <corvex/corvex.hpp>
#include <cstdint>
#include <stdexcept>

using namespace corvex;
using namespace corvex::literals;

namespace {

// Bytes as choices and numbers.
class Source {
 public:
  Source(const std::uint8_t* data, std::size_t size) : at_(data), end_(data + size) {}

  bool done() const { return at_ == end_; }
  unsigned byte() { return done() ? 0 : *at_++; }
  unsigned below(std::size_t n) { return n == 0 ? 0 : byte() % static_cast<unsigned>(n); }
  double number() {
    static constexpr double odd[] = {0, -1, 1e-9, 1e9, 1e300, -1e300, 0.0 / 1.0, 1e-300};
    const unsigned b = byte();
    return b >= 248 ? odd[b - 248] : (static_cast<double>(b) - 100) / 20;
  }
  std::string name() {
    static constexpr const char* names[] = {"A", "B", "C", "D", "E", "F", "beam", "post", "x", "y", "all", "", "A,B"};
    return names[below(std::size(names))];
  }

 private:
  const std::uint8_t *at_, *end_;
};

class Play {
 public:
  explicit Play(Source source)
      : source_(source), s_(source_.byte() % 2 ? Structure::space("play") : Structure::plane("play")) {}

  void run() {
    while (!source_.done()) {
      try {
        step();
      } catch (const std::out_of_range&) {
      } catch (const std::invalid_argument&) {
      }
    }
    try {
      solved();
    } catch (const std::out_of_range&) {
    }
  }

 private:
  Length length() { return Length::si(source_.number()); }
  PointId point() { return points_.empty() ? PointId() : points_[source_.below(points_.size())]; }
  MemberId member() { return members_.empty() ? MemberId() : members_[source_.below(members_.size())]; }

  Shape shape() {
    switch (source_.below(6)) {
      case 0: return SquareTube{.width = length(), .wall = length()};
      case 1: return RoundTube{length(), length()};
      case 2: return RoundBar{length()};
      case 3: return RectangularBar{length(), length()};
      case 4: return AngleProfile{60_mm, 60_mm, 6_mm, 8_mm, 4_mm};
      default: return SquareTube{.width = 60_mm, .wall = 4_mm};
    }
  }

  void step() {
    constexpr std::size_t most = 24;
    switch (source_.below(18)) {
      case 0:
      case 1:
        if (points_.size() < most)
          points_.push_back(s_.point(source_.name(), length(), length(), s_.is_plane() ? 0_m : length()));
        break;
      case 2:
      case 3:
        if (members_.size() < most) {
          MemberOptions o{.section = s_.section(source_.name(), Section(shape())), .material = "S235"};
          o.kind = source_.below(3) ? MemberKind::beam : MemberKind::link;
          o.hinge = static_cast<Hinge>(source_.below(4));
          o.acts = static_cast<Acts>(source_.below(3));
          members_.push_back(s_.member(source_.name(), {point(), point()}, o));
        }
        break;
      case 4: s_.support(point(), Support::fixed()); break;
      case 5: s_.support(point(), Support::pinned()); break;
      case 6: s_.support(point(), Support::roller()); break;
      case 7:
        s_.load_case(source_.name())
            .at(point(), Force{.x = ForceSize::si(source_.number()), .y = ForceSize::si(source_.number())});
        break;
      case 8: s_.load_case(source_.name()).on(member(), length(), Force{.y = ForceSize::si(source_.number())}); break;
      case 9: s_.load_case(source_.name()).gravity(); break;
      case 10: s_.load_case(source_.name()).heat(member(), Temperature::si(source_.number())); break;
      case 11: s_.load_case(source_.name()).shorten(member(), length()); break;
      case 12:
        s_.load_case(source_.name())
            .line(member(), LineForce{.y = LineForceSize::si(source_.number())},
                  LineForce{.y = LineForceSize::si(source_.number())}, {.from = length(), .to = length()});
        break;
      case 13: s_.combination(source_.name(), {{source_.name(), source_.number()}}); break;
      case 14: s_.point_mass(point(), Mass::si(source_.number())); break;
      case 15: s_.remove_support(point()); break;
      case 16: s_.remove_load_case(source_.name()); break;
      default:
        if (++solutions_ <= 3) solved();
    }
  }

  void solved() {
    const Solution solution = solve(s_);
    if (!solution.ok()) {
      for (const Problem& p : solution.problems()) static_cast<void>(describe(p));
      return;
    }
    static_cast<void>(solution.notes());
    for (std::size_t c = 0; c < solution.size() && c < 3; ++c) {
      const CaseResult result = solution[c];
      if (result.balance().error > 1) __builtin_trap();
      for (const MemberId id : members_) {
        const MemberResult m = result[id];
        static_cast<void>(m.moment_z().max());
        static_cast<void>(m.von_mises());
        static_cast<void>(m.sag());
        static_cast<void>(m.at(m.length()));
        static_cast<void>(extreme_places(m));
      }
      static_cast<void>(result[source_.name()]);
    }
  }

  Source source_;
  Structure s_;
  std::vector<PointId> points_;
  std::vector<MemberId> members_;
  int solutions_ = 0;
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  Play({data, size}).run();
  return 0;
}
