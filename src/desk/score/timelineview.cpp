// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/timelineview.h"

#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <cmath>

#include "core/edit/scoreedits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/score/clippictures.h"

namespace chispa::desk {
namespace {

constexpr double kStave = 40;
constexpr double kLayer = 28;
constexpr double kStaveGap = 4;
constexpr double kEdge_px = 7;
constexpr double kSnap_px = 9;

}  // namespace

TimelineView::TimelineView(const Session& session, ClipPictures& pictures, QWidget* parent)
    : QAbstractScrollArea(parent), session_(session), pictures_(pictures) {
  setObjectName(QStringLiteral("timeline"));
  setAccessibleName(tr("Timeline"));
  setFocusPolicy(Qt::StrongFocus);
  setFrameShape(QFrame::NoFrame);
  viewport()->setMouseTracking(true);
  setAcceptDrops(true);
  viewport()->setToolTip(tr("Click the ruler to move the playhead. Drag effects onto a stave, or press Enter. M marks the playhead. Ctrl+wheel zooms."));
  const auto refresh = [this] { relayout(); };
  connect(&session_.document, &Document::showChanged, this, refresh);
  connect(&session_.stage, &Stage::scoreChanged, this, [this] {
    isFitted_ = true;
    relayout();
  });
  connect(&session_.stage, &Stage::audioChanged, this, refresh);
  connect(&session_.stage, &Stage::compiledChanged, viewport(), qOverload<>(&QWidget::update));
  connect(&session_.stage, &Stage::ticked, this, &TimelineView::follow);
  connect(&session_.selection, &Selection::changed, viewport(), qOverload<>(&QWidget::update));
  connect(&pictures_, &ClipPictures::drawn, viewport(), qOverload<>(&QWidget::update));
  relayout();
}

double TimelineView::headWidth() const { return textWidth(16); }
double TimelineView::rulerHeight() const { return fontMetrics().height() + 10; }
double TimelineView::waveHeight() const { return 46; }
double TimelineView::laneHeight() const { return fontMetrics().height() + 4; }

double TimelineView::stavesTop() const {
  const Score* score = session_.stage.score();
  return rulerHeight() + waveHeight() + laneHeight() * static_cast<double>(score ? score->lanes.size() : 0) + 4;
}

double TimelineView::xOf(Micros t) const { return headWidth() + seconds(t) * pxPerSecond_ - horizontalScrollBar()->value(); }

Micros TimelineView::timeAt(double x) const {
  return std::max(Micros(0), micros((x - headWidth() + horizontalScrollBar()->value()) / pxPerSecond_));
}

void TimelineView::relayout() {
  rows_.clear();
  const Score* score = session_.stage.score();
  double y = 0;
  for (const ZoneId zone : score ? score->staves : std::vector<ZoneId>{}) {
    StaveRow row{zone, y, kStave, 1};
    for (const auto& clip : score->clips)
      if (clip->zone == zone) row.layers = std::max(row.layers, clip->layer + 1);
    if (row.layers > 1) row.height = kLayer * row.layers;
    y += row.height + kStaveGap;
    rows_.push_back(row);
  }
  if (chosenZone_ && !rowOf(chosenZone_)) chosenZone_ = {};
  if (!chosenZone_ && !rows_.empty()) chosenZone_ = rows_.front().zone;
  if (isFitted_) zoomToAll();
  updateScrollBars();
  viewport()->update();
}

void TimelineView::updateScrollBars() {
  const Score* score = session_.stage.score();
  const double wide = score ? seconds(score->length) * pxPerSecond_ + (isFitted_ ? 0 : 40) : 0;
  horizontalScrollBar()->setRange(0, std::max(0, static_cast<int>(wide - viewport()->width() + headWidth())));
  horizontalScrollBar()->setPageStep(viewport()->width());
  const double tall = rows_.empty() ? 0 : rows_.back().top + rows_.back().height + 8;
  verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(tall - viewport()->height() + stavesTop())));
  verticalScrollBar()->setPageStep(viewport()->height());
  verticalScrollBar()->setSingleStep(20);
}

