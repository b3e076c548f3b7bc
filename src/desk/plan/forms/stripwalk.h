// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The pixels of one fixture unrolled as a row of dots, segments in turn in two greys: a click or the arrow
/// keys walk to a pixel, which the plan then points out.
class StripWalk : public QWidget {
  Q_OBJECT
 public:
  StripWalk(const Session& session, FixtureId fixture);

  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  int count() const;
  /// Dots of a line, and how far apart they are.
  int perLine() const;
  double step() const;
  QPointF spotOf(int pixel) const;
  void walkTo(int pixel);
  void walkTo(QPointF at);

  Session session_;
  FixtureId fixture_;
};

}  // namespace chispa::desk
