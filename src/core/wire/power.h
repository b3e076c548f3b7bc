// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <span>

#include "core/wire/powernet.h"

namespace chispa {

/// Amps by supply voltage.
using AmpsByVolts = std::map<double, double>;

/// Current with every channel at full, dimmed as the wiring says; pixels that hang nowhere yet count as they
/// are.
AmpsByVolts fullWhiteAmps(const Show& show);
/// Current that `frame` draws at `master` 0–1: each channel in proportion to its light, dimmed as the wiring
/// says; what hangs nowhere draws nothing.
AmpsByVolts frameAmps(std::span<const PowerChain> chains, const PixelFrame& frame, double master);

}  // namespace chispa
