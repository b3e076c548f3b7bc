// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/palette/chosenstop.h"

namespace chispa::desk {

std::size_t ChosenStop::of(const Palette& palette) const {
  return palette.stops.empty() ? 0 : std::min(index_, palette.stops.size() - 1);
}
ColourStop ChosenStop::in(const Palette& palette) const {
  return palette.stops.empty() ? ColourStop{} : palette.stops[of(palette)];
}

void ChosenStop::choose(std::size_t index) {
  index_ = index;
  emit changed();
}

}  // namespace chispa::desk
