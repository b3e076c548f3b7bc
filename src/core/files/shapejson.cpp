// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/shapejson.h"

#include <set>

#include "core/files/fieldreader.h"
#include "core/files/names.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

constexpr int kMostPixels = limits::kMostPixelsOfSegment;

double readRadius(const FieldReader& in, const char* key, double fallback) { return in.number(key, 0, limits::kLargest_m, fallback); }
double readAngle(const FieldReader& in, const char* key, double most, double fallback) { return in.number(key, -most, most, fallback); }

std::vector<GridCell> readHoles(const FieldReader& in, const GridShape& grid) {
  std::set<GridCell> holes;
  in.each("holes", [&](const Json& hole) {
    if (!hole.is_array() || hole.size() != 2 || !hole[0].is_number_integer() || !hole[1].is_number_integer())
      throw FieldError("a hole is not a row and a column");
    const GridCell cell{hole[0].get<int>(), hole[1].get<int>()};
    if (cell.row < 0 || cell.row >= grid.rows || cell.column < 0 || cell.column >= grid.columns) throw FieldError("a hole lies outside the grid");
    holes.insert(cell);
  });
  if (std::ssize(holes) >= grid.columns * grid.rows - grid.missing) throw FieldError("the grid has holes only");
  return {holes.begin(), holes.end()};
}

GridShape readGrid(const FieldReader& in) {
  GridShape grid;
  grid.columns = in.whole<int>("columns", 1, kMostPixels, 8);
  grid.rows = in.whole<int>("rows", 1, kMostPixels / grid.columns, 8);
  grid.columnPitch_m = in.number("column_pitch_m", 1e-5, limits::kLargest_m, grid.columnPitch_m);
  grid.rowPitch_m = in.number("row_pitch_m", 1e-5, limits::kLargest_m, grid.rowPitch_m);
  grid.start = in.word("start", grid.start);
  grid.runs = in.word("runs", grid.runs);
  grid.serpentine = in.flag("serpentine", true);
  const int strip = grid.runs == GridRuns::AlongRows ? grid.columns : grid.rows;
  grid.missing = in.whole<int>("missing", 0, strip - 1, 0);
  grid.holes = readHoles(in, grid);
  return grid;
}

RingsShape readRings(const FieldReader& in) {
  RingsShape rings;
  rings.counts.clear();
  int left = kMostPixels;
  in.each("counts", [&](const Json& count) {
    if (!count.is_number_integer() || count.get<double>() < 1 || count.get<double>() > left) throw FieldError("counts holds something else than numbers of pixels");
    rings.counts.push_back(count.get<int>());
    left -= rings.counts.back();
  });
  if (rings.counts.empty()) throw FieldError("counts is empty");
  rings.innerRadius_m = readRadius(in, "inner_radius_m", rings.innerRadius_m);
  rings.outerRadius_m = readRadius(in, "outer_radius_m", rings.outerRadius_m);
  rings.start_deg = readAngle(in, "start_deg", 3600, 0);
  rings.outsideIn = in.flag("outside_in", true);
  rings.clockwise = in.flag("clockwise", false);
  return rings;
}

ConeShape readCone(const FieldReader& in) {
  ConeShape cone;
  cone.strings = in.whole<int>("strings", 1, kMostPixels, cone.strings);
  cone.perString = in.whole<int>("per_string", 1, kMostPixels / cone.strings, cone.perString);
  cone.bottomRadius_m = readRadius(in, "bottom_radius_m", cone.bottomRadius_m);
  cone.topRadius_m = readRadius(in, "top_radius_m", cone.topRadius_m);
  cone.height_m = in.number("height_m", -limits::kLargest_m, limits::kLargest_m, cone.height_m);
  cone.start_deg = readAngle(in, "start_deg", 3600, 0);
  cone.sweep_deg = readAngle(in, "sweep_deg", 360, 360);
  cone.way = in.word("way", cone.way);
  return cone;
}

SpokesShape readSpokes(const FieldReader& in) {
  SpokesShape s;
  s.spokes = in.whole<int>("spokes", 1, kMostPixels, s.spokes);
  s.perSpoke = in.whole<int>("per_spoke", 1, kMostPixels / s.spokes, s.perSpoke);
  s.innerRadius_m = readRadius(in, "inner_radius_m", s.innerRadius_m);
  s.outerRadius_m = readRadius(in, "outer_radius_m", s.outerRadius_m);
  s.start_deg = readAngle(in, "start_deg", 3600, 0);
  s.sweep_deg = readAngle(in, "sweep_deg", 360, 360);
  s.way = in.word("way", s.way);
  return s;
}

}  // namespace

Placement readPlacement(const Json& json) {
  const FieldReader in(json);
  return {in.vector("position_m", limits::kLargest_m), in.vector("rotation_deg", 3600)};
}