void TimelineView::zoomToAll() {
  const Score* score = session_.stage.score();
  isFitted_ = true;
  if (!score || score->length.count() == 0) return;
  pxPerSecond_ = std::max(1.0, (viewport()->width() - headWidth() - 12) / seconds(score->length));
  updateScrollBars();
  horizontalScrollBar()->setValue(0);
  viewport()->update();
}

void TimelineView::zoomBy(double factor) {
  isFitted_ = false;
  const double middle = headWidth() + (viewport()->width() - headWidth()) / 2;
  const double at = session_.stage.isPlaying() ? xOf(session_.stage.position()) : middle;
  const Micros held = timeAt(at);
  pxPerSecond_ = std::clamp(pxPerSecond_ * factor, 1.0, 2000.0);
  updateScrollBars();
  horizontalScrollBar()->setValue(static_cast<int>(seconds(held) * pxPerSecond_ + headWidth() - at));
  viewport()->update();
}

void TimelineView::follow() {
  if (session_.stage.isPlaying() && drag_ == Drag::None) {
    const double x = xOf(session_.stage.position());
    if (x > viewport()->width() - 30 || x < headWidth())
      horizontalScrollBar()->setValue(static_cast<int>(seconds(session_.stage.position()) * pxPerSecond_ - 40));
  }
  if (isVisible()) viewport()->update();
}

const TimelineView::StaveRow* TimelineView::rowOf(ZoneId zone) const {
  const auto found = std::find_if(rows_.begin(), rows_.end(), [zone](const StaveRow& row) { return row.zone == zone; });
  return found == rows_.end() ? nullptr : &*found;
}

const TimelineView::StaveRow* TimelineView::rowAt(double y) const {
  const double inside = y - stavesTop() + verticalScrollBar()->value();
  if (y < stavesTop()) return nullptr;
  const auto found = std::find_if(rows_.begin(), rows_.end(), [inside](const StaveRow& row) { return inside >= row.top && inside < row.top + row.height + kStaveGap; });
  return found == rows_.end() ? nullptr : &*found;
}

QRectF TimelineView::boxOf(const Clip& clip, const StaveRow& row) const {
  const double layer = row.height / row.layers;
  const double top = stavesTop() - verticalScrollBar()->value() + row.top + layer * (row.layers - 1 - std::min(clip.layer, row.layers - 1));
  const double left = xOf(clip.start);
  return {left, top + 1, std::max(3.0, xOf(clip.end()) - left), layer - 2};
}

QRectF TimelineView::clipBox(ClipId id) const {
  const Score* score = session_.stage.score();
  const Clip* clip = score ? findClip(*score, id) : nullptr;
  const StaveRow* row = clip ? rowOf(clip->zone) : nullptr;
  return row ? boxOf(*clip, *row) : QRectF();
}

QRectF TimelineView::staveBox(ZoneId zone) const {
  const StaveRow* row = rowOf(zone);
  if (!row) return {};
  return {headWidth(), stavesTop() - verticalScrollBar()->value() + row->top, viewport()->width() - headWidth(), row->height};
}

std::shared_ptr<const Clip> TimelineView::clipAt(QPointF at) const {
  const Score* score = session_.stage.score();
  const StaveRow* row = rowAt(at.y());
  if (!score || !row || at.x() < headWidth()) return nullptr;
  for (const auto& clip : score->clips)
    if (clip->zone == row->zone && boxOf(*clip, *row).contains(at)) return clip;
  return nullptr;
}

std::optional<MarkId> TimelineView::markAt(QPointF at) const {
  const Score* score = session_.stage.score();
  const double first = rulerHeight() + waveHeight();
  if (!score || at.y() < first || at.y() >= stavesTop() - 4) return std::nullopt;
  const auto index = static_cast<std::size_t>((at.y() - first) / laneHeight());
  if (index >= score->lanes.size()) return std::nullopt;
  for (const Mark& mark : score->lanes[index].marks)
    if (std::abs(xOf(mark.at) - at.x()) < 5) return mark.id;
  return std::nullopt;
}

