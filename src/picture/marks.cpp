// The objects of findings, each with a ring and the identifier of what was found.
#include <algorithm>
#include <map>

#include "corvex/findings.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

struct Mark {
  Spot at;
  bool error = false;
  std::vector<std::string> words{};
  std::vector<std::string> objects{};
};

class Marks {
 public:
  explicit Marks(Scene& scene) : scene_(scene), s_(scene.structure()) {}

  void run() {
    for (const Problem& p : scene_.options().findings) {
      const bool matters = p.severity != Problem::Severity::note || p.finding == "crossing";
      if (matters && !p.is_accepted()) enter(p);
    }
    for (const Mark& m : marks_) draw(m);
    if (!marks_.empty())
      scene_.explain(
          open_ ? "Rings mark findings, double ones errors; an open point touches a member without being joined to it"
                : "Rings mark findings, double ones errors; corvex inspect lists them");
  }

 private:
  // At its points if it is about any, else in the middle of its member.
  void enter(const Problem& p) {
    std::vector<Subject> all{p.subject};
    all.insert(all.end(), p.others.begin(), p.others.end());
    constexpr std::size_t most = 4;
    std::size_t entered = 0;
    for (const Subject& s : all) {
      const bool of_point =
          s.kind == Subject::Kind::point || s.kind == Subject::Kind::support || s.kind == Subject::Kind::mass;
      const auto point = of_point ? s_.find_point(s.name) : std::nullopt;
      if (!point || entered == most) continue;
      ++entered;
      enter(p, s_[*point].position, s.name);
      if (p.finding == "unjoined-point") open(*point);
    }
    for (const Subject& s : all) {
      const auto member = s.kind == Subject::Kind::member ? s_.find_member(s.name) : std::nullopt;
      if (!member || entered > 0 || !scene_.shows(member->index)) continue;
      ++entered;
      enter(p, crossing(p).value_or((s_.axis_start(s_[*member]) + s_.axis_end(s_[*member])) * 0.5), s.name);
    }
  }

  void enter(const Problem& p, const Vector& place, const std::string& object) {
    const Spot at = scene_.at(place);
    auto it =
        std::find_if(marks_.begin(), marks_.end(), [&](const Mark& m) { return length(m.at - at) < scene_.letter(); });
    if (it == marks_.end()) it = marks_.insert(marks_.end(), {at});
    it->error |= p.severity == Problem::Severity::error;
    if (std::find(it->words.begin(), it->words.end(), p.finding) == it->words.end()) it->words.push_back(p.finding);
    it->objects.push_back(object);
  }

  // Where two members cross in space.
  std::optional<Vector> crossing(const Problem& p) const {
    if (p.finding != "crossing" || p.others.empty()) return std::nullopt;
    const auto a = s_.find_member(p.subject.name), b = s_.find_member(p.others.front().name);
    if (!a || !b) return std::nullopt;
    const Vector from = s_.axis_start(s_[*a]), u = s_.axis_end(s_[*a]) - from, other = s_.axis_start(s_[*b]),
                 v = s_.axis_end(s_[*b]) - other, normal = cross(u, v);
    const double square = dot(normal, normal);
    if (!(square > 0)) return std::nullopt;
    return from + u * (dot(cross(other - from, v), normal) / square);
  }

  void open(PointId point) {
    open_ = true;
    const double r = 0.3 * scene_.letter();
    const Spot at = scene_.at(s_[point].position);
    scene_.dot(at, r, scene_.colours().page, {"open-point", s_[point].name});
    scene_.ring(at, r, {scene_.colours().mark, 1.6}, {"open-point", s_[point].name});
  }

  void draw(const Mark& m) {
    const double r = 0.95 * scene_.letter();
    const std::string& object = m.objects.front();
    scene_.ring(m.at, r, {scene_.colours().mark, 2}, {"finding", object});
    if (m.error) scene_.ring(m.at, r + 4, {scene_.colours().mark, 1.2}, {"finding", object});
    std::string words = m.words.front();
    for (std::size_t i = 1; i < m.words.size(); ++i) words += ", " + m.words[i];
    constexpr int before_all = 90;
    scene_.label(words, {m.at, {0.6, 0.8}}, scene_.colours().mark, before_all, {"finding-name", object}, {true, r + 6});
  }

  Scene& scene_;
  const Structure& s_;
  std::vector<Mark> marks_;
  bool open_ = false;
};

}  // namespace

void add_marks(Scene& scene) {
  Marks(scene).run();
}

}  // namespace corvex::picture
