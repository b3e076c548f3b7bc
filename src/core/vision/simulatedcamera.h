// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <random>
#include <span>
#include <vector>

#include "core/vision/blinkcode.h"
#include "core/vision/sightings.h"
#include "core/vision/view.h"

namespace chispa::vision {

/// What spoils the pictures of a camera. Light in grey levels, lengths in picture pixels.
struct ImageDefects {
  double blur_px = 1;
  /// A wide glow around each light, and the share of the light in it.
  double bloom_px = 6;
  double bloomShare = 0.02;
  double noise = 1.5;
  /// Light of the room, and how far it drifts up and down.
  double ambient = 6;
  double drift = 0;
  /// Light of each LED seen a second time, in a wet floor below.
  double reflection = 0;
  double k1 = 0;
  /// Share of the LEDs that something hides.
  double hidden = 0;
  bool hasHand = false;
  double framesPerSecond = 30;
  double lag_s = 0;
  double droppedFrames = 0;
  /// Radius of an LED's body, which hides what stands behind it, in metres.
  double body_m = 0;
};

enum class Severity { Clean, Medium, Hard };
ImageDefects defectsOf(Severity severity);

/// A camera that is not there: takes pictures of LEDs at known places in space. One thread.
class SimulatedCamera {
 public:
  SimulatedCamera(std::vector<Vec3> leds, View view, const ImageDefects& defects, unsigned seed);

  const ImageDefects& defects() const { return defects_; }
  const View& view() const { return view_; }
  /// A picture of LEDs of `light` 0–1 at `time_s`.
  Picture take(std::span<const float> light, double time_s);
  /// Where each LED really is in the pictures; nothing for those that are hidden or outside.
  const std::vector<std::optional<Spot>>& truth() const { return truth_; }

 private:
  /// What an LED adds to a dot of the picture.
  struct Splat {
    std::size_t at;
    float share;
  };
  void addSplats(Spot spot, double share);
  void addHand(std::vector<float>& light, double time_s) const;

  View view_;
  ImageDefects defects_;
  std::vector<std::optional<Spot>> truth_;
  std::vector<Splat> splats_;
  /// By LED: the first of its splats, and the end of all.
  std::vector<std::size_t> firstSplat_;
  std::vector<float> noise_;
  std::mt19937 random_;
};

/// How right sightings are against what a camera really saw.
struct Rightness {
  /// Sure LEDs, as a share of those that nothing hides, and of all.
  double found = 0;
  double foundOfAll = 0;
  double median_px = 0;
  /// Sure, but more than four picture pixels from where it is; a mirror image too.
  int wrong = 0;
};
Rightness rightnessOf(const SimulatedCamera& camera, const Sightings& seen);

/// Takes the frames of `rounds` rounds of blinking, each step `step_s` long, at `level` 0–1, as the camera's
/// own clock stamps them.
void simulateCapture(SimulatedCamera& camera, const BlinkCode& code, int rounds, double step_s, double level,
                     const std::function<void(Frame)>& take);

}  // namespace chispa::vision
