// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Data channels of one universe (ANSI E1.11).
inline constexpr int kUniverseChannels = 512;

/// Universe numbers that exist in a protocol, both in it: E1.31-2018 §6.2.7, Art-Net 4 (15-bit Port-Address);
/// of a row of bytes its blocks of 512.
struct UniverseRange {
  int low = 0;
  int high = 0;

  bool holds(int universe) const { return universe >= low && universe <= high; }
};
UniverseRange universeRange(Protocol protocol);

/// Values of one bead that lie one behind the other in one universe. A value is a pixel's, or that of a
/// group.
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
  /// Channels of a whole value.
  int channelsPerPixel = 3;
  /// Pixels that share a value; `pixels` are covered in all, so that the last value may have fewer.
  int pixelsPerValue = 1;
  int pixels = 0;
  /// Of a value that is split over two universes: which of its channels are here. Whole values have all.
  int firstByte = 0;
  int bytes = 0;

  bool operator==(const PatchSpan&) const = default;
  /// Channel from 1 of the span's `i`th pixel.
  int channelOf(int i) const { return channel + i * channelsPerPixel; }
  /// First pixel of the span's `i`th value.
  int pixelOf(int i) const { return firstPixel + i * step * pixelsPerValue; }
  bool isWhole() const { return bytes == channelsPerPixel; }
  /// Channels from the first to the last that are taken here.
  int channelCount() const { return isWhole() ? count * channelsPerPixel : bytes; }
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

/// Derives the addresses of all beads. Each port starts as its controller says, or where it is pinned; pixels
/// stay whole, so that 170 RGB or 128 RGBW pixels fill a universe, unless the controller is packed. Skipped
/// pixels take the channels of the strip that follows them, or none if the controller inserts them. DDP, OPC
/// and screens have no universes: their data is one row of bytes, numbered here in packed universes of 512
/// from 0. Serial DMX has universe 1 alone. Beads whose fixture is gone, or that reach beyond it, are cut to
/// what exists.
Patch derivePatch(const Show& show);

/// Universe and channel as people write them: "2 : 391"; in a row the byte, from 1: "byte 903".
std::string addressText(Protocol protocol, int universe, int channel);

}  // namespace chispa
