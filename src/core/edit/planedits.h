// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

// Edits of what the maker builds: each changes the show it is given, and nothing else. Use them with History::apply.

/// Adds a fixture of one segment at `position_m`, named after its shape, and a zone of the whole of it.
FixtureId addFixture(Show& show, const Shape& shape, Vec3 position_m, Vec3 rotation_deg = {});
/// Copies fixtures, each with a zone of its own, moved by `offset_m`; returns the copies.
std::vector<FixtureId> duplicateFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 offset_m);
/// Copies fixtures until there are `count` of each, equally spaced around the vertical axis through `centre_m`, each
/// turned to face it as the original does; 360° closes the circle. Returns the copies.
std::vector<FixtureId> duplicateAround(Show& show, const std::vector<FixtureId>& ids, int count, Vec3 centre_m, double sweep_deg);
/// Copies fixtures until there are `count` of each, each `step_m` further than the one before. Returns the copies.
std::vector<FixtureId> duplicateInRow(Show& show, const std::vector<FixtureId>& ids, int count, Vec3 step_m);
/// Takes fixtures out of the plan, off their ports and out of zones; zones left empty go too.
void deleteFixtures(Show& show, const std::vector<FixtureId>& ids);
void moveFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 by_m);

/// Changes the fixture with `id` by `change`; beads that reach beyond its new end are shortened or taken off, and a
/// bead that covered all of it still does.
template <class F>
void changeFixture(Show& show, FixtureId id, F change);
void refitBeads(Show& show, FixtureId id, int countBefore);

/// Any two of count, length and pixels per metre give the third: sets the pitch of line, arc or grid segments.
void setPitch(Segment& segment, double pitch_m);
/// True if setLength() has a say: lines, arcs and grids; all others have the length of their geometry.
bool hasFreeLength(const Segment& segment);
/// The pitch of a segment: metres from pixel to pixel along the strip.
double pitch_m(const Segment& segment);
/// Sets how long the strip is by changing the pitch (a grid: its first side).
void setLength(Segment& segment, double length_m);

/// Adds a strip type like that of the first of `fixtures`, and makes all of them of it.
StripTypeId addStripType(Show& show, const std::vector<FixtureId>& fixtures);
/// Adds a zone of whole fixtures, in the order given.
ZoneId addZone(Show& show, const std::string& name, const std::vector<FixtureId>& fixtures);
void deleteZone(Show& show, ZoneId id);
/// The zone's cells play in the opposite order.
void reverseZone(Show& show, ZoneId id);
/// A zone for each part of a zone, called after it and numbered; returns them.
std::vector<ZoneId> zoneForEachPart(Show& show, ZoneId id);
/// A zone of both: the cells of `id`, then those of `with`.
ZoneId combineZones(Show& show, ZoneId id, ZoneId with);

template <class F>
void changeFixture(Show& show, FixtureId id, F change) {
  const Fixture* found = find(show.fixtures, id);
  if (!found) return;
  const int before = pixelCount(*found);
  Fixture fixture = *found;
  change(fixture);
  put(show.fixtures, std::move(fixture));
  refitBeads(show, id, before);
}

/// Replaces the item with `id` by a copy that `change` has changed; nothing happens if there is none.
template <class T, class IdType, class F>
void changeItem(Items<T>& items, IdType id, F change) {
  const T* found = find(items, id);
  if (!found) return;
  T item = *found;
  change(item);
  put(items, std::move(item));
}

}  // namespace chispa
