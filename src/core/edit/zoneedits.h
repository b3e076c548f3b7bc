// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

// Edits of zones. Every new zone has a stave in each score, or in its own if it belongs to one.

/// Adds `zone` under a new id and the first free name like its own.
ZoneId addZone(Show& show, Zone zone);
/// A zone of whole fixtures, in the order given, named `name` or alike: a lone matrix keeps its grid.
ZoneId addZone(Show& show, const std::string& name, const std::vector<FixtureId>& fixtures);
void deleteZone(Show& show, ZoneId id);

/// How many zones at once are numbered behind their base name.
enum class Numbering { Plain, Padded, Letters };
/// "Post 3", "Post 03" or "Post C", for `index` from 0 of `count`.
std::string numberedName(const std::string& base, int index, int count, Numbering numbering);

/// The ways to divide a zone.
enum class Division {
  Rows,         ///< a row each, from the bottom
  Columns,      ///< a column each, from the left
  Parts,        ///< equal parts in playing order
  ColumnParts,  ///< equal parts from left to right
  RowParts,     ///< equal parts from bottom to top
  Segments,     ///< a segment each
  Fixtures,     ///< a fixture each
  EveryNth,     ///< of n, each takes every n-th cell
};

struct DivideRequest {
  Division by = Division::Rows;
  /// Into how many, where the division does not say itself.
  int n = 2;
  /// Base name of what is made; the zone's own if it is empty.
  std::string base = {};
  Numbering numbering = Numbering::Plain;
  /// One zone in which each piece is a single cell, in place of a zone each.
  bool asCells = false;
};

/// How a zone is most often divided: by what it is made of, which are its fixtures or the segments of its one
/// fixture; a picture by its rows; all else into equal parts.
DivideRequest usualDivision(const Show& show, const Zone& zone);
/// Makes zones of the pieces of a zone, which stays as it is; returns them.
std::vector<ZoneId> divideZone(Show& show, ZoneId id, const DivideRequest& request);
/// How many pieces that makes.
int piecesOf(const Show& show, const Zone& zone, const DivideRequest& request);

/// A zone of both: the cells of `id`, then those of `with`.
ZoneId combineZones(Show& show, ZoneId id, ZoneId with);
/// A zone of two halves that play as one, the second turned round.
ZoneId mirrorZone(Show& show, ZoneId id);
/// The zone's cells play in the opposite order.
void reverseZone(Show& show, ZoneId id);
/// Moves a part to another place in the list; what was sorted is listed as it plays now first.
void moveZonePart(Show& show, ZoneId id, std::size_t from, std::size_t to);

/// Adds pixels (numbers of `map`) that the zone does not have yet: to the parts of their fixtures, in data
/// order where those are in data order. Parts of zones that are collapsed or play as one stay, and new ones
/// follow them.
void paintZone(Show& show, const PixelMap& map, ZoneId id, const std::vector<std::uint32_t>& pixels);
/// Takes pixels away; the zone stays, even if nothing is left.
void eraseFromZone(Show& show, const PixelMap& map, ZoneId id, const std::vector<std::uint32_t>& pixels);

/// Makes a zone belong to `score` alone, or, if that is null, to the show and so to every score. Clips of it
/// elsewhere go.
void setZoneScore(Show& show, ZoneId id, ScoreId score);

/// True if zones of one can be those of the other: the same segments with the same pixels in the same grids.
bool areAlike(const Fixture& a, const Fixture& b);
/// Gives `to` every zone that is made of `from` alone; a failure if they are not alike, or there is none.
Result<std::vector<ZoneId>> copyZones(Show& show, FixtureId from, FixtureId to);

}  // namespace chispa