void TimelineView::paintRuler(QPainter& painter) const {
  const Score* score = session_.stage.score();
  painter.fillRect(QRectF(0, 0, viewport()->width(), rulerHeight()), theme().panel);
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
    for (std::size_t i = 0; i < bars->marks.size(); ++i) tick(bars->marks[i].at, QString::number(i + 1), i % 4 == 0);
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(10, rulerHeight() - 9), tr("Bars"));
    return;
  }
  const int step = std::max(1, static_cast<int>(60 / pxPerSecond_));
  for (int s = 0; s <= seconds(score->length); s += step) tick(std::chrono::seconds(s), timeText(std::chrono::seconds(s)), true);
  painter.setPen(theme().quiet);
  painter.drawText(QPointF(10, rulerHeight() - 9), tr("Seconds"));
}

void TimelineView::paintWave(QPainter& painter) const {
  const Score* score = session_.stage.score();
  const QRectF area(headWidth(), rulerHeight(), viewport()->width() - headWidth(), waveHeight());
  painter.fillRect(QRectF(0, area.top(), viewport()->width(), area.height()), theme().window);
  const auto audio = session_.stage.audio();
  painter.setPen(theme().quiet);
  const QRectF words(10, area.top() + 4, headWidth() - 14, area.height());
  if (score->audio.empty()) {
    painter.drawText(words, tr("no sound"));
    return;
  }
  const QString name = text(score->audio);
  painter.drawText(words, painter.fontMetrics().elidedText(name.section(QLatin1Char('/'), -1), Qt::ElideMiddle, static_cast<int>(words.width())));
  if (!audio) {
    const QString trouble = session_.stage.audioTrouble(score->audio);
    painter.setPen(trouble.isEmpty() ? theme().quiet : theme().watch);
    painter.drawText(area.adjusted(10, 4, 0, 0), trouble.isEmpty() ? tr("listening to the music …") : trouble);
    return;
  }
  painter.setPen(theme().isDark ? QColor(0x8a, 0x87, 0x80) : QColor(0x8a, 0x84, 0x78));
  const double middle = area.center().y();
  const int first = static_cast<int>(std::max(area.left(), xOf(Micros(0))));
  for (int x = first; x < area.right(); ++x) {
    const auto peak = audio->peaks.between(timeAt(x), timeAt(x + 1));
    const double half = area.height() / 2 - 3;
    painter.drawLine(QPointF(x, middle - static_cast<double>(peak.high) * half), QPointF(x, middle - static_cast<double>(peak.low) * half));
  }
}

