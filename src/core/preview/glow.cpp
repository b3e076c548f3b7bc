// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/glow.h"

#include <algorithm>
#include <cmath>

#include "core/colour/rgb.h"

namespace chispa {
namespace {

/// LEDs that are off are just visible, so that the shape of the installation is.
constexpr float kUnlit = 0.018f;
/// Above this, what is bright turns white, so much of each step more.
constexpr float kBleachedFrom = 0.75f;
constexpr float kBleach = 0.3f;
constexpr float kLedSize_m = 0.016f;
constexpr float kHazeStrength = 0.3f;
constexpr float kDiscStrength = 1.4f;

}  // namespace

GlowPainter::GlowPainter() {
  for (int i = 0; i <= kToneSteps; ++i) {
    // Bright light saturates as film does instead of clipping.
    const float x = kToneTop * static_cast<float>(i) / kToneSteps;
    tone_[static_cast<std::size_t>(i)] =
        static_cast<std::uint8_t>(std::lround(255 * srgbFromLinear(1 - std::exp(-1.5f * x))));
  }
}

void GlowPainter::Plane::reset(int w, int h) {
  width = w;
  height = h;
  light.assign(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), Light4{});
}

void GlowPainter::splatSmall(Plane& plane, float x, float y, Light4 colour) {
  const float left = std::floor(x - 0.5f);
  const float top = std::floor(y - 0.5f);
  const int ix = static_cast<int>(left);
  const int iy = static_cast<int>(top);
  if (ix < 0 || iy < 0 || ix + 1 >= plane.width || iy + 1 >= plane.height) return;
  const float u = x - 0.5f - left;
  const float v = y - 0.5f - top;
  Light4* upper = plane.row(iy) + ix;
  Light4* lower = upper + plane.width;
  upper[0] += colour * ((1 - u) * (1 - v));
  upper[1] += colour * (u * (1 - v));
  lower[0] += colour * ((1 - u) * v);
  lower[1] += colour * (u * v);
}

void GlowPainter::splatDisc(float x, float y, Light4 colour, float radius) {
  const int reach = static_cast<int>(std::ceil(radius + 0.5f));
  const int cx = static_cast<int>(x);
  const int cy = static_cast<int>(y);
  for (int py = std::max(0, cy - reach); py <= std::min(sharp_.height - 1, cy + reach); ++py) {
    Light4* row = sharp_.row(py);
    const float dy = static_cast<float>(py) + 0.5f - y;
    for (int px = std::max(0, cx - reach); px <= std::min(sharp_.width - 1, cx + reach); ++px) {
      const float dx = static_cast<float>(px) + 0.5f - x;
      row[px] += colour * (discShare(radius, std::sqrt(dx * dx + dy * dy)) * kDiscStrength);
    }
  }
}

bool GlowPainter::splatStamp(float x, float y, Light4 colour, float radius) {
  constexpr int kReach = DiscStamp::kReach;
  const int left = static_cast<int>(x) - kReach;
  const int top = static_cast<int>(y) - kReach;
  const bool isInside = left >= 0 && top >= 0 && left + DiscStamp::kSide <= sharp_.width &&
                        top + DiscStamp::kSide <= sharp_.height;
  if (radius != stamp_.radius() || !isInside) return false;
  const float* share = stamp_.at(x, y);
  const Light4 light = colour * kDiscStrength;
  for (int row = 0; row < DiscStamp::kSide; ++row, share += DiscStamp::kSide) {
    Light4* pixel = sharp_.row(top + row) + left;
    for (int column = 0; column < DiscStamp::kSide; ++column) pixel[column] += light * share[column];
  }
  return true;
}

/// The overlay shows only where no light is.
void GlowPainter::splatUnlit(float x, float y, Light4 light) {
  const float bright = std::max({light[0], light[1], light[2]});
  const float shown = kUnlit * std::max(0.f, 1 - bright / (2 * kUnlit));
  if (shown > 0) splatSmall(sharp_, x, y, Light4{shown, shown, shown * 1.1f, 0});
}

void GlowPainter::splat(float x, float y, float scale, Light4 colour, float lampSize) {
  const float radius = std::clamp(0.5f * kLedSize_m * scale * lampSize, leastRadius_, 14.f);
  if (radius <= 1.f)
    splatSmall(sharp_, x, y, colour * (2.2f * radius));
  else if (!splatStamp(x, y, colour, radius))
    splatDisc(x, y, colour, radius);
  // The haze has the energy that the LED sends to the eye: more when it is near.
  splatSmall(haze_, x / kHazeScale, y / kHazeScale, colour * (kHazeStrength * radius * radius));
}

void GlowPainter::makeHaze() {
  // Boxes one after the other come close to a bell: a tight one about each LED, and a wide one about bright
  // places. About a single lamp two would still be seen as a square.
  const int tight = std::max(1, haze_.height / 180);
  const int wide = std::max(2, haze_.height / 36);
  for (int pass = 0; pass < 3; ++pass) boxBlur(haze_.light, haze_.width, haze_.height, tight, blurring_);
  wide_ = haze_;
  for (int pass = 0; pass < 2; ++pass) boxBlur(wide_.light, wide_.width, wide_.height, wide, blurring_);
  constexpr float kTight = 0.55f;
  for (std::size_t i = 0; i < haze_.light.size(); ++i)
    haze_.light[i] = kTight * haze_.light[i] + (1 - kTight) * wide_.light[i];
}

