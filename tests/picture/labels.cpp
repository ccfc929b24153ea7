// Labels find room: none upon another, all on the page, the important ones first.
#include "picture/labels.hpp"

#include <catch2/catch.hpp>
#include <random>
#include <set>

namespace tests_of_labels {

using namespace corvex::picture;

namespace {

// The room that placed words take.
Box room_of(const Lettering& lettering, const Text& t) {
  const double w = lettering.width(t.words, t.size, t.bold), half = t.size / 2;
  const double left = t.anchor == Anchor::start ? t.at.x : t.anchor == Anchor::end ? t.at.x - w : t.at.x - w / 2;
  return {left, t.at.y - half, left + w, t.at.y + half};
}

Label label(const std::string& words, const Spot& of, int importance) {
  Label l;
  l.text.words = words;
  l.of = of;
  l.importance = importance;
  return l;
}

}  // namespace

TEST_CASE("Many labels stand beside each other, within the page") {
  const Lettering lettering;
  REQUIRE_FALSE(lettering.missing_font());
  const Box page{0, 0, 800, 600};
  std::mt19937 random(3);
  std::uniform_real_distribution<double> x(20, 780), y(20, 580);
  Labels labels(lettering, page);
  constexpr std::size_t count = 60;
  for (std::size_t i = 0; i < count; ++i) labels.add(label("label " + std::to_string(i), {x(random), y(random)}, 1));
  std::size_t left_out = 0;
  const std::vector<Text> placed = labels.placed(left_out);
  CHECK(placed.size() + left_out == count);
  CHECK(placed.size() > count / 2);
  for (std::size_t i = 0; i < placed.size(); ++i) {
    const Box box = room_of(lettering, placed[i]).grown(-0.5);
    CHECK(page.holds(box));
    for (std::size_t k = 0; k < i; ++k) CHECK_FALSE(box.overlaps(room_of(lettering, placed[k]).grown(-0.5)));
  }
}

TEST_CASE("Where room is short the important labels have it") {
  const Lettering lettering;
  Labels labels(lettering, {0, 0, 120, 40});
  for (int i = 0; i < 30; ++i) labels.add(label("unimportant", {60, 20}, 1));
  labels.add(label("first", {60, 20}, 9));
  std::size_t left_out = 0;
  const std::vector<Text> placed = labels.placed(left_out);
  CHECK(left_out > 0);
  std::set<std::string> words;
  for (const Text& t : placed) words.insert(t.words);
  CHECK(words.contains("first"));
}

}  // namespace tests_of_labels
