// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"

#include <algorithm>
#include <cmath>

#include "core/edit/zoneedits.h"
#include "core/show/finditems.h"
#include "core/show/strip.h"
#include "core/show/stripwhite.h"

namespace chispa {
namespace {

std::string shapeTitle(const Shape& shape) {
  static constexpr const char* kTitles[] = {"Line",   "Matrix", "Ring",   "Path",  "Rings",
                                            "Spiral", "Cone",   "Spokes", "Points"};
  static_assert(std::size(kTitles) == std::variant_size_v<Shape>);
  return kTitles[shape.index()];
}

void addWholeZone(Show& show, const Fixture& fixture) {
  addZone(show, fixture.name, {fixture.id});
}

/// A fixture without segments yet, of `strip` or of the show's first strip type.
Fixture newFixture(Show& show, const std::string& name, const Placement& place, StripTypeId strip) {
  Fixture fixture;
  fixture.id = show.newId<FixtureId>();
  fixture.name = freeName(show.fixtures, name);
  fixture.stripType = strip ? strip : show.stripTypes.empty() ? StripTypeId{} : show.stripTypes.front()->id;
  fixture.place = place;
  return fixture;
}

bool isOneOf(const std::vector<FixtureId>& ids, FixtureId id) {
  return std::find(ids.begin(), ids.end(), id) != ids.end();
}

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
    for (Port& port : left.ports)
      std::erase_if(port.run, [&](const Bead& bead) { return isOneOf(ids, bead.fixture); });
    if (left != *controller) put(show.controllers, left);
  }
}

}  // namespace

FixtureId addFixture(Show& show, const Shape& shape, Vec3 position_m, Vec3 rotation_deg, StripTypeId strip) {
  Fixture fixture = newFixture(show, shapeTitle(shape), {position_m, rotation_deg}, strip);
  fixture.segments.push_back({std::string(shapeName(shape)), shape, {}});
  put(show.fixtures, fixture);
  addWholeZone(show, fixture);
  return fixture.id;
}

FixtureId addOutlines(Show& show, const std::string& name, const std::vector<Outline>& outlines,
                      const Placement& place, StripTypeId strip) {
  if (outlines.empty()) return {};
  Fixture fixture = newFixture(show, name, place, strip);
  const StripType& type = stripTypeOf(show, fixture);
  for (std::size_t i = 0; i < outlines.size(); ++i) {
    const std::string number = "line " + std::to_string(i + 1);
    Segment segment{
        outlines[i].name.empty() ? number : outlines[i].name, PathShape{1, outlines[i].corners_m}, {}};
    setPitch(segment, 1 / type.pixelsPerMetre, type, Follows::Pixels);
    fixture.segments.push_back(std::move(segment));
  }
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

void turnAround(Show& show, const std::vector<FixtureId>& ids, Vec3 centre_m, double degrees) {
  const Vec3 axis{centre_m.x, centre_m.y, 0};
  for (const FixtureId id : ids)
    changeItem(show.fixtures, id, [&](Fixture& fixture) {
      fixture.place.position_m = placed({axis, {0, 0, degrees}}, fixture.place.position_m - axis);
      fixture.place.rotation_deg.z = std::remainder(fixture.place.rotation_deg.z + degrees, 360.0);
    });
}

std::vector<FixtureId> duplicateAround(Show& show, const std::vector<FixtureId>& ids, int count,
                                       Vec3 centre_m, double sweep_deg) {
  const bool isFull = std::abs(std::abs(sweep_deg) - 360) < 1e-9;
  const double step_deg = sweep_deg / (isFull ? std::max(1, count) : std::max(1, count - 1));
  std::vector<FixtureId> all;
  for (int i = 1; i < count; ++i) {
    const auto copies = duplicateFixtures(show, ids, {});
    turnAround(show, copies, centre_m, step_deg * i);
    all.insert(all.end(), copies.begin(), copies.end());
  }
  return all;
}

void deleteFixtures(Show& show, const std::vector<FixtureId>& ids) {
  for (const FixtureId id : ids) remove(show.fixtures, id);
  dropFromZones(show, ids);
  dropFromPorts(show, ids);
}

void moveFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 by_m) {
  changeItems(show.fixtures, ids,
              [&](Fixture& fixture) { fixture.place.position_m = fixture.place.position_m + by_m; });
}

StripTypeId takeStripType(Show& show, const StripType& strip) {
  StripType taken = strip;
  taken.id = show.newId<StripTypeId>();
  taken.name = freeName(show.stripTypes, strip.name);
  const StripTypeId id = taken.id;
  put(show.stripTypes, std::move(taken));
  return id;
}

namespace {

/// A strip of which no more is known: with the chips that most have, balanced to daylight.
StripType usualStrip() {
  StripType strip;
  strip.chips = usualChips();
  strip.white = daylightShares(*strip.chips);
  return strip;
}

}  // namespace

StripTypeId addStripType(Show& show, const std::vector<FixtureId>& fixtures) {
  const Fixture* first = fixtures.empty() ? nullptr : find(show.fixtures, fixtures.front());
  StripType strip =
      first && find(show.stripTypes, first->stripType) ? stripTypeOf(show, *first) : usualStrip();
  strip.id = show.newId<StripTypeId>();
  strip.name = freeName(show.stripTypes, strip.name.empty() ? "Strip" : strip.name);
  put(show.stripTypes, strip);
  for (const FixtureId id : fixtures)
    changeItem(show.fixtures, id, [&](Fixture& fixture) { fixture.stripType = strip.id; });
  return strip.id;
}

}  // namespace chispa