void TimelineView::paintLane(QPainter& painter, const MarkLane& lane, double top) const {
  painter.setPen(theme().quiet);
  painter.drawText(QPointF(10, top + laneHeight() - 6), text(lane.name));
  const bool named = lane.kind == LaneKind::Sections || lane.kind == LaneKind::Words || lane.kind == LaneKind::Free;
  double last = -1e9;
  for (std::size_t i = 0; i < lane.marks.size(); ++i) {
    const Mark& mark = lane.marks[i];
    const double x = xOf(mark.at);
    const double end = i + 1 < lane.marks.size() ? xOf(lane.marks[i + 1].at) : xOf(session_.stage.score()->length);
    if (end < headWidth() || x > viewport()->width()) continue;
    const QColor colour = chosenMark_ == mark.id ? theme().ember : lane.kind == LaneKind::Bars ? theme().text : theme().quiet;
    if (lane.kind == LaneKind::Sections) {
      const QRectF box = QRectF(std::max(x, headWidth()) + 1, top + 1, end - std::max(x, headWidth()) - 2, laneHeight() - 2);
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
    painter.drawText(QRectF(x + 6, top, end - x - 8, laneHeight()), Qt::AlignVCenter | Qt::AlignLeft, painter.fontMetrics().elidedText(text(mark.text), Qt::ElideRight, static_cast<int>(end - x - 8)));
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

void TimelineView::paintClip(QPainter& painter, const std::shared_ptr<const Clip>& clip, QRectF box) {
  const bool selected = session_.selection.has(clip->id);
  painter.fillRect(box, theme().night);
  const QImage image = pictures_.picture(clip, static_cast<int>(box.width()), static_cast<int>(box.height()));
  if (!image.isNull()) painter.drawImage(box, image);
  if (!findEffect(clip->effect)) {
    painter.setPen(theme().watch);
    painter.drawText(box.adjusted(4, 0, 0, 0), Qt::AlignVCenter, tr("! unknown effect “%1”").arg(text(clip->effect)));
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(selected ? theme().ember : theme().line, selected ? 2 : 1));
  painter.drawRect(box.adjusted(0.5, 0.5, -0.5, -0.5));
  if (!selected) return;
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ember);
  painter.drawRect(QRectF(box.left(), box.center().y() - 6, 4, 12));
  painter.drawRect(QRectF(box.right() - 4, box.center().y() - 6, 4, 12));
}

void TimelineView::paintStaves(QPainter& painter) {
  const Score* score = session_.stage.score();
  painter.save();
  painter.setClipRect(QRectF(0, stavesTop(), viewport()->width(), viewport()->height() - stavesTop()));
  const PixelMap* map = session_.stage.compiled() ? &session_.stage.compiled()->map : nullptr;
  for (const StaveRow& row : rows_) {
    const double y = stavesTop() - verticalScrollBar()->value() + row.top;
    if (y > viewport()->height() || y + row.height < stavesTop()) continue;
    const bool chosen = row.zone == chosenZone_;
    painter.fillRect(QRectF(0, y, viewport()->width(), row.height), chosen ? theme().selectedGround() : theme().panel);
    painter.fillRect(QRectF(headWidth(), y, viewport()->width() - headWidth(), row.height), theme().isDark ? QColor(0x15, 0x15, 0x17) : QColor(0xe2, 0xdf, 0xd8));
  }
  painter.setClipRect(QRectF(headWidth(), stavesTop(), viewport()->width() - headWidth(), viewport()->height() - stavesTop()));
  for (const auto& clip : score->clips) {
    const StaveRow* row = rowOf(clip->zone);
    if (!row) continue;
    const QRectF box = boxOf(*clip, *row);
    if (box.right() >= headWidth() && box.left() <= viewport()->width() && box.bottom() >= stavesTop() && box.top() <= viewport()->height()) paintClip(painter, clip, box);
  }
  painter.setClipRect(QRectF(0, stavesTop(), headWidth(), viewport()->height() - stavesTop()));
  painter.setFont(font());
  for (const StaveRow& row : rows_) {
    const Zone* zone = chispa::find(session_.show().zones, row.zone);
    const double y = stavesTop() - verticalScrollBar()->value() + row.top;
    if (!zone) continue;
    painter.setPen(theme().text);
    const int line = fontMetrics().height();
    painter.drawText(QPointF(10, y + line), fontMetrics().elidedText(text(zone->name), Qt::ElideRight, static_cast<int>(headWidth()) - 16));
    painter.setPen(theme().quiet);
    if (!map) continue;
    const CompiledScore* compiled = session_.stage.compiled()->scoreOf(score->id);
    if (!compiled) continue;
    for (const auto& stave : compiled->staves)
      if (stave.zone == row.zone)
        painter.drawText(QPointF(10, y + 2 * line), stave.cells->rows > 1 ? QStringLiteral("%1 × %2").arg(stave.cells->columns).arg(stave.cells->rows) : tr("%1 cells").arg(stave.cells->count()));
  }
  painter.restore();
}

void TimelineView::paintPlayhead(QPainter& painter) const {
  const double x = xOf(session_.stage.position());
  if (x < headWidth() - 1 || x > viewport()->width()) return;
  painter.setPen(QPen(theme().ember, 2));
  painter.drawLine(QPointF(x, rulerHeight() - 8), QPointF(x, viewport()->height()));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ember);
  painter.drawPolygon(QPolygonF{QPointF(x - 6, rulerHeight() - 14), QPointF(x + 6, rulerHeight() - 14), QPointF(x, rulerHeight() - 4)});
  if (drag_ == Drag::None || drag_ == Drag::Mark) return;
  painter.setPen(theme().text);
  const QString words = drag_ == Drag::Scrub ? timeText(session_.stage.position()) : timeText(timeAt(pointer_.x()));
  painter.drawText(pointer_ + QPointF(12, -6), words);
}

void TimelineView::paintEmpty(QPainter& painter) const {
  painter.setPen(theme().quiet);
  painter.drawText(viewport()->rect(), Qt::AlignCenter,
                   tr("No score is open.\n\nChoose “New score” above and pick a piece of music:\nChispa finds its bars and beats, and gives every zone a stave."));
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
  paintPlayhead(painter);
}

void TimelineView::resizeEvent(QResizeEvent*) {
  if (isFitted_) zoomToAll();
  updateScrollBars();
}

void TimelineView::chooseZone(ZoneId zone) {
  chosenZone_ = zone;
  emit zoneChosen(zone);
}

void TimelineView::mousePressEvent(QMouseEvent* event) {
  pressed_ = pointer_ = event->position();
  const Score* score = session_.stage.score();
  if (!score || event->button() != Qt::LeftButton) return;
  chosenMark_ = markAt(pressed_);
  if (chosenMark_) {
    drag_ = Drag::Mark;
    return viewport()->update();
  }
  if (pressed_.y() < stavesTop() && pressed_.x() < headWidth()) return session_.selection.select(score->id);
  if (pressed_.y() < stavesTop()) {
    drag_ = Drag::Scrub;
    return session_.stage.seek(timeAt(pressed_.x()));
  }
  if (const StaveRow* row = rowAt(pressed_.y())) chooseZone(row->zone);
  const auto clip = clipAt(pressed_);
  if (!clip) {
    if (pressed_.x() < headWidth() && chosenZone_)
      session_.selection.select(chosenZone_);
    else
      session_.selection.clear();
    return;
  }
  if (event->modifiers() & Qt::ShiftModifier)
    return session_.selection.toggle(clip->id);
  if (!session_.selection.has(clip->id)) session_.selection.select(ClipIds{clip->id});
  const QRectF box = clipBox(clip->id);
  const double edge = std::min(kEdge_px, box.width() / 4);
  drag_ = pressed_.x() < box.left() + edge ? Drag::ResizeStart : pressed_.x() > box.right() - edge ? Drag::ResizeEnd : Drag::Move;
  grabbed_ = clip->id;
  dragged_.clear();
  for (const ClipId id : session_.selection.clips())
    if (const Clip* one = findClip(*score, id)) dragged_.push_back(*one);
}

Micros TimelineView::snap(Micros at, const ClipIds& without) const {
  const Score* score = session_.stage.score();
  return snapped(snapPoints(*score, without), at, micros(kSnap_px / pxPerSecond_)).value_or(at);
}

void TimelineView::dragClips(QPointF to) {
  const auto grabbed = std::find_if(dragged_.begin(), dragged_.end(), [this](const Clip& clip) { return clip.id == grabbed_; });
  if (grabbed == dragged_.end()) return;
  const ClipIds ids = session_.selection.clips();
  const Micros wanted = std::max(Micros(0), grabbed->start + micros((to.x() - pressed_.x()) / pxPerSecond_));
  const Micros by = snap(wanted, ids) - grabbed->start;
  const StaveRow* row = dragged_.size() == 1 ? rowAt(to.y()) : nullptr;
  session_.edit(tr("move clips"), [&](Show& show) {
    for (const Clip& was : dragged_)
      changeClip(show, session_.stage.score()->id, was.id, [&](Clip& clip) {
        clip.start = std::max(Micros(0), was.start + by);
        if (row) clip.zone = row->zone;
      });
  }, QStringLiteral("clip-drag"));
}

void TimelineView::dragEdge(QPointF to) {
  const auto grabbed = std::find_if(dragged_.begin(), dragged_.end(), [this](const Clip& clip) { return clip.id == grabbed_; });
  if (grabbed == dragged_.end()) return;
  constexpr Micros kShortest{20'000};
  const Micros at = snap(timeAt(to.x()), {grabbed_});
  session_.edit(tr("resize a clip"), [&](Show& show) {
    changeClip(show, session_.stage.score()->id, grabbed_, [&](Clip& clip) {
      if (drag_ == Drag::ResizeEnd) {
        clip.length = std::max(kShortest, at - grabbed->start);
      } else {
        clip.start = std::min(at, grabbed->end() - kShortest);
        clip.length = grabbed->end() - clip.start;
      }
    });
  }, QStringLiteral("clip-drag"));
}

void TimelineView::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  switch (drag_) {
    case Drag::Scrub: return session_.stage.seek(timeAt(pointer_.x()));
    case Drag::Move:
      if (std::abs(pointer_.x() - pressed_.x()) + std::abs(pointer_.y() - pressed_.y()) > 4) dragClips(pointer_);
      return;
    case Drag::ResizeStart:
    case Drag::ResizeEnd: return dragEdge(pointer_);
    case Drag::Mark:
      session_.edit(tr("move a mark"), [&](Show& show) { moveMark(show, session_.stage.score()->id, *chosenMark_, timeAt(pointer_.x())); }, QStringLiteral("mark-drag"));
      return;
    case Drag::None: break;
  }
  const auto clip = clipAt(pointer_);
  const QRectF box = clip ? clipBox(clip->id) : QRectF();
  const bool onEdge = clip && (pointer_.x() < box.left() + kEdge_px || pointer_.x() > box.right() - kEdge_px);
  viewport()->setCursor(onEdge ? Qt::SizeHorCursor : Qt::ArrowCursor);
}

void TimelineView::mouseReleaseEvent(QMouseEvent*) {
  if (drag_ != Drag::None && drag_ != Drag::Scrub) session_.document.seal();
  drag_ = Drag::None;
  viewport()->update();
}

ClipId TimelineView::addClipAt(const QString& effect, ZoneId zone, Micros at) {
  const Score* score = session_.stage.score();
  if (!score || !chispa::find(session_.show().zones, zone)) return {};
  const MarkLane* beats = laneOf(*score, LaneKind::Beats);
  const MarkLane* bars = laneOf(*score, LaneKind::Bars);
  Micros start = at;
  if (beats && !beats->marks.empty()) {
    std::vector<Micros> points;
    for (const Mark& mark : beats->marks) points.push_back(mark.at);
    start = snapped(points, at, Micros(10'000'000)).value_or(at);
  }
  Micros end = start + Micros(4'000'000);
  if (bars) {
    const auto next = std::find_if(bars->marks.begin(), bars->marks.end(), [start](const Mark& mark) { return mark.at > start + Micros(1000); });
    if (next != bars->marks.end()) end = std::next(next) != bars->marks.end() ? std::next(next)->at : next->at;
  }
  const PaletteId palette = chispa::find(session_.show().palettes, chosenPalette_) ? chosenPalette_ : session_.show().palettes.empty() ? PaletteId{} : session_.show().palettes.front()->id;
  ClipId added;
  const ScoreId id = score->id;
  session_.edit(tr("add a clip"), [&](Show& show) { added = addClip(show, id, zone, effect.toStdString(), palette, start, end - start); });
  session_.selection.select(ClipIds{added});
  return added;
}

void TimelineView::mouseDoubleClickEvent(QMouseEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  if (row && !clipAt(event->position()) && event->position().x() >= headWidth()) addClipAt(chosenEffect_, row->zone, timeAt(event->position().x()));
}

void TimelineView::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasFormat(QStringLiteral("application/x-chispa-effect"))) event->acceptProposedAction();
}

