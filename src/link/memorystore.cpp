// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/memorystore.h"

#include <nlohmann/json.hpp>

#include "core/files/journal.h"
#include "link/userfolders.h"

namespace chispa::link {

MemoryStore MemoryStore::ofUser() {
  return MemoryStore(stateFolder() / "memories");
}

Outcome MemoryStore::keep(const Controller& controller, const MemoryContent& content) const {
  return files_.keep(controller, toJson(content).dump());
}

std::vector<KeptMemory> MemoryStore::keptOf(const Controller& controller) const {
  std::vector<KeptMemory> kept;
  for (const KeptText& one : files_.keptOf(controller))
    if (auto content = parseMemoryContent(one.text, one.file.filename().string()))
      kept.push_back({one.file, one.when, *std::move(content)});
  return kept;
}

}  // namespace chispa::link
