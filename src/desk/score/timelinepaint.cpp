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

void TimelineView::paintWave(QPainter& painter) const {
  const Score* score = session_.stage.score();
  const QRectF area(headWidth(), rulerHeight(), viewport()->width() - headWidth(), waveHeight());
  painter.fillRect(QRectF(0, area.top(), viewport()->width(), area.height()), theme().window);
  const auto audio = session_.stage.audio();
  painter.setPen(theme().quiet);
  // The spectrum's scale stands beside the name.
  const QRectF words(10, area.top() + 4, headWidth() - 14 - (showsSpectrum_ ? textWidth(7) : 0),
                     area.height());
  if (score->audio.empty()) {
    painter.drawText(words, tr("no sound"));
    return;
  }
  const QString name = text(score->audio);
  painter.drawText(words, painter.fontMetrics().elidedText(name.section(QLatin1Char('/'), -1),
                                                           Qt::ElideMiddle, static_cast<int>(words.width())));
  if (!audio) {
    const QString trouble = session_.stage.audioTrouble(score->audio);
    painter.setPen(trouble.isEmpty() ? theme().quiet : theme().watch);
    painter.drawText(area.adjusted(10, 4, 0, 0),
                     trouble.isEmpty() ? tr("listening to the music …") : trouble);
    return;
  }
  if (showsSpectrum_)
    paintSpectrum(painter, audio->spectrum, area);
  else
    paintBands(painter, *audio, area);
}

void TimelineView::paintSpectrum(QPainter& painter, const Spectrogram& spectrum, QRectF area) const {
  // From the ground through ember to white, as what glows: the louder, the lighter.
  static const std::array<QRgb, 256> tones = [] {
    const Palette glow{{},
                       {},
                       {{0, {0x1a, 0x1a, 0x1c}},
                        {0.45, {0x3a, 0x2a, 0x38}},
                        {0.65, {0x9c, 0x3c, 0x2c}},
                        {0.82, {0xf0, 0x80, 0x3c}},
                        {1, {0xff, 0xf4, 0xdc}}}};
    std::array<QRgb, 256> made{};
    for (std::size_t i = 0; i < made.size(); ++i) {
      const Srgb8 c = toSrgb8(colourAt(glow, static_cast<double>(i) / 255));
      made[i] = qRgb(c.r, c.g, c.b);
    }
    return made;
  }();
  const Micros start = session_.stage.score()->audioStart;
  const int left = static_cast<int>(std::max(area.left(), xOf(std::max(Micros(0), start))));
  const int wide = static_cast<int>(area.right()) - left;
  if (wide <= 0) return;
  QImage picture(wide, Spectrogram::kRows, QImage::Format_RGB32);
  for (int x = 0; x < wide; ++x)
    for (int row = 0; row < Spectrogram::kRows; ++row)
      picture.setPixel(x, Spectrogram::kRows - 1 - row,
                       tones[spectrum.loudest(row, timeAt(left + x) - start, timeAt(left + x + 1) - start)]);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.drawImage(QRectF(left, area.top() + 1, wide, area.height() - 2), picture);
  painter.setFont(numberFont(0.85));
  for (const auto& [hz, words] :
       {std::pair{100.0, tr("100 Hz")}, std::pair{1'000.0, tr("1 kHz")}, std::pair{10'000.0, tr("10 kHz")}}) {
    const double y = area.bottom() - 1 - Spectrogram::rowOf(hz) / Spectrogram::kRows * (area.height() - 2);
    painter.setPen(theme().quiet);
    painter.drawLine(QPointF(headWidth() - 5, y), QPointF(headWidth(), y));
    painter.drawText(QRectF(0, y - 8, headWidth() - 8, 16), Qt::AlignRight | Qt::AlignVCenter, words);
  }
}

void TimelineView::paintBands(QPainter& painter, const AnalysedAudio& audio, QRectF area) const {
  // Low at the back and dark, high in front and light; each is scaled alike, so that what is loud stands out.
  static const std::array<QColor, 3> dark = {QColor(0x5c, 0x59, 0x55), QColor(0x93, 0x8f, 0x88),
                                             QColor(0xe6, 0xe3, 0xdd)};
  static const std::array<QColor, 3> light = {QColor(0xb4, 0xaf, 0xa5), QColor(0x80, 0x7b, 0x70),
                                              QColor(0x24, 0x22, 0x1f)};
  const double middle = area.center().y();
  // A quiet piece fills the strip, too.
  const auto loudest = audio.peaks.between(Micros(0), audio.clip->length());
  const double half =
      (area.height() / 2 - 3) / static_cast<double>(std::max({loudest.high, -loudest.low, 0.05f}));
  const int first = static_cast<int>(std::max(area.left(), xOf(Micros(0))));
  const Micros start = session_.stage.score()->audioStart;
  painter.setRenderHint(QPainter::Antialiasing, false);
  for (std::size_t band = 0; band < audio.bands.size(); ++band) {
    painter.setPen((theme().isDark ? dark : light)[band]);
    for (int x = first; x < area.right(); ++x) {
      if (timeAt(x) < start) continue;
      const auto peak = audio.bands[band].between(timeAt(x) - start, timeAt(x + 1) - start);
      painter.drawLine(QPointF(x, middle - static_cast<double>(peak.high) * half),
                       QPointF(x, middle - static_cast<double>(peak.low) * half));
    }
  }
  painter.setRenderHint(QPainter::Antialiasing);
}

