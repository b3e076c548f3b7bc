// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/forms/zoneparts.h"

#include <QKeyEvent>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "desk/parts/format.h"

namespace chispa::desk {

ZonePartList::ZonePartList(const Session& session, ZoneId id) : session_(session), id_(id) {
  setObjectName(QStringLiteral("zoneParts"));
  setAccessibleName(tr("Parts of the zone, in playing order"));
  setToolTip(tr("Drag parts to reorder them; Ctrl+Up and Ctrl+Down move one, Delete removes it."));
  setDragDropMode(QAbstractItemView::InternalMove);
  setDefaultDropAction(Qt::MoveAction);
  setMinimumHeight(96);
  setMaximumHeight(220);
  connect(model(), &QAbstractItemModel::rowsMoved, this,
          [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
            // Not within the list's own move: the edit fills it anew.
            QMetaObject::invokeMethod(
                this, [this, from, to] { movePart(from, to > from ? to - 1 : to); }, Qt::QueuedConnection);
          });
}

void ZonePartList::fill() {
  const Zone* zone = chispa::find(session_.show().zones, id_);
  QStringList lines;
  for (const ZonePart& part : zone ? zone->parts : std::vector<ZonePart>{}) lines << lineOf(part);
  if (lines == shown_) return;
  const int row = currentRow();
  clear();
  addItems(lines);
  setCurrentRow(row);
  shown_ = lines;
}

/// Delete is the list's own while it has the focus.
bool ZonePartList::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete)
    event->accept();
  return QListWidget::event(event);
}

void ZonePartList::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete && currentRow() >= 0) return removePart(currentRow());
  const int by = event->key() == Qt::Key_Up ? -1 : event->key() == Qt::Key_Down ? 1 : 0;
  const int to = currentRow() + by;
  if (by == 0 || !(event->modifiers() & Qt::ControlModifier) || currentRow() < 0 || to < 0 || to >= count())
    return QListWidget::keyPressEvent(event);
  movePart(currentRow(), to);
}

QString ZonePartList::lineOf(const ZonePart& part) const {
  const Fixture* fixture = chispa::find(session_.show().fixtures, part.fixture);
  if (!fixture) return tr("gone");
  QString line = text(fixture->name);
  if (part.segment && *part.segment < std::ssize(fixture->segments))
    line += QStringLiteral(" · ") + text(fixture->segments[static_cast<std::size_t>(*part.segment)].name);
  if (!part.runs.empty()) {
    int count = 0;
    for (const PixelRun& run : part.runs) count += run.count;
    line += tr(" · %1 of it").arg(counted(count, tr("one pixel"), tr("%1 pixels")));
  }
  return part.reversed ? line + tr(", backwards") : line;
}

void ZonePartList::removePart(int row) {
  session_.edit(tr("remove a part from a zone"), [&](Show& show) {
    changeItem(show.zones, id_, [row](Zone& zone) {
      if (row < std::ssize(zone.parts)) zone.parts.erase(zone.parts.begin() + row);
    });
  });
  fill();
}

void ZonePartList::movePart(int from, int to) {
  shown_.clear();
  session_.edit(tr("rearrange a zone"), [&](Show& show) {
    moveZonePart(show, id_, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
  });
  fill();
  setCurrentRow(to);
}

}  // namespace chispa::desk
