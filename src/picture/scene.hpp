// A picture in the making: the page, the view of the structure upon it, and the labels that still look for room.
#pragma once

#include "corvex/picture.hpp"
#include "picture/labels.hpp"

namespace corvex::picture {

// Blue and orange are told apart by all eyes; ink is for what the structure is, rust for what acts on it.
struct Palette {
  Colour page, ink, quiet, faint, member, support, load, deformed, positive, negative, mark;
};
Palette palette(bool dark);

// Parallel lines of sight: what of a point in space lies to the right and up on the page.
struct Sight {
  Vector right, up;

  Spot flat(const Vector& v) const { return {dot(v, right), -dot(v, up)}; }
};
Sight sight(const Structure& structure, std::optional<View> view);

class Scene {
 public:
  Scene(const Solution& solution, const PictureOptions& options, const Lettering& lettering);

  const Structure& structure() const { return s_; }
  const ModelUnits& units() const { return o_.units; }
  const PictureOptions& options() const { return o_; }
  const Palette& colours() const { return colours_; }
  const CaseResult& result() const { return case_; }
  std::size_t case_index() const { return case_index_; }
  bool shows(std::size_t member) const { return shown_[member]; }
  // The size of letters, and of all symbols.
  double letter() const { return letter_; }
  // Pixels for a metre.
  double scale() const { return scale_; }

  Spot at(const Vector& place) const { return middle_ + (sight_.flat(place) - centre_) * scale_; }
  // The direction of a vector on the page, as long as it is seen.
  Spot seen(const Vector& direction) const { return sight_.flat(direction); }
  // A place along a member's axis.
  Vector place(const Member& m, double along) const;

  void line(std::vector<Spot> spots, const Stroke& stroke, Meaning meaning);
  void area(std::vector<Spot> spots, const Colour& fill, Meaning meaning);
  void path(Path path) { drawing_.shapes.emplace_back(std::move(path)); }
  void dot(const Spot& at, double radius, const Colour& colour, Meaning meaning);
  // From tail to tip, with a filled head.
  void arrow(const Spot& tail, const Spot& tip, const Colour& colour, Meaning meaning, double width = 1.6);
  // Words in their place, in the middle of it.
  void text(std::string words, const Spot& at, const Colour& colour, Meaning meaning, Anchor anchor = Anchor::middle,
            bool bold = false);
  void label(std::string words, const Spot& of, const Spot& towards, const Colour& colour, int importance,
             Meaning meaning, bool bold = false, double distance = 6, std::vector<Spot> else_of = {});
  // Labels stay clear of this line.
  void keep_clear(const Spot& from, const Spot& to) { labels_.avoid_line(from, to); }
  void keep_clear(const Box& box) { labels_.avoid(box); }

  // Lines of explanation at the foot of the page.
  void explain(std::string words) { legend_.push_back(std::move(words)); }
  void heading(std::string words) { heading_ = std::move(words); }

  // The members as thin lines, and the points.
  void members(const Stroke& stroke);

  // What has been drawn so far, labels left out.
  Box drawn() const;
  // The global axes in a corner of the page, as they are seen.
  void axes();

  Drawing finished();

 private:
  void fit();

  const Structure& s_;
  const PictureOptions& o_;
  const Lettering& lettering_;
  std::size_t case_index_;
  CaseResult case_;
  Palette colours_;
  Sight sight_;
  std::vector<bool> shown_;
  double letter_, scale_ = 1;
  Spot centre_{}, middle_{};  // of the structure as seen, in metres; of its place on the page
  Drawing drawing_;
  Labels labels_;
  std::string heading_;
  std::vector<std::string> legend_;
};

// "1.458 kN·m"; what is only rounding beside `size` is 0.
std::string figure(double si, const NamedUnit& unit, int digits, double size = 0);
// "1200 mm", or the point that stands there.
std::string place_words(const Scene& scene, const Member& m, double along);

}  // namespace corvex::picture