Shape readShape(const Json& json) {
  const FieldReader in(json);
  const std::string kind = in.text("kind");
  if (kind == "line") return LineShape{in.whole<int>("count", 1, kMostPixels, 1), in.number("pitch_m", 1e-5, limits::kLargest_m, 0.0166)};
  if (kind == "grid") return readGrid(in);
  if (kind == "arc")
    return ArcShape{in.whole<int>("count", 1, kMostPixels, 12), in.number("radius_m", 1e-5, limits::kLargest_m, 0.1),
                    readAngle(in, "start_deg", 3600, 0), readAngle(in, "sweep_deg", 360, 360)};
  if (kind == "path")
    return PathShape{in.whole<int>("count", 1, kMostPixels, 1), in.points("corners_m", limits::kLargest_m), in.flag("smooth", false)};
  if (kind == "rings") return readRings(in);
  if (kind == "spiral")
    return SpiralShape{in.whole<int>("count", 1, kMostPixels, 1), in.number("turns", -1000, 1000, 3), readRadius(in, "start_radius_m", 0.1),
                       readRadius(in, "end_radius_m", 0.5), in.number("rise_m", -limits::kLargest_m, limits::kLargest_m, 0)};
  if (kind == "cone") return readCone(in);
  if (kind == "spokes") return readSpokes(in);
  if (kind == "points") {
    PointsShape points{in.points("points_m", limits::kLargest_m)};
    if (points.points.size() > static_cast<std::size_t>(kMostPixels)) throw FieldError("it has more points than any strip");
    return points;
  }
  throw FieldError("shape \"" + kind + "\" is unknown to this version");
}

nlohmann::ordered_json toJson(const Vec3& v) { return Json::array({v.x, v.y, v.z}); }

nlohmann::ordered_json toJson(const Placement& place) {
  return {{"position_m", toJson(place.position_m)}, {"rotation_deg", toJson(place.rotation_deg)}};
}

namespace {

Json shapeJson(const LineShape& s) { return {{"kind", "line"}, {"count", s.count}, {"pitch_m", s.pitch_m}}; }

Json shapeJson(const GridShape& s) {
  Json json = {{"kind", "grid"},
          {"columns", s.columns},
          {"rows", s.rows},
          {"column_pitch_m", s.columnPitch_m},
          {"row_pitch_m", s.rowPitch_m},
          {"start", nameOf(s.start)},
          {"runs", nameOf(s.runs)},
          {"serpentine", s.serpentine}};
  if (s.missing > 0) json["missing"] = s.missing;
  for (const GridCell& hole : s.holes) json["holes"].push_back({hole.row, hole.column});
  return json;
}

Json shapeJson(const ArcShape& s) {
  return {{"kind", "arc"},
          {"count", s.count},
          {"radius_m", s.radius_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg}};
}

Json listOf(const std::vector<Vec3>& points) {
  Json list = Json::array();
  for (const Vec3& point : points) list.push_back(toJson(point));
  return list;
}

Json shapeJson(const PathShape& s) {
  return {{"kind", "path"}, {"count", s.count}, {"smooth", s.smooth}, {"corners_m", listOf(s.corners)}};
}

Json shapeJson(const RingsShape& s) {
  return {{"kind", "rings"},
          {"counts", s.counts},
          {"inner_radius_m", s.innerRadius_m},
          {"outer_radius_m", s.outerRadius_m},
          {"start_deg", s.start_deg},
          {"outside_in", s.outsideIn},
          {"clockwise", s.clockwise}};
}

Json shapeJson(const SpiralShape& s) {
  return {{"kind", "spiral"},
          {"count", s.count},
          {"turns", s.turns},
          {"start_radius_m", s.startRadius_m},
          {"end_radius_m", s.endRadius_m},
          {"rise_m", s.rise_m}};
}

Json shapeJson(const ConeShape& s) {
  return {{"kind", "cone"},
          {"strings", s.strings},
          {"per_string", s.perString},
          {"bottom_radius_m", s.bottomRadius_m},
          {"top_radius_m", s.topRadius_m},
          {"height_m", s.height_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg},
          {"way", nameOf(s.way)}};
}

Json shapeJson(const SpokesShape& s) {
  return {{"kind", "spokes"},
          {"spokes", s.spokes},
          {"per_spoke", s.perSpoke},
          {"inner_radius_m", s.innerRadius_m},
          {"outer_radius_m", s.outerRadius_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg},
          {"way", nameOf(s.way)}};
}

Json shapeJson(const PointsShape& s) { return {{"kind", "points"}, {"points_m", listOf(s.points)}}; }

}  // namespace

nlohmann::ordered_json toJson(const Shape& shape) {
  return std::visit([](const auto& s) { return shapeJson(s); }, shape);
}

}  // namespace chispa
