// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <vector>

#include "core/preview/camera.h"
#include "core/render/frame.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Draws the installation as an eye would see it in the dark: sharp points, and the haze of bright light about them.
/// Keeps its buffers from picture to picture. One thread at a time.
class GlowPainter {
 public:
  GlowPainter();

  /// Draws the light of `frame` on the pixels of `map` into `rgba`, width × height pixels of four bytes R, G, B, 255.
  /// A frame of another size draws as dark.
  void paint(const PixelMap& map, const PixelFrame& frame, const OrbitCamera& camera, int width,
             int height, std::uint8_t* rgba);

 private:
  /// Linear light, four floats a pixel so that one fits a vector register.
  struct Plane {
    int width = 0;
    int height = 0;
    std::vector<float> light;

    void reset(int w, int h);
    float* at(int x, int y) { return &light[4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x))]; }
    const float* at(int x, int y) const { return const_cast<Plane*>(this)->at(x, y); }
  };

  void splat(const Projection::Spot& spot, const float* colour, float lampSize);
  void makeHaze();
  static void splatSmall(Plane& plane, float x, float y, const float* colour, float weight);
  void blur(Plane& plane, int radius);
  void compose(std::uint8_t* rgba) const;

  static constexpr int kHazeScale = 4;
  static constexpr int kToneSteps = 16'384;
  static constexpr float kToneTop = 4;

  Plane sharp_;
  Plane haze_;
  Plane wide_;
  Plane scratch_;
  std::array<std::uint8_t, kToneSteps + 1> tone_{};
};

}  // namespace chispa
