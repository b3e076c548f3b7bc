// SPDX-License-Identifier: GPL-3.0-or-later
// What keys and wheels do on TimelineView.
#include <cmath>
#include <unordered_set>

#include "core/base/relativepath.h"
#include "core/edit/clipedits.h"
#include "core/edit/markgroup.h"
#include "core/edit/scoreedits.h"
#include "core/edit/staveedits.h"
#include "desk/parts/gesture.h"
#include "desk/parts/namefield.h"
#include "desk/parts/tip.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

void TimelineView::wheelEvent(QWheelEvent* event) {
  const WheelTurn turn = turnOf(*event);
  if (turn.zoom != 1) return zoomAbout(turn.zoom, event->position().x());
  horizontalScrollBar()->setValue(horizontalScrollBar()->value() + qRound(turn.scroll_px.x()));
  verticalScrollBar()->setValue(verticalScrollBar()->value() + qRound(turn.scroll_px.y()));
  viewport()->update();
}

bool TimelineView::viewportEvent(QEvent* event) {
  if (const auto pinch = pinchOf(*event)) {
    zoomAbout(pinch->zoom, pinch->at.x());
    return true;
  }
  if (showTip(*event, *viewport(), [this](QPointF at) { return tipAt(at); })) return true;
  return QAbstractScrollArea::viewportEvent(event);
}

void TimelineView::zoomAbout(double factor, double x) {
  isFitted_ = false;
  const Micros held = timeAt(x);
  pxPerSecond_ = std::clamp(pxPerSecond_ * factor, 1.0, 2000.0);
  updateScrollBars();
  horizontalScrollBar()->setValue(static_cast<int>(seconds(held) * pxPerSecond_ + headWidth() - x));
  viewport()->update();
}

void TimelineView::placeMark() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const ScoreId id = score->id;
  const Micros at = session_.stage.position();
  const MarkLane* lane = laneOf(*score, LaneKind::Free);
  const std::string words = std::to_string(lane ? lane->marks.size() + 1 : 1);
  MarkId made;
  session_.edit(tr("place a mark"), [&](Show& show) {
    made = addMark(show, id, LaneKind::Free, tr("Marks").toStdString(), at, words);
  });
  // While it plays marks are tapped one after the other; else this one is probably named next.
  if (!session_.stage.isPlaying()) session_.selection.select(MarkIds{made});
}

void TimelineView::editFolderName(const QString& name) {
  const auto row = std::find_if(rows_.begin(), rows_.end(),
                                [&](const StaveRow& r) { return !r.zone && r.folder == name; });
  if (row == rows_.end()) return;
  const QRect head(2, static_cast<int>(stavesTop() - verticalScrollBar()->value() + row->top),
                   static_cast<int>(headWidth()) - 4, static_cast<int>(row->height));
  auto* field = new NameField(name, head, this, [this, name](const QString& next) {
    session_.edit(tr("rename a folder"), [&, id = session_.stage.score()->id](Show& show) {
      renameFolder(show, id, name.toStdString(), next.toStdString());
    });
  });
  field->setObjectName(QStringLiteral("folderName"));
}

void TimelineView::nudgeMarks(int steps) {
  constexpr Micros kStep{10'000};
  session_.edit(
      tr("nudge marks"),
      [&, ids = session_.selection.marks()](Show& show) {
        moveMarks(show, session_.stage.score()->id, ids, kStep * steps);
      },
      QStringLiteral("mark-nudge"));
}

void TimelineView::nudge(int beats) {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  if (!score) return;
  if (chosenMark()) return nudgeMarks(beats);
  const MarkLane* lane = laneOf(*score, LaneKind::Beats);
  const Micros beat =
      lane && lane->marks.size() > 1 ? lane->marks[1].at - lane->marks[0].at : Micros(500'000);
  if (ids.empty()) return session_.stage.seek(session_.stage.position() + beat * beats);
  const ScoreId id = score->id;
  session_.edit(
      tr("nudge clips"), [&](Show& show) { moveClips(show, id, ids, beat * beats); },
      QStringLiteral("clip-nudge"));
}

void TimelineView::keyPressEvent(QKeyEvent* event) {
  const auto step = [this](int by) {
    const StaveRow* row = rowOf(chosenZone_);
    const auto index = row ? row - rows_.data() + by : 0;
    // Heads of folders are passed over.
    auto at = std::clamp<std::ptrdiff_t>(index, 0, std::max<std::ptrdiff_t>(0, std::ssize(rows_) - 1));
    while (at + by >= 0 && at + by < std::ssize(rows_) && !rows_[static_cast<std::size_t>(at)].zone) at += by;
    if (at < std::ssize(rows_) && rows_[static_cast<std::size_t>(at)].zone)
      chooseZone(rows_[static_cast<std::size_t>(at)].zone);
    viewport()->update();
  };
  switch (event->key()) {
    case Qt::Key_Escape:
      return drag_ != Drag::None ? cancelDrag() : session_.selection.clear();
    case Qt::Key_Left:
      return nudge(-1);
    case Qt::Key_Right:
      return nudge(1);
    case Qt::Key_Up:
      return step(-1);
    case Qt::Key_Down:
      return step(1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
      addClipAt(chosenEffect_, chosenZone_, session_.stage.position());
      return;
    case Qt::Key_Home:
      return session_.stage.seek(Micros(0));
    case Qt::Key_Plus:
      return zoomBy(1.25);
    case Qt::Key_Minus:
      return zoomBy(0.8);
    case Qt::Key_0:
      return zoomToAll();
    default:
      QAbstractScrollArea::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
