// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Prints what the whole score of the demo reaches: rendering, glow, live output, from edit to LEDs, and the
/// start of the program.
void printDemoBudgets();

}  // namespace chispa::bench
