#include "beam/span_load.hpp"

#include <algorithm>

namespace corvex::solver {
namespace {

// Loads on a span, before they are sorted into pieces.
struct Entry {
  std::size_t span;
  double from, to;  // equal for a force or moment at one place
  Vector first, last;
  Vector force, moment;
  Vector first_moment{}, last_moment{};  // per length
};

// A force along all of a span, changing linearly: the most frequent load by far; and free strains, which always go all
// along.
struct Along {
  Vector q0, slope;
  FreeStrain free{};
  Vector m0{}, m_slope{};

  bool nothing() const {
    return zero(q0) && zero(slope) && zero(m0) && zero(m_slope) && free.along == 0 && free.curve_y == 0 &&
           free.curve_z == 0;
  }
};

class Gathering {
 public:
  Gathering(const Structure& s, const Spans& spans) : s_(s), spans_(spans) {}

  std::vector<Entry> entries;
  std::vector<Along> along;  // of each span; empty where there is none at all

  void take(const ActingLoads& loads) {
    for (const ActingForce& f : loads.forces)
      if (!f.point) force(f);
    for (const ActingLine& line : loads.lines) spread(line);
    for (const ActingStrain& free : loads.strains) strain(free);
  }

 private:
  void force(const ActingForce& l) {
    const std::size_t member = l.on.index;
    const Axes& axes = spans_.axes[member];
    const std::size_t begin = spans_.first[member], end = spans_.first[member + 1];
    std::size_t i = begin;
    // At a point in between the load belongs to the span behind it: a jump at its very start.
    const double snap = 1e-9 * s_.length_of(s_.members()[member]);
    while (i + 1 < end && l.at >= spans_.all[i + 1].start - snap) ++i;
    const Span& span = spans_.all[i];
    double at = std::clamp(l.at - span.start, 0.0, span.length);
    if (at < snap) at = 0;
    if (at > span.length - snap) at = span.length;
    entries.push_back({i, at, at, {}, {}, axes.local(l.force), axes.local(l.whole_moment())});
  }

  void strain(const ActingStrain& free) {
    along.resize(spans_.all.size());
    const std::size_t member = free.on.index;
    // Curvatures turn with the axes as forces across do.
    const Vector curve = spans_.axes[member].local(local_axes(s_, s_[free.on]).global({0, free.curve_y, free.curve_z}));
    for (std::size_t i = spans_.first[member]; i < spans_.first[member + 1]; ++i) {
      along[i].free.along += free.along;
      along[i].free.curve_y += curve.y;
      along[i].free.curve_z += curve.z;
    }
  }

  void spread(const ActingLine& line) {
    const std::size_t member = line.on.index;
    const double from = line.from, to = line.to;
    const Vector a = spans_.axes[member].local(line.first), b = spans_.axes[member].local(line.last);
    const Vector slope = (b - a) / (to - from);
    const Vector ma = spans_.axes[member].local(line.first_moment), mb = spans_.axes[member].local(line.last_moment);
    const Vector m_slope = (mb - ma) / (to - from);
    for (std::size_t i = spans_.first[member]; i < spans_.first[member + 1]; ++i) {
      const Span& span = spans_.all[i];
      const double begin = std::max(from, span.start), end = std::min(to, span.start + span.length);
      if (end - begin <= 1e-9 * span.length) continue;
      if (begin == span.start && end == span.start + span.length) {
        along.resize(spans_.all.size());
        along[i].q0 += a + slope * (begin - from);
        along[i].slope += slope;
        along[i].m0 += ma + m_slope * (begin - from);
        along[i].m_slope += m_slope;
        continue;
      }
      entries.push_back({i,
                         begin - span.start,
                         std::min(end - span.start, span.length),
                         a + slope * (begin - from),
                         a + slope * (end - from),
                         {},
                         {},
                         ma + m_slope * (begin - from),
                         ma + m_slope * (end - from)});
    }
  }

  const Structure& s_;
  const Spans& spans_;
};

// The entries of one span as pieces side by side.
void arrange(std::span<const Entry> entries, double length, std::vector<LoadPiece>& pieces) {
  std::vector<double> breaks{0, length};
  for (const Entry& e : entries) {
    breaks.push_back(e.from);
    breaks.push_back(e.to);
  }
  std::sort(breaks.begin(), breaks.end());
  // Breaks nearer than rounding are one.
  std::vector<double> distinct;
  for (const double b : breaks)
    if (distinct.empty() || b - distinct.back() > 1e-12 * length) distinct.push_back(b);
  distinct.back() = length;
  const auto place = [&](double x) {
    const auto it = std::lower_bound(distinct.begin(), distinct.end(), x - 1e-12 * length);
    return static_cast<std::size_t>(it - distinct.begin());
  };
  std::vector<LoadPiece> mine(distinct.size());
  for (std::size_t i = 0; i < distinct.size(); ++i) {
    mine[i].from = distinct[i];
    mine[i].to = i + 1 < distinct.size() ? distinct[i + 1] : length;
  }
  bool jump_at_end = false;
  for (const Entry& e : entries) {
    if (e.to > e.from) {
      const Vector slope = (e.last - e.first) / (e.to - e.from);
      const Vector m_slope = (e.last_moment - e.first_moment) / (e.to - e.from);
      for (std::size_t i = place(e.from); i < place(e.to); ++i) {
        mine[i].q0 += e.first + slope * (mine[i].from - e.from);
        mine[i].slope += slope;
        mine[i].m0 += e.first_moment + m_slope * (mine[i].from - e.from);
        mine[i].m_slope += m_slope;
      }
    } else {
      const std::size_t i = place(e.from);
      mine[i].jump_force += e.force;
      mine[i].jump_moment += e.moment;
      jump_at_end |= i + 1 == mine.size();
    }
  }
  if (!jump_at_end) mine.pop_back();
  pieces.insert(pieces.end(), mine.begin(), mine.end());
}

}  // namespace

SpanLoads::SpanLoads(const Structure& structure, const Spans& spans, const ActingLoads& loads) {
  Gathering gather(structure, spans);
  gather.take(loads);
  std::vector<Entry>& entries = gather.entries;
  const auto by_span = [](const Entry& a, const Entry& b) { return a.span < b.span; };
  if (!std::is_sorted(entries.begin(), entries.end(), by_span))
    std::stable_sort(entries.begin(), entries.end(), by_span);
  const std::vector<Along>& along = gather.along;
  pieces_.reserve(along.size() + entries.size());
  first_.assign(spans.all.size() + 1, 0);
  std::size_t next = 0;
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    first_[i] = pieces_.size();
    const double length = spans.all[i].length;
    const std::size_t begin = next;
    while (next < entries.size() && entries[next].span == i) ++next;
    if (next > begin) arrange({entries.data() + begin, next - begin}, length, pieces_);
    if (along.empty() || along[i].nothing()) continue;
    if (next == begin)
      pieces_.push_back({.from = 0,
                         .to = length,
                         .jump_force = {},
                         .jump_moment = {},
                         .q0 = {},
                         .slope = {},
                         .m0 = {},
                         .m_slope = {}});
    for (std::size_t k = first_[i]; k < pieces_.size(); ++k) {
      pieces_[k].q0 += along[i].q0 + along[i].slope * pieces_[k].from;
      pieces_[k].slope += along[i].slope;
      pieces_[k].m0 += along[i].m0 + along[i].m_slope * pieces_[k].from;
      pieces_[k].m_slope += along[i].m_slope;
      pieces_[k].free = along[i].free;
    }
  }
  first_.back() = pieces_.size();
}

}  // namespace corvex::solver
