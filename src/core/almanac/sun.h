// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/almanac/calendar.h"

namespace chispa {

/// How the sun passes a height on one day.
enum class SunDay {
  Passes,      ///< up and down
  StaysAbove,  ///< it never gets as low
  StaysBelow,  ///< it never gets as high
};

/// The sun on one day at one place. Heights are those of its centre: −0.833° at sunrise and sunset
/// (refraction of 34′ and a radius of 16′), −6° at the ends of civil twilight.
struct SunTimes {
  /// When it stands highest.
  Instant noon{};
  SunDay horizon = SunDay::Passes;
  SunDay twilight = SunDay::Passes;
  /// Each is there if the sun passes its height. Dawn and sunrise lie in the half day before noon, sunset and
  /// dusk in the one after it, whatever the clock shows.
  std::optional<Instant> dawn;
  std::optional<Instant> sunrise;
  std::optional<Instant> sunset;
  std::optional<Instant> dusk;
};

/// The sun on the day whose noon lies nearest to 12:00 of local mean time on `date`. Positions by libnova
/// (Bretagnon and Francou, VSOP87); right to some seconds below 60° of latitude. A function of its arguments
/// alone.
SunTimes sunOn(Date date, double latitude_deg, double longitude_deg);

}  // namespace chispa
