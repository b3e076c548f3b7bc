// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/eased.h"

#include <algorithm>

#include "core/render/fade.h"

namespace chispa {

float Eased::at(Micros t) const noexcept {
  if (hasArrived(t)) return to_;
  // A fall is a rise seen from its end, as the fades of clips are.
  const bool isRise = to_ >= from_;
  const double part = seconds(isRise ? t - begun_ : begun_ + length_ - t) / seconds(length_);
  const float share = shapedFade(shape_, static_cast<float>(std::clamp(part, 0.0, 1.0)));
  return isRise ? from_ + (to_ - from_) * share : to_ + (from_ - to_) * share;
}

void Eased::go(float value, Micros t, Micros length, FadeShape shape) noexcept {
  from_ = at(t);
  to_ = value;
  begun_ = t;
  length_ = std::max(Micros(0), length);
  shape_ = shape;
}

}  // namespace chispa
