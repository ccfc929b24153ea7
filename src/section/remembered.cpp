#include "section/remembered.hpp"

#include <algorithm>
#include <initializer_list>
#include <list>
#include <map>
#include <mutex>
#include <type_traits>
#include <vector>

#include "section/shape_dimensions.hpp"

namespace corvex::section {
namespace {

// Shapes are the same where all these numbers are.
using Key = std::vector<double>;

class Numbers {
 public:
  explicit Numbers(Key& key) : key_(key) {}

  template <HasDimensions S>
  void operator()(const S& s) {
    for (const auto& d : ShapeDimensions<S>::all) add({s.*d.value});
    if constexpr (requires { s.inside_corner; }) add(s.inside_corner);
    if constexpr (std::is_same_v<S, Channel>) {
      add({s.toe, s.flange_at});
      key_.push_back(s.slope);
    }
  }
  void operator()(const Outline& s) {
    add(s.points);
    for (const auto& hole : s.holes) add(hole);
  }
  void operator()(const GivenProperties& s) {
    key_.push_back(s.A.si());
    add(s.Iy), add(s.Iz), add(s.J), add(s.Wy), add(s.Wz), add(s.Ay), add(s.Az);
  }

 private:
  void add(std::initializer_list<Length> lengths) {
    for (const Length l : lengths) key_.push_back(l.si());
  }
  template <class Q>
  void add(const std::optional<Q>& q) {
    key_.push_back(q ? 1 : 0);
    key_.push_back(q ? q->si() : 0);
  }
  void add(const std::vector<Outline::Point>& points) {
    key_.push_back(static_cast<double>(points.size()));
    for (const Outline::Point& p : points) add({p.z, p.y});
  }

  Key& key_;
};

Key key_of(const Shape& shape, double fineness, const std::optional<SecondMoment>& J) {
  Key key{static_cast<double>(shape.index()), fineness, J ? 1.0 : 0.0, J ? J->si() : 0.0};
  std::visit(Numbers(key), shape);
  return key;
}

// The shapes used last, the latest first.
struct Memory {
  using Entry = std::pair<const Key*, std::shared_ptr<const Worked>>;
  std::mutex mutex;
  std::list<Entry> latest;
  std::map<Key, std::list<Entry>::iterator> all;
};

Memory& memory() {
  static Memory only_one;
  return only_one;
}

}  // namespace

std::shared_ptr<const Worked> remembered(const Shape& shape, double fineness, const std::optional<SecondMoment>& J) {
  constexpr std::size_t most = 512;
  Key key = key_of(shape, fineness, J);
  // NaN is not equal to itself: such a shape is refused and not remembered.
  if (std::any_of(key.begin(), key.end(), [](double v) { return v != v; }))
    return std::make_shared<Worked>(shape, fineness, J);
  Memory& m = memory();
  {
    const std::lock_guard lock(m.mutex);
    if (const auto it = m.all.find(key); it != m.all.end()) {
      m.latest.splice(m.latest.begin(), m.latest, it->second);
      return it->second->second;
    }
  }
  auto fresh = std::make_shared<const Worked>(shape, fineness, J);
  const std::lock_guard lock(m.mutex);
  const auto [it, added] = m.all.try_emplace(std::move(key));
  // Another thread may have worked it out meanwhile.
  if (!added) return it->second->second;
  m.latest.emplace_front(&it->first, fresh);
  it->second = m.latest.begin();
  if (m.latest.size() > most) {
    m.all.erase(*m.latest.back().first);
    m.latest.pop_back();
  }
  return fresh;
}

}  // namespace corvex::section
