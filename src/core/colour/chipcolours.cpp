// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/chipcolours.h"

#include <algorithm>
#include <cmath>
#include <mutex>

#include <Eigen/Dense>

#include "core/base/multiversion.h"
#include "core/colour/chipbalance.h"

namespace chispa {
namespace {

/// Steps of the table along red, and along green.
constexpr int kSide = 64;

/// XYZ of the light of three primaries with daylight between them, counted so that 1, 1, 1 is D65 of
/// luminance 1.
Eigen::Matrix3d balanced(const std::array<Chromaticity, 3>& primaries) {
  const auto luminances = *whiteLuminances(primaries);
  Eigen::Matrix3d columns;
  for (int i = 0; i < 3; ++i) {
    const auto at = static_cast<std::size_t>(i);
    columns.col(i) = Eigen::Vector3d(xyzOf(primaries[at], luminances[at]).data());
  }
  return columns;
}

std::array<float, 9> asRows(const Eigen::Matrix3d& matrix) {
  std::array<float, 9> rows{};
  for (int r = 0; r < 3; ++r)
    for (int c = 0; c < 3; ++c) rows[static_cast<std::size_t>(3 * r + c)] = static_cast<float>(matrix(r, c));
  return rows;
}

Rgb times(const std::array<float, 9>& m, Rgb v) {
  return {m[0] * v.r + m[1] * v.g + m[2] * v.b, m[3] * v.r + m[4] * v.g + m[5] * v.b,
          m[6] * v.r + m[7] * v.g + m[8] * v.b};
}

bool isPossible(Rgb chips) {
  // Rounding leaves a little below 0 of what is 0.
  constexpr float kRounding = -1e-5f;
  return chips.r >= kRounding && chips.g >= kRounding && chips.b >= kRounding;
}

Rgb held(Rgb chips) {
  return {std::max(0.f, chips.r), std::max(0.f, chips.g), std::max(0.f, chips.b)};
}

}  // namespace

bool spanWhite(const ChipColours& chips) {
  for (const Chromaticity& one : {chips.red, chips.green, chips.blue, chips.white, chips.amber})
    if (!(one.x >= 0 && one.y > 0.001 && one.x + one.y <= 1.001)) return false;
  constexpr double kLeast = 1e-3;
  const auto shares = whiteLuminances({chips.red, chips.green, chips.blue});
  return shares && std::all_of(shares->begin(), shares->end(), [](double share) { return share > kLeast; });
}

ChipMap::ChipMap(const ChipColours& chips) : chips_(spanWhite(chips) ? chips : ChipColours{}) {
  const Eigen::Matrix3d fromChips = balanced({chips_.red, chips_.green, chips_.blue});
  const Eigen::Matrix3d fromSrgb = balanced(kSrgbPrimaries);
  toChips_ = asRows(fromChips.inverse() * fromSrgb);
  toSrgb_ = asRows(fromSrgb.inverse() * fromChips);
  const auto likeOf = [&fromChips](Chromaticity at, double light) {
    const Eigen::Vector3d like = fromChips.inverse() * Eigen::Vector3d(xyzOf(at, light).data());
    return held({static_cast<float>(like[0]), static_cast<float>(like[1]), static_cast<float>(like[2])});
  };
  whiteChip_ = likeOf(chips_.white, chips_.whiteLight);
  amberChip_ = likeOf(chips_.amber, chips_.amberLight);
  table_.resize((kSide + 1) * (kSide + 1));
  for (int g = 0; g <= kSide; ++g)
    for (int r = 0; r <= kSide; ++r) {
      const Rgb colour{static_cast<float>(r) / kSide, static_cast<float>(g) / kSide,
                       static_cast<float>(kSide - r - g) / kSide};
      table_[static_cast<std::size_t>(g * (kSide + 1) + r)] = mapped(colour);
    }
}

Rgb ChipMap::mapped(Rgb colour) const {
  const Rgb exact = times(toChips_, colour);
  if (isPossible(exact)) return held(exact);
  const OkLab lab = toOkLab(colour);
  float low = 0, high = 1;
  constexpr int kHalvings = 20;
  for (int i = 0; i < kHalvings; ++i) {
    const float share = (low + high) / 2;
    const Rgb paler = fromOkLab({lab.lightness, lab.a * share, lab.b * share});
    (isPossible(times(toChips_, paler)) ? low : high) = share;
  }
  return held(times(toChips_, fromOkLab({lab.lightness, lab.a * low, lab.b * low})));
}

Rgb ChipMap::fromTable(Rgb colour) const noexcept {
  const float sum = colour.r + colour.g + colour.b;
  const float x = std::clamp(colour.r / sum, 0.f, 1.f) * kSide;
  const float y = std::clamp(colour.g / sum, 0.f, 1.f) * kSide;
  const int left = std::min(static_cast<int>(x), kSide - 1);
  const int low = std::min(static_cast<int>(y), kSide - 1);
  const float across = x - static_cast<float>(left), up = y - static_cast<float>(low);
  const auto at = [&](int column, int row) {
    return table_[static_cast<std::size_t>((low + row) * (kSide + 1) + left + column)];
  };
  const auto mix = [](Rgb a, Rgb b, float t) {
    return Rgb{a.r + (b.r - a.r) * t, a.g + (b.g - a.g) * t, a.b + (b.b - a.b) * t};
  };
  const Rgb share = mix(mix(at(0, 0), at(1, 0), across), mix(at(0, 1), at(1, 1), across), up);
  return {share.r * sum, share.g * sum, share.b * sum};
}

Rgb ChipMap::chipsOf(Rgb colour) const noexcept {
  const Rgb chips = times(toChips_, colour);
  return chips.r >= 0 && chips.g >= 0 && chips.b >= 0 ? chips
         : colour.r + colour.g + colour.b > 0         ? fromTable(held(colour))
                                                      : Rgb{};
}

CHISPA_MULTIVERSION void ChipMap::apply(std::size_t count, float* __restrict r, float* __restrict g,
                                        float* __restrict b) const noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const Rgb chips = chipsOf({r[i], g[i], b[i]});
    r[i] = chips.r;
    g[i] = chips.g;
    b[i] = chips.b;
  }
}

Rgb ChipMap::colourOf(Rgb chips) const noexcept {
  return times(toSrgb_, chips);
}

std::shared_ptr<const ChipMap> chipMapOf(const ChipColours& chips) {
  static std::mutex mutex;
  static std::vector<std::weak_ptr<const ChipMap>> made;
  const std::scoped_lock lock(mutex);
  std::erase_if(made, [](const auto& one) { return one.expired(); });
  for (const auto& one : made)
    if (const auto map = one.lock(); map && map->chips() == chips) return map;
  auto map = std::make_shared<const ChipMap>(chips);
  made.push_back(map);
  return map;
}

}  // namespace chispa
