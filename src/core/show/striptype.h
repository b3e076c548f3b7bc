// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/base/id.h"

namespace chispa {

/// What a reel of strip is.
struct StripType {
  StripTypeId id;
  std::string name;
  /// Channels of one pixel in wire order, of the letters R G B W, each at most once: "GRB", "RGBW".
  std::string order = "GRB";
  double pixelsPerMetre = 60;
  double volts = 5;
  /// Current of one channel of one pixel at full, in milliamperes.
  double channel_ma = 12;
  /// Light = (value / 255) to this power: 1 for plain pulse-width strips, more where a driver bends it.
  double response = 1;

  bool operator==(const StripType&) const = default;

  int channels() const { return static_cast<int>(order.size()); }
};

/// True if `order` is made of the letters R, G, B and W, each at most once, and is not empty.
bool isChannelOrder(const std::string& order);

}  // namespace chispa
