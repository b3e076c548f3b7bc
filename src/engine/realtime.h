// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>

namespace chispa::engine {

/// What the system granted to the output; read by any thread. 0 is granted, else the errno that says why not;
/// −1 until it was asked.
struct RealtimeGrants {
  std::atomic<int> priority{-1};
  std::atomic<int> memory{-1};
};

/// Asks that the calling thread runs before all ordinary ones (SCHED_FIFO), and that what the process uses
/// stays in memory (mlockall). Memory is locked only where nothing limits how much: a limit would make later
/// allocations fail.
void askForRealtime(RealtimeGrants& grants) noexcept;

}  // namespace chispa::engine
