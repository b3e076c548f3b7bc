// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/discstamp.h"

#include <algorithm>
#include <cmath>

namespace chispa {

float discShare(float radius, float away) {
  return std::clamp(radius + 0.5f - away, 0.f, 1.f);
}

void DiscStamp::prepare(float radius) {
  if (radius_ == radius) return;
  radius_ = radius;
  for (std::size_t place = 0; place < shares_.size(); ++place) {
    const auto middle = [](std::size_t step) { return (static_cast<float>(step) + 0.5f) / kSteps; };
    const float x = middle(place % kSteps), y = middle(place / kSteps);
    for (int row = 0; row < kSide; ++row)
      for (int column = 0; column < kSide; ++column) {
        const float dx = static_cast<float>(column - kReach) + 0.5f - x;
        const float dy = static_cast<float>(row - kReach) + 0.5f - y;
        shares_[place][static_cast<std::size_t>(row * kSide + column)] =
            discShare(radius, std::sqrt(dx * dx + dy * dy));
      }
  }
}

}  // namespace chispa
