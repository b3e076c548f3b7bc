// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include <QPainter>
#include <QPolygonF>

#include "core/edit/planedits.h"
#include "core/edit/segmentedits.h"
#include "core/show/strip.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"
#include "desk/plan/shapeword.h"

namespace chispa::desk {
namespace {

/// What both ways of drawing have in common: of what strip, and where the drawn shape goes.
class DrawHand : public PlanHand {
 public:
  using PlanHand::PlanHand;

 protected:
  /// New pieces are made of the strip of the one before.
  const StripType& strip() const {
    static const StripType plain;
    const Show& show = view_.session().show();
    const FixtureIds ids =
        view_.continued() ? FixtureIds{view_.continued()} : view_.session().selection.fixtures();
    const Fixture* model = ids.empty() ? nullptr : chispa::find(show.fixtures, ids.front());
    if (model) return stripTypeOf(show, *model);
    return show.stripTypes.empty() ? plain : *show.stripTypes.front();
  }

  int pixelsOn(double metres) const {
    return std::min(cuttableCount(strip(), static_cast<int>(std::lround(metres * strip().pixelsPerMetre))),
                    20'000);
  }

  void add(const Shape& shape, const Placement& place) {
    const Session& session = view_.session();
    const QString name = PlanView::tr("add %1").arg(shapeWord(shape));
    if (const FixtureId id = view_.continued()) {
      session.edit(name, [&](Show& show) { addSegment(show, id, shape, place); });
      session.selection.select(FixtureIds{id});
      session.selection.chooseSegment(
          static_cast<int>(chispa::find(session.show().fixtures, id)->segments.size()) - 1);
    } else {
      FixtureId added;
      session.edit(name, [&, type = strip().id](Show& show) {
        added = addFixture(show, shape, place.position_m, place.rotation_deg, type);
      });
      session.selection.select(FixtureIds{added});
    }
    view_.putToolDown();
  }

  /// The view's own plane at a point of the plan.
  Placement inView(QPointF plan) const {
    const PlanProjection& p = view_.projection();
    return placementOf(p.lifted(plan), {p.right(), p.up(), p.toEye()});
  }

  QString continuedText() const {
    const Fixture* fixture =
        view_.continued() ? chispa::find(view_.session().show().fixtures, view_.continued()) : nullptr;
    return fixture ? PlanView::tr(" It becomes a segment of %1.").arg(text(fixture->name)) : QString();
  }
};

/// A shape by one drag.
class DragHand : public DrawHand {
 public:
  DragHand(PlanView& view, PlanTool tool) : DrawHand(view), tool_(tool) {}

  void press(const PlanPointer& pointer) override {
    isDown_ = true;
    from_ = to_ = view_.snapped(pointer);
    at_ = pointer.at;
  }
  void move(const PlanPointer& pointer) override {
    at_ = pointer.at;
    to_ = isDown_ ? view_.snapped(pointer, from_) : view_.snapped(pointer);
  }
  void release(const PlanPointer& pointer) override {
    if (!std::exchange(isDown_, false)) return;
    to_ = view_.snapped(pointer, from_);
    if (const auto shape = draft()) add(*shape, place());
  }
  bool cancel() override { return std::exchange(isDown_, false); }

  void paint(QPainter& painter) const override {
    painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    const QPointF from = view_.toScreen(from_);
    const QPointF to = view_.toScreen(to_);
    if (!isDown_) {
      painter.drawRect(QRectF(to - QPointF(3, 3), QSizeF(6, 6)));
      return;
    }
    const double radius = std::hypot(to.x() - from.x(), to.y() - from.y());
    if (tool_ == PlanTool::Line)
      painter.drawLine(from, to);
    else if (tool_ == PlanTool::Matrix)
      painter.drawRect(QRectF(from, to).normalized());
    else
      painter.drawEllipse(from, radius, radius);
    painter.setPen(theme().text);
    painter.drawText(at_ + QPointF(14, -8), draftText());
  }

  QString hint() const override {
    const QString words =
        tool_ == PlanTool::Line
            ? PlanView::tr(
                  "Drag from the data-in end to the other. Shift holds 15°, Alt frees from the grid.")
        : tool_ == PlanTool::Matrix ? PlanView::tr("Drag from corner to corner.")
                                    : PlanView::tr("Drag from the centre outward.");
    return words + continuedText();
  }

 private:
  std::optional<Shape> draft() const {
    const double wide = std::abs(to_.x() - from_.x());
    const double tall = std::abs(to_.y() - from_.y());
    const double length = std::hypot(wide, tall);
    constexpr double kLeast_m = 0.005;
    const double pitch = 1 / strip().pixelsPerMetre;
    if (tool_ == PlanTool::Matrix) {
      if (wide < kLeast_m || tall < kLeast_m) return std::nullopt;
      return GridShape{pixelsOn(wide), std::max(1, static_cast<int>(std::lround(tall / pitch))), pitch,
                       pitch};
    }
    if (length < kLeast_m) return std::nullopt;
    if (tool_ == PlanTool::Line) return LineShape{pixelsOn(length), pitch};
    return round(length);
  }

