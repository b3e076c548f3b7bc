// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/base/id.h"

namespace chispa {

/// A power supply: what its voltage is, and what may be drawn from it.
struct Supply {
  SupplyId id;
  std::string name;
  double volts = 5;
  /// Most that the light may draw; 0 sets no budget.
  double limit_a = 0;

  bool operator==(const Supply&) const = default;
};

/// A pin on a thread: where a supply's wire meets the strip.
struct Injection {
  SupplyId supply;
  /// In front of this pixel of the bead in data order, from 0; the bead's count puts it behind the last.
  int pixel = 0;
  /// From the supply to the strip, one way; current flows there and back.
  double wire_m = 1;
  /// Copper cross-section of one lead.
  double wire_mm2 = 1.5;
  /// Rating of its fuse; 0 if it has none.
  double fuse_a = 0;

  bool operator==(const Injection&) const = default;
};

}  // namespace chispa
