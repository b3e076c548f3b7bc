// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <vector>

#include <QPainter>
#include <QStringList>

namespace chispa::desk {

/// A table on A4 upright, in tenths of millimetres, on as many pages as it takes: heading and titles stand on
/// each of them.
class PaperTable {
 public:
  /// `columns` are where each begins, from the left margin. `newPage` begins another page; the first is
  /// there.
  PaperTable(QPainter& painter, QString heading, QStringList titles, std::vector<int> columns,
             std::function<void()> newPage);

  void addRow(const QStringList& words);

 private:
  void begin();
  void paint(const QStringList& words);

  QPainter& painter_;
  QString heading_;
  QStringList titles_;
  std::vector<int> columns_;
  std::function<void()> newPage_;
  int y_ = 0;
};

}  // namespace chispa::desk
