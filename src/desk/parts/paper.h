// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QColor>
#include <QFont>
#include <QPainter>
#include <QPdfWriter>

namespace chispa::desk {

// What is printed is laid out in tenths of millimetres, dark on white.

inline const QColor kInk(0x22, 0x22, 0x22);
inline const QColor kFaint(0x77, 0x77, 0x77);

/// A font whose letters are `mm` high in that measure.
QFont paperFont(double mm, bool bold = false);

/// Writes a PDF of pages in `size`; `draw` begins new pages on the writer itself. False if the file cannot be
/// written.
bool writePdf(const QString& path, const QString& title, QPageSize::PageSizeId size,
              QPageLayout::Orientation orientation, const std::function<void(QPainter&, QPdfWriter&)>& draw);

}  // namespace chispa::desk
