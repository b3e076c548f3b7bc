// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QPointF>
#include <QString>
#include <Qt>

class QPainter;

namespace chispa::desk {

class PlanView;

/// The tools of the plan, in the order of their buttons.
enum class PlanTool {
  Select,
  Pan,
  Measure,
  Lamp,
  Line,
  Path,
  Matrix,
  Ring,
  Rings,
  Spiral,
  Cone,
  Spokes,
  Brush,
  Box,
  Lasso,
  Number,
  Scale,
  Centre
};

/// Where the mouse is on the plan, in pixels of the screen, and what is held with it.
struct PlanPointer {
  QPointF at;
  Qt::KeyboardModifiers keys;
};

/// What the left mouse button does on the plan. One tool is in hand at a time.
class PlanHand {
 public:
  explicit PlanHand(PlanView& view) : view_(view) {}
  virtual ~PlanHand() = default;

  virtual void press(const PlanPointer& pointer) = 0;
  /// The mouse moves, with the button down or not.
  virtual void move(const PlanPointer&) {}
  virtual void release(const PlanPointer&) {}
  /// Esc during a drag: what it has done is taken back. False if nothing was under way.
  virtual bool cancel() { return false; }
  /// Double click, or Enter.
  virtual void finish() {}
  /// Drawn above everything else.
  virtual void paint(QPainter&) const {}
  /// What to do with it, for the line below the plan.
  virtual QString hint() const = 0;

 protected:
  PlanView& view_;
};

std::unique_ptr<PlanHand> makeSelectHand(PlanView& view);
/// Moves the view.
std::unique_ptr<PlanHand> makePanHand(PlanView& view);
std::unique_ptr<PlanHand> makeMeasureHand(PlanView& view);
/// One of the tools that draw by a drag, or the path, which is clicked corner by corner.
std::unique_ptr<PlanHand> makeDrawHand(PlanView& view, PlanTool tool);
/// Brush, box or lasso over the cells of a zone.
std::unique_ptr<PlanHand> makePaintHand(PlanView& view, PlanTool tool);
/// Numbers the points of the selected segment by a stroke through them.
std::unique_ptr<PlanHand> makeNumberHand(PlanView& view);
/// Scales the selected underlay by two points of known distance.
std::unique_ptr<PlanHand> makeScaleHand(PlanView& view);
/// Sets the centre of the selected zone.
std::unique_ptr<PlanHand> makeCentreHand(PlanView& view);

}  // namespace chispa::desk
