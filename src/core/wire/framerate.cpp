// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/framerate.h"

#include <algorithm>
#include <cmath>

#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

constexpr double kBit_s = 1.25e-6;
constexpr double kBetweenFrames_s = 0.3e-3;

/// How long the data of a frame takes on a port's own line.
double lineTime_s(const Show& show, const Port& port) {
  double bits = 0;
  for (const Bead& bead : port.run) {
    const Fixture* fixture = find(show.fixtures, bead.fixture);
    if (!fixture) continue;
    const ResolvedWire wire =
        resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings, bead.settings);
    bits += static_cast<double>(bead.skippedBefore + bead.count) * static_cast<double>(wire.order.size()) *
            wire.bits;
  }
  return bits * kBit_s + kBetweenFrames_s;
}

}  // namespace

FrameRate frameRateOf(const Show& show, const Controller& controller) {
  constexpr FrameRate kUsual;
  const double asked = controller.maxFramesPerSecond;
  if (asked <= 0) return kUsual;
  double most = std::min<double>(asked, kMaxFramesPerSecond);
  if (most > kUsualFramesPerSecond) {
    double longest_s = 0;
    for (const Port& port : controller.ports) longest_s = std::max(longest_s, lineTime_s(show, port));
    // A screen has no such line, and serial DMX (E1.11) no time for more.
    if (controller.protocol == Protocol::SerialDmx) most = kUsualFramesPerSecond;
    if (controller.protocol != Protocol::Screen) most = std::min(most, 1 / longest_s);
    most = std::max<double>(most, kUsualFramesPerSecond);
  }
  constexpr double kSlowest = 0.01;
  return {static_cast<int>(std::ceil(kMaxFramesPerSecond / std::max(kSlowest, most) - 1e-9))};
}

}  // namespace chispa
