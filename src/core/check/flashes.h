// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <deque>
#include <span>
#include <vector>

#include "core/base/progress.h"
#include "core/check/problems.h"
#include "core/render/compiled.h"

namespace chispa {

/// The most flashes that one second may hold (WCAG 2.2, 2.3.1; ITU-R BT.1702-2): more can harm people with
/// photosensitive epilepsy.
inline constexpr int kMaxFlashes = 3;

/// Counts the flashes of rendered light over a whole installation, frame by frame. A flash is a pair of
/// opposing changes of a pixel's relative luminance by a tenth of the brightest white, the darker of the two
/// below 0.8 of it, that a quarter of the light makes together (WCAG 2.2 "general flash and red flash
/// thresholds"). Changes in opposite directions at once, as where light only moves, take each other away.
class FlashCounter {
 public:
  /// `weights`: how much of the installation's light each pixel is.
  explicit FlashCounter(std::vector<float> weights);

  /// The light at `t`, which never falls. Returns how many flashes the second that ends now holds.
  int add(Micros t, const PixelFrame& frame);
  /// When the flashes of that second ended.
  const std::deque<Micros>& recent() const { return flashes_; }

 private:
  /// Where a pixel's luminance turned round last, and which way it has gone since.
  struct Swing {
    float low = 0;
    float high = 0;
    bool isUp = false;
  };
  /// The share of light that rose and fell in one frame.
  struct Change {
    Micros t;
    float up;
    float down;
  };

  Change changeOf(Micros t, const PixelFrame& frame);

  std::vector<float> weights_;
  float whole_ = 0;
  std::vector<Swing> swings_;
  std::deque<Change> changes_;
  std::deque<Micros> flashes_;
  /// The last change that all made: up, down or none yet.
  int last_ = 0;
};

/// A second of a score that holds more flashes than kMaxFlashes.
struct FlashRun {
  /// Where it begins.
  Micros at{0};
  int flashes = 0;

  bool operator==(const FlashRun&) const = default;
};

/// The seconds of a score that flash too much, those that follow on each other as one, with their most.
/// Renders it whole at 40 frames a second: a worker's work. If it is cancelled, what was found until then.
std::vector<FlashRun> findFlashes(const CompiledShow& show, const CompiledScore& score,
                                  const Progress& progress = {});

/// The same of all scores of a show, as problems with the place and the cure. Scores whose light takes more
/// work than a large show's evening are looked at as far as that goes, which a note says.
std::vector<Problem> flashProblems(const Show& show, const CompiledShow& compiled,
                                   const Progress& progress = {});

}  // namespace chispa
