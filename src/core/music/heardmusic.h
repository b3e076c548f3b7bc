// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>

#include "core/music/features.h"

namespace chispa {

/// What is heard now, and was in the last seconds.
struct HeardMusic {
  static constexpr double kWindow_s = 12;

  /// Level, bands and onsets of the last kWindow_s; `now` is the end of it.
  MusicFeatures features;
  Micros now{0};
  /// How loud the sound itself is, 0 (-60 dB or less) to 1 (as loud as it can be): for a meter.
  float loudness = 0;
  /// Beats since listening began, counted on between those that are heard, and how long one is; 0 while none
  /// is known.
  double beat = 0;
  double beat_s = 0;
  int beatsPerBar = 4;
  /// The beat at which a bar begins.
  double barBegins = 0;
  float sureness = 0;

  /// Room for all of it, so that taking over another one allocates nothing.
  void resize(std::size_t);
};

}  // namespace chispa
