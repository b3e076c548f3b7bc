// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QPolygonF>

namespace chispa::desk {

/// A closed line about `points` at a distance of `margin`, in the same units, with cut corners: it follows a
/// slanting strip, where a box about it would hold half the plan. Their convex hull (A. M. Andrew, Inf.
/// Process. Lett. 9, 1979), moved outwards. Empty without points.
QPolygonF outlineAbout(std::vector<QPointF> points, double margin);

}  // namespace chispa::desk
