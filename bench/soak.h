// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/controller.h"

namespace chispa::bench {

/// Plays so many universes of 170 pixels at 40 frames a second for `seconds` to a process of its own that
/// counts what arrives, and prints lateness, CPU share, what was lost and memory, beside the floors measured
/// in the same run.
void printSoak(int seconds, int universes = 1'000, Protocol protocol = Protocol::E131);

}  // namespace chispa::bench
