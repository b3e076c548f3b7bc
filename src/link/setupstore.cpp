// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/setupstore.h"

#include "core/files/journal.h"
#include "link/userfolders.h"

namespace chispa::link {

SetupStore SetupStore::ofUser() {
  return SetupStore(stateFolder() / "setups");
}

std::vector<KeptSetup> SetupStore::keptOf(const Controller& controller) const {
  std::vector<KeptSetup> kept;
  for (const KeptText& one : files_.keptOf(controller))
    if (const auto ports = parsePortSettings(one.text, one.file.filename().string()))
      kept.push_back({one.file, one.when, *ports});
  return kept;
}

}  // namespace chispa::link
