// SPDX-License-Identifier: GPL-3.0-or-later
// What TimelineView draws.
#include <cmath>
#include <unordered_set>

#include <QPainter>
#include <QScrollBar>

#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"
#include "desk/score/clippictures.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

void TimelineView::paintRuler(QPainter& painter) const {
  const Score* score = session_.stage.score();
  painter.fillRect(QRectF(0, 0, viewport()->width(), rulerHeight()), theme().panel);
  if (const auto& part = session_.stage.part()) {
    // What alone plays.
    const double left = std::max(headWidth(), xOf(part->from));
    painter.fillRect(QRectF(left, rulerHeight() - 5, std::max(0.0, xOf(part->end()) - left), 5),
                     theme().ember);
  }
  const MarkLane* bars = laneOf(*score, LaneKind::Bars);
  painter.setFont(numberFont(0.92));
  double last = -1e9;
  const auto tick = [&](Micros at, const QString& words, bool strong) {
    const double x = xOf(at);
    if (x < headWidth() || x > viewport()->width()) return;
    painter.setPen(theme().line);
    painter.drawLine(QPointF(x, rulerHeight() - 7), QPointF(x, rulerHeight()));
    const double wide = painter.fontMetrics().horizontalAdvance(words);
    if (x < last + wide + 14) return;
    last = x;
    painter.setPen(strong ? theme().text : theme().quiet);
    painter.drawText(QPointF(x + 3, rulerHeight() - 9), words);
  };
  if (bars && bars->marks.size() > 1) {
    for (std::size_t i = 0; i < bars->marks.size(); ++i)
      tick(bars->marks[i].at, QString::number(i + 1), i % 4 == 0);
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(10, rulerHeight() - 9), tr("Bars"));
    return;
  }
  const int step = std::max(1, static_cast<int>(60 / pxPerSecond_));
  for (int s = 0; s <= seconds(score->length); s += step)
    tick(std::chrono::seconds(s), timeText(std::chrono::seconds(s)), true);
  painter.setPen(theme().quiet);
  painter.drawText(QPointF(10, rulerHeight() - 9), tr("Seconds"));
}

/// On a shade of its own at the clip's head, where there is room for all of it.
void TimelineView::paintEffectName(QPainter& painter, const Clip& clip, QRectF box) const {
  constexpr double kAround_px = 5;
  const QString name = said(findEffect(clip.effect)->name);
  const QSizeF size(fontMetrics().horizontalAdvance(name) + 2 * kAround_px, fontMetrics().height());
  constexpr double kOfTheClip = 0.9;
  if (size.width() > kOfTheClip * box.width() || size.height() > 0.7 * box.height()) return;
  const QRectF shade(box.topLeft(), size);
  painter.fillRect(shade, QColor(0, 0, 0, 150));
  painter.setFont(font());
  painter.setPen(QColor(0xee, 0xe8, 0xde));
  painter.drawText(shade, Qt::AlignCenter, name);
}

void TimelineView::paintClip(QPainter& painter, const std::shared_ptr<const Clip>& clip, QRectF box,
                             bool selected) {
  // What is too narrow for a picture is shown by a colour of its palette; thousands of them must not wait for
  // pictures.
  constexpr double kLeastWidth_px = 6;
  painter.fillRect(box, theme().night);
  if (box.width() < kLeastWidth_px) {
    const Palette* palette = chispa::find(session_.show().palettes, clip->palette);
    const Srgb8 c = palette ? toSrgb8(colourAt(*palette, 0.6)) : Srgb8{128, 128, 128};
    painter.fillRect(box, selected ? theme().ember : QColor(c.r, c.g, c.b));
    return;
  }
  const QSize dots = (box.size() * devicePixelRatioF()).toSize();
  const QImage image = pictures_.picture(clip, dots.width(), dots.height());
  if (!image.isNull()) painter.drawImage(box, image);
  if (clip->block) {
    const Block* block = chispa::find(session_.show().blocks, clip->block);
    painter.setPen(theme().text);
    painter.drawText(box.adjusted(5, 0, -4, 0), Qt::AlignVCenter,
                     QStringLiteral("▦ ") + (block ? text(block->name) : tr("a block that is gone")));
  } else if (!findEffect(clip->effect)) {
    painter.setPen(theme().watch);
    painter.drawText(box.adjusted(4, 0, 0, 0), Qt::AlignVCenter,
                     tr("! unknown effect “%1”").arg(text(clip->effect)));
  } else {
    paintEffectName(painter, *clip, box);
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(selected      ? theme().ember
                      : clip->block ? theme().text
                                    : theme().line,
                      selected ? 2 : 1));
  painter.drawRect(box.adjusted(0.5, 0.5, -0.5, -0.5));
  if (!selected) return;
  if (clip->zone == tall_) curves_.paint(painter, *clip, box);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ember);
  painter.drawRect(QRectF(box.left(), box.center().y() - 6, 4, 12));
  painter.drawRect(QRectF(box.right() - 4, box.center().y() - 6, 4, 12));
}

