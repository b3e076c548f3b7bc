// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include <QInputDialog>
#include <QPainter>

#include "core/edit/planedits.h"
#include "core/edit/segmentedits.h"
#include "core/shape/order.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// A line from place to place; what it is good for is said by those below.
class RulerHand : public PlanHand {
 public:
  using PlanHand::PlanHand;

  void press(const PlanPointer& pointer) override {
    isDown_ = isShown_ = true;
    from_ = to_ = place(pointer);
  }
  void move(const PlanPointer& pointer) override {
    if (isDown_) to_ = place(pointer);
  }
  void release(const PlanPointer& pointer) override {
    move(pointer);
    if (std::exchange(isDown_, false)) measured();
  }
  void paint(QPainter& painter) const override {
    if (!isShown_) return;
    const QPointF a = view_.toScreen(from_);
    const QPointF b = view_.toScreen(to_);
    painter.setPen(QPen(theme().watch, 1.5));
    painter.drawLine(a, b);
    for (const QPointF& end : {a, b}) painter.drawEllipse(end, 3, 3);
    const QPointF away = to_ - from_;
    const QString words = PlanView::tr("%1 · %2° · %3 across, %4 up")
                              .arg(lengthText(length()))
                              .arg(degrees(std::atan2(away.y(), away.x())), 0, 'f', 1)
                              .arg(lengthText(away.x()), lengthText(away.y()));
    const QRectF box = QRectF(painter.fontMetrics().boundingRect(words))
                           .translated(b + QPointF(14, -10))
                           .adjusted(-5, -2, 5, 2);
    painter.setPen(theme().line);
    painter.setBrush(theme().raised);
    painter.drawRoundedRect(box, 4, 4);
    painter.setPen(theme().text);
    painter.drawText(b + QPointF(14, -10), words);
  }
  QString hint() const override {
    return PlanView::tr(
        "Drag from place to place: distance, angle, across and up. It catches ends of strips.");
  }

 protected:
  virtual QPointF place(const PlanPointer& pointer) const {
    const auto end = view_.endNear(pointer.at);
    return end ? *end : view_.toPlan(pointer.at);
  }
  virtual void measured() {}
  double length() const { return std::hypot(to_.x() - from_.x(), to_.y() - from_.y()); }

  bool isDown_ = false;
  bool isShown_ = false;
  QPointF from_;
  QPointF to_;
};

/// Two points of an underlay and their true distance.
class ScaleHand : public RulerHand {
 public:
  using RulerHand::RulerHand;
  QString hint() const override {
    return PlanView::tr("Drag between two points of the picture whose distance you know.");
  }

 protected:
  QPointF place(const PlanPointer& pointer) const override { return view_.toPlan(pointer.at); }
  void measured() override {
    const auto* id = std::get_if<UnderlayId>(&view_.session().selection.now());
    if (!id || length() * view_.scale() < 4) return;
    bool chosen = false;
    const double metres = QInputDialog::getDouble(&view_, PlanView::tr("Scale the underlay"),
                                                  PlanView::tr("These two points are apart, in metres:"),
                                                  length(), 0.001, limits::kLargest_m, 3, &chosen);
    if (chosen) apply(*id, metres / length());
    view_.setTool(PlanTool::Select);
  }

 private:
  /// The first point stays where it is.
  void apply(UnderlayId id, double factor) {
    const Vec3 fixed = view_.projection().lifted(from_);
    view_.session().edit(PlanView::tr("scale an underlay"), [&](Show& show) {
      changeItem(show.underlays, id, [&](Underlay& u) {
        u.scale_m *= factor;
        u.position_m = fixed + (u.position_m - fixed) * factor;
      });
    });
  }
};

/// A stroke that gives points their order.
class NumberHand : public PlanHand {
 public:
  using PlanHand::PlanHand;
  void press(const PlanPointer& pointer) override {
    isDown_ = true;
    stroke_ = {pointer.at};
  }
  void move(const PlanPointer& pointer) override {
    if (isDown_) stroke_ << pointer.at;
  }
  void release(const PlanPointer& pointer) override {
    if (!std::exchange(isDown_, false)) return;
    stroke_ << pointer.at;
    apply();
    view_.setTool(PlanTool::Select);
  }
  void paint(QPainter& painter) const override {
    painter.setPen(QPen(theme().fine, 2));
    painter.drawPolyline(stroke_);
  }
  QString hint() const override {
    return PlanView::tr(
        "Draw through the pixels in the order of the data; what the stroke misses follows from neighbour to "
        "neighbour.");
  }

 private:
  void apply() {
    const Session& session = view_.session();
    const FixtureIds ids = session.selection.fixtures();
    const auto index = static_cast<std::size_t>(session.selection.segment());
    const auto piece = std::find_if(view_.pieces().begin(), view_.pieces().end(), [&](const auto& p) {
      return !ids.empty() && p.fixture->id == ids.front();
    });
    if (piece == view_.pieces().end() || index >= piece->fixture->segments.size()) return;
    // As it is seen: the stroke has no depth.
    const int first = firstPixelOf(*piece->fixture, index);
    std::vector<Vec3> points;
    for (int i = 0; i < pixelCount(piece->fixture->segments[index]); ++i) {
      const QPointF p = piece->flat[static_cast<std::size_t>(first + i)];
      points.push_back({p.x(), p.y(), 0});
    }
    std::vector<Vec3> stroke;
    for (int leg = 0; leg + 1 < stroke_.size(); ++leg) {
      const int steps =
          std::max(1, static_cast<int>((stroke_[leg + 1] - stroke_[leg]).manhattanLength() / 4));
      for (int step = 0; step <= steps; ++step) {
        const QPointF p = view_.toPlan(stroke_[leg] + (stroke_[leg + 1] - stroke_[leg]) * step / steps);
        stroke.push_back({p.x(), p.y(), 0});
      }
    }
    constexpr double kReach_px = 14;
    const auto order = orderThrough(points, stroke, kReach_px / view_.scale());
    session.edit(PlanView::tr("number pixels"),
                 [&, id = ids.front()](Show& show) { renumberSegment(show, id, index, order); });
  }

  bool isDown_ = false;
  QPolygonF stroke_;
};

class CentreHand : public PlanHand {
 public:
  using PlanHand::PlanHand;
  void press(const PlanPointer& pointer) override {
    const auto* id = std::get_if<ZoneId>(&view_.session().selection.now());
    const auto end = view_.endNear(pointer.at);
    const Vec3 centre = view_.projection().lifted(end ? *end : view_.snapped(pointer));
    if (id)
      view_.session().edit(PlanView::tr("move a zone's centre"), [&](Show& show) {
        changeItem(show.zones, *id, [&](Zone& z) { z.centre_m = centre; });
      });
    view_.setTool(PlanTool::Select);
  }
  QString hint() const override {
    return PlanView::tr("Click where angle and radius of the zone are measured from.");
  }
};

}  // namespace

std::unique_ptr<PlanHand> makeMeasureHand(PlanView& view) {
  return std::make_unique<RulerHand>(view);
}
std::unique_ptr<PlanHand> makeScaleHand(PlanView& view) {
  return std::make_unique<ScaleHand>(view);
}
std::unique_ptr<PlanHand> makeNumberHand(PlanView& view) {
  return std::make_unique<NumberHand>(view);
}
std::unique_ptr<PlanHand> makeCentreHand(PlanView& view) {
  return std::make_unique<CentreHand>(view);
}

}  // namespace chispa::desk
