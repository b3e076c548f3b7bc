// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/vision/blinkcode.h"
#include "core/vision/picture.h"
#include "core/vision/rounds.h"
#include "core/vision/sightings.h"

namespace chispa::vision {

/// What tells an LED from all else in the pictures; 0 chooses a value that is usually right.
struct SpotterSettings {
  /// Least brightness of a spot above its surroundings, in grey levels.
  double threshold = 0;
  /// How clearly each blink must be seen: the least share of an LED's usual change, 0–1; less than that is
  /// not read.
  double contrast = 0.35;
  /// Spots of fewer, or of more, picture pixels are no LEDs.
  int smallest_px = 2;
  int largest_px = 0;
  /// Two LEDs nearer to each other than this cannot both be sure.
  double nearest_px = 0;
  Area area = {};
};

/// Finds LEDs that blink their words (blinkcode.h) in the frames of a camera, live or from files. Frames are
/// given as they come; each round that is complete is worked in, and its frames are let go.
class Spotter {
 public:
  Spotter(int leds, SpotterSettings settings);
  ~Spotter();
  Spotter(Spotter&&) noexcept;

  /// Takes a frame; all have one size.
  void add(Frame frame);
  /// Works in what is held, at the end of a file.
  void finish();
  /// Rounds that are worked in.
  int rounds() const;
  /// Rounds that were seen whole and yet said no words, because the light or the camera fell out of step.
  /// They are left out.
  int misreadRounds() const;
  /// How far the round that is being watched has come, 0–1, as far as can be told.
  double progress() const;
  const BlinkCode& code() const { return code_; }
  void setSettings(const SpotterSettings& settings) { settings_ = settings; }

  /// What all rounds together show.
  Sightings sightings() const;

 private:
  struct Stack;
  void workIn(bool isEnd);

  BlinkCode code_;
  SpotterSettings settings_;
  std::vector<Frame> held_;
  SpotBrightness brightness_;
  std::unique_ptr<Stack> stack_;
};

}  // namespace chispa::vision