  std::optional<Shape> round(double radius) const {
    const int along = std::max(2, pixelsOn(radius));
    switch (tool_) {
      case PlanTool::Ring:
        return ArcShape{pixelsOn(2 * kPi * radius), radius, 0, 360};
      case PlanTool::Rings: {
        RingsShape rings{{}, radius / 3, radius, 0, true};
        for (int ring = 1; ring <= 3; ++ring) rings.counts.push_back(pixelsOn(2 * kPi * radius * ring / 3));
        return rings;
      }
      case PlanTool::Spiral: {
        SpiralShape spiral{1, 3, radius / 5, radius, 0};
        spiral.count = pixelsOn(stripLength_m(spiral));
        return spiral;
      }
      case PlanTool::Cone:
        return ConeShape{12, along, radius, radius / 10, radius * 1.5, 0, 360, StringWay::Forth};
      case PlanTool::Spokes:
        return SpokesShape{12, along, radius / 8, radius, 0, 360, StringWay::Forth};
      default:
        return std::nullopt;
    }
  }

  Placement place() const {
    const PlanProjection& p = view_.projection();
    if (tool_ == PlanTool::Matrix) return inView((from_ + to_) / 2);
    // A cone stands upright whichever way it is looked at.
    if (tool_ == PlanTool::Cone) return {p.lifted(from_), {}};
    if (tool_ != PlanTool::Line) return inView(from_);
    const Vec3 way = unit(p.lifted(to_ - from_));
    const bool isUpright = std::hypot(way.x, way.y) < 1e-9;
    return {p.lifted(from_),
            {0, -degrees(std::asin(std::clamp(way.z, -1.0, 1.0))),
             isUpright ? 0 : degrees(std::atan2(way.y, way.x))}};
  }

  QString draftText() const {
    const auto shape = draft();
    if (!shape) return PlanView::tr("drag to draw");
    if (const auto* grid = std::get_if<GridShape>(&*shape))
      return PlanView::tr("%1 × %2 = %3 px").arg(grid->columns).arg(grid->rows).arg(pixelCount(*shape));
    if (const auto* arc = std::get_if<ArcShape>(&*shape))
      return PlanView::tr("Ø %1 · %2 px").arg(lengthText(2 * arc->radius_m)).arg(arc->count);
    const QPointF away = to_ - from_;
    const QString angle = tool_ == PlanTool::Line
                              ? PlanView::tr(" · %1°").arg(degrees(std::atan2(away.y(), away.x())), 0, 'f', 0)
                              : QString();
    return PlanView::tr("%1 · %2 px").arg(lengthText(stripLength_m(*shape))).arg(pixelCount(*shape)) + angle;
  }

  PlanTool tool_;
  bool isDown_ = false;
  QPointF from_;
  QPointF to_;
  QPointF at_;
};

/// A single pixel by a click.
class LampHand : public DrawHand {
 public:
  using DrawHand::DrawHand;

  void press(const PlanPointer& pointer) override {
    add(PointsShape{{Vec3{}}}, {view_.projection().lifted(view_.snapped(pointer)), {}});
  }
  QString hint() const override {
    return PlanView::tr("Click where the lamp stands: a flood, or anything that is one pixel.") +
           continuedText();
  }
};

/// A path, corner by corner; a click on its first corner closes it.
class PathHand : public DrawHand {
 public:
  using DrawHand::DrawHand;

  void press(const PlanPointer& pointer) override {
    const QPointF corner = view_.snapped(pointer, last());
    if (corners_.size() >= 3 && (view_.toScreen(corners_.front()) - pointer.at).manhattanLength() < 10) {
      corners_.push_back(corners_.front());
      return finish();
    }
    if (corners_.empty() || corners_.back() != corner) corners_.push_back(corner);
  }
  void move(const PlanPointer& pointer) override {
    at_ = pointer.at;
    next_ = view_.snapped(pointer, last());
  }

  bool cancel() override { return !std::exchange(corners_, {}).empty(); }

  void finish() override {
    const auto corners = std::exchange(corners_, {});
    if (corners.size() < 2) return;
    PathShape path;
    for (const QPointF& corner : corners)
      path.corners.push_back({corner.x() - corners[0].x(), corner.y() - corners[0].y(), 0});
    Segment segment{"path", path, {}};
    setPitch(segment, 1 / strip().pixelsPerMetre, strip(), Follows::Pixels);
    add(segment.shape, inView(corners[0]));
  }

  void paint(QPainter& painter) const override {
    if (corners_.empty()) return;
    painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
    QPolygonF way;
    for (const QPointF& corner : corners_) way << view_.toScreen(corner);
    way << view_.toScreen(next_);
    painter.drawPolyline(way);
    painter.setPen(theme().text);
    painter.drawText(at_ + QPointF(14, -8), PlanView::tr("%1 corners").arg(corners_.size()));
  }

  QString hint() const override {
    return PlanView::tr(
               "Click from corner to corner; double click or Enter ends, a click on the first corner "
               "closes.") +
           continuedText();
  }

 private:
  std::optional<QPointF> last() const {
    return corners_.empty() ? std::nullopt : std::optional(corners_.back());
  }

  std::vector<QPointF> corners_;
  QPointF next_;
  QPointF at_;
};

}  // namespace

std::unique_ptr<PlanHand> makeDrawHand(PlanView& view, PlanTool tool) {
  if (tool == PlanTool::Lamp) return std::make_unique<LampHand>(view);
  if (tool == PlanTool::Path) return std::make_unique<PathHand>(view);
  return std::make_unique<DragHand>(view, tool);
}

}  // namespace chispa::desk
