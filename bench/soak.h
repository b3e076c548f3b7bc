// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Plays 1,000 universes at 40 frames a second for `seconds` to a process of its own that counts what
/// arrives, and prints lateness, CPU share, what was lost and memory, beside the floors measured in the same
/// run.
void printSoak(int seconds);

}  // namespace chispa::bench
