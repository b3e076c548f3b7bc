// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <vector>

namespace chispa::vision {

/// A grey picture, row by row from the upper left.
struct Picture {
  int width = 0;
  int height = 0;
  std::vector<std::uint8_t> light;

  bool isEmpty() const { return light.empty(); }
  std::uint8_t at(int x, int y) const {
    return light[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
  }
};

/// A picture and when it was taken, by the camera's own clock.
struct Frame {
  Picture picture;
  double time_s = 0;
};

/// A place in a picture, in pixels; (0, 0) is the middle of the upper left one.
struct Spot {
  double x = 0;
  double y = 0;
};

/// A part of a picture, in pixels; all of it if it has no size.
struct Area {
  int x = 0;
  int y = 0;
  int width = 0;
  int height = 0;

  bool isAll() const { return width <= 0 || height <= 0; }
  bool operator==(const Area&) const = default;
};

}  // namespace chispa::vision
