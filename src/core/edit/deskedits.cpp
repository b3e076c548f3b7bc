// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/deskedits.h"

#include <algorithm>

#include "core/edit/zoneedits.h"
#include "core/render/compiledlive.h"
#include "core/zone/cells.h"

namespace chispa {

DeskInputId addDeskInput(Show& show, const DeskInput& like) {
  DeskInput input = like;
  input.id = show.newId<DeskInputId>();
  if (const Zone* zone = find(show.zones, input.zone); zone && input.name.empty()) input.name = zone->name;
  const DeskInputId id = input.id;
  put(show.deskInputs, std::move(input));
  return id;
}

void deleteDeskInput(Show& show, DeskInputId id) {
  remove(show.deskInputs, id);
}

namespace {

/// A zone of nothing but the whole fixture.
const Zone* wholeZone(const Show& show, FixtureId fixture) {
  for (const auto& zone : show.zones)
    if (zone->parts.size() == 1 && zone->parts[0] == ZonePart{fixture, {}, false, {}}) return zone.get();
  return nullptr;
}

}  // namespace

std::vector<DeskInputId> listenCollapsed(Show& show, std::span<const FixtureId> fixtures, DeskInput first) {
  std::vector<DeskInputId> added;
  first.cells = 1;
  for (const FixtureId id : fixtures) {
    const Fixture* fixture = find(show.fixtures, id);
    if (!fixture) continue;
    const Zone* zone = wholeZone(show, id);
    if (!zone) {
      zone = find(show.zones, addZone(show, fixture->name, {id}));
    }
    if (first.channel + first.bytesOfCell() - 1 > kUniverseChannels) {
      ++first.universe;
      first.channel = 1;
    }
    first.zone = zone->id;
    first.name = fixture->name;
    added.push_back(addDeskInput(show, first));
    first.channel += first.bytesOfCell();
  }
  return added;
}

int nextDeskChannel(const Show& show, Protocol protocol, int universe) {
  int next = 1;
  for (const auto& input : show.deskInputs) {
    if (input->protocol != protocol) continue;
    const Zone* zone = find(show.zones, input->zone);
    if (!zone) continue;
    const int cells = input->cells > 0 ? input->cells : cellsOf(show, mapPixels(show), *zone).count();
    for (const DeskAddress& address : deskAddresses(*input, std::max(1, cells)))
      if (address.universe == universe) next = std::max(next, address.channel + input->bytesOfCell());
  }
  return next;
}

}  // namespace chispa
