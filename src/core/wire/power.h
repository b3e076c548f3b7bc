// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>

#include "core/render/frame.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Amps by supply voltage.
using AmpsByVolts = std::map<double, double>;

/// Current of all fixtures with every channel at full.
AmpsByVolts fullWhiteAmps(const Show& show);
/// Current that `frame` draws at `master` 0–1: each channel in proportion to its light.
AmpsByVolts frameAmps(const Show& show, const PixelMap& map, const PixelFrame& frame, double master);

}  // namespace chispa
