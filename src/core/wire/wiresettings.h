// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/controller.h"
#include "core/show/fixture.h"
#include "core/show/striptype.h"

namespace chispa {

/// How the pixels of a bead take their values, everything decided.
struct ResolvedWire {
  std::string order;
  int bits = 8;
  Response response = {};
  double brightness = 1;
  int grouping = 1;
  int zigzag = 0;

  bool operator==(const ResolvedWire&) const = default;
  int bytesPerValue() const { return static_cast<int>(order.size()) * bits / 8; }
};

/// What a bead says goes before what its port says, that before the fixture, and that before the strip type;
/// brightness multiplies.
ResolvedWire resolveWire(const StripType& strip, const Fixture& fixture, const WireSettings& port,
                         const WireSettings& bead);

/// How the chips of a strip share its light where its channels are in the order of `wire`.
ChipMix mixOf(const StripType& strip, const ResolvedWire& wire);

/// Pixels of a fixture one behind the other on the wire.
struct WireStretch {
  int first;
  int count;
  int step;
};
/// The pixels of a bead in wire order: from its data-in end, turning back after every `zigzag` pixels (0:
/// never).
std::vector<WireStretch> wireStretches(int first, int count, bool reversed, int zigzag);

}  // namespace chispa
