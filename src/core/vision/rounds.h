// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <span>
#include <vector>

#include "core/vision/picture.h"

namespace chispa::vision {

/// When each step of a round of blinking was seen, by the camera's clock.
struct Round {
  /// Start of the first code step, and the length of a step.
  double codeBegins_s = 0;
  double step_s = 0;
};

/// Tells how bright the blinking spots of each frame are: 0 dark to about 1 all lit; what moves slowly, or is
/// large, does not count.
class SpotBrightness {
 public:
  SpotBrightness();
  ~SpotBrightness();
  SpotBrightness(SpotBrightness&&) noexcept;
  SpotBrightness& operator=(SpotBrightness&&) noexcept;

  void add(const Picture& picture, const Area& area);
  /// Forgets the first `count` frames.
  void drop(std::size_t count);
  /// Of all frames that are held, in their order.
  std::vector<double> all() const;

 private:
  struct Small;
  std::unique_ptr<Small> small_;
};

/// Finds the whole rounds in a stream of frames by what they show, where all spots are lit three steps long,
/// between dark ones. Neither the camera's lag nor its rate need be known. `bits` is the length of the words.
std::vector<Round> findRounds(std::span<const double> brightness, std::span<const Frame> frames, int bits);

}  // namespace chispa::vision
