// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/shape.h"

#include <algorithm>
#include <cstdlib>
#include <numeric>

#include "core/base/overloaded.h"

namespace chispa {
namespace {

Vec3 onCircle(double radius_m, double degrees, double height_m = 0) {
  return {radius_m * std::cos(radians(degrees)), radius_m * std::sin(radians(degrees)), height_m};
}

/// Angle of string `i` of `count` over a sweep: a full turn leaves no two strings on one another.
double stringAngle(double start_deg, double sweep_deg, int i, int count) {
  const bool isFull = std::abs(std::abs(sweep_deg) - 360) < 1e-9;
  const int gaps = isFull ? count : std::max(1, count - 1);
  return start_deg + sweep_deg * i / gaps;
}

/// Place along its string, from 0, of the `along`th pixel in data order.
int alongString(StringWay way, int string, int along, int perString) {
  const bool back = way == StringWay::Back || (way == StringWay::Serpentine && string % 2 == 1);
  return back ? perString - 1 - along : along;
}

constexpr int kCurveStepsPerTurn = 256;

std::vector<Vec3> spiralWay(const SpiralShape& s) {
  const int steps = std::max(2, static_cast<int>(std::abs(s.turns) * kCurveStepsPerTurn));
  std::vector<Vec3> way;
  for (int i = 0; i <= steps; ++i) {
    const double u = static_cast<double>(i) / steps;
    way.push_back(onCircle(s.startRadius_m + (s.endRadius_m - s.startRadius_m) * u, 360 * s.turns * u, s.rise_m * u));
  }
  return way;
}

/// A point of the centripetal Catmull-Rom curve between b and c (Barry and Goldman's pyramid, 1988).
Vec3 curvePoint(Vec3 a, Vec3 b, Vec3 c, Vec3 d, double u) {
  const auto gap = [](Vec3 p, Vec3 q) { return std::max(1e-6, std::sqrt(length(q - p))); };
  const double t1 = gap(a, b);
  const double t2 = t1 + gap(b, c);
  const double t3 = t2 + gap(c, d);
  const double t = t1 + (t2 - t1) * u;
  const auto mix = [t](Vec3 p, double tp, Vec3 q, double tq) { return p * ((tq - t) / (tq - tp)) + q * ((t - tp) / (tq - tp)); };
  const Vec3 ab = mix(a, 0, b, t1);
  const Vec3 bc = mix(b, t1, c, t2);
  const Vec3 cd = mix(c, t2, d, t3);
  return mix(mix(ab, 0, bc, t2), t1, mix(bc, t1, cd, t3), t2);
}

std::vector<Vec3> pathWay(const PathShape& path) {
  const auto& p = path.corners;
  if (!path.smooth || p.size() < 3) return p;
  constexpr int kSteps = 32;
  std::vector<Vec3> way;
  for (std::size_t i = 0; i + 1 < p.size(); ++i) {
    // Ends are continued straight, so that the curve begins and ends at its outer corners.
    const Vec3 before = i > 0 ? p[i - 1] : p[0] * 2 - p[1];
    const Vec3 after = i + 2 < p.size() ? p[i + 2] : p[i + 1] * 2 - p[i];
    for (int step = 0; step < kSteps; ++step) way.push_back(curvePoint(before, p[i], p[i + 1], after, static_cast<double>(step) / kSteps));
  }
  way.push_back(p.back());
  return way;
}

/// Radius of ring `i`, the innermost being 0.
double ringRadius(const RingsShape& rings, std::size_t i) {
  if (rings.counts.size() < 2) return rings.outerRadius_m;
  return rings.innerRadius_m + (rings.outerRadius_m - rings.innerRadius_m) * static_cast<double>(i) / static_cast<double>(rings.counts.size() - 1);
}

template <class F>
std::vector<Vec3> points(int count, F pointOf) {
  std::vector<Vec3> all(static_cast<std::size_t>(count));
  for (int i = 0; i < count; ++i) all[static_cast<std::size_t>(i)] = pointOf(i);
  return all;
}

std::vector<Vec3> positionsOf(const LineShape& line) {
  return points(line.count, [&](int i) { return Vec3{(i + 0.5) * line.pitch_m, 0, 0}; });
}

std::vector<Vec3> positionsOf(const GridShape& grid) {
  return points(grid.columns * grid.rows, [&](int i) {
    const GridCell at = gridCell(grid, i);
    return Vec3{(at.column - (grid.columns - 1) / 2.0) * grid.columnPitch_m, (at.row - (grid.rows - 1) / 2.0) * grid.rowPitch_m, 0};
  });
}

std::vector<Vec3> positionsOf(const ArcShape& arc) {
  return points(arc.count, [&](int i) { return onCircle(arc.radius_m, arc.start_deg + arc.sweep_deg * (i + 0.5) / arc.count); });
}

std::vector<Vec3> positionsOf(const PathShape& path) { return spreadAlong(pathWay(path), path.count); }
std::vector<Vec3> positionsOf(const SpiralShape& spiral) { return spreadAlong(spiralWay(spiral), spiral.count); }
std::vector<Vec3> positionsOf(const PointsShape& shape) { return shape.points; }

std::vector<Vec3> positionsOf(const RingsShape& rings) {
  std::vector<Vec3> all;
  for (std::size_t n = 0; n < rings.counts.size(); ++n) {
    const std::size_t ring = rings.outsideIn ? rings.counts.size() - 1 - n : n;
    const int count = rings.counts[ring];
    for (int i = 0; i < count; ++i) all.push_back(onCircle(ringRadius(rings, ring), rings.start_deg + 360.0 * i / count));
  }
  return all;
}

/// Place 0–1 of cell `row` of `rows`: both ends are taken.
double share(int row, int rows) { return rows > 1 ? static_cast<double>(row) / (rows - 1) : 0.5; }

std::vector<Vec3> positionsOf(const ConeShape& cone) {
  return points(cone.strings * cone.perString, [&](int i) {
    const GridCell at = *matrixCell(cone, i);
    const double up = share(at.row, cone.perString);
    return onCircle(cone.bottomRadius_m + (cone.topRadius_m - cone.bottomRadius_m) * up,
                    stringAngle(cone.start_deg, cone.sweep_deg, at.column, cone.strings), cone.height_m * up);
  });
}

std::vector<Vec3> positionsOf(const SpokesShape& s) {
  return points(s.spokes * s.perSpoke, [&](int i) {
    const GridCell at = *matrixCell(s, i);
    return onCircle(s.innerRadius_m + (s.outerRadius_m - s.innerRadius_m) * share(at.row, s.perSpoke),
                    stringAngle(s.start_deg, s.sweep_deg, at.column, s.spokes));
  });
}

}  // namespace

double wayLength_m(const std::vector<Vec3>& corners) {
  double sum = 0;
  for (std::size_t i = 1; i < corners.size(); ++i) sum += length(corners[i] - corners[i - 1]);
  return sum;
}

std::vector<Vec3> spreadAlong(const std::vector<Vec3>& corners, int count) {
  if (corners.empty()) return points(count, [](int) { return Vec3{}; });
  const double whole = wayLength_m(corners);
  std::size_t leg = 1;
  double passed = 0;
  return points(count, [&](int i) {
    const double wanted = whole * (i + 0.5) / count;
    while (leg + 1 < corners.size() && passed + length(corners[leg] - corners[leg - 1]) < wanted) {
      passed += length(corners[leg] - corners[leg - 1]);
      ++leg;
    }
    if (leg >= corners.size()) return corners.back();
    const double gap = length(corners[leg] - corners[leg - 1]);
    return corners[leg - 1] + (corners[leg] - corners[leg - 1]) * (gap > 0 ? (wanted - passed) / gap : 0);
  });
}

GridCell gridCell(const GridShape& grid, int pixel) {
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const int stripLength = alongRows ? grid.columns : grid.rows;
  const int strip = pixel / stripLength;
  int along = pixel % stripLength;
  if (grid.serpentine && strip % 2 == 1) along = stripLength - 1 - along;
  GridCell at = alongRows ? GridCell{strip, along} : GridCell{along, strip};
  if (grid.start == Corner::TopLeft || grid.start == Corner::TopRight) at.row = grid.rows - 1 - at.row;
  if (grid.start == Corner::BottomRight || grid.start == Corner::TopRight)
    at.column = grid.columns - 1 - at.column;
  return at;
}

std::optional<GridCell> matrixCell(const Shape& shape, int pixel) {
  const auto inStrings = [pixel](int perString, StringWay way) {
    const int string = pixel / perString;
    return GridCell{alongString(way, string, pixel % perString, perString), string};
  };
  if (const auto* grid = std::get_if<GridShape>(&shape)) return gridCell(*grid, pixel);
  if (const auto* cone = std::get_if<ConeShape>(&shape)) return inStrings(cone->perString, cone->way);
  if (const auto* spokes = std::get_if<SpokesShape>(&shape)) return inStrings(spokes->perSpoke, spokes->way);
  return std::nullopt;
}

int pixelCount(const Shape& shape) {
  return std::visit(
      Overloaded{[](const GridShape& s) { return s.columns * s.rows; }, [](const ConeShape& s) { return s.strings * s.perString; },
                 [](const SpokesShape& s) { return s.spokes * s.perSpoke; },
                 [](const RingsShape& s) { return std::accumulate(s.counts.begin(), s.counts.end(), 0); },
                 [](const PointsShape& s) { return static_cast<int>(s.points.size()); },
                 [](const auto& strip) { return strip.count; }},
      shape);
}

std::vector<Vec3> localPositions(const Shape& shape) {
  return std::visit([](const auto& s) { return positionsOf(s); }, shape);
}

double stripLength_m(const Shape& shape) {
  return std::visit(
      Overloaded{[](const LineShape& line) { return line.count * line.pitch_m; },
                 [](const GridShape& grid) {
                   const bool alongRows = grid.runs == GridRuns::AlongRows;
                   return grid.columns * grid.rows * (alongRows ? grid.columnPitch_m : grid.rowPitch_m);
                 },
                 [](const ArcShape& arc) { return std::abs(radians(arc.sweep_deg)) * arc.radius_m; },
                 [](const PathShape& path) { return wayLength_m(pathWay(path)); },
                 [](const SpiralShape& spiral) { return wayLength_m(spiralWay(spiral)); },
                 [](const ConeShape& cone) { return cone.strings * std::hypot(cone.height_m, cone.bottomRadius_m - cone.topRadius_m); },
                 [](const SpokesShape& s) { return s.spokes * std::abs(s.outerRadius_m - s.innerRadius_m); },
                 [](const RingsShape& rings) {
                   double sum = 0;
                   for (std::size_t i = 0; i < rings.counts.size(); ++i) sum += 2 * kPi * ringRadius(rings, i);
                   return sum;
                 },
                 [](const PointsShape& s) { return wayLength_m(s.points); }},
      shape);
}

std::string_view shapeName(const Shape& shape) {
  static constexpr std::string_view kNames[] = {"line", "grid", "arc", "path", "rings", "spiral", "cone", "spokes", "points"};
  static_assert(std::size(kNames) == std::variant_size_v<Shape>);
  return kNames[shape.index()];
}

}  // namespace chispa
