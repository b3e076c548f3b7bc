// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/shape/placement.h"
#include "core/shape/shape.h"
#include "core/show/fieldtypes.h"
#include "core/show/limits.h"

/// Members of places and shapes, described as showfields.h says.
namespace chispa::fields {

template <class V>
void describe(V& v, Is<Placement> auto& p) {
  v.vector("position_m", p.position_m, limits::kLargest_m);
  v.vector("rotation_deg", p.rotation_deg, limits::kMaxTurn_deg);
}

template <class V>
void pixels(V& v, auto& count) {
  v.whole("count", count, 1, limits::kMaxPixelsOfSegment);
}
template <class V>
void angle(V& v, const char* key, auto& degrees, double most = limits::kMaxTurn_deg) {
  v.number(key, degrees, -most, most);
}
template <class V>
void radius(V& v, const char* key, auto& metres) {
  v.number(key, metres, 0, limits::kLargest_m);
}
template <class V>
void pitch(V& v, const char* key, auto& metres) {
  v.number(key, metres, 1e-5, limits::kLargest_m);
}

template <class V>
void describe(V& v, Is<LineShape> auto& s) {
  pixels(v, s.count);
  pitch(v, "pitch_m", s.pitch_m);
}

template <class V>
void describe(V& v, Is<GridShape> auto& s) {
  static const GridShape plain;
  v.whole("columns", s.columns, 1, limits::kMaxPixelsOfSegment);
  v.whole("rows", s.rows, 1, limits::kMaxPixelsOfSegment / s.columns);
  pitch(v, "column_pitch_m", s.columnPitch_m);
  pitch(v, "row_pitch_m", s.rowPitch_m);
  v.word("start", s.start);
  v.word("runs", s.runs);
  v.flag("serpentine", s.serpentine);
  v.whole("missing", s.missing, 0, (s.runs == GridRuns::AlongRows ? s.columns : s.rows) - 1, &plain.missing);
  v.gridCells("holes", s.holes, s.rows, s.columns);
  v.require(std::ssize(s.holes) < s.columns * s.rows - s.missing, "the grid has holes only");
}

template <class V>
void describe(V& v, Is<ArcShape> auto& s) {
  pixels(v, s.count);
  pitch(v, "radius_m", s.radius_m);
  angle(v, "start_deg", s.start_deg);
  angle(v, "sweep_deg", s.sweep_deg, 360);
}

template <class V>
void describe(V& v, Is<PathShape> auto& s) {
  pixels(v, s.count);
  v.flag("smooth", s.smooth);
  v.points("corners_m", s.corners, limits::kLargest_m);
}

template <class V>
void describe(V& v, Is<RingsShape> auto& s) {
  v.wholes("counts", s.counts, 1, limits::kMaxPixelsOfSegment);
  std::int64_t sum = 0;
  for (const int count : s.counts) sum += count;
  v.require(sum >= 1 && sum <= limits::kMaxPixelsOfSegment,
            "counts is empty, or makes more pixels than any strip has");
  radius(v, "inner_radius_m", s.innerRadius_m);
  radius(v, "outer_radius_m", s.outerRadius_m);
  angle(v, "start_deg", s.start_deg);
  v.flag("outside_in", s.outsideIn);
  v.flag("clockwise", s.clockwise);
}

template <class V>
void describe(V& v, Is<SpiralShape> auto& s) {
  pixels(v, s.count);
  v.number("turns", s.turns, -1000, 1000);
  radius(v, "start_radius_m", s.startRadius_m);
  radius(v, "end_radius_m", s.endRadius_m);
  v.number("rise_m", s.rise_m, -limits::kLargest_m, limits::kLargest_m);
}

template <class V>
void describe(V& v, Is<ConeShape> auto& s) {
  v.whole("strings", s.strings, 1, limits::kMaxPixelsOfSegment);
  v.whole("per_string", s.perString, 1, limits::kMaxPixelsOfSegment / s.strings);
  radius(v, "bottom_radius_m", s.bottomRadius_m);
  radius(v, "top_radius_m", s.topRadius_m);
  v.number("height_m", s.height_m, -limits::kLargest_m, limits::kLargest_m);
  angle(v, "start_deg", s.start_deg);
  angle(v, "sweep_deg", s.sweep_deg, 360);
  v.word("way", s.way);
}

template <class V>
void describe(V& v, Is<SpokesShape> auto& s) {
  v.whole("spokes", s.spokes, 1, limits::kMaxPixelsOfSegment);
  v.whole("per_spoke", s.perSpoke, 1, limits::kMaxPixelsOfSegment / s.spokes);
  radius(v, "inner_radius_m", s.innerRadius_m);
  radius(v, "outer_radius_m", s.outerRadius_m);
  angle(v, "start_deg", s.start_deg);
  angle(v, "sweep_deg", s.sweep_deg, 360);
  v.word("way", s.way);
}

template <class V>
void describe(V& v, Is<PointsShape> auto& s) {
  v.points("points_m", s.points, limits::kLargest_m);
  v.require(s.points.size() <= static_cast<std::size_t>(limits::kMaxPixelsOfSegment),
            "it has more points than any strip");
}

}  // namespace chispa::fields
