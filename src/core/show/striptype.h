// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>

#include "core/base/id.h"
#include "core/show/chipmix.h"
#include "core/show/response.h"

namespace chispa {

/// How the LEDs of a strip type are held.
enum class StripBuild {
  Reel,    ///< on a strip from a reel: they stand as the reel has them
  String,  ///< single pixels with wire between: as far apart as the maker puts them
  Panel,   ///< on boards: as the board has them
};

/// What a reel of strip is.
struct StripType {
  StripTypeId id;
  std::string name;
  /// Channels of one pixel in wire order, of kChipLetters, each at most once: "GRB", "RGBW", "RGBWA"; "W" for
  /// a strip of one colour, "WA" for one of two whites.
  std::string order = "GRB";
  double pixelsPerMetre = 60;
  double volts = 5;
  /// Current of one channel of one pixel at full, in milliamperes.
  double channel_ma = 12;
  /// The light of its LEDs by the value they are sent.
  Response response = {};
  /// 8, or 16 for drivers that take two channels a colour, the coarse one first.
  int channelBits = 8;
  /// LEDs that make one pixel: 3 on most 12 V strip.
  int ledsPerPixel = 1;
  /// The strip can be cut after every so many pixels.
  int pixelsPerCut = 1;
  /// Resistance of a metre of the strip's two copper rails, there and back.
  double ohmsPerMetre = 0.12;
  /// The share of each colour's full light that makes its white, 0.02–1.
  Rgb white{1, 1, 1};
  /// Below this voltage its colours fade; 0 for four fifths of its voltage.
  double fadesBelow_v = 0;
  /// The colours of its chips, where they are known; else they are taken as a screen's.
  std::optional<ChipColours> chips = {};
  StripBuild build = StripBuild::Reel;
  /// Each colour as bright as its chips can show it; else none outshines the balanced white, so that all
  /// colours keep their proportions.
  bool isBrightest = false;

  bool operator==(const StripType&) const = default;

  /// Colours of a pixel.
  int channels() const { return static_cast<int>(order.size()); }
  ChipMix mix() const { return mixOf(order); }
  /// The same with channels in another order, or others of them.
  ChipMix mixOf(const std::string& letters) const;
  /// Channels' worth of current of a pixel with every chip at full.
  double fullChannels() const {
    double sum = 0;
    for (const char letter : order)
      sum += static_cast<double>(letter == 'R'   ? white.r
                                 : letter == 'G' ? white.g
                                 : letter == 'B' ? white.b
                                                 : 1.f);
    return sum;
  }
  /// DMX channels of a pixel.
  int bytesPerPixel() const { return channels() * channelBits / 8; }
  /// The voltage below which its colours fade.
  double leastVolts() const { return fadesBelow_v > 0 ? fadesBelow_v : volts * 0.8; }
};

/// The number of pixels nearest to `wanted` to which the strip can be cut.
int cuttableCount(const StripType& strip, int wanted);

/// True if `order` is made of the letters R, G, B and W, each at most once, and is not empty.
bool isChannelOrder(const std::string& order);

}  // namespace chispa
