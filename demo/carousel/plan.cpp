// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "carousel/carousel.h"

#include "core/zone/partpixels.h"

namespace chispa::demo {
namespace {

constexpr int kPosts = 12;
constexpr double kRimRadius_m = 3.0;
constexpr double kRimHeight_m = 3.4;

/// Two wires of 0.75 mm² between the pixels of a string, of 1.5 mm² behind panels.
constexpr double kStringWire_ohm = 0.047;
constexpr double kPanelWire_ohm = 0.024;

StripTypeId addStrip(Show& show, const std::string& name, const std::string& order, double perMetre,
                     double volts, double channel_ma, StripBuild build = StripBuild::Reel,
                     double ohmsPerMetre = StripType().ohmsPerMetre) {
  StripType strip;
  strip.id = show.newId<StripTypeId>();
  strip.name = name;
  strip.order = order;
  strip.pixelsPerMetre = perMetre;
  strip.volts = volts;
  strip.channel_ma = channel_ma;
  strip.build = build;
  strip.ohmsPerMetre = ohmsPerMetre;
  put(show.stripTypes, strip);
  return strip.id;
}

void addFixture(Show& show, const std::string& name, StripTypeId strip, Placement place,
                std::vector<Segment> segments) {
  put(show.fixtures, Fixture{show.newId<FixtureId>(), name, strip, place, std::move(segments)});
}

Vec3 around(double radius_m, double degrees, double height_m) {
  return {radius_m * std::cos(radians(degrees)), radius_m * std::sin(radians(degrees)), height_m};
}

std::string numbered(const std::string& base, int i) {
  return base + " " + std::to_string(i + 1);
}

void addRibs(Show& show, StripTypeId strip) {
  constexpr double kInner_m = 0.35;
  constexpr double kApex_m = 4.6;
  constexpr int kPixels = 30;
  // As drawn from the rim to the apex, in whole sixtieths of a metre.
  constexpr double kLength_m = 175.0 / 60;
  const double run = kRimRadius_m - kInner_m;
  const double rise = kApex_m - kRimHeight_m;
  const double tilt = degrees(std::atan2(rise, run));
  for (int i = 0; i < kPosts; ++i) {
    const double angle = 30.0 * i;
    addFixture(show, numbered("Rib", i), strip,
               {around(kRimRadius_m, angle, kRimHeight_m), {0, -tilt, angle + 180}},
               {{"rib", LineShape{kPixels, kLength_m / kPixels}, {}}});
  }
}

void addPosts(Show& show, StripTypeId strip) {
  for (int i = 0; i < kPosts; ++i) {
    const double angle = 15 + 30.0 * i;
    // In a post's own frame x points up; the lantern's ring lies across it on top.
    addFixture(show, numbered("Post", i), strip, {around(2.6, angle, 0.4), {0, -90, angle}},
               {{"shaft", LineShape{26, 0.1}, {}},
                {"lantern", ArcShape{6, 0.08, 0, 360}, {{2.68, 0, 0}, {0, 90, 0}}}});
  }
}

void addColumn(Show& show, StripTypeId strip) {
  for (int i = 0; i < 8; ++i) {
    const double angle = -90 + 45.0 * i;
    addFixture(
        show, numbered("Panel", i), strip, {around(0.92, angle, 1.7), {90, 0, angle + 90}},
        {{"panel", GridShape{12, 20, 0.06, 0.09, Corner::BottomLeft, GridRuns::AlongColumns, true}, {}}});
  }
}

}  // namespace

void addPieces(Show& show) {
  const StripTypeId meadow =
      addStrip(show, "Meadow 10 mm", "GRB", 60, 5, 12, StripBuild::String, kStringWire_ohm);
  const StripTypeId heron = addStrip(show, "Heron panel", "RGB", 60, 5, 8, StripBuild::Panel, kPanelWire_ohm);
  const StripTypeId flood = addStrip(show, "Barn flood", "RGB", 1, 12, 700);
  const StripTypeId uplight = addStrip(show, "Willow uplight", "RGBW", 1, 12, 300);
  addFixture(show, "Canopy rim", meadow, {{0, 0, kRimHeight_m}, {}},
             {{"rim", ArcShape{300, kRimRadius_m, 0, 360}, {}}});
  addRibs(show, meadow);
  addPosts(show, meadow);
  addColumn(show, heron);
  addFixture(show, "Booth sign", heron, {{4.9, -1.6, 2.0}, {90, 0, 0}},
             {{"sign", GridShape{48, 16, 0.035, 0.035, Corner::TopLeft, GridRuns::AlongRows, true}, {}}});
  addFixture(show, "Path edge", meadow, {{0, 0, 0.05}, {}},
             {{"edge", ArcShape{300, 4.6, 238.86, 62.28}, {}}});
  for (int i = 0; i < 6; ++i)
    addFixture(show, numbered("Flood", i), flood, {around(4.2, 30 + 60.0 * i, 0.3), {}},
               {{"flood", PointsShape{{Vec3{}}}, {}}});
  for (int i = 0; i < 8; ++i)
    addFixture(show, numbered("Uplight", i), uplight, {around(1.45, 22.5 + 45.0 * i, 0.15), {}},
               {{"lamp", PointsShape{{Vec3{}}}, {}}});
}

namespace {

Zone& addZone(Show& show, std::vector<Zone>& zones, const std::string& name, std::vector<ZonePart> parts,
              ZoneLayout layout, int pixelsPerCell = 1) {
  zones.push_back(Zone{show.newId<ZoneId>(), name, std::move(parts), layout, pixelsPerCell});
  return zones.back();
}

/// A part for each fixture whose name begins with `base`.
std::vector<ZonePart> partsOf(const Show& show, const std::string& base,
                              std::optional<int> segment = std::nullopt) {
  std::vector<ZonePart> parts;
  for (const auto& fixture : show.fixtures)
    if (fixture->name.starts_with(base)) parts.push_back({fixture->id, segment, false});
  return parts;
}

}  // namespace

namespace {

/// A line two columns wide that winds once around the column from its foot to its top.
std::vector<ZonePart> diagonalOf(const Show& show) {
  std::vector<ZonePart> parts;
  for (int panel = 0; panel < 8; ++panel) {
    ZonePart part = partsOf(show, numbered("Panel", panel)).front();
    std::vector<int> pixels;
    for (int column = 0; column < 12; ++column) {
      const int row = (panel * 12 + column) * 20 / 96;
      for (const int r : {row, row + 1})
        if (r < 20) pixels.push_back(column * 20 + (column % 2 == 0 ? r : 19 - r));
    }
    part.runs = runsOf(pixels);
    parts.push_back(part);
  }
  return parts;
}

}  // namespace

void addZones(Show& show) {
  std::vector<Zone> zones;
  const auto add = [&](const std::string& name, std::vector<ZonePart> parts, ZoneLayout layout,
                       int pixelsPerCell = 1) -> Zone& {
    return addZone(show, zones, name, std::move(parts), layout, pixelsPerCell);
  };
  std::vector<ZonePart> all;
  for (const auto& fixture : show.fixtures) all.push_back({fixture->id, std::nullopt, false});
  add("Canopy rim", partsOf(show, "Canopy rim"), ZoneLayout::Strand);
  Zone& ribs = add("Roof ribs", partsOf(show, "Rib"), ZoneLayout::Strings);
  ribs.order = ZoneOrder::Around;
  ribs.backwards = true;
  add("Posts", partsOf(show, "Post", 0), ZoneLayout::Strings);
  add("Lanterns", partsOf(show, "Post", 1), ZoneLayout::Strand, 0);
  add("Column", partsOf(show, "Panel"), ZoneLayout::SideBySide);
  add("Booth sign", partsOf(show, "Booth sign"), ZoneLayout::SideBySide);
  add("Path edge", partsOf(show, "Path edge"), ZoneLayout::Strand);
  add("Floods", partsOf(show, "Flood"), ZoneLayout::Strand);
  add("Uplights", partsOf(show, "Uplight"), ZoneLayout::Strand);
  add("Everything", all, ZoneLayout::Strand);
  ZonePart there = partsOf(show, "Canopy rim").front();
  ZonePart back = there;
  there.runs = {{0, 150, 1}};
  back.runs = {{299, 150, -1}};
  add("Rim mirrored", {there, back}, ZoneLayout::Strand).playsAsOne = true;
  add("Column diagonal", diagonalOf(show), ZoneLayout::SideBySide);
  add("By height", all, ZoneLayout::Strand).order = ZoneOrder::Upward;
  for (int post = 0; post < kPosts; ++post) {
    ZonePart shaft = partsOf(show, "Post").at(static_cast<std::size_t>(post));
    add(numbered("Post", post), {shaft}, ZoneLayout::Strand);
  }
  for (const Zone& zone : zones) put(show.zones, zone);
}

}  // namespace chispa::demo