void TimelineView::paintStaves(QPainter& painter) {
  painter.save();
  painter.setClipRect(QRectF(0, stavesTop(), viewport()->width(), viewport()->height() - stavesTop()));
  const auto isSeen = [this](const StaveRow& row) {
    const double y = stavesTop() - verticalScrollBar()->value() + row.top;
    return y <= viewport()->height() && y + row.height >= stavesTop();
  };
  for (const StaveRow& row : rows_) {
    if (!isSeen(row)) continue;
    const double y = stavesTop() - verticalScrollBar()->value() + row.top;
    const bool chosen = row.zone && row.zone == chosenZone_;
    painter.fillRect(QRectF(0, y, viewport()->width(), row.height),
                     chosen ? theme().selectedGround() : theme().panel);
    if (row.zone)
      painter.fillRect(QRectF(headWidth(), y, viewport()->width() - headWidth(), row.height),
                       theme().isDark ? QColor(0x15, 0x15, 0x17) : QColor(0xe2, 0xdf, 0xd8));
  }
  painter.setClipRect(QRectF(headWidth(), stavesTop(), viewport()->width() - headWidth(),
                             viewport()->height() - stavesTop()));
  const ClipIds ids = session_.selection.clips();
  const std::unordered_set<ClipId> selected(ids.begin(), ids.end());
  for (const StaveRow& row : rows_) {
    const auto clips = clipsOf_.find(row.zone);
    if (!isSeen(row) || clips == clipsOf_.end()) continue;
    // Clips that fall on the same column of dots as one before are covered by it anyway.
    std::vector<double> reached(static_cast<std::size_t>(row.layers), -1e9);
    for (const auto& clip : clips->second) {
      const QRectF box = boxOf(*clip, row);
      if (box.left() > viewport()->width()) break;
      double& last = reached[static_cast<std::size_t>(std::min(clip->layer, row.layers - 1))];
      const bool isSelected = selected.contains(clip->id);
      if (box.right() < headWidth() || (box.right() < last + 1 && !isSelected)) continue;
      last = box.right();
      paintClip(painter, clip, box, isSelected);
    }
  }
  paintStaveNames(painter);
  painter.restore();
}

