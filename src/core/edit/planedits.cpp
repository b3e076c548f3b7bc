// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"

#include <algorithm>
#include <cmath>

#include "core/show/limits.h"

namespace chispa {
namespace {

std::string shapeTitle(const Shape& shape) {
  static constexpr const char* kTitles[] = {"Line", "Matrix", "Ring", "Path", "Rings", "Spiral", "Cone", "Spokes", "Points"};
  static_assert(std::size(kTitles) == std::variant_size_v<Shape>);
  return kTitles[shape.index()];
}

/// Every zone has a stave in every score; a new one at the bottom.
void addStaves(Show& show, ZoneId zone) {
  for (const auto& score : Items<Score>(show.scores))
    changeItem(show.scores, score->id, [zone](Score& s) { s.staves.push_back(zone); });
}

ZoneId addWholeZone(Show& show, const Fixture& fixture) {
  const bool isGrid = fixture.segments.size() == 1 && matrixCell(fixture.segments[0].shape, 0).has_value();
  Zone zone{show.newId<ZoneId>(), freeName(show.zones, fixture.name), {{fixture.id, std::nullopt, false}},
            isGrid ? ZoneLayout::SideBySide : ZoneLayout::Strand, 1};
  put(show.zones, zone);
  addStaves(show, zone.id);
  return zone.id;
}

bool isOneOf(const std::vector<FixtureId>& ids, FixtureId id) { return std::find(ids.begin(), ids.end(), id) != ids.end(); }

void dropFromZones(Show& show, const std::vector<FixtureId>& ids) {
  std::vector<ZoneId> empty;
  for (const auto& zone : Items<Zone>(show.zones)) {
    const auto hit = [&](const ZonePart& part) { return isOneOf(ids, part.fixture); };
    if (std::none_of(zone->parts.begin(), zone->parts.end(), hit)) continue;
    Zone left = *zone;
    std::erase_if(left.parts, hit);
    if (left.parts.empty()) empty.push_back(left.id);
    put(show.zones, left);
  }
  for (const ZoneId id : empty) deleteZone(show, id);
}

void dropFromPorts(Show& show, const std::vector<FixtureId>& ids) {
  for (const auto& controller : Items<Controller>(show.controllers)) {
    Controller left = *controller;
    for (Port& port : left.ports) std::erase_if(port.run, [&](const Bead& bead) { return isOneOf(ids, bead.fixture); });
    if (left != *controller) put(show.controllers, left);
  }
}

}  // namespace

FixtureId addFixture(Show& show, const Shape& shape, Vec3 position_m, Vec3 rotation_deg) {
  Fixture fixture;
  fixture.id = show.newId<FixtureId>();
  fixture.name = freeName(show.fixtures, shapeTitle(shape));
  fixture.stripType = show.stripTypes.empty() ? StripTypeId{} : show.stripTypes.front()->id;
  fixture.place = {position_m, rotation_deg};
  fixture.segments.push_back({std::string(shapeName(shape)), shape, {}});
  put(show.fixtures, fixture);
  addWholeZone(show, fixture);
  return fixture.id;
}

std::vector<FixtureId> duplicateFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 offset_m) {
  std::vector<FixtureId> copies;
  for (const FixtureId id : ids) {
    const Fixture* original = find(show.fixtures, id);
    if (!original) continue;
    Fixture copy = *original;
    copy.id = show.newId<FixtureId>();
    copy.name = nextName(show.fixtures, original->name);
    copy.place.position_m = copy.place.position_m + offset_m;
    put(show.fixtures, copy);
    addWholeZone(show, copy);
    copies.push_back(copy.id);
  }
  return copies;
}

std::vector<FixtureId> duplicateInRow(Show& show, const std::vector<FixtureId>& ids, int count, Vec3 step_m) {
  std::vector<FixtureId> all;
  for (int i = 1; i < count; ++i) {
    const auto copies = duplicateFixtures(show, ids, step_m * i);
    all.insert(all.end(), copies.begin(), copies.end());
  }
  return all;
}

std::vector<FixtureId> duplicateAround(Show& show, const std::vector<FixtureId>& ids, int count, Vec3 centre_m, double sweep_deg) {
  const bool isFull = std::abs(std::abs(sweep_deg) - 360) < 1e-9;
  const double step_deg = sweep_deg / (isFull ? std::max(1, count) : std::max(1, count - 1));
  std::vector<FixtureId> all;
  for (int i = 1; i < count; ++i) {
    for (const FixtureId copy : duplicateFixtures(show, ids, {})) {
      changeItem(show.fixtures, copy, [&](Fixture& fixture) {
        const Placement turn{{centre_m.x, centre_m.y, 0}, {0, 0, step_deg * i}};
        fixture.place.position_m = placed(turn, fixture.place.position_m - Vec3{centre_m.x, centre_m.y, 0});
        fixture.place.rotation_deg.z = std::remainder(fixture.place.rotation_deg.z + step_deg * i, 360.0);
      });
      all.push_back(copy);
    }
  }
  return all;
}

void deleteFixtures(Show& show, const std::vector<FixtureId>& ids) {
  for (const FixtureId id : ids) remove(show.fixtures, id);
  dropFromZones(show, ids);
  dropFromPorts(show, ids);
}

void moveFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 by_m) {
  for (const FixtureId id : ids)
    changeItem(show.fixtures, id, [&](Fixture& fixture) { fixture.place.position_m = fixture.place.position_m + by_m; });
}