void TimelineView::dragMoveEvent(QDragMoveEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  if (row) chosenZone_ = row->zone;
  event->setAccepted(row != nullptr);
  viewport()->update();
}

void TimelineView::dropEvent(QDropEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  if (!row) return;
  addClipAt(QString::fromUtf8(event->mimeData()->data(QStringLiteral("application/x-chispa-effect"))), row->zone, timeAt(event->position().x()));
  event->acceptProposedAction();
}

void TimelineView::wheelEvent(QWheelEvent* event) {
  const int turn = event->angleDelta().y() != 0 ? event->angleDelta().y() : event->angleDelta().x();
  if (event->modifiers() & Qt::ControlModifier) {
    isFitted_ = false;
    const Micros held = timeAt(event->position().x());
    pxPerSecond_ = std::clamp(pxPerSecond_ * std::pow(1.0015, turn), 1.0, 2000.0);
    updateScrollBars();
    horizontalScrollBar()->setValue(static_cast<int>(seconds(held) * pxPerSecond_ + headWidth() - event->position().x()));
  } else if (event->modifiers() & Qt::ShiftModifier || event->angleDelta().x() != 0) {
    horizontalScrollBar()->setValue(horizontalScrollBar()->value() - turn);
  } else {
    verticalScrollBar()->setValue(verticalScrollBar()->value() - turn / 2);
  }
  viewport()->update();
}

