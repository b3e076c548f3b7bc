// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDate>
#include <QImage>

#include "core/show/show.h"
#include "desk/plan/projection.h"

namespace chispa::desk {

/// One PDF of the whole installation, for whoever looks after it in years to come: cover, plan, the wiring
/// booklet with the cut list, the address sheet, the desk sheet, the almanac with the nights from `from` on.
/// What a show does not have is left out. False if the file cannot be written.
bool writeInstallationBook(const Show& show, const QImage& cover, const PlanProjection& projection,
                           QDate from, const QString& path);

/// The light of the show for its cover: the brightest instant of its first score, or its first look.
QImage coverPicture(const Show& show, QSize size);

}  // namespace chispa::desk