void TimelineView::paintStaveNames(QPainter& painter) {
  painter.setClipRect(QRectF(0, stavesTop(), headWidth(), viewport()->height() - stavesTop()));
  painter.setFont(font());
  const Score* score = session_.stage.score();
  const CompiledScore* compiled =
      session_.stage.compiled() ? session_.stage.compiled()->scoreOf(score->id) : nullptr;
  const int line = fontMetrics().height();
  for (const StaveRow& row : rows_) {
    const double y = stavesTop() - verticalScrollBar()->value() + row.top;
    if (y > viewport()->height() || y + row.height < stavesTop()) continue;
    painter.setPen(theme().text);
    if (!row.zone) {
      const auto folder = std::find_if(score->folders.begin(), score->folders.end(),
                                       [&](const StaveFolder& f) { return text(f.name) == row.folder; });
      const bool isFolded = folder != score->folders.end() && folder->isFolded;
      painter.drawText(
          QPointF(10, y + line),
          fontMetrics().elidedText((isFolded ? QStringLiteral("▸ ") : QStringLiteral("▾ ")) + row.folder,
                                   Qt::ElideRight, static_cast<int>(headWidth()) - 16));
      continue;
    }
    const Zone* zone = chispa::find(session_.show().zones, row.zone);
    if (!zone) continue;
    painter.drawText(QPointF(10, y + line), fontMetrics().elidedText(text(zone->name), Qt::ElideRight,
                                                                     static_cast<int>(headWidth()) - 16));
    painter.setPen(theme().quiet);
    const CompiledStave* stave = compiled ? compiled->staveOf(row.zone) : nullptr;
    if (!stave) continue;
    painter.drawText(QPointF(10, y + 2 * line),
                     stave->cells->rows > 1
                         ? QStringLiteral("%1 × %2").arg(stave->cells->columns).arg(stave->cells->rows)
                         : tr("%1 cells").arg(stave->cells->count()));
  }
}

void TimelineView::paintBand(QPainter& painter) const {
  if (drag_ != Drag::Band) return;
  painter.setPen(theme().ember);
  QColor ground = theme().ember;
  ground.setAlpha(40);
  painter.setBrush(ground);
  painter.drawRect(QRectF(pressed_, pointer_).normalized());
}

void TimelineView::paintDraggedStave(QPainter& painter) const {
  if (drag_ != Drag::Stave || !isDragFar()) return;
  const ZoneId below = staveBelow(pointer_.y());
  const StaveRow* row = below ? rowOf(below) : rows_.empty() ? nullptr : &rows_.back();
  if (!row) return;
  const double y = stavesTop() - verticalScrollBar()->value() + row->top + (below ? -2 : row->height + 2);
  painter.setPen(QPen(theme().ember, 3));
  painter.drawLine(QPointF(0, y), QPointF(headWidth(), y));
  const Zone* zone = chispa::find(session_.show().zones, chosenZone_);
  const QString words = zone ? text(zone->name) : QString();
  QRectF ground(pointer_ + QPointF(14, -10), QSizeF(painter.fontMetrics().horizontalAdvance(words) + 12,
                                                    painter.fontMetrics().height() + 4));
  painter.fillRect(ground, theme().raised);
  painter.setPen(theme().text);
  painter.drawText(ground, Qt::AlignCenter, words);
}

void TimelineView::paintPlayhead(QPainter& painter) const {
  const double x = xOf(session_.stage.position());
  if (x < headWidth() - 1 || x > viewport()->width()) return;
  painter.setPen(QPen(theme().ember, 2));
  painter.drawLine(QPointF(x, rulerHeight() - 8), QPointF(x, viewport()->height()));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ember);
  painter.drawPolygon(QPolygonF{QPointF(x - 6, rulerHeight() - 14), QPointF(x + 6, rulerHeight() - 14),
                                QPointF(x, rulerHeight() - 4)});
  if (drag_ == Drag::None || drag_ == Drag::Mark || drag_ == Drag::Band || drag_ == Drag::Stave) return;
  painter.setPen(theme().text);
  const QString words =
      drag_ == Drag::Scrub ? timeText(session_.stage.position()) : timeText(timeAt(pointer_.x()));
  painter.drawText(pointer_ + QPointF(12, -6), words);
}

void TimelineView::paintEmpty(QPainter& painter) const {
  painter.setPen(theme().quiet);
  painter.drawText(viewport()->rect(), Qt::AlignCenter,
                   tr("No score is open.\n\nChoose “New score” above and pick a piece of music:\nChispa "
                      "finds its bars and beats, and gives every zone a stave."));
}

void TimelineView::paintEvent(QPaintEvent*) {
  QPainter painter(viewport());
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(viewport()->rect(), theme().window);
  if (!session_.stage.score()) return paintEmpty(painter);
  paintRuler(painter);
  paintWave(painter);
  paintLanes(painter);
  paintStaves(painter);
  paintBand(painter);
  paintDraggedStave(painter);
  paintPlayhead(painter);
}

}  // namespace chispa::desk
