// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/shapeword.h"

#include "core/base/overloaded.h"
#include "desk/plan/planview.h"

namespace chispa::desk {

QString shapeWord(const Shape& shape) {
  return std::visit(Overloaded{[](const LineShape&) { return PlanView::tr("line"); },
                               [](const GridShape&) { return PlanView::tr("matrix"); },
                               [](const ArcShape&) { return PlanView::tr("arc"); },
                               [](const PathShape&) { return PlanView::tr("path"); },
                               [](const RingsShape&) { return PlanView::tr("rings"); },
                               [](const SpiralShape&) { return PlanView::tr("spiral"); },
                               [](const ConeShape&) { return PlanView::tr("cone"); },
                               [](const SpokesShape&) { return PlanView::tr("spokes"); },
                               [](const PointsShape&) { return PlanView::tr("points"); }},
                    shape);
}

}  // namespace chispa::desk
