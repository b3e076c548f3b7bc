// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPixmap>
#include <QWidget>

#include "desk/session/session.h"

namespace chispa::desk {

class TimelineView;

/// The whole piece in a strip: sections, where clips lie stave by stave, the playhead and the stretch that
/// the timeline shows, which is dragged along. Left and Right move it, Home and End go to the ends.
class OverviewStrip : public QWidget {
  Q_OBJECT
 public:
  OverviewStrip(const Session& session, TimelineView& timeline, QWidget* parent = nullptr);

  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  double xOf(Micros t) const;
  void revealAt(double x);
  void drawClips();

  Session session_;
  TimelineView& timeline_;
  /// Sections and clips; drawn anew when they change, not at each tick.
  QPixmap picture_;
};

}  // namespace chispa::desk
