// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/vision/picture.h"

namespace chispa::vision {

/// How many picture points have each of 64 brightnesses.
using Histogram = std::array<int, 64>;
Histogram histogramOf(const Picture& picture, const Area& area);

/// How bright the spots of a picture of lit LEDs are: the grey level that one in five of their middles is
/// above, 0–255.
double spotLevel(const Picture& lit, const Area& area);

/// Finds the level of the LEDs at which neighbours stay apart: bright enough to be told from the room, and
/// short of white. Show level(), take a picture, tell() it; until isDone().
class ExposureSearch {
 public:
  double level() const { return level_; }
  bool isDone() const { return isDone_; }
  /// False if even the brightest, or the dimmest, light was not right.
  bool isGood() const { return isGood_; }
  void tell(const Picture& lit, const Area& area);

 private:
  double level_ = 0.25;
  double low_ = 0.004;
  double high_ = 1;
  int looks_ = 0;
  bool isDone_ = false;
  bool isGood_ = false;
};

}  // namespace chispa::vision
