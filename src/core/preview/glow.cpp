// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/glow.h"

#include <algorithm>
#include <cmath>

#include "core/colour/rgb.h"

namespace chispa {
namespace {

/// LEDs that are off are just visible, so that the shape of the installation is.
constexpr float kUnlit = 0.016f;
constexpr float kLedSize_m = 0.016f;
constexpr float kHazeStrength = 0.3f;

}  // namespace

GlowPainter::GlowPainter() {
  for (int i = 0; i <= kToneSteps; ++i) {
    // Bright light saturates as film does instead of clipping.
    const float x = kToneTop * static_cast<float>(i) / kToneSteps;
    tone_[static_cast<std::size_t>(i)] = static_cast<std::uint8_t>(std::lround(255 * srgbFromLinear(1 - std::exp(-1.5f * x))));
  }
}

void GlowPainter::Plane::reset(int w, int h) {
  width = w;
  height = h;
  light.assign(4 * static_cast<std::size_t>(w) * static_cast<std::size_t>(h), 0.f);
}

void GlowPainter::splatSmall(Plane& plane, float x, float y, const float* colour, float weight) {
  const float left = std::floor(x - 0.5f);
  const float top = std::floor(y - 0.5f);
  const int ix = static_cast<int>(left);
  const int iy = static_cast<int>(top);
  if (ix < 0 || iy < 0 || ix + 1 >= plane.width || iy + 1 >= plane.height) return;
  const float u = x - 0.5f - left;
  const float v = y - 0.5f - top;
  const std::array<float, 4> shares = {(1 - u) * (1 - v), u * (1 - v), (1 - u) * v, u * v};
  for (int corner = 0; corner < 4; ++corner) {
    float* out = plane.at(ix + (corner & 1), iy + (corner >> 1));
    const float share = weight * shares[static_cast<std::size_t>(corner)];
    for (int c = 0; c < 4; ++c) out[c] += colour[c] * share;
  }
}

void GlowPainter::splat(const Projection::Spot& spot, const float* colour, float lampSize) {
  const float least = std::max(0.75f, static_cast<float>(sharp_.height) / 640.f);
  const float radius = std::clamp(0.5f * kLedSize_m * spot.scale * lampSize, least, 14.f);
  if (radius <= 1.f) {
    splatSmall(sharp_, spot.x, spot.y, colour, 2.2f * radius);
  } else {
    const int reach = static_cast<int>(std::ceil(radius + 0.5f));
    const int cx = static_cast<int>(spot.x);
    const int cy = static_cast<int>(spot.y);
    for (int y = std::max(0, cy - reach); y <= std::min(sharp_.height - 1, cy + reach); ++y) {
      for (int x = std::max(0, cx - reach); x <= std::min(sharp_.width - 1, cx + reach); ++x) {
        const float away = std::hypot(static_cast<float>(x) + 0.5f - spot.x, static_cast<float>(y) + 0.5f - spot.y);
        const float share = std::clamp(radius + 0.5f - away, 0.f, 1.f) * 1.4f;
        float* out = sharp_.at(x, y);
        for (int c = 0; c < 4; ++c) out[c] += colour[c] * share;
      }
    }
  }
  // The haze has the energy that the LED sends to the eye: more when it is near.
  splatSmall(haze_, spot.x / kHazeScale, spot.y / kHazeScale, colour, kHazeStrength * radius * radius);
}

void GlowPainter::blur(Plane& plane, int radius) {
  // Box blur by running sums, once along rows and once along columns.
  scratch_.reset(plane.width, plane.height);
  const float share = 1.f / static_cast<float>(2 * radius + 1);
  const auto pass = [share, radius](const Plane& in, Plane& out, bool alongRows) {
    const int lines = alongRows ? in.height : in.width;
    const int count = alongRows ? in.width : in.height;
    const auto from = [&](int line, int i) { return alongRows ? in.at(i, line) : in.at(line, i); };
    for (int line = 0; line < lines; ++line) {
      std::array<float, 4> sum{};
      for (int i = 0; i < std::min(radius, count); ++i)
        for (std::size_t c = 0; c < 4; ++c) sum[c] += from(line, i)[c];
      for (int i = 0; i < count; ++i) {
        if (i + radius < count)
          for (std::size_t c = 0; c < 4; ++c) sum[c] += from(line, i + radius)[c];
        if (i - radius - 1 >= 0)
          for (std::size_t c = 0; c < 4; ++c) sum[c] -= from(line, i - radius - 1)[c];
        float* to = alongRows ? out.at(i, line) : out.at(line, i);
        for (std::size_t c = 0; c < 4; ++c) to[c] = std::max(0.f, sum[c] * share);
      }
    }
  };
  pass(plane, scratch_, true);
  pass(scratch_, plane, false);
}

void GlowPainter::makeHaze() {
  // Boxes one after the other come close to a bell: a tight one about each LED, and a wide one about bright places.
  const int tight = std::max(1, haze_.height / 150);
  const int wide = std::max(2, haze_.height / 36);
  for (int pass = 0; pass < 2; ++pass) blur(haze_, tight);
  wide_ = haze_;
  for (int pass = 0; pass < 2; ++pass) blur(wide_, wide);
  constexpr float kTight = 0.55f;
  for (std::size_t i = 0; i < haze_.light.size(); ++i) haze_.light[i] = kTight * haze_.light[i] + (1 - kTight) * wide_.light[i];
}

void GlowPainter::compose(std::uint8_t* rgba) const {
  constexpr float kTone = kToneSteps / kToneTop;
  const auto toned = [this](float light) {
    return tone_[static_cast<std::size_t>(std::min(light * kTone, static_cast<float>(kToneSteps)))];
  };
  // The haze is widened along one row at a time: first between its rows, then between its columns.
  std::vector<float> haze(4 * static_cast<std::size_t>(haze_.width));
  for (int y = 0; y < sharp_.height; ++y) {
    const float v = std::clamp((static_cast<float>(y) + 0.5f) / kHazeScale - 0.5f, 0.f, static_cast<float>(haze_.height - 1));
    const int top = std::min(static_cast<int>(v), haze_.height - 2);
    const float down = v - static_cast<float>(top);
    const float* upper = haze_.at(0, top);
    const float* lower = haze_.at(0, top + 1);
    for (std::size_t i = 0; i < haze.size(); ++i) haze[i] = upper[i] + (lower[i] - upper[i]) * down;
    const float* sharp = sharp_.at(0, y);
    for (int x = 0; x < sharp_.width; ++x, sharp += 4, rgba += 4) {
      // (x + ½) / 4 − ½ in steps of an eighth; the row starts half a cell before the first.
      const int eighths = std::max(0, 2 * x - 3);
      const float* left = &haze[4 * static_cast<std::size_t>(eighths >> 3)];
      const float across = static_cast<float>(eighths & 7) * 0.125f;
      for (int c = 0; c < 3; ++c) rgba[c] = toned(sharp[c] + left[c] + (left[c + 4] - left[c]) * across);
      rgba[3] = 255;
    }
  }
}

void GlowPainter::paint(const PixelMap& map, const PixelFrame& frame, const OrbitCamera& camera,
                        int width, int height, std::uint8_t* rgba) {
  sharp_.reset(width, height);
  haze_.reset(width / kHazeScale + 2, height / kHazeScale + 2);
  const Projection projection(camera, width, height);
  const bool lit = frame.size() == map.positions.size();
  for (std::size_t i = 0; i < map.positions.size(); ++i) {
    const auto spot = projection.spotOf(map.positions[i]);
    if (!spot) continue;
    std::array<float, 4> colour = {kUnlit, kUnlit, kUnlit * 1.1f, 0};
    if (lit) {
      colour[0] += frame.r[i];
      colour[1] += frame.g[i];
      colour[2] += frame.b[i];
    }
    splat(*spot, colour.data(), map.lampSize[i]);
  }
  makeHaze();
  compose(rgba);
}

}  // namespace chispa
