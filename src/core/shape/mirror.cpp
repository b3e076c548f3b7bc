// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/base/overloaded.h"
#include "core/shape/shape.h"

namespace chispa {
namespace {

Corner flipped(Corner corner) {
  switch (corner) {
    case Corner::BottomLeft:
      return Corner::TopLeft;
    case Corner::BottomRight:
      return Corner::TopRight;
    case Corner::TopLeft:
      return Corner::BottomLeft;
    case Corner::TopRight:
      return Corner::BottomRight;
  }
  return corner;
}

std::vector<Vec3> flipped(std::vector<Vec3> points) {
  for (Vec3& p : points) p.y = -p.y;
  return points;
}

void flip(LineShape&) {}
void flip(GridShape& grid) {
  grid.start = flipped(grid.start);
  for (GridCell& hole : grid.holes) hole.row = grid.rows - 1 - hole.row;
  std::sort(grid.holes.begin(), grid.holes.end());
}
void flip(ArcShape& arc) {
  arc.start_deg = -arc.start_deg;
  arc.sweep_deg = -arc.sweep_deg;
}
void flip(PathShape& path) {
  path.corners = flipped(std::move(path.corners));
}
void flip(RingsShape& rings) {
  rings.start_deg = -rings.start_deg;
  rings.clockwise = !rings.clockwise;
}
void flip(SpiralShape& spiral) {
  spiral.turns = -spiral.turns;
}
void flip(ConeShape& cone) {
  cone.start_deg = -cone.start_deg;
  cone.sweep_deg = -cone.sweep_deg;
}
void flip(SpokesShape& spokes) {
  spokes.start_deg = -spokes.start_deg;
  spokes.sweep_deg = -spokes.sweep_deg;
}
void flip(PointsShape& shape) {
  shape.points = flipped(std::move(shape.points));
}

}  // namespace

Shape mirrored(const Shape& shape) {
  Shape image = shape;
  std::visit([](auto& s) { flip(s); }, image);
  return image;
}

}  // namespace chispa
