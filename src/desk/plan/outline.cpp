// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/outline.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace chispa::desk {
namespace {

/// Above 0 where a–b–c turns to the left.
double turn(QPointF a, QPointF b, QPointF c) {
  return (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
}

/// One side of the hull of points in ascending order, without its last point.
template <typename Iterator>
void addSide(Iterator begin, Iterator end, std::vector<QPointF>& hull) {
  const std::size_t first = hull.size();
  for (Iterator point = begin; point != end; ++point) {
    while (hull.size() >= first + 2 && turn(hull[hull.size() - 2], hull.back(), *point) <= 0) hull.pop_back();
    hull.push_back(*point);
  }
  hull.pop_back();
}

/// Corners of the convex hull, in the sense that turns left; one or two points are their own.
std::vector<QPointF> hullOf(std::vector<QPointF> points) {
  std::sort(points.begin(), points.end(),
            [](QPointF a, QPointF b) { return a.x() < b.x() || (a.x() == b.x() && a.y() < b.y()); });
  points.erase(std::unique(points.begin(), points.end(),
                           [](QPointF a, QPointF b) { return a.x() == b.x() && a.y() == b.y(); }),
               points.end());
  if (points.size() < 3) return points;
  std::vector<QPointF> hull;
  addSide(points.begin(), points.end(), hull);
  addSide(points.rbegin(), points.rend(), hull);
  return hull;
}

}  // namespace

QPolygonF outlineAbout(std::vector<QPointF> points, double margin) {
  const std::vector<QPointF> hull = hullOf(std::move(points));
  QPolygonF outline;
  if (hull.size() == 1) {
    const QPointF& at = hull.front();
    const double side = margin * 2, cut = margin * (1 - std::tan(std::numbers::pi / 8));
    for (const auto& [x, y] : {std::pair{cut, 0.0},
                               {side - cut, 0.0},
                               {side, cut},
                               {side, side - cut},
                               {side - cut, side},
                               {cut, side},
                               {0.0, side - cut},
                               {0.0, cut}})
      outline << at + QPointF(x - margin, y - margin);
    return outline;
  }
  const std::size_t count = hull.size();
  const auto directionFrom = [&](std::size_t i) {
    const QPointF along = hull[(i + 1) % count] - hull[i];
    return along / std::hypot(along.x(), along.y());
  };
  // How far a side reaches beyond its corner, so that the line that cuts the corner keeps its distance, too.
  const auto beyond = [&](std::size_t corner) {
    const QPointF in = directionFrom((corner + count - 1) % count), out = directionFrom(corner);
    const double turned = std::atan2(in.x() * out.y() - in.y() * out.x(), QPointF::dotProduct(in, out));
    return margin * std::tan(std::abs(turned) / 4);
  };
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t next = (i + 1) % count;
    const QPointF on = directionFrom(i);
    const QPointF out = QPointF(on.y(), -on.x()) * margin;
    outline << hull[i] + out - on * beyond(i) << hull[next] + out + on * beyond(next);
  }
  return outline;
}

}  // namespace chispa::desk
