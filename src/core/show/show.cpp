// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/show.h"

#include <limits>

namespace chispa {

bool operator==(const Show& a, const Show& b) {
  return a.name == b.name && sameItems(a.stripTypes, b.stripTypes) && sameItems(a.fixtures, b.fixtures) &&
         sameItems(a.zones, b.zones) && sameItems(a.underlays, b.underlays) &&
         sameItems(a.supplies, b.supplies) && sameItems(a.controllers, b.controllers) &&
         sameItems(a.palettes, b.palettes) && sameItems(a.scores, b.scores) &&
         sameItems(a.blocks, b.blocks) && sameItems(a.ownEffects, b.ownEffects) &&
         sameItems(a.looks, b.looks) && sameItems(a.bindings, b.bindings) &&
         sameItems(a.deskInputs, b.deskInputs) && sameItems(a.setLists, b.setLists) &&
         sameItems(a.rules, b.rules) && a.almanac == b.almanac && a.light == b.light &&
         a.unread == b.unread && a.nextId == b.nextId;
}

int pixelCount(const Show& show) {
  std::int64_t sum = 0;
  for (const auto& fixture : show.fixtures) sum += pixelCount(*fixture);
  return static_cast<int>(std::min<std::int64_t>(sum, std::numeric_limits<int>::max()));
}

const StripType& stripTypeOf(const Show& show, const Fixture& fixture) {
  static const StripType plain;
  const StripType* found = find(show.stripTypes, fixture.stripType);
  return found ? *found : plain;
}

}  // namespace chispa