void TimelineView::placeMark() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const ScoreId id = score->id;
  const Micros at = session_.stage.position();
  const MarkLane* lane = laneOf(*score, LaneKind::Free);
  const std::string words = std::to_string(lane ? lane->marks.size() + 1 : 1);
  session_.edit(tr("place a mark"), [&](Show& show) { addMark(show, id, LaneKind::Free, tr("Marks").toStdString(), at, words); });
}

bool TimelineView::deleteChosenMark() {
  const Score* score = session_.stage.score();
  if (!chosenMark_ || !score) return false;
  const ScoreId id = score->id;
  session_.edit(tr("delete a mark"), [&](Show& show) { deleteMark(show, id, *chosenMark_); });
  chosenMark_.reset();
  return true;
}

void TimelineView::nudge(int beats) {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  if (!score) return;
  const MarkLane* lane = laneOf(*score, LaneKind::Beats);
  const Micros beat = lane && lane->marks.size() > 1 ? lane->marks[1].at - lane->marks[0].at : Micros(500'000);
  if (ids.empty()) return session_.stage.seek(session_.stage.position() + beat * beats);
  const ScoreId id = score->id;
  session_.edit(tr("nudge clips"), [&](Show& show) { moveClips(show, id, ids, beat * beats); }, QStringLiteral("clip-nudge"));
}

void TimelineView::keyPressEvent(QKeyEvent* event) {
  const auto step = [this](int by) {
    const StaveRow* row = rowOf(chosenZone_);
    const auto index = row ? row - rows_.data() + by : 0;
    if (!rows_.empty()) chooseZone(rows_[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(index, 0, std::ssize(rows_) - 1))].zone);
    viewport()->update();
  };
  switch (event->key()) {
    case Qt::Key_Left: return nudge(-1);
    case Qt::Key_Right: return nudge(1);
    case Qt::Key_Up: return step(-1);
    case Qt::Key_Down: return step(1);
    case Qt::Key_Return:
    case Qt::Key_Enter: addClipAt(chosenEffect_, chosenZone_, session_.stage.position()); return;
    case Qt::Key_Home: return session_.stage.seek(Micros(0));
    case Qt::Key_Plus: return zoomBy(1.25);
    case Qt::Key_Minus: return zoomBy(0.8);
    case Qt::Key_0: return zoomToAll();
    default: QAbstractScrollArea::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
