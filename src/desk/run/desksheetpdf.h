// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QString>

#include "core/show/show.h"

class QPainter;

namespace chispa::desk {

/// Draws the desk sheet, a row a cell that listens, for whoever patches the desk. A4 upright in tenths of
/// millimetres; `newPage` begins another.
void paintDeskSheet(QPainter& painter, const Show& show, const std::function<void()>& newPage);
/// Writes it as PDF; false if the file cannot be written.
bool writeDeskSheetPdf(const Show& show, const QString& path);

}  // namespace chispa::desk
