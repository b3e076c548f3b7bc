// SPDX-License-Identifier: GPL-3.0-or-later
// How the timeline draws the music: waveform, spectrum, bands, loudness of the bars,
// and the lanes of marks.
#include <cmath>

#include <QPainter>

#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

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
  constexpr std::array kNamed{LaneKind::Sections, LaneKind::Words, LaneKind::Free, LaneKind::Chords,
                              LaneKind::Phonemes};
  const bool named = std::find(kNamed.begin(), kNamed.end(), lane.kind) != kNamed.end();
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

}  // namespace chispa::desk
