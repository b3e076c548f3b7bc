// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

namespace chispa::node {

/// Pixels of one kind on a port, and where their values are found.
struct Section {
  int pixels = 0;
  std::string order = "RGB";
  int skippedBefore = 0;
  int universe = 1;
  int channel = 1;
  /// Bits of a channel: 8, or 16 with the coarse half first.
  int bits = 8;
  /// Pixels that show one value.
  int grouping = 1;
  /// Share of the light, 0–1.
  double brightness = 1;
  /// The last pixel takes the first value.
  bool isReversed = false;
  /// The strip turns back after every so many pixels; 0 never.
  int zigzag = 0;
};

struct PortSetup {
  int port = 1;
  /// "e131", "artnet", "ddp" or "opc".
  std::string protocol = "e131";
  std::vector<Section> sections;
  /// Channels of a universe that are used, and whether a pixel may be split over two.
  int channelsPerUniverse = 512;
  bool isPacked = false;
};

/// The settings as the node interface carries them (docs/node-interface.md).
nlohmann::json toJson(const std::vector<PortSetup>& ports);
/// Reads them; null with the reason in `why` if they make no sense or ask for more than `maxPorts` ports.
std::optional<std::vector<PortSetup>> parseSettings(const std::string& text, int maxPorts, std::string& why);

}  // namespace chispa::node