void refitBeads(Show& show, FixtureId id, int countBefore) {
  const Fixture* fixture = find(show.fixtures, id);
  const int count = fixture ? pixelCount(*fixture) : 0;
  if (count == countBefore) return;
  for (const auto& controller : Items<Controller>(show.controllers)) {
    Controller fitted = *controller;
    for (Port& port : fitted.ports) {
      for (Bead& bead : port.run) {
        if (bead.fixture != id) continue;
        const bool reachedEnd = bead.first + bead.count >= countBefore;
        bead.count = reachedEnd ? count - bead.first : std::min(bead.count, count - bead.first);
      }
      std::erase_if(port.run, [&](const Bead& bead) { return bead.fixture == id && bead.count <= 0; });
    }
    if (fitted != *controller) put(show.controllers, fitted);
  }
}

bool hasFreeLength(const Segment& segment) {
  return std::holds_alternative<LineShape>(segment.shape) || std::holds_alternative<ArcShape>(segment.shape) ||
         std::holds_alternative<GridShape>(segment.shape);
}

double pitch_m(const Segment& segment) {
  if (const auto* line = std::get_if<LineShape>(&segment.shape)) return line->pitch_m;
  if (const auto* grid = std::get_if<GridShape>(&segment.shape))
    return grid->runs == GridRuns::AlongRows ? grid->columnPitch_m : grid->rowPitch_m;
  return stripLength_m(segment.shape) / std::max(1, pixelCount(segment.shape));
}

void setPitch(Segment& segment, double pitch) {
  if (auto* line = std::get_if<LineShape>(&segment.shape)) line->pitch_m = pitch;
  if (auto* grid = std::get_if<GridShape>(&segment.shape))
    (grid->runs == GridRuns::AlongRows ? grid->columnPitch_m : grid->rowPitch_m) = pitch;
  if (auto* arc = std::get_if<ArcShape>(&segment.shape))
    arc->radius_m = pitch * arc->count / std::max(1e-6, std::abs(radians(arc->sweep_deg)));
  // Where the geometry is fixed, the pitch says how many pixels there are.
  const auto fitting = [&] { return std::clamp(static_cast<int>(std::lround(stripLength_m(segment.shape) / pitch)), 1, limits::kMostPixelsOfSegment); };
  if (std::holds_alternative<PathShape>(segment.shape)) {
    const int count = fitting();
    std::get<PathShape>(segment.shape).count = count;
  }
  if (std::holds_alternative<SpiralShape>(segment.shape)) {
    const int count = fitting();
    std::get<SpiralShape>(segment.shape).count = count;
  }
}

void setLength(Segment& segment, double length_m) {
  if (const auto* grid = std::get_if<GridShape>(&segment.shape)) {
    const int side = grid->runs == GridRuns::AlongRows ? grid->columns : grid->rows;
    setPitch(segment, length_m / side);
  } else {
    setPitch(segment, length_m / pixelCount(segment.shape));
  }
}

StripTypeId addStripType(Show& show, const std::vector<FixtureId>& fixtures) {
  const Fixture* first = fixtures.empty() ? nullptr : find(show.fixtures, fixtures.front());
  StripType strip = first ? stripTypeOf(show, *first) : StripType{};
  strip.id = show.newId<StripTypeId>();
  strip.name = freeName(show.stripTypes, strip.name.empty() ? "Strip" : strip.name);
  put(show.stripTypes, strip);
  for (const FixtureId id : fixtures) changeItem(show.fixtures, id, [&](Fixture& fixture) { fixture.stripType = strip.id; });
  return strip.id;
}

ZoneId addZone(Show& show, const std::string& name, const std::vector<FixtureId>& fixtures) {
  Zone zone;
  zone.id = show.newId<ZoneId>();
  zone.name = freeName(show.zones, name);
  for (const FixtureId id : fixtures) zone.parts.push_back({id, std::nullopt, false});
  put(show.zones, zone);
  addStaves(show, zone.id);
  return zone.id;
}

void deleteZone(Show& show, ZoneId id) {
  remove(show.zones, id);
  for (const auto& score : Items<Score>(show.scores)) {
    Score left = *score;
    std::erase(left.staves, id);
    std::erase_if(left.clips, [id](const auto& clip) { return clip->zone == id; });
    if (!(left == *score)) put(show.scores, left);
  }
}

void reverseZone(Show& show, ZoneId id) {
  changeItem(show.zones, id, [](Zone& zone) {
    std::reverse(zone.parts.begin(), zone.parts.end());
    for (ZonePart& part : zone.parts) part.reversed = !part.reversed;
  });
}

std::vector<ZoneId> zoneForEachPart(Show& show, ZoneId id) {
  std::vector<ZoneId> made;
  const Zone* found = find(show.zones, id);
  if (!found) return made;
  const Zone whole = *found;
  for (const ZonePart& part : whole.parts) {
    Zone one{show.newId<ZoneId>(), nextName(show.zones, whole.name + " 0"), {part}, whole.layout, whole.pixelsPerCell};
    // A string alone is a line.
    if (one.layout == ZoneLayout::Strings) one.layout = ZoneLayout::Strand;
    put(show.zones, one);
    addStaves(show, one.id);
    made.push_back(one.id);
  }
  return made;
}

ZoneId combineZones(Show& show, ZoneId id, ZoneId with) {
  const Zone* first = find(show.zones, id);
  const Zone* second = find(show.zones, with);
  if (!first || !second) return {};
  Zone both = *first;
  both.parts.insert(both.parts.end(), second->parts.begin(), second->parts.end());
  both.id = show.newId<ZoneId>();
  both.name = freeName(show.zones, first->name + " and " + second->name);
  put(show.zones, both);
  addStaves(show, both.id);
  return both.id;
}

}  // namespace chispa
