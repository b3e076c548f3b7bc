// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/timelineview.h"

#include <QGuiApplication>
#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <cmath>
#include <set>
#include <unordered_set>

#include "core/edit/clipedits.h"
#include "core/edit/scoreedits.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/score/chosenthing.h"
#include "desk/score/clippictures.h"

namespace chispa::desk {
namespace {

constexpr double kStave = 40;
constexpr double kLayer = 28;
/// A layer that curves are drawn on.
constexpr double kCurveLayer = 96;
constexpr double kStaveGap = 4;
constexpr double kEdge_px = 7;
constexpr double kSnap_px = 9;

}  // namespace

TimelineView::TimelineView(const Session& session, ClipPictures& pictures, QWidget* parent)
    : QAbstractScrollArea(parent), session_(session), pictures_(pictures), curves_(session) {
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
  connect(&session_.selection, &Selection::changed, this, [this] {
    const Clip* curved = curvedClip();
    if (tall_ != (curved ? curved->zone : ZoneId{})) relayout();
    viewport()->update();
  });
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
  clipsOf_.clear();
  const Score* score = session_.stage.score();
  if (score)
    for (const auto& clip : score->clips) clipsOf_[clip->zone].push_back(clip);
  for (auto& [zone, clips] : clipsOf_) std::stable_sort(clips.begin(), clips.end(), [](const auto& a, const auto& b) { return a->start < b->start; });
  const Clip* curved = curvedClip();
  tall_ = curved ? curved->zone : ZoneId{};
  double y = 0;
  std::set<std::string> headed;
  for (const ZoneId zone : score ? score->staves : std::vector<ZoneId>{}) {
    const auto folder = std::find_if(score->folders.begin(), score->folders.end(), [zone](const StaveFolder& f) { return std::find(f.zones.begin(), f.zones.end(), zone) != f.zones.end(); });
    if (folder != score->folders.end()) {
      if (headed.insert(folder->name).second) {
        const double height = fontMetrics().height() + 6;
        rows_.push_back({{}, y, height, 1, text(folder->name)});
        y += height + kStaveGap;
      }
      if (folder->isFolded) continue;
    }
    StaveRow row{zone, y, kStave, 1, {}};
    for (const auto& clip : clipsOf_[zone]) row.layers = std::max(row.layers, clip->layer + 1);
    if (row.layers > 1) row.height = kLayer * row.layers;
    if (zone == tall_) row.height = kCurveLayer * row.layers;
    y += row.height + kStaveGap;
    rows_.push_back(row);
  }
  if (chosenZone_ && !rowOf(chosenZone_)) chosenZone_ = {};
  for (const StaveRow& row : rows_)
    if (!chosenZone_) chosenZone_ = row.zone;
  if (isFitted_) zoomToAll();
  updateScrollBars();
  viewport()->update();
  emit seenChanged();
}

const Clip* TimelineView::curvedClip() const {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  const Clip* clip = score && ids.size() == 1 ? findClip(*score, ids.front()) : nullptr;
  return clip && CurveHand::hasCurves(*clip) ? clip : nullptr;
}

void TimelineView::reveal(ClipId id) {
  const QRectF box = clipBox(id);
  if (box.isNull()) return;
  if (box.top() < stavesTop()) verticalScrollBar()->setValue(verticalScrollBar()->value() - static_cast<int>(stavesTop() - box.top()));
  if (box.bottom() > viewport()->height()) verticalScrollBar()->setValue(verticalScrollBar()->value() + static_cast<int>(box.bottom() - viewport()->height()) + 1);
  if (box.left() < headWidth() || box.left() > viewport()->width()) horizontalScrollBar()->setValue(horizontalScrollBar()->value() + static_cast<int>(box.left() - headWidth() - 40));
}

void TimelineView::reveal(Micros at) { horizontalScrollBar()->setValue(static_cast<int>(seconds(at) * pxPerSecond_ - (viewport()->width() - headWidth()) / 2)); }

void TimelineView::scrollContentsBy(int, int) {
  viewport()->update();
  emit seenChanged();
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
  const auto found = clipsOf_.find(row->zone);
  if (found == clipsOf_.end()) return nullptr;
  for (const auto& clip : found->second)
    if (boxOf(*clip, *row).contains(at)) return clip;
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

void TimelineView::selectBand() {
  const QRectF band = QRectF(pressed_, pointer_).normalized();
  ClipIds inside;
  for (const StaveRow& row : rows_)
    if (const auto clips = clipsOf_.find(row.zone); clips != clipsOf_.end())
      for (const auto& clip : clips->second)
        if (boxOf(*clip, row).intersects(band)) inside.push_back(clip->id);
  if (inside.empty()) return session_.selection.clear();
  session_.selection.select(inside);
}

void TimelineView::toggleFolder(const QString& name) {
  session_.edit(tr("fold staves"), [&, id = session_.stage.score()->id](Show& show) {
    changeItem(show.scores, id, [&](Score& score) {
      for (StaveFolder& folder : score.folders)
        if (text(folder.name) == name) folder.isFolded = !folder.isFolded;
    });
  });
}

PaletteId TimelineView::paletteForNew() const {
  const auto& palettes = session_.show().palettes;
  return chispa::find(palettes, chosenPalette_) ? chosenPalette_ : palettes.empty() ? PaletteId{} : palettes.front()->id;
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
  const StaveRow* row = rowAt(pressed_.y());
  if (row && !row->zone) return toggleFolder(row->folder);
  if (row) chooseZone(row->zone);
  const auto clip = clipAt(pressed_);
  if (!clip) {
    if (pressed_.x() < headWidth() && chosenZone_)
      session_.selection.select(chosenZone_);
    else
      drag_ = Drag::Band;
    return;
  }
  if (event->modifiers() & Qt::ShiftModifier)
    return session_.selection.toggle(clip->id);
  if (!session_.selection.has(clip->id)) session_.selection.select(ClipIds{clip->id});
  const QRectF box = clipBox(clip->id);
  if (const Clip* curved = curvedClip(); curved && curved->id == clip->id && curves_.press(*curved, box, pressed_)) {
    drag_ = Drag::Curve;
    return viewport()->update();
  }
  const double edge = std::min(kEdge_px, box.width() / 4);
  drag_ = pressed_.x() < box.left() + edge ? Drag::ResizeStart : pressed_.x() > box.right() - edge ? Drag::ResizeEnd : Drag::Move;
  grabbed_ = clip->id;
  dragged_.clear();
  const ClipIds ids = session_.selection.clips();
  const std::unordered_set<ClipId> wanted(ids.begin(), ids.end());
  for (const auto& one : score->clips)
    if (wanted.contains(one->id)) dragged_.push_back(*one);
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
  std::unordered_map<ClipId, Micros> starts;
  for (const Clip& was : dragged_) starts[was.id] = was.start;
  session_.edit(tr("move clips"), [&](Show& show) {
    changeClips(show, session_.stage.score()->id, ids, [&](Clip& clip) {
      clip.start = std::max(Micros(0), starts[clip.id] + by);
      if (row && row->zone) clip.zone = row->zone;
    });
  }, QStringLiteral("clip-drag"));
}

void TimelineView::dragEdge(QPointF to) {
  const auto grabbed = std::find_if(dragged_.begin(), dragged_.end(), [this](const Clip& clip) { return clip.id == grabbed_; });
  if (grabbed == dragged_.end()) return;
  constexpr Micros kShortest{20'000};
  const Micros at = snap(timeAt(to.x()), {grabbed_});
  const bool isStretching = QGuiApplication::keyboardModifiers() & Qt::AltModifier;
  session_.edit(isStretching ? tr("stretch a clip") : tr("resize a clip"), [&](Show& show) {
    changeClip(show, session_.stage.score()->id, grabbed_, [&](Clip& clip) {
      if (drag_ == Drag::ResizeEnd) {
        clip.length = std::max(kShortest, at - grabbed->start);
        // With Alt the content is stretched along.
        if (isStretching) clip.speed = std::clamp(grabbed->speed * seconds(grabbed->length) / seconds(clip.length), limits::kSlowest, limits::kFastest);
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
    case Drag::Band: return viewport()->update();
    case Drag::Curve:
      if (const Clip* curved = curvedClip()) curves_.drag(clipBox(curved->id), pointer_);
      return;
    case Drag::None: break;
  }
  const auto clip = clipAt(pointer_);
  const QRectF box = clip ? clipBox(clip->id) : QRectF();
  const bool onEdge = clip && (pointer_.x() < box.left() + kEdge_px || pointer_.x() > box.right() - kEdge_px);
  viewport()->setCursor(onEdge ? Qt::SizeHorCursor : Qt::ArrowCursor);
}

void TimelineView::mouseReleaseEvent(QMouseEvent*) {
  if (drag_ == Drag::Band) selectBand();
  if (drag_ == Drag::Curve) curves_.release();
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
  const PaletteId palette = paletteForNew();
  const ChosenThing thing = chosenThing(session_.show(), effect);
  ClipId added;
  const ScoreId id = score->id;
  session_.edit(tr("add a clip"), [&](Show& show) {
    if (thing.block) {
      added = placeBlock(show, id, thing.block, zone, start);
      return;
    }
    added = addClip(show, id, zone, thing.effect, palette, start, end - start);
    if (!thing.params.empty()) changeClip(show, id, added, [&](Clip& clip) { clip.params = thing.params; });
  });
  session_.selection.select(ClipIds{added});
  return added;
}

void TimelineView::mouseDoubleClickEvent(QMouseEvent* event) {
  const Clip* curved = curvedClip();
  if (curved && clipBox(curved->id).contains(event->position()) && curves_.add(*curved, clipBox(curved->id), event->position())) return;
  const StaveRow* row = rowAt(event->position().y());
  if (row && row->zone && !clipAt(event->position()) && event->position().x() >= headWidth()) addClipAt(chosenEffect_, row->zone, timeAt(event->position().x()));
}

void TimelineView::contextMenuEvent(QContextMenuEvent* event) {
  if (const Clip* curved = curvedClip()) curves_.remove(*curved, clipBox(curved->id), event->pos());
}

void TimelineView::dragEnterEvent(QDragEnterEvent* event) {
  for (const char* kind : {kEffectMime, kPaletteMime})
    if (event->mimeData()->hasFormat(QLatin1String(kind))) event->acceptProposedAction();
}

void TimelineView::dragMoveEvent(QDragMoveEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  if (event->mimeData()->hasFormat(QLatin1String(kPaletteMime))) return event->setAccepted(clipAt(event->position()) != nullptr);
  if (row && row->zone) chosenZone_ = row->zone;
  event->setAccepted(row && row->zone);
  viewport()->update();
}

void TimelineView::givePalette(PaletteId palette, QPointF at) {
  const auto clip = clipAt(at);
  if (!clip) return;
  // Dropped on one of the selected clips it is for all of them.
  const ClipIds ids = session_.selection.has(clip->id) ? session_.selection.clips() : ClipIds{clip->id};
  session_.edit(tr("palette"), [&, id = session_.stage.score()->id](Show& show) { changeClips(show, id, ids, [palette](Clip& c) { c.palette = palette; }); });
}

void TimelineView::dropEvent(QDropEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  if (!row || !row->zone) return;
  event->acceptProposedAction();
  if (const auto palette = paletteOf(*event->mimeData())) return givePalette(*palette, event->position());
  addClipAt(QString::fromUtf8(event->mimeData()->data(QLatin1String(kEffectMime))), row->zone, timeAt(event->position().x()));
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
    // Heads of folders are passed over.
    auto at = std::clamp<std::ptrdiff_t>(index, 0, std::max<std::ptrdiff_t>(0, std::ssize(rows_) - 1));
    while (at + by >= 0 && at + by < std::ssize(rows_) && !rows_[static_cast<std::size_t>(at)].zone) at += by;
    if (at < std::ssize(rows_) && rows_[static_cast<std::size_t>(at)].zone) chooseZone(rows_[static_cast<std::size_t>(at)].zone);
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
