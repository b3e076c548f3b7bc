// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/edit/remap.h"
#include "core/shape/polyline.h"
#include "core/show/show.h"

namespace chispa {

// Edits of what the maker builds: each changes the show it is given, and nothing else. Use them with
// History::apply.

/// Adds a fixture of one segment at `position_m`, named after its shape, and a zone of the whole of it. It is
/// made of `strip`, or of the show's first strip type if that is null.
FixtureId addFixture(Show& show, const Shape& shape, Vec3 position_m, Vec3 rotation_deg = {},
                     StripTypeId strip = {});
/// Adds a fixture that follows outlines, a path each, its strip laid at the pitch of its type; nothing if
/// there are none.
FixtureId addOutlines(Show& show, const std::string& name, const std::vector<Outline>& outlines,
                      const Placement& place, StripTypeId strip = {});
/// Copies fixtures, each with a zone of its own, moved by `offset_m`; returns the copies.
std::vector<FixtureId> duplicateFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 offset_m);
/// Turns fixtures about the vertical axis through `centre_m`.
void turnAround(Show& show, const std::vector<FixtureId>& ids, Vec3 centre_m, double degrees);
/// Copies fixtures until there are `count` of each, equally spaced around the vertical axis through
/// `centre_m`, each turned to face it as the original does; 360° closes the circle. Returns the copies.
std::vector<FixtureId> duplicateAround(Show& show, const std::vector<FixtureId>& ids, int count,
                                       Vec3 centre_m, double sweep_deg);
/// Copies fixtures until there are `count` of each, each `step_m` further than the one before. Returns the
/// copies.
std::vector<FixtureId> duplicateInRow(Show& show, const std::vector<FixtureId>& ids, int count, Vec3 step_m);
/// Takes fixtures out of the plan, off their ports and out of zones; zones left empty go too.
void deleteFixtures(Show& show, const std::vector<FixtureId>& ids);
void moveFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 by_m);

/// Changes the fixture with `id` by `change`; zones and beads are fitted to its new counts. Returns what that
/// cost.
template <class F>
Losses changeFixture(Show& show, FixtureId id, F change);

/// Adds a copy of `strip` under a free name.
StripTypeId takeStripType(Show& show, const StripType& strip);
/// Adds a strip type like that of the first of `fixtures`, and makes all of them of it.
StripTypeId addStripType(Show& show, const std::vector<FixtureId>& fixtures);
/// Replaces the item with `id` by a copy that `change` has changed; nothing happens if there is none.
template <class T, class IdType, class F>
void changeItem(Items<T>& items, IdType id, F change) {
  const T* found = find(items, id);
  if (!found) return;
  T item = *found;
  change(item);
  put(items, std::move(item));
}

template <class F>
Losses changeFixture(Show& show, FixtureId id, F change) {
  const Fixture* found = find(show.fixtures, id);
  if (!found) return {};
  const Fixture before = *found;
  changeItem(show.fixtures, id, change);
  return remap(show, before);
}

}  // namespace chispa
