// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/wiresettings.h"

#include <algorithm>

namespace chispa {

ResolvedWire resolveWire(const StripType& strip, const Fixture& fixture, const WireSettings& port,
                         const WireSettings& bead) {
  const auto nearest = [](const auto& own, const auto& above, auto otherwise) {
    return own ? *own : above ? *above : otherwise;
  };
  ResolvedWire wire;
  wire.order = nearest(bead.order, port.order, strip.order);
  wire.bits = strip.channelBits;
  wire.response = nearest(bead.response, port.response, fixture.response.value_or(strip.response));
  wire.brightness = std::clamp(bead.brightness.value_or(1) * port.brightness.value_or(1), 0.0, 1.0);
  wire.grouping = std::max(1, nearest(bead.grouping, port.grouping, 1));
  wire.zigzag = std::max(0, nearest(bead.zigzag, port.zigzag, 0));
  return wire;
}

ChipMix mixOf(const StripType& strip, const ResolvedWire& wire) {
  return strip.mixOf(wire.order);
}

std::vector<WireStretch> wireStretches(int first, int count, bool reversed, int zigzag) {
  const int step = reversed ? -1 : 1;
  const int begin = reversed ? first + count - 1 : first;
  if (zigzag <= 0) return {{begin, count, step}};
  std::vector<WireStretch> stretches;
  for (int at = 0; at < count; at += zigzag) {
    const int here = std::min(zigzag, count - at);
    const bool turnsBack = at / zigzag % 2 == 1;
    stretches.push_back(turnsBack ? WireStretch{begin + (at + here - 1) * step, here, -step}
                                  : WireStretch{begin + at * step, here, step});
  }
  return stretches;
}

}  // namespace chispa
