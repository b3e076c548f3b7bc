// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Prints how long it takes from a hand to a packet, and what playing by hand costs.
void printLiveBudgets();

}  // namespace chispa::bench