void TimelineView::paintBarCurves(QPainter& painter, const AnalysedAudio& audio, double top) const {
  const auto& bars = audio.beats.bars;
  const Micros start = session_.stage.score()->audioStart;
  QColor ground = theme().quiet;
  ground.setAlphaF(0.28f);
  const double high = laneHeight() - 3;
  QPolygonF density;
  for (std::size_t n = 0; n < audio.bars.level.size(); ++n) {
    const double from = std::max(headWidth(), xOf(bars[n] + start));
    const double to = xOf(bars[n + 1] + start);
    if (to < headWidth() || from > viewport()->width()) continue;
    const double level = static_cast<double>(audio.bars.level[n]) * high;
    painter.fillRect(QRectF(from, top + laneHeight() - 1 - level, to - from, level), ground);
    density << QPointF((from + to) / 2,
                       top + laneHeight() - 1 - static_cast<double>(audio.bars.density[n]) * high);
  }
  painter.setPen(QPen(theme().quiet, 1));
  painter.drawPolyline(density);
}

void TimelineView::paintLane(QPainter& painter, const MarkLane& lane, double top) const {
  painter.setPen(theme().quiet);
  painter.drawText(QPointF(10, top + laneHeight() - 6), text(lane.name));
  const bool named =
      lane.kind == LaneKind::Sections || lane.kind == LaneKind::Words || lane.kind == LaneKind::Free;
  double last = -1e9;
  const auto audio = session_.stage.audio();
  if (lane.kind == LaneKind::Bars && audio) paintBarCurves(painter, *audio, top);
  const Micros start = session_.stage.score()->audioStart;
  for (std::size_t i = 0; i < lane.marks.size(); ++i) {
    const Mark& mark = lane.marks[i];
    const double x = xOf(mark.at);
    const double end =
        i + 1 < lane.marks.size() ? xOf(lane.marks[i + 1].at) : xOf(session_.stage.score()->length);
    if (end < headWidth() || x > viewport()->width()) continue;
    const QColor colour = session_.selection.has(mark.id) ? theme().ember
                          : lane.kind == LaneKind::Bars   ? theme().text
                          : lane.kind == LaneKind::Beats && audio &&
                                  audio->beats.surenessAt(mark.at - start) < FoundBeats::kUnsure
                              ? theme().watch
                              : theme().quiet;
    if (lane.kind == LaneKind::Sections) {
      const QRectF box =
          QRectF(std::max(x, headWidth()) + 1, top + 1, end - std::max(x, headWidth()) - 2, laneHeight() - 2);
      painter.fillRect(box, theme().raised);
    }
    if (x < headWidth() || (!named && x < last + 3)) continue;
    last = x;
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    const double y = top + laneHeight() / 2;
    if (lane.kind == LaneKind::Beats || lane.kind == LaneKind::Bars)
      painter.drawPolygon(QPolygonF{QPointF(x - 3, y - 3), QPointF(x + 3, y - 3), QPointF(x, y + 4)});
    else
      painter.fillRect(QRectF(x, top + 1, 2, laneHeight() - 2), colour);
    if (!named) continue;
    painter.setPen(theme().text);
    painter.drawText(
        QRectF(x + 6, top, end - x - 8, laneHeight()), Qt::AlignVCenter | Qt::AlignLeft,
        painter.fontMetrics().elidedText(text(mark.text), Qt::ElideRight, static_cast<int>(end - x - 8)));
  }
}

void TimelineView::paintLanes(QPainter& painter) const {
  double top = rulerHeight() + waveHeight();
  painter.setFont(numberFont(0.92));
  for (const MarkLane& lane : session_.stage.score()->lanes) {
    paintLane(painter, lane, top);
    top += laneHeight();
  }
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
  const QImage image = pictures_.picture(clip, static_cast<int>(box.width()), static_cast<int>(box.height()));
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
