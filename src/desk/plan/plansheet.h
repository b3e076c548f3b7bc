// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QSizeF>
#include <QString>

#include "core/show/show.h"
#include "desk/plan/projection.h"

class QPainter;

namespace chispa::desk {

/// Draws a show for the workshop wall on A3 across: the plan with fixtures' names, data-in ends, lengths and
/// pixel numbers at a scale that is stated, and the cut list. `size` is the sheet in units of the painter.
void paintPlanSheet(QPainter& painter, const QSizeF& size, const Show& show,
                    const PlanProjection& projection);
/// Writes that sheet as PDF, or as SVG if `path` ends in .svg; false if the file cannot be written.
bool writePlanSheet(const Show& show, const PlanProjection& projection, const QString& path);

}  // namespace chispa::desk
