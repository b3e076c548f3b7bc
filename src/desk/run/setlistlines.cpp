// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/setlistlines.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QMimeData>
#include <QPainter>
#include <QStyledItemDelegate>

#include "core/edit/setlistedits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

/// What stands at the right, and whether the line plays.
constexpr int kDetailRole = Qt::UserRole;
constexpr int kPlaysRole = Qt::UserRole + 1;

/// The name, and at the right how long; the one that plays on a tinted ground.
class LineDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
    return {80, option.fontMetrics.height() + 8};
  }
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& t = theme();
    const bool plays = index.data(kPlaysRole).toBool();
    painter->save();
    if (plays || option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selectedGround());
    if (plays) painter->fillRect(QRect(option.rect.topLeft(), QSize(3, option.rect.height())), t.ember);
    const QRect box = option.rect.adjusted(8, 0, -6, 0);
    const QString detail = index.data(kDetailRole).toString();
    const int detailWidth = option.fontMetrics.horizontalAdvance(detail) + 8;
    painter->setPen(plays ? t.ember : t.quiet);
    painter->drawText(box, Qt::AlignVCenter | Qt::AlignRight, detail);
    painter->setPen(t.text);
    const QString name = (plays ? QStringLiteral("▶ ") : QString()) + index.data().toString();
    painter->drawText(box, Qt::AlignVCenter | Qt::AlignLeft,
                      option.fontMetrics.elidedText(name, Qt::ElideRight, box.width() - detailWidth));
    painter->restore();
  }
};

QString shortTime(Micros time) {
  const auto all = time.count() / 1'000'000;
  return QStringLiteral("%1:%2").arg(all / 60).arg(all % 60, 2, 10, QLatin1Char('0'));
}

/// "score · 1:19", "look · 2:00 ×3".
QString detailOf(const Show& show, const SetListItem& line) {
  QString words;
  switch (line.kind) {
    case PieceKind::Score: {
      const Score* score = chispa::find(show.scores, line.score);
      words = SetListLines::tr("score · %1").arg(score ? shortTime(score->length) : QString());
      break;
    }
    case PieceKind::Look:
      words = SetListLines::tr("look · %1").arg(shortTime(line.length));
      break;
    case PieceKind::Silence:
      words = shortTime(line.length);
      break;
    case PieceKind::SetList:
      words = SetListLines::tr("set list");
      break;
  }
  if (line.repeats > 1) words += QStringLiteral(" ×%1").arg(line.repeats);
  if (line.then == AfterPiece::Random) words += QStringLiteral(" ⤨");
  if (line.then == AfterPiece::Stay) words += QStringLiteral(" ∞");
  if (line.then == AfterPiece::Stop) words += QStringLiteral(" ■");
  return words;
}

}  // namespace

SetListLines::SetListLines(const Session& session, NightDesk& night, QWidget* parent)
    : QListWidget(parent), session_(session), night_(night) {
  setObjectName(QStringLiteral("setListLines"));
  setAccessibleName(tr("Lines of the set list"));
  setToolTip(
      tr("What plays one after the other: drag to reorder, drop a look's name in between.\nEnter plays a "
         "line, Delete removes it, Alt+Up and Alt+Down move it."));
  setItemDelegate(new LineDelegate(this));
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setDragEnabled(true);
  setAcceptDrops(true);
  setDropIndicatorShown(true);
  setDragDropMode(QAbstractItemView::DragDrop);
  setDefaultDropAction(Qt::MoveAction);
  connect(&session_.document, &Document::showChanged, this, &SetListLines::refill);
  connect(&session_.document, &Document::opened, this, &SetListLines::refill);
  connect(&session_.stage, &Stage::ticked, this, &SetListLines::follow);
  connect(this, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { play(row(item)); });
  const auto choose = [this](QListWidgetItem* item) {
    if (item && row(item) >= 0)
      session_.selection.select(LineChoice{list_, static_cast<std::size_t>(row(item))});
  };
  connect(this, &QListWidget::currentItemChanged, this, choose);
  connect(this, &QListWidget::itemClicked, this, choose);
}

void SetListLines::show(SetListId list) {
  list_ = list;
  setCurrentRow(-1);
  refill();
}

void SetListLines::refill() {
  const QSignalBlocker quiet(this);
  const int chosen = currentRow();
  clear();
  const SetList* list = chispa::find(session_.show().setLists, list_);
  if (!list) return;
  for (const SetListItem& line : list->items) {
    const QString name = text(nameOfLine(session_.show(), line));
    auto* item = new QListWidgetItem(name.isEmpty() ? tr("(gone)") : name);
    item->setData(kDetailRole, detailOf(session_.show(), line));
    item->setToolTip(tr("%1, %2").arg(item->text(), item->data(kDetailRole).toString()));
    addItem(item);
  }
  setCurrentRow(std::min(chosen, count() - 1));
  playing_ = -1;
  follow();
}

