// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPointF>
#include <QWidget>
#include <map>
#include <memory>
#include <optional>

#include "desk/session/session.h"

namespace chispa::desk {

/// From where the plan is looked at.
enum class PlanSide { Top, Front, Side };
/// What dragging on the plan does.
enum class PlanTool { Select, Line, Path, Matrix, Ring, Rings, Spiral, Cone, Spokes };

/// The floor plan in metres: every LED, what is selected with its data-in end, direction and pixel numbers, and the
/// tools that draw new pieces.
class PlanView : public QWidget {
  Q_OBJECT
 public:
  explicit PlanView(const Session& session, QWidget* parent = nullptr);

  PlanSide side() const { return side_; }
  void setSide(PlanSide side);
  PlanTool tool() const { return tool_; }
  void setTool(PlanTool tool);
  /// Everything in view.
  void frameAll();
  /// Where a point of the world is on the widget.
  QPointF toScreen(Vec3 world) const;

 signals:
  void toolChanged();
  void sideChanged();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  struct Piece {
    std::shared_ptr<const Fixture> fixture;
    std::vector<Vec3> points;
  };

  void updatePieces();
  QPointF flat(Vec3 world) const;
  Vec3 lifted(QPointF flat) const;
  QPointF toPlan(QPointF screen) const;
  QPointF snapped(QPointF plan) const;
  std::optional<FixtureId> fixtureAt(QPointF screen) const;
  void paintGrid(QPainter& painter) const;
  void paintPieces(QPainter& painter) const;
  void paintSelected(QPainter& painter, const Piece& piece) const;
  void paintDraft(QPainter& painter) const;
  void paintCorners(QPainter& painter) const;
  void paintEmpty(QPainter& painter) const;
  std::optional<Shape> draftShape() const;
  std::optional<Shape> draftRound(double radius_m, double perMetre) const;
  std::optional<Shape> draftPath() const;
  void addCorner(QPointF screen);
  void finishPath();
  Vec3 draftPosition() const;
  Vec3 draftRotation() const;
  QString draftText() const;
  void finishDraft();
  void selectWithin(QRectF screen, bool adding);
  void nudge(QPointF by_m);

  Session session_;
  PlanSide side_ = PlanSide::Top;
  PlanTool tool_ = PlanTool::Select;
  double scale_ = 60;  // pixels of the screen a metre
  QPointF centre_;     // plan point in the widget's middle
  bool isFramed_ = true;
  std::vector<Piece> pieces_;

  enum class Drag { None, Pan, Move, Band, Draft };
  Drag drag_ = Drag::None;
  QPointF pressed_;
  QPointF pointer_;
  /// Corners of the path that is being laid, in plan coordinates.
  std::vector<QPointF> corners_;
};

}  // namespace chispa::desk
