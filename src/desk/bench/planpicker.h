// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QPointF>
#include <QWidget>

#include "core/show/show.h"

namespace chispa::desk {

/// A small plan of some fixtures, to click one of them; arrow keys walk from one to the next.
class PlanPicker : public QWidget {
  Q_OBJECT
 public:
  explicit PlanPicker(QWidget* parent = nullptr);

  void showFixtures(const Show& show, const std::vector<FixtureId>& fixtures);
  /// The one under the keys' cursor.
  FixtureId current() const;
  void step(int by);

 signals:
  void picked(chispa::FixtureId fixture);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  struct Entry {
    FixtureId id;
    QString name;
    /// In metres, seen from above, or from the front if they stand one over the other.
    std::vector<QPointF> points;
  };
  QPointF onScreen(QPointF metres) const;
  int entryAt(QPointF at) const;

  std::vector<Entry> entries_;
  QRectF bounds_;
  int current_ = 0;
};

}  // namespace chispa::desk
