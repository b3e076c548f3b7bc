// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <set>

#include <QPainter>
#include <QPainterPath>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

constexpr double kBrush_px = 12;

/// Gathers pixels under a brush, in a box or within a lasso; when the button is let go they join the selected
/// zone, make a new one if none is selected, or leave it if Shift was held.
class PaintHand : public PlanHand {
 public:
  PaintHand(PlanView& view, PlanTool tool) : PlanHand(view), tool_(tool) {}

  void press(const PlanPointer& pointer) override {
    isDown_ = true;
    isTaking_ = pointer.keys & Qt::ShiftModifier;
    painted_.clear();
    way_ = QPolygonF{pointer.at};
    move(pointer);
  }

  bool cancel() override {
    painted_.clear();
    return std::exchange(isDown_, false);
  }

  void move(const PlanPointer& pointer) override {
    at_ = pointer.at;
    isHere_ = true;
    if (!isDown_) return;
    if (tool_ == PlanTool::Brush) {
      brush(QLineF(way_.last(), at_));
    } else {
      painted_.clear();
      QPainterPath area;
      if (tool_ == PlanTool::Box)
        area.addRect(QRectF(way_.first(), at_).normalized());
      else
        area.addPolygon(way_);
      gather(area.boundingRect(), [&](QPointF p) { return area.contains(p); });
    }
    if (tool_ != PlanTool::Box) way_ << at_;
  }

  void release(const PlanPointer& pointer) override {
    if (!isDown_) return;
    move(pointer);
    isDown_ = false;
    if (!painted_.empty()) apply();
    painted_.clear();
  }

  void paint(QPainter& painter) const override {
    const QColor colour = isTaking_ && isDown_ ? theme().wrong : theme().ember;
    painter.setPen(QPen(colour, 1.2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    if (tool_ == PlanTool::Brush && isHere_) painter.drawEllipse(at_, kBrush_px, kBrush_px);
    if (tool_ == PlanTool::Box && isDown_) painter.drawRect(QRectF(way_.first(), at_).normalized());
    if (tool_ == PlanTool::Lasso && isDown_) painter.drawPolygon(way_);
    QPolygonF marks;
    for (const std::uint32_t pixel : painted_) marks << view_.toScreen(view_.flatOf(pixel));
    painter.setPen(QPen(QColor(colour.red(), colour.green(), colour.blue(), 190), 7));
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.drawPoints(marks);
    painter.setRenderHint(QPainter::Antialiasing);
    if (!isDown_) return;
    painter.setPen(theme().text);
    painter.drawText(at_ + QPointF(18, -10), counted(static_cast<qsizetype>(painted_.size()),
                                                     PlanView::tr("one pixel"), PlanView::tr("%1 pixels")));
  }

  QString hint() const override {
    const Zone* zone = chosen();
    const QString on =
        zone ? PlanView::tr("Paints on %1").arg(text(zone->name)) : PlanView::tr("Paints a new zone");
    return on + PlanView::tr("; Shift erases. Esc leaves the tool.");
  }

 private:
  const Zone* chosen() const {
    const auto* id = std::get_if<ZoneId>(&view_.session().selection.now());
    return id ? chispa::find(view_.session().show().zones, *id) : nullptr;
  }

  void gather(const QRectF& screen, const std::function<bool(QPointF)>& contains) {
    for (const std::uint32_t pixel : view_.pixelsWhere(screen, contains)) painted_.insert(pixel);
  }

  /// Everything within reach of a stroke.
  void brush(const QLineF& stroke) {
    const QPointF way = stroke.p2() - stroke.p1();
    const double length2 = QPointF::dotProduct(way, way);
    const QRectF reach =
        QRectF(stroke.p1(), stroke.p2()).normalized().adjusted(-kBrush_px, -kBrush_px, kBrush_px, kBrush_px);
    gather(reach, [&](QPointF p) {
      const double t =
          length2 > 0 ? std::clamp(QPointF::dotProduct(p - stroke.p1(), way) / length2, 0.0, 1.0) : 0;
      const QPointF away = p - (stroke.p1() + way * t);
      return QPointF::dotProduct(away, away) <= kBrush_px * kBrush_px;
    });
  }

  void apply() {
    const Session& session = view_.session();
    const std::vector<std::uint32_t> pixels(painted_.begin(), painted_.end());
    const PixelMap map = mapPixels(session.show());
    const Zone* zone = chosen();
    if (isTaking_) {
      if (zone)
        session.edit(PlanView::tr("erase from a zone"),
                     [&, id = zone->id](Show& show) { eraseFromZone(show, map, id, pixels); });
      return;
    }
    if (zone)
      return session.edit(PlanView::tr("paint a zone"),
                          [&, id = zone->id](Show& show) { paintZone(show, map, id, pixels); });
    ZoneId made;
    session.edit(PlanView::tr("paint a zone"), [&](Show& show) {
      Zone fresh;
      fresh.name = PlanView::tr("Painted").toStdString();
      made = addZone(show, fresh);
      paintZone(show, map, made, pixels);
      // What is painted on matrices alone keeps rows and columns.
      changeItem(show.zones, made, [&](Zone& painted) {
        const bool onMatrices =
            std::all_of(painted.parts.begin(), painted.parts.end(), [&](const ZonePart& part) {
              const auto& segments = chispa::find(show.fixtures, part.fixture)->segments;
              return segments.size() == 1 && isMatrix(segments[0].shape);
            });
        if (onMatrices) painted.layout = ZoneLayout::SideBySide;
      });
    });
    session.selection.select(made);
  }

  PlanTool tool_;
  bool isDown_ = false;
  bool isTaking_ = false;
  /// The mouse has been seen on the plan.
  bool isHere_ = false;
  QPolygonF way_;
  QPointF at_;
  std::set<std::uint32_t> painted_;
};

}  // namespace

std::unique_ptr<PlanHand> makePaintHand(PlanView& view, PlanTool tool) {
  return std::make_unique<PaintHand>(view, tool);
}

}  // namespace chispa::desk
