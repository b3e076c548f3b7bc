// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/timelineview.h"

#include <cmath>
#include <set>

#include <QPainter>
#include <QScrollBar>

#include "core/edit/scoreedits.h"
#include "core/edit/staveedits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/score/clippictures.h"

namespace chispa::desk {
namespace {

constexpr double kStave = 40;
constexpr double kLayer = 28;
/// A layer that curves are drawn on.
constexpr double kCurveLayer = 96;
constexpr double kStaveGap = 4;

}  // namespace

TimelineView::TimelineView(const Session& session, ClipPictures& pictures, QWidget* parent)
    : QAbstractScrollArea(parent), session_(session), pictures_(pictures), curves_(session) {
  setObjectName(QStringLiteral("timeline"));
  setAccessibleName(tr("Timeline"));
  setFocusPolicy(Qt::StrongFocus);
  setFrameShape(QFrame::NoFrame);
  viewport()->setMouseTracking(true);
  setAcceptDrops(true);
  viewport()->setToolTip(tr(
      "Click the ruler to move the playhead; a drag on it with Shift sets the part that loops. Drag effects "
      "onto a stave, or press Enter. M marks the playhead. Ctrl+wheel zooms."));
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
    sayWhatIsSelected(this);
  });
  connect(&pictures_, &ClipPictures::drawn, viewport(), qOverload<>(&QWidget::update));
  relayout();
}

double TimelineView::headWidth() const {
  return textWidth(16);
}
double TimelineView::rulerHeight() const {
  return fontMetrics().height() + 10;
}
double TimelineView::waveHeight() const {
  return showsSpectrum_ ? 112 : 46;
}
double TimelineView::laneHeight() const {
  return fontMetrics().height() + 4;
}

double TimelineView::stavesTop() const {
  const Score* score = session_.stage.score();
  return rulerHeight() + waveHeight() + laneHeight() * static_cast<double>(score ? score->lanes.size() : 0) +
         4;
}

double TimelineView::xOf(Micros t) const {
  return headWidth() + seconds(t) * pxPerSecond_ - horizontalScrollBar()->value();
}

Micros TimelineView::timeAt(double x) const {
  return std::max(Micros(0), micros((x - headWidth() + horizontalScrollBar()->value()) / pxPerSecond_));
}

void TimelineView::relayout() {
  rows_.clear();
  clipsOf_.clear();
  const Score* score = session_.stage.score();
  if (score)
    for (const auto& clip : score->clips) clipsOf_[clip->zone].push_back(clip);
  for (auto& [zone, clips] : clipsOf_)
    std::stable_sort(clips.begin(), clips.end(),
                     [](const auto& a, const auto& b) { return a->start < b->start; });
  const Clip* curved = curvedClip();
  tall_ = curved ? curved->zone : ZoneId{};
  double y = 0;
  std::set<std::string> headed;
  for (const ZoneId zone : score ? score->staves : std::vector<ZoneId>{}) {
    if (const StaveFolder* folder = folderOf(*score, zone)) {
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
    if (zone == tall_) {
      row.tallLayer = curved->layer;
      row.extra = kCurveLayer - row.height / row.layers;
      row.height += row.extra;
    }
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
  if (box.top() < stavesTop())
    verticalScrollBar()->setValue(verticalScrollBar()->value() - static_cast<int>(stavesTop() - box.top()));
  if (box.bottom() > viewport()->height())
    verticalScrollBar()->setValue(verticalScrollBar()->value() +
                                  static_cast<int>(box.bottom() - viewport()->height()) + 1);
  if (box.left() < headWidth() || box.left() > viewport()->width())
    horizontalScrollBar()->setValue(horizontalScrollBar()->value() +
                                    static_cast<int>(box.left() - headWidth() - 40));
}

void TimelineView::reveal(Micros at) {
  horizontalScrollBar()->setValue(
      static_cast<int>(seconds(at) * pxPerSecond_ - (viewport()->width() - headWidth()) / 2));
}

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

void TimelineView::showSpectrum(bool on) {
  showsSpectrum_ = on;
  relayout();
}

void TimelineView::follow() {
  if (session_.stage.isPlaying() && drag_ == Drag::None) {
    const double x = xOf(session_.stage.position());
    if (x > viewport()->width() - 30 || x < headWidth())
      horizontalScrollBar()->setValue(
          static_cast<int>(seconds(session_.stage.position()) * pxPerSecond_ - 40));
  }
  if (isVisible() && session_.stage.hasMoved()) viewport()->update();
}

const TimelineView::StaveRow* TimelineView::rowOf(ZoneId zone) const {
  const auto found =
      std::find_if(rows_.begin(), rows_.end(), [zone](const StaveRow& row) { return row.zone == zone; });
  return found == rows_.end() ? nullptr : &*found;
}

const TimelineView::StaveRow* TimelineView::rowAt(double y) const {
  const double inside = y - stavesTop() + verticalScrollBar()->value();
  if (y < stavesTop()) return nullptr;
  const auto found = std::find_if(rows_.begin(), rows_.end(), [inside](const StaveRow& row) {
    return inside >= row.top && inside < row.top + row.height + kStaveGap;
  });
  return found == rows_.end() ? nullptr : &*found;
}

QRectF TimelineView::boxOf(const Clip& clip, const StaveRow& row) const {
  const double layer = (row.height - row.extra) / row.layers;
  const int own = std::min(clip.layer, row.layers - 1);
  const double above = layer * (row.layers - 1 - own) + (own < row.tallLayer ? row.extra : 0);
  const double left = xOf(clip.start);
  return {left, stavesTop() - verticalScrollBar()->value() + row.top + above + 1,
          std::max(3.0, xOf(clip.end()) - left), layer + (own == row.tallLayer ? row.extra : 0) - 2};
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
  return {headWidth(), stavesTop() - verticalScrollBar()->value() + row->top,
          viewport()->width() - headWidth(), row->height};
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

MarkIds TimelineView::marksIn(const QRectF& band) const {
  MarkIds inside;
  double top = rulerHeight() + waveHeight();
  for (const MarkLane& lane : session_.stage.score()->lanes) {
    const bool isOn = band.bottom() >= top && band.top() < top + laneHeight();
    for (const Mark& mark : lane.marks)
      if (isOn && xOf(mark.at) >= band.left() && xOf(mark.at) <= band.right()) inside.push_back(mark.id);
    top += laneHeight();
  }
  return inside;
}

PaletteId TimelineView::paletteForNew() const {
  const auto& palettes = session_.show().palettes;
  return chispa::find(palettes, chosenPalette_) ? chosenPalette_
         : palettes.empty()                     ? PaletteId{}
                                                : palettes.front()->id;
}

const Mark* TimelineView::chosenMark() const {
  const MarkIds ids = session_.selection.marks();
  const Score* score = session_.stage.score();
  return !ids.empty() && score ? findMark(*score, ids.front()).mark : nullptr;
}

ZoneId TimelineView::staveBelow(double y) const {
  const double inside = y - stavesTop() + verticalScrollBar()->value();
  const auto found = std::find_if(rows_.begin(), rows_.end(), [inside](const StaveRow& row) {
    return row.zone && row.top + row.height / 2 > inside;
  });
  return found == rows_.end() ? ZoneId{} : found->zone;
}

void TimelineView::resizeEvent(QResizeEvent*) {
  if (isFitted_) zoomToAll();
  updateScrollBars();
}

void TimelineView::chooseZone(ZoneId zone) {
  chosenZone_ = zone;
  emit zoneChosen(zone);
}

}  // namespace chispa::desk
