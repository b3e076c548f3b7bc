// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/striptype.h"

namespace chispa {

/// Amps that `pixels` of a strip draw with every channel at full.
inline double fullWhite_a(const StripType& strip, int pixels) {
  return pixels * strip.fullChannels() * strip.channel_ma * 1e-3;
}

}  // namespace chispa