void GlowPainter::lightSurfaces(const OrbitCamera& camera, bool hasFloor, bool hasWall) {
  const Projection projection(camera, sharp_.width, sharp_.height);
  for (int y = 0; y < haze_.height; ++y) {
    Light4* row = haze_.row(y);
    for (int x = 0; x < haze_.width; ++x) {
      const double atX = (x + 0.5) * kHazeScale, atY = (y + 0.5) * kHazeScale;
      const auto onFloor = hasFloor ? projection.onFloor(atX, atY, floor_.level_m()) : std::nullopt;
      const auto onWall = hasWall ? projection.onWall(atX, atY, wall_.level_m()) : std::nullopt;
      // The one hides the other: before the wall there is floor, and above the floor there is wall.
      if (onFloor && !(onWall && onFloor->y > wall_.level_m()))
        row[x] += floor_.at(*onFloor);
      else if (onWall)
        row[x] += wall_.at(*onWall);
    }
  }
}

void GlowPainter::compose(std::uint8_t* rgba) {
  using Steps = int __attribute__((vector_size(16)));
  constexpr float kTone = kToneSteps / kToneTop;
  constexpr Light4 kMax = {kToneSteps, kToneSteps, kToneSteps, kToneSteps};
  // The haze is widened along one row at a time: first between its rows, then between its columns.
  sums_.resize(static_cast<std::size_t>(haze_.width));
  for (int y = 0; y < sharp_.height; ++y) {
    const float v = std::clamp((static_cast<float>(y) + 0.5f) / kHazeScale - 0.5f, 0.f,
                               static_cast<float>(haze_.height - 1));
    const int top = std::min(static_cast<int>(v), haze_.height - 2);
    const float down = v - static_cast<float>(top);
    const Light4* upper = haze_.row(top);
    const Light4* lower = haze_.row(top + 1);
    for (std::size_t i = 0; i < sums_.size(); ++i)
      sums_[i] = (upper[i] + (lower[i] - upper[i]) * down) * kTone;
    Light4* sharp = sharp_.row(y);
    for (int x = 0; x < sharp_.width; ++x, rgba += 4) {
      // (x + ½) / 4 − ½ in steps of an eighth; the row starts half a cell before the first.
      const int eighths = std::max(0, 2 * x - 3);
      const Light4* left = &sums_[static_cast<std::size_t>(eighths >> 3)];
      Light4 sum =
          sharp[x] * kTone + left[0] + (left[1] - left[0]) * (static_cast<float>(eighths & 7) * 0.125f);
      const float over = std::max(std::max(sum[0], sum[1]), sum[2]) - kBleachedFrom * kTone;
      sum += Light4{1, 1, 1, 0} * (kBleach * std::max(0.f, over));
      sharp[x] = Light4{};
      const Steps step = __builtin_convertvector(sum < kMax ? sum : kMax, Steps);
      rgba[0] = tone_[static_cast<std::size_t>(step[0])];
      rgba[1] = tone_[static_cast<std::size_t>(step[1])];
      rgba[2] = tone_[static_cast<std::size_t>(step[2])];
      rgba[3] = 255;
    }
  }
}

void GlowPainter::paint(const PixelMap& map, const PixelFrame& frame, const OrbitCamera& camera, int width,
                        int height, std::uint8_t* rgba) {
  if (sharp_.width != width || sharp_.height != height) sharp_.reset(width, height);
  haze_.reset(width / kHazeScale + 2, height / kHazeScale + 2);
  leastRadius_ = std::max(0.75f, static_cast<float>(height) / 640.f);
  if (leastRadius_ <= DiscStamp::kMaxRadius) stamp_.prepare(leastRadius_);
  const std::size_t count = map.positions.size();
  for (auto* row : {&spotX_, &spotY_, &spotScale_}) row->resize(count);
  Projection(camera, width, height).spotsOf(map.positions, spotX_.data(), spotY_.data(), spotScale_.data());
  const bool lit = frame.size() == count;
  for (std::size_t i = 0; i < count; ++i) {
    if (spotScale_[i] <= 0) continue;
    const Light4 colour = lit ? Light4{frame.r[i], frame.g[i], frame.b[i], 0} : Light4{};
    splatUnlit(spotX_[i], spotY_[i], colour);
    if (lit) splat(spotX_[i], spotY_[i], spotScale_[i], colour, map.lampSize[i]);
  }
  makeHaze();
  const bool hasFloor = floor_.gather(map, frame);
  const bool hasWall = wall_.gather(map, frame);
  if (hasFloor || hasWall) lightSurfaces(camera, hasFloor, hasWall);
  compose(rgba);
}

}  // namespace chispa
