// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/fade.h"

#include "core/base/curves.h"
#include "core/colour/lightness.h"

namespace chispa {

float shapedFade(FadeShape shape, float u) noexcept {
  switch (shape) {
    case FadeShape::Soft:
      return easeBetween(0, 1, u);
    case FadeShape::Late:
      return u * u;
    case FadeShape::Early:
      return 1 - (1 - u) * (1 - u);
    case FadeShape::Even:
      break;
  }
  return u;
}

float fadedLight(Evenness fades, bool givesWay, float level) noexcept {
  return givesWay ? 1 - lightOfLevel(fades, 1 - level) : lightOfLevel(fades, level);
}

}  // namespace chispa
