// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <functional>

#include "core/controllermemory/content.h"

namespace chispa::link {

// A controller's own memory over the node interface (docs/node-interface.md). Calls wait for the network.

/// What it says of its memory; fails, saying so, if it has none.
Result<MemoryState> readMemory(const Controller& controller);

/// Takes what the memory held before other content is written; if it fails, nothing is.
using KeepContent = std::function<Outcome(const MemoryContent& before)>;

/// What became of a memory that was written.
struct MemoryReport {
  /// As it was read back.
  MemoryState now;
  /// What differs from what was wanted; nothing if it was written rightly.
  std::vector<MemoryDifference> left;
  /// Why writing failed, if it did, in the controller's words.
  std::string trouble;

  bool isVerified() const { return trouble.empty() && now.isWhole && left.empty(); }
};

/// Reads, keeps what is there, writes, reads back and compares. A controller that breaks off is asked again
/// until it answers, 10 s at most. Fails if nothing was written.
Result<MemoryReport> writeMemory(const Controller& controller, const MemoryContent& content,
                                 const KeepContent& keep = {});

/// Plays a scene from 1 now, 0 for dark.
Outcome playFromMemory(const Controller& controller, int scene);
/// Sets its clock.
Outcome setClock(const Controller& controller, std::chrono::sys_seconds now);

}  // namespace chispa::link
