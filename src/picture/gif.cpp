// Animated drawings as GIF, by giflib.
#include <cairo.h>
#include <gif_lib.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <numbers>
#include <unordered_map>

#include "picture/drawing.hpp"

namespace corvex::picture {
namespace {

constexpr int frames = 24, hundredths_a_frame = 7;

// A few colours and all that lies between each of them and the page: what smooth edges need.
class ColourTable {
 public:
  explicit ColourTable(const Drawing& d) {
    std::vector<Colour> used;
    const auto take = [&](const Colour& c) {
      const auto same = [&](const Colour& o) { return o.red == c.red && o.green == c.green && o.blue == c.blue; };
      if (used.size() < 12 && std::none_of(used.begin(), used.end(), same)) used.push_back(c);
    };
    for (const auto& shape : d.shapes) {
      if (const auto* p = std::get_if<Path>(&shape)) {
        if (p->stroke) take(p->stroke->colour);
        if (p->fill) take(*p->fill);
      }
      if (const auto* t = std::get_if<Text>(&shape)) take(t->colour);
    }
    const int steps = static_cast<int>(256 / std::max<std::size_t>(used.size(), 1));
    colours_.reserve(256);
    for (const Colour& c : used)
      for (int i = 0; i < steps; ++i) {
        const double t = steps > 1 ? static_cast<double>(i) / (steps - 1) : 1;
        const auto mix = [&](int page, int own) {
          return static_cast<GifByteType>(std::lround(page + (own - page) * t));
        };
        colours_.push_back({mix(d.page.red, c.red), mix(d.page.green, c.green), mix(d.page.blue, c.blue)});
      }
    colours_.resize(256, {d.page.red, d.page.green, d.page.blue});
  }

  const std::vector<GifColorType>& colours() const { return colours_; }
  GifByteType nearest(std::uint32_t rgb) {
    const auto known = known_.find(rgb);
    if (known != known_.end()) return known->second;
    const int red = rgb >> 16 & 255, green = rgb >> 8 & 255, blue = rgb & 255;
    std::size_t best = 0;
    int least = 1 << 30;
    for (std::size_t i = 0; i < colours_.size(); ++i) {
      const int r = colours_[i].Red - red, g = colours_[i].Green - green, b = colours_[i].Blue - blue;
      if (const int off = 2 * r * r + 4 * g * g + b * b; off < least) least = off, best = i;
    }
    return known_[rgb] = static_cast<GifByteType>(best);
  }

 private:
  std::vector<GifColorType> colours_;
  std::unordered_map<std::uint32_t, GifByteType> known_;
};

// The drawing with its swinging lines this share of the way.
Drawing swung(Drawing d, double share) {
  for (auto& shape : d.shapes)
    if (auto* p = std::get_if<Path>(&shape); p && !p->rest.empty())
      for (std::size_t l = 0; l < p->lines.size(); ++l)
        for (std::size_t i = 0; i < p->lines[l].size(); ++i)
          p->lines[l][i] = p->rest[l][i] + (p->lines[l][i] - p->rest[l][i]) * share;
  return d;
}

int append(GifFileType* file, const GifByteType* data, int n) {
  static_cast<std::string*>(file->UserData)->append(reinterpret_cast<const char*>(data), static_cast<std::size_t>(n));
  return n;
}

}  // namespace

std::string as_gif(const Drawing& d) {
  std::string bytes;
  const int width = static_cast<int>(std::lround(d.width)), height = static_cast<int>(std::lround(d.height));
  ColourTable palette(d);
  int error = 0;
  GifFileType* gif = EGifOpen(&bytes, append, &error);
  if (!gif) return {};
  EGifSetGifVersion(gif, true);
  const std::unique_ptr<ColorMapObject, void (*)(ColorMapObject*)> map(GifMakeMapObject(256, palette.colours().data()),
                                                                       GifFreeMapObject);
  bool sound = EGifPutScreenDesc(gif, width, height, 8, 0, map.get()) == GIF_OK;
  // For ever.
  sound = sound && EGifPutExtensionLeader(gif, APPLICATION_EXT_FUNC_CODE) == GIF_OK &&
          EGifPutExtensionBlock(gif, 11, "NETSCAPE2.0") == GIF_OK &&
          EGifPutExtensionBlock(gif, 3, "\1\0\0") == GIF_OK && EGifPutExtensionTrailer(gif) == GIF_OK;
  for (int frame = 0; frame < frames && sound; ++frame) {
    const double share = (1 - std::cos(2 * std::numbers::pi * frame / frames)) / 2;
    std::vector<std::uint32_t> pixels(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    paint(swung(d, share), reinterpret_cast<unsigned char*>(pixels.data()), width, height);
    const unsigned char control[] = {0, hundredths_a_frame, 0, 0};
    sound = EGifPutExtension(gif, GRAPHICS_EXT_FUNC_CODE, 4, control) == GIF_OK &&
            EGifPutImageDesc(gif, 0, 0, width, height, false, nullptr) == GIF_OK;
    std::vector<GifByteType> line(static_cast<std::size_t>(width));
    for (int y = 0; y < height && sound; ++y) {
      for (int x = 0; x < width; ++x)
        line[static_cast<std::size_t>(x)] = palette.nearest(
            pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)] &
            0xFFFFFF);
      sound = EGifPutLine(gif, line.data(), width) == GIF_OK;
    }
  }
  sound = EGifCloseFile(gif, &error) == GIF_OK && sound;
  return sound ? bytes : std::string();
}

}  // namespace corvex::picture
