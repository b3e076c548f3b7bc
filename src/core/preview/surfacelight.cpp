// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/surfacelight.h"

#include <algorithm>
#include <cmath>

#include "core/preview/camera.h"

namespace chispa {
namespace {

/// How far the wall stands behind the installation.
constexpr double kBehind_m = 0.6;
/// How much of it is lit around the installation.
constexpr double kMargin_m = 2.5;
/// Up to which distance a lamp belongs to a way of spreading, and how far that spreads its light.
constexpr std::array<double, 2> kUpTo_m{0.4, 1.5};
constexpr std::array<double, 3> kReach_m{0.35, 1.1, 2.2};
/// How much of a lamp's light comes back from a square metre, beside the lamp itself.
constexpr float kReturned = 0.006f;
/// A flood is as strong as so many LEDs at most.
constexpr float kMaxLeds = 80;

}  // namespace

bool SurfaceLight::gather(const PixelMap& map, const PixelFrame& frame) {
  const auto isLit = [](const std::vector<float>& channel) {
    return std::any_of(channel.begin(), channel.end(), [](float light) { return light > 0; });
  };
  if (frame.size() != map.positions.size() || !(isLit(frame.r) || isLit(frame.g) || isLit(frame.b)))
    return false;
  const Extent extent = extentOf(map.positions);
  level_m_ = isWall_ ? extent.high.y + kBehind_m : extent.low.z;
  lowX_ = extent.low.x;
  lowY_ = across(extent.low);
  width_m_ = extent.high.x - lowX_ + 2 * kMargin_m;
  depth_m_ = across(extent.high) - lowY_ + 2 * kMargin_m;
  constexpr std::size_t kCells = std::size_t{kSide} * kSide;
  for (auto& grid : grids_) grid.assign(kCells, Light4{});
  surface_.assign(kCells, Light4{});
  const double perX = kSide / width_m_, perY = kSide / depth_m_;
  const auto perArea = static_cast<float>(perX * perY) * kReturned;
  for (std::size_t i = 0; i < map.positions.size(); ++i) {
    const Light4 light{frame.r[i], frame.g[i], frame.b[i], 0};
    const Vec3& p = map.positions[i];
    const auto column =
        static_cast<std::size_t>(std::clamp((p.x - lowX_ + kMargin_m) * perX, 0.0, kSide - 1.0));
    const auto row =
        static_cast<std::size_t>(std::clamp((across(p) - lowY_ + kMargin_m) * perY, 0.0, kSide - 1.0));
    const double off = isWall_ ? level_m_ - p.y : p.z - level_m_;
    const std::size_t way = off < kUpTo_m[0] ? 0 : off < kUpTo_m[1] ? 1 : 2;
    grids_[way][row * kSide + column] +=
        light * (perArea * std::min(kMaxLeds, map.lampSize[i] * map.lampSize[i]));
  }
  for (std::size_t way = 0; way < grids_.size(); ++way) {
    const double cell_m = std::max(width_m_, depth_m_) / kSide;
    const int radius = std::max(1, static_cast<int>(std::lround(kReach_m[way] / cell_m / 2)));
    // Boxes one after the other come close to a bell.
    for (int pass = 0; pass < 3; ++pass) boxBlur(grids_[way], kSide, kSide, radius, blurring_);
    for (std::size_t i = 0; i < kCells; ++i) surface_[i] += grids_[way][i];
  }
  return true;
}

Light4 SurfaceLight::at(const Vec3& point) const {
  const double u = (point.x - lowX_ + kMargin_m) / width_m_ * kSide - 0.5;
  const double v = (across(point) - lowY_ + kMargin_m) / depth_m_ * kSide - 0.5;
  if (!(u >= 0 && v >= 0 && u < kSide - 1 && v < kSide - 1)) return Light4{};
  const auto column = static_cast<std::size_t>(u), row = static_cast<std::size_t>(v);
  const auto across = static_cast<float>(u - std::floor(u)), up = static_cast<float>(v - std::floor(v));
  const Light4* cell = &surface_[row * kSide + column];
  const Light4 low = cell[0] + (cell[1] - cell[0]) * across;
  const Light4 high = cell[kSide] + (cell[kSide + 1] - cell[kSide]) * across;
  // It ends softly where it is not looked at any more.
  const double edge = std::min({u, v, kSide - 1 - u, kSide - 1 - v}) / 8;
  return (low + (high - low) * up) * static_cast<float>(std::min(1.0, edge));
}

}  // namespace chispa
