// SPDX-License-Identifier: GPL-3.0-or-later
// What TimelineView offers by a right click, and takes when it is dropped.
#include <cmath>
#include <unordered_set>

#include <QFileInfo>

#include "core/base/relativepath.h"
#include "core/edit/clipedits.h"
#include "core/edit/scoreedits.h"
#include "desk/parts/contextmenu.h"
#include "desk/parts/namefield.h"
#include "desk/score/chosenthing.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

void TimelineView::contextMenuEvent(QContextMenuEvent* event) {
  const StaveRow* row = rowAt(event->pos().y());
  if (row && event->pos().x() < headWidth()) {
    if (row->zone) chooseZone(row->zone);
    viewport()->update();
    return emit staveMenuAsked(event->globalPos());
  }
  if (const Clip* curved = curvedClip(); curved && curves_.remove(*curved, clipBox(curved->id), event->pos()))
    return;
  showMenu(event->pos(), event->globalPos());
}

/// What can be done with the clip or mark there, or with the score.
void TimelineView::showMenu(QPoint at, QPoint global) {
  if (const auto mark = markAt(at)) {
    if (!session_.selection.has(*mark)) session_.selection.select(MarkIds{*mark});
    return showActions(*viewport(), global, {"rename", "delete", "", "playPart"});
  }
  if (const auto clip = clipAt(at)) {
    if (!session_.selection.has(clip->id)) session_.selection.select(ClipIds{clip->id});
    return showActions(*viewport(), global,
                       {"copyClips", "cutClips", "duplicate", "delete", "", "splitClips", "stretchClips",
                        "squeezeClips", "repeatClips", "", "makeBlock", "openBlock", "saveOwnEffect"});
  }
  showActions(*viewport(), global,
              {"pasteClips", "selectAll", "", "placeMark", "beginSection", "", "showAll"});
}

void TimelineView::dragEnterEvent(QDragEnterEvent* event) {
  for (const char* kind : {kEffectMime, kPaletteMime, kFilesMime})
    if (event->mimeData()->hasFormat(QLatin1String(kind))) event->acceptProposedAction();
}

void TimelineView::dragMoveEvent(QDragMoveEvent* event) {
  const StaveRow* row = rowAt(event->position().y());
  // Music may fall anywhere; of pictures it is seen only when they do whether they have a stave.
  if (event->mimeData()->hasUrls()) return event->setAccepted(true);
  if (event->mimeData()->hasFormat(QLatin1String(kPaletteMime)))
    return event->setAccepted(clipAt(event->position()) != nullptr);
  if (row && row->zone) chosenZone_ = row->zone;
  event->setAccepted(row && row->zone);
  viewport()->update();
}

void TimelineView::givePalette(PaletteId palette, QPointF at) {
  const auto clip = clipAt(at);
  if (!clip) return;
  // Dropped on one of the selected clips it is for all of them.
  const ClipIds ids = session_.selection.has(clip->id) ? session_.selection.clips() : ClipIds{clip->id};
  session_.edit(tr("palette"), [&, id = session_.stage.score()->id](Show& show) {
    changeClips(show, id, ids, [palette](Clip& c) { c.palette = palette; });
  });
}

void TimelineView::dropFile(const QString& file, QPointF at) {
  static const QStringList pictures = {"png", "jpg",  "jpeg", "gif", "webp", "bmp",
                                       "mp4", "webm", "avi",  "mkv", "mov"};
  if (!pictures.contains(QFileInfo(file).suffix(), Qt::CaseInsensitive)) return emit musicDropped(file);
  const StaveRow* row = rowAt(at.y());
  if (!row || !row->zone) return;
  addClipAt(QStringLiteral("picture"), row->zone, timeAt(at.x()),
            {{"file", relativeName(session_.document.path(), file.toStdString())}});
}

void TimelineView::dropEvent(QDropEvent* event) {
  if (event->mimeData()->hasUrls()) {
    event->acceptProposedAction();
    for (const QUrl& url : event->mimeData()->urls())
      if (url.isLocalFile()) dropFile(url.toLocalFile(), event->position());
    return;
  }
  const StaveRow* row = rowAt(event->position().y());
  if (!row || !row->zone) return;
  event->acceptProposedAction();
  if (const auto palette = paletteOf(*event->mimeData())) return givePalette(*palette, event->position());
  addClipAt(QString::fromUtf8(event->mimeData()->data(QLatin1String(kEffectMime))), row->zone,
            timeAt(event->position().x()));
}

}  // namespace chispa::desk
