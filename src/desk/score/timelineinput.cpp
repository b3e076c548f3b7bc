// SPDX-License-Identifier: GPL-3.0-or-later
// What mouse, keys and drops do in TimelineView.
#include <cmath>
#include <unordered_set>

#include <QGuiApplication>
#include <QMouseEvent>

#include "core/base/relativepath.h"
#include "core/edit/clipedits.h"
#include "core/edit/markedits.h"
#include "core/edit/markgroup.h"
#include "core/edit/scoreedits.h"
#include "core/edit/staveedits.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/parts/namefield.h"
#include "desk/score/chosenthing.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

constexpr double kEdge_px = 7;
constexpr double kSnap_px = 9;
/// A loop begins and ends on beats that are no farther than this.
constexpr double kBeatReach_s = 1;

}  // namespace

void TimelineView::selectBand() {
  const QRectF band = QRectF(pressed_, pointer_).normalized();
  // Drawn with Shift over the lanes it takes marks.
  if (pressed_.y() < stavesTop()) {
    const MarkIds marks = marksIn(band);
    return marks.empty() ? session_.selection.clear() : session_.selection.select(marks);
  }
  selectWithin(band);
}

void TimelineView::selectWithin(const QRectF& frame) {
  ClipIds inside;
  for (const StaveRow& row : rows_)
    if (const auto clips = clipsOf_.find(row.zone); clips != clipsOf_.end())
      for (const auto& clip : clips->second)
        if (boxOf(*clip, row).intersects(frame)) inside.push_back(clip->id);
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

/// All clips in the frame around those that are selected and this one.
void TimelineView::extendTo(const Clip& clip) {
  QRectF frame;
  for (const ClipId id : session_.selection.clips()) frame |= clipBox(id);
  frame |= clipBox(clip.id);
  selectWithin(frame);
}

void TimelineView::mousePressEvent(QMouseEvent* event) {
  pressed_ = pointer_ = event->position();
  stepAtPress_ = session_.document.historyPosition();
  const Score* score = session_.stage.score();
  if (!score || event->button() != Qt::LeftButton) return;
  if (const auto mark = markAt(pressed_)) return pressMark(*mark, event->modifiers());
  if (pressed_.y() < stavesTop() && pressed_.x() < headWidth()) return session_.selection.select(score->id);
  const bool isOnLanes = pressed_.y() >= rulerHeight() + waveHeight() && pressed_.y() < stavesTop();
  if (isOnLanes && event->modifiers() & Qt::ShiftModifier) {
    drag_ = Drag::Band;
    return;
  }
  if (pressed_.y() < rulerHeight() && event->modifiers() & Qt::ShiftModifier) {
    drag_ = Drag::Loop;
    return;
  }
  if (pressed_.y() < stavesTop()) {
    drag_ = Drag::Scrub;
    return session_.stage.scrub(timeAt(pressed_.x()));
  }
  const StaveRow* row = rowAt(pressed_.y());
  if (row && !row->zone) return toggleFolder(row->folder);
  if (row) chooseZone(row->zone);
  if (pressed_.x() < headWidth()) {
    if (!row) return;
    drag_ = Drag::Stave;
    return session_.selection.select(chosenZone_);
  }
  const auto clip = clipAt(pressed_);
  if (!clip) {
    drag_ = Drag::Band;
    return;
  }
  if (event->modifiers() & Qt::ControlModifier) return session_.selection.toggle(clip->id);
  if (event->modifiers() & Qt::ShiftModifier) return extendTo(*clip);
  if (!session_.selection.has(clip->id)) session_.selection.select(ClipIds{clip->id});
  const QRectF box = clipBox(clip->id);
  if (const Clip* curved = curvedClip();
      curved && curved->id == clip->id && curves_.press(*curved, box, pressed_)) {
    drag_ = Drag::Curve;
    return viewport()->update();
  }
  const double edge = std::min(kEdge_px, box.width() / 4);
  drag_ = pressed_.x() < box.left() + edge    ? Drag::ResizeStart
          : pressed_.x() > box.right() - edge ? Drag::ResizeEnd
                                              : Drag::Move;
  grabbed_ = clip->id;
  dragged_.clear();
  const ClipIds ids = session_.selection.clips();
  const std::unordered_set<ClipId> wanted(ids.begin(), ids.end());
  for (const auto& one : score->clips)
    if (wanted.contains(one->id)) dragged_.push_back(*one);
}

/// Shift takes all between it and the one chosen before, Ctrl adds it or takes it out.
void TimelineView::pressMark(MarkId mark, Qt::KeyboardModifiers held) {
  const MarkIds before = session_.selection.marks();
  if (held & Qt::ControlModifier) return session_.selection.toggle(mark);
  if (const MarkIds between = held & Qt::ShiftModifier && !before.empty()
                                  ? marksBetween(*session_.stage.score(), before.front(), mark)
                                  : MarkIds{};
      !between.empty())
    return session_.selection.select(between);
  if (!session_.selection.has(mark)) session_.selection.select(MarkIds{mark});
  drag_ = Drag::Mark;
  grabbedMark_ = mark;
}

/// What is dragged comes to stand on an onset, and the others keep their distances.
void TimelineView::dragMarks(QPointF to) {
  const Mark* grabbed = findMark(*session_.stage.score(), grabbedMark_).mark;
  if (!grabbed) return;
  const Micros by = snapMark(timeAt(to.x())) - grabbed->at;
  session_.edit(
      tr("move marks"),
      [&, ids = session_.selection.marks()](Show& show) {
        moveMarks(show, session_.stage.score()->id, ids, by);
      },
      QStringLiteral("mark-drag"));
}

bool TimelineView::isUnsnapped() {
  return QGuiApplication::keyboardModifiers() & Qt::AltModifier;
}

Micros TimelineView::snap(Micros at, const ClipIds& without) const {
  if (isUnsnapped()) return at;
  const Score* score = session_.stage.score();
  return snapped(snapPoints(*score, without), at, micros(kSnap_px / pxPerSecond_)).value_or(at);
}

Micros TimelineView::snapMark(Micros at) const {
  const auto audio = session_.stage.audio();
  if (!audio || isUnsnapped()) return at;
  const Micros begins = session_.stage.score()->audioStart;
  return snapped(audio->onsets, at - begins, micros(kSnap_px / pxPerSecond_)).value_or(at - begins) + begins;
}

void TimelineView::dragClips(QPointF to) {
  const auto grabbed = std::find_if(dragged_.begin(), dragged_.end(),
                                    [this](const Clip& clip) { return clip.id == grabbed_; });
  if (grabbed == dragged_.end()) return;
  const ClipIds ids = session_.selection.clips();
  const Micros wanted = std::max(Micros(0), grabbed->start + micros((to.x() - pressed_.x()) / pxPerSecond_));
  const Micros by = snap(wanted, ids) - grabbed->start;
  const StaveRow* row = dragged_.size() == 1 ? rowAt(to.y()) : nullptr;
  std::unordered_map<ClipId, Micros> starts;
  for (const Clip& was : dragged_) starts[was.id] = was.start;
  session_.edit(
      tr("move clips"),
      [&](Show& show) {
        changeClips(show, session_.stage.score()->id, ids, [&](Clip& clip) {
          clip.start = std::max(Micros(0), starts[clip.id] + by);
          if (row && row->zone) clip.zone = row->zone;
        });
      },
      QStringLiteral("clip-drag"));
}

void TimelineView::dragEdge(QPointF to) {
  const auto grabbed = std::find_if(dragged_.begin(), dragged_.end(),
                                    [this](const Clip& clip) { return clip.id == grabbed_; });
  if (grabbed == dragged_.end()) return;
  constexpr Micros kShortest{20'000};
  const Micros at = snap(timeAt(to.x()), {grabbed_});
  const bool isStretching = QGuiApplication::keyboardModifiers() & Qt::ControlModifier;
  session_.edit(
      isStretching ? tr("stretch a clip") : tr("resize a clip"),
      [&](Show& show) {
        changeClip(show, session_.stage.score()->id, grabbed_, [&](Clip& clip) {
          if (drag_ == Drag::ResizeEnd) {
            clip.length = std::max(kShortest, at - grabbed->start);
            // With Ctrl the content is stretched along.
            if (isStretching)
              clip.speed = std::clamp(grabbed->speed * seconds(grabbed->length) / seconds(clip.length),
                                      limits::kSlowest, limits::kFastest);
          } else {
            clip.start = std::min(at, grabbed->end() - kShortest);
            clip.length = grabbed->end() - clip.start;
          }
        });
      },
      QStringLiteral("clip-drag"));
}

void TimelineView::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  switch (drag_) {
    case Drag::Scrub:
      return session_.stage.scrub(timeAt(pointer_.x()));
    case Drag::Loop:
      return dragLoop();
    case Drag::Move:
      if (isDragFar()) dragClips(pointer_);
      return;
    case Drag::ResizeStart:
    case Drag::ResizeEnd:
      return dragEdge(pointer_);
    case Drag::Mark:
      if (isDragFar()) dragMarks(pointer_);
      return;
    case Drag::Band:
    case Drag::Stave:
      return viewport()->update();
    case Drag::Curve:
      if (const Clip* curved = curvedClip()) curves_.drag(clipBox(curved->id), pointer_);
      return;
    case Drag::None:
      break;
  }
  const auto clip = clipAt(pointer_);
  const QRectF box = clip ? clipBox(clip->id) : QRectF();
  const bool onEdge = clip && (pointer_.x() < box.left() + kEdge_px || pointer_.x() > box.right() - kEdge_px);
  viewport()->setCursor(onEdge ? Qt::SizeHorCursor : Qt::ArrowCursor);
}

void TimelineView::dragLoop() {
  if (!isDragFar()) return;
  const Score& score = *session_.stage.score();
  const std::vector<Micros> beats = beatMarksOf(score).beats;
  const auto at = [&](double x) {
    const Micros raw = std::clamp(timeAt(x), Micros(0), score.length);
    return isUnsnapped() ? raw : snapped(beats, raw, micros(kBeatReach_s)).value_or(raw);
  };
  const auto [from, to] = std::minmax(at(pressed_.x()), at(pointer_.x()));
  if (from == to) return;
  session_.stage.setPart(TimeSpan{from, to - from});
  session_.stage.setLooping(true);
  viewport()->update();
}

void TimelineView::cancelDrag() {
  const Drag ended = std::exchange(drag_, Drag::None);
  if (ended == Drag::Curve) curves_.release();
  if (ended == Drag::Scrub)
    session_.stage.endScrub();
  else
    session_.document.forgetAfter(stepAtPress_);
  viewport()->update();
}

void TimelineView::mouseReleaseEvent(QMouseEvent*) {
  if (drag_ == Drag::Band) selectBand();
  if (drag_ == Drag::Curve) curves_.release();
  if (drag_ == Drag::Stave && isDragFar())
    session_.edit(tr("move a stave"), [&, id = session_.stage.score()->id](Show& show) {
      placeStave(show, id, chosenZone_, staveBelow(pointer_.y()));
    });
  if (drag_ == Drag::Scrub) session_.stage.endScrub();
  // A click beside the part gives the whole score back.
  if (drag_ == Drag::Loop && !isDragFar()) session_.stage.setPart(std::nullopt);
  if (drag_ != Drag::None && drag_ != Drag::Scrub && drag_ != Drag::Loop) session_.document.seal();
  drag_ = Drag::None;
  viewport()->update();
}

ClipId TimelineView::addClipAt(const QString& effect, ZoneId zone, Micros at, const ParamValues& params) {
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
    const auto next = std::find_if(bars->marks.begin(), bars->marks.end(),
                                   [start](const Mark& mark) { return mark.at > start + Micros(1000); });
    if (next != bars->marks.end())
      end = std::next(next) != bars->marks.end() ? std::next(next)->at : next->at;
  }
  const PaletteId palette = paletteForNew();
  ChosenThing thing = chosenThing(session_.show(), effect);
  thing.params.insert(params.begin(), params.end());
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
  if (curved && clipBox(curved->id).contains(event->position()) &&
      curves_.add(*curved, clipBox(curved->id), event->position()))
    return;
  const StaveRow* row = rowAt(event->position().y());
  if (row && !row->zone) return editFolderName(row->folder);
  if (row && row->zone && !clipAt(event->position()) && event->position().x() >= headWidth())
    addClipAt(chosenEffect_, row->zone, timeAt(event->position().x()));
}

}  // namespace chispa::desk
