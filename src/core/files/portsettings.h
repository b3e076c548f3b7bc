// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/wire/patch.h"

namespace chispa {

/// Pixels of one kind that hang one behind the other on a port.
struct PortSection {
  int pixels = 0;
  std::string order;
  /// Pixels in the chain before them that stay dark.
  int skippedBefore = 0;
  /// Address of the first pixel that is not skipped.
  int universe = 0;
  int channel = 1;
  /// Bits of a channel, 8 or 16.
  int bits = 8;
  /// Pixels that share a value.
  int grouping = 1;
  // What a controller may do to the data by itself; Chispa does it, and wants none of it done twice.
  double brightness = 1;
  bool isReversed = false;
  int zigzag = 0;

  bool operator==(const PortSection&) const = default;
};

/// What a controller has to know of one of its ports to show what it is sent.
struct PortSettings {
  /// From 1.
  int port = 1;
  Protocol protocol = Protocol::E131;
  std::vector<PortSection> sections;
  /// Channels of a universe that are used, and whether pixels may be split over two.
  int channelsPerUniverse = 512;
  bool isPacked = false;

  bool operator==(const PortSettings&) const = default;
};

/// Settings of all ports of the `index`th controller, as its wiring asks for.
std::vector<PortSettings> portSettings(const Show& show, const Patch& patch, int index);

/// As the set-up interface carries them: {"ports": […]}.
nlohmann::ordered_json toJson(const std::vector<PortSettings>& settings);
Result<std::vector<PortSettings>> parsePortSettings(const std::string& text, const std::string& where);

}  // namespace chispa
