// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/wiredpixel.h"

namespace chispa {

std::optional<WiredPixel> wiredPixel(const Patch& patch, FixtureId fixture, int pixel) {
  for (const PatchSpan& span : patch.spans) {
    const int along = (pixel - span.firstPixel) * span.step;
    if (span.fixture == fixture && along >= 0 && along < span.pixels)
      return WiredPixel{&span, span.channelOf(along / span.pixelsPerValue)};
  }
  return std::nullopt;
}

}  // namespace chispa
