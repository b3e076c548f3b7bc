// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Data channels of one universe (ANSI E1.11).
inline constexpr int kUniverseChannels = 512;

/// Pixels of one bead that lie one behind the other in one universe.
struct PatchSpan {
  /// Places in the show's lists, from 0.
  int controller = 0;
  int port = 0;
  int bead = 0;
  FixtureId fixture;
  /// Pixel of the fixture that comes first on the wire; the next is one further, or one less if reversed.
  int firstPixel = 0;
  int count = 0;
  int step = 1;
  /// Universe by the protocol's own number, and first channel from 1.
  int universe = 0;
  int channel = 1;
  int channelsPerPixel = 3;

  bool operator==(const PatchSpan&) const = default;
  /// Channel from 1 of the span's `i`th pixel.
  int channelOf(int i) const { return channel + i * channelsPerPixel; }
  int pixelOf(int i) const { return firstPixel + i * step; }
};

/// A universe that a controller is sent, and how many channels of it are used.
struct PatchUniverse {
  int controller = 0;
  int universe = 0;
  int channels = 0;

  bool operator==(const PatchUniverse&) const = default;
};

/// Where every pixel's value goes; follows from what hangs where, and is never typed in.
struct Patch {
  std::vector<PatchSpan> spans;
  std::vector<PatchUniverse> universes;
};

/// Derives the addresses of all beads. Each port starts as its controller says; pixels stay whole, so that 170 RGB or
/// 128 RGBW pixels fill a universe. Skipped pixels take the channels of the strip that follows them. Beads whose
/// fixture is gone, or that reach beyond it, are cut to what exists.
Patch derivePatch(const Show& show);

/// Universe and channel as people write them: "2 : 391".
std::string addressText(int universe, int channel);

}  // namespace chispa
