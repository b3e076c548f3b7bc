// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/controllermemory/content.h"
#include "link/keptfiles.h"

namespace chispa::link {

/// What a controller's memory held before it was filled.
struct KeptMemory {
  std::filesystem::path file;
  /// "2026-11-23 14:05:09", local time.
  std::string when;
  MemoryContent content;
};

/// Keeps old contents of controllers' memories (KeptFiles).
class MemoryStore {
 public:
  explicit MemoryStore(std::filesystem::path folder) : files_(std::move(folder)) {}
  /// `$XDG_STATE_HOME/chispa/memories`.
  static MemoryStore ofUser();

  Outcome keep(const Controller& controller, const MemoryContent& content) const;
  /// What is kept of the controller at this address, the newest first. Files that cannot be read are left
  /// out.
  std::vector<KeptMemory> keptOf(const Controller& controller) const;

 private:
  KeptFiles files_;
};

}  // namespace chispa::link
