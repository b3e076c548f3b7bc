// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <vector>

#include "core/base/frame.h"
#include "core/preview/boxblur.h"
#include "core/preview/camera.h"
#include "core/preview/discstamp.h"
#include "core/preview/light4.h"
#include "core/preview/surfacelight.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Draws the installation as an eye would see it in the dark: sharp points whose cores bleach where they are
/// bright, the haze about them, and the light that falls on the floor and on a wall behind. LEDs that are off
/// are a thin overlay, which adds nothing to light. Keeps its buffers from picture to picture. One thread at
/// a time.
class GlowPainter {
 public:
  GlowPainter();

  /// Draws the light of `frame` on the pixels of `map` into `rgba`, width × height pixels of four bytes R, G,
  /// B, 255. A frame of another size draws as dark.
  void paint(const PixelMap& map, const PixelFrame& frame, const OrbitCamera& camera, int width, int height,
             std::uint8_t* rgba);

 private:
  struct Plane {
    int width = 0;
    int height = 0;
    std::vector<Light4> light;

    /// Dark, and of that size.
    void reset(int w, int h);
    Light4* row(int y) { return &light[static_cast<std::size_t>(y) * static_cast<std::size_t>(width)]; }
    const Light4* row(int y) const { return const_cast<Plane*>(this)->row(y); }
  };

  void splatUnlit(float x, float y, Light4 light);
  void splat(float x, float y, float scale, Light4 colour, float lampSize);
  void splatDisc(float x, float y, Light4 colour, float radius);
  /// True if the disc is the usual one, and all of it is in the picture; it is drawn then.
  bool splatStamp(float x, float y, Light4 colour, float radius);
  static void splatSmall(Plane& plane, float x, float y, Light4 colour);
  void makeHaze();
  void lightSurfaces(const OrbitCamera& camera, bool hasFloor, bool hasWall);
  /// Sum of both planes as an image; leaves the sharp one dark for the next picture.
  void compose(std::uint8_t* rgba);

  static constexpr int kHazeScale = 4;
  static constexpr int kToneSteps = 16'384;
  static constexpr float kToneTop = 4;

  SurfaceLight floor_{SurfaceLight::Surface::Floor};
  SurfaceLight wall_{SurfaceLight::Surface::Wall};
  Plane sharp_;
  Plane haze_;
  Plane wide_;
  BlurScratch blurring_;
  /// Pixels of the smallest LED, and that one worked out.
  float leastRadius_ = 0.75f;
  DiscStamp stamp_;
  std::vector<Light4> sums_;
  std::vector<float> spotX_, spotY_, spotScale_;
  std::array<std::uint8_t, kToneSteps + 1> tone_{};
};

}  // namespace chispa
