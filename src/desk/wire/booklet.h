// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QSizeF>
#include <QString>

#include "core/show/show.h"

class QPainter;

namespace chispa::desk {

/// Draws the wiring booklet: a page a controller with each port's chain to scale, what hangs on it in data
/// order, its addresses, amps, fuse and wire; and the cut list last. A4 upright in tenths of millimetres;
/// `newPage` begins another.
void paintBooklet(QPainter& painter, const Show& show, const std::function<void()>& newPage);
/// Writes it as PDF; false if the file cannot be written.
bool writeBooklet(const Show& show, const QString& path);

}  // namespace chispa::desk
