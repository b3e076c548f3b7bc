// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Prints how well LEDs are found by the simulated camera: three severities, 50 to 2,000 LEDs, seeds that are
/// fixed; in a plane and in space. Returns 1 if a figure is missed.
int eyeAccuracy();

}  // namespace chispa::bench
