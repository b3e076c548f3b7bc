// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/vision/picture.h"

namespace chispa::vision {

/// Where an LED was seen.
struct Sighting {
  int led = 0;
  Spot spot;
  /// Its brightness in grey levels, and the picture pixels that say that it is this LED.
  double brightness = 0;
  int size_px = 0;
  /// Empty if it is sure; else why it is not.
  std::string doubt = {};
};

/// All that a capture of LEDs 0 … has shown.
struct Sightings {
  /// Sure ones and doubtful ones, by LED; none twice.
  std::vector<Sighting> all;
  /// Never seen.
  std::vector<int> missing;
  /// Threshold that was used, and the noise of the pictures, in grey levels.
  double threshold = 0;
  double noise = 0;
  int rounds = 0;
  std::size_t frames = 0;

  /// The sure sighting of an LED, or null.
  const Sighting* sure(int led) const;
  /// The spots of the sure ones of `leds` LEDs, by LED.
  std::vector<std::optional<Spot>> sureSpots(int leds) const;
  /// Puts an LED where a person sees it; it is sure then.
  void put(int led, Spot spot);
  /// Brings `all` into order, and notes which of `leds` LEDs are missing.
  void settle(int leds);
};

/// What a later look at the LEDs `only` makes of an earlier one at all `leds`: of those that it has seen, its
/// word counts.
Sightings merged(const Sightings& earlier, Sightings later, std::span<const int> only, int leds);

}  // namespace chispa::vision
