// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/power.h"

#include <algorithm>

#include "core/wire/current.h"

namespace chispa {
namespace {

constexpr double kAmps = 1e-3;

/// Channels' worth of current of one pixel: the white chip takes what the three others have in common.
double channelsLit(const PixelFrame& frame, std::size_t i, bool hasWhite) {
  const double sum = static_cast<double>(frame.r[i]) + static_cast<double>(frame.g[i]) + static_cast<double>(frame.b[i]);
  if (!hasWhite) return sum;
  return sum - 2.0 * static_cast<double>(std::min({frame.r[i], frame.g[i], frame.b[i]}));
}

}  // namespace

AmpsByVolts fullWhiteAmps(const Show& show) {
  AmpsByVolts amps;
  for (const auto& fixture : show.fixtures) {
    const StripType& strip = stripTypeOf(show, *fixture);
    amps[strip.volts] += fullWhite_a(strip, pixelCount(*fixture));
  }
  return amps;
}

AmpsByVolts frameAmps(const Show& show, const PixelMap& map, const PixelFrame& frame, double master) {
  AmpsByVolts amps;
  if (static_cast<int>(frame.size()) != map.count()) return amps;
  for (const auto& fixture : show.fixtures) {
    const StripType& strip = stripTypeOf(show, *fixture);
    const auto range = map.rangeOf(fixture->id);
    if (!range) continue;
    const bool hasWhite = strip.order.find('W') != std::string::npos;
    double lit = 0;
    for (int i = range->first; i < range->first + range->count; ++i)
      lit += channelsLit(frame, static_cast<std::size_t>(i), hasWhite);
    amps[strip.volts] += lit * master * strip.channel_ma * kAmps;
  }
  return amps;
}

}  // namespace chispa
