// The view of a structure on a page.
#pragma once

#include "picture/canvas.hpp"

namespace corvex::picture {

// Parallel lines of sight: what of a point in space lies to the right and up on the page.
struct Sight {
  Vector right, up;

  Spot flat(const Vector& v) const { return {dot(v, right), -dot(v, up)}; }
};
Sight sight(const Structure& structure, std::optional<View> view);

// Another solution in the same picture, or side by side.
struct Beside {
  const std::string* name;
  const Solution* solution;
  CaseResult result;
  std::vector<bool> shown;  // of its members
};

class Scene : public Canvas {
 public:
  // `beside`: other solutions that share the scale. They have the case that is shown, and outlive the scene.
  Scene(const Solution& solution, const PictureOptions& options, const Lettering& lettering,
        const std::vector<PictureSide>& beside = {});

  const Structure& structure() const { return s_; }
  const Solution& solution() const { return solution_; }
  // All assessed cases are shown, the worst of them.
  bool is_envelope() const { return envelope_; }
  const CaseResult& result() const { return case_; }
  std::size_t case_index() const { return case_index_; }
  bool shows(std::size_t member) const { return shown_[member]; }
  const std::vector<bool>& shown() const { return shown_; }
  const std::vector<Beside>& beside() const { return beside_; }
  // Pixels for a metre.
  double scale() const { return scale_; }

  Spot at(const Vector& place) const { return middle_ + (sight_.flat(place) - centre_) * scale_; }
  // The direction of a vector on the page, as long as it is seen.
  Spot seen(const Vector& direction) const { return sight_.flat(direction); }
  // A place along a member's axis.
  Vector place(const Member& m, double along) const { return place(s_, m, along); }
  static Vector place(const Structure& structure, const Member& m, double along);

  // The members as thin lines, and the points.
  void members(const Stroke& stroke);

  // With the global axes in a corner of the page, as they are seen.
  Drawing finished();

 private:
  void fit();
  void axes();

  const Solution& solution_;
  bool envelope_;
  const Structure& s_;
  std::size_t case_index_;
  CaseResult case_;
  Sight sight_;
  std::vector<bool> shown_;
  std::vector<Beside> beside_;
  double scale_ = 1;
  Spot centre_{}, middle_{};  // of the structure as seen, in metres; of its place on the page
};

// "1200 mm", or the point at that place.
std::string place_words(const Structure& structure, const ModelUnits& units, const Member& m, double along);

}  // namespace corvex::picture