/// Only the line that plays, and the one that did, are other than refill() made them.
void SetListLines::follow() {
  if (!isVisible()) return;
  const SetList* list = chispa::find(session_.show().setLists, list_);
  const auto& piece = night_.performer().piece();
  const int playing = list && piece && piece->list == list_ ? static_cast<int>(piece->line) : -1;
  const QSignalBlocker quiet(this);
  if (QListWidgetItem* before = playing == playing_ ? nullptr : item(playing_); before && list) {
    before->setData(kPlaysRole, false);
    before->setData(kDetailRole, detailOf(session_.show(), list->items[static_cast<std::size_t>(playing_)]));
  }
  playing_ = playing;
  QListWidgetItem* now = item(playing);
  if (!now) return;
  if (!now->data(kPlaysRole).toBool()) now->setData(kPlaysRole, true);
  if (!piece->length) return;
  const QString detail =
      tr("%1 of %2").arg(shortTime(std::min(night_.played(), *piece->length)), shortTime(*piece->length));
  if (now->data(kDetailRole).toString() != detail) now->setData(kDetailRole, detail);
}

void SetListLines::play(int row) {
  if (row < 0) return;
  if (night_.performer().programme() != engine::Programme{.kind = PieceKind::SetList, .list = list_} ||
      !night_.performer().isPerforming())
    night_.play(list_);
  night_.jump(static_cast<std::size_t>(row));
}

void SetListLines::insert(const std::vector<SetListItem>& lines) {
  const std::size_t at =
      currentRow() >= 0 ? static_cast<std::size_t>(currentRow()) + 1 : static_cast<std::size_t>(count());
  session_.edit(tr("add to a set list"), [&](Show& show) { insertLines(show, list_, at, lines); });
  setCurrentRow(static_cast<int>(at + lines.size()) - 1);
}

void SetListLines::removeChosen() {
  const int at = currentRow();
  if (at < 0) return;
  session_.edit(tr("delete a line of a set list"),
                [&](Show& show) { deleteLine(show, list_, static_cast<std::size_t>(at)); });
}

void SetListLines::moveChosen(int by) {
  const int at = currentRow();
  const int to = at + by;
  if (at < 0 || to < 0 || to >= count()) return;
  session_.edit(tr("move a line of a set list"), [&](Show& show) {
    moveLine(show, list_, static_cast<std::size_t>(at), static_cast<std::size_t>(by > 0 ? to + 1 : to));
  });
  setCurrentRow(to);
}

void SetListLines::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete) return removeChosen();
  if (event->modifiers() == Qt::AltModifier && event->key() == Qt::Key_Up) return moveChosen(-1);
  if (event->modifiers() == Qt::AltModifier && event->key() == Qt::Key_Down) return moveChosen(1);
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return play(currentRow());
  QListWidget::keyPressEvent(event);
}

void SetListLines::contextMenuEvent(QContextMenuEvent* event) {
  const int row = currentRow();
  if (row < 0) return;
  QMenu menu;
  menu.addAction(tr("Play it now"), this, [this, row] { play(row); });
  menu.addAction(tr("Play it after this one"), this,
                 [this, row] { night_.playNext(static_cast<std::size_t>(row)); })
      ->setEnabled(night_.performer().isPerforming());
  menu.addSeparator();
  menu.addAction(tr("Move up"), this, [this] { moveChosen(-1); });
  menu.addAction(tr("Move down"), this, [this] { moveChosen(1); });
  menu.addAction(tr("Delete"), this, [this] { removeChosen(); });
  menu.exec(event->globalPos());
}

QStringList SetListLines::mimeTypes() const {
  return QListWidget::mimeTypes() << QLatin1String(kLookMime);
}

void SetListLines::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasFormat(QLatin1String(kLookMime)))
    event->acceptProposedAction();
  else
    QListWidget::dragEnterEvent(event);
}

void SetListLines::dragMoveEvent(QDragMoveEvent* event) {
  QListWidget::dragMoveEvent(event);
  if (event->mimeData()->hasFormat(QLatin1String(kLookMime)) && list_) event->acceptProposedAction();
}

int SetListLines::rowAt(const QDropEvent& event) const {
  const QPoint at = event.position().toPoint();
  for (int i = 0; i < count(); ++i)
    if (at.y() < visualItemRect(item(i)).center().y()) return i;
  return count();
}

void SetListLines::dropEvent(QDropEvent* event) {
  const int to = rowAt(*event);
  if (event->mimeData()->hasFormat(QLatin1String(kLookMime))) {
    const LookId look{event->mimeData()->data(QLatin1String(kLookMime)).toUInt()};
    if (!list_ || !chispa::find(session_.show().looks, look)) return;
    event->acceptProposedAction();
    session_.edit(tr("add to a set list"), [&](Show& show) {
      insertLines(show, list_, static_cast<std::size_t>(to), {lineOf(look)});
    });
    return;
  }
  const int from = currentRow();
  if (event->source() != this || from < 0) return;
  // The rows are made anew from the show: Qt must not take the dragged one out as well.
  event->setDropAction(Qt::CopyAction);
  event->accept();
  if (to == from || to == from + 1) return;
  session_.edit(tr("move a line of a set list"), [&](Show& show) {
    moveLine(show, list_, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
  });
  setCurrentRow(to > from ? to - 1 : to);
}

}  // namespace chispa::desk
