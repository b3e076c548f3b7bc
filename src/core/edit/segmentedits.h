// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/remap.h"
#include "core/show/show.h"

namespace chispa {

// Edits of what a fixture is made of. Zones and beads keep the pixels they had, wherever those are then.

/// Adds a segment behind the last; `world` is where its frame stands in the world.
void addSegment(Show& show, FixtureId id, const Shape& shape, const Placement& world);
/// Takes a segment out; a fixture keeps its last.
Losses removeSegment(Show& show, FixtureId id, std::size_t index);
/// Cuts a segment in front of its pixel `at`, or at the nearest point where its strip can be cut; nothing
/// happens at its ends. Lines, arcs, paths and grids between strips stay what they are, all else becomes
/// points.
void splitSegment(Show& show, FixtureId id, std::size_t index, int at);
/// Makes one segment of this and the next: one line, arc or path where they continue each other, else points.
void joinSegments(Show& show, FixtureId id, std::size_t index);
/// Data comes in at the other end of the segment.
void reverseSegment(Show& show, FixtureId id, std::size_t index);
/// Data reaches the segment as the `to`th.
void moveSegment(Show& show, FixtureId id, std::size_t from, std::size_t to);

/// The points of a segment in another order: `order` holds every pixel of the segment once. It becomes
/// points.
void renumberSegment(Show& show, FixtureId id, std::size_t index, const std::vector<int>& order);
/// One fixture of several, data running through them in the order given; its frame is that of the first.
void joinFixtures(Show& show, const std::vector<FixtureId>& ids);
/// A fixture for each segment; the first keeps the identity.
std::vector<FixtureId> separateSegments(Show& show, FixtureId id);

}  // namespace chispa
