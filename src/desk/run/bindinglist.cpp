// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/bindinglist.h"

#include <cmath>

#include <QPainter>
#include <QStyledItemDelegate>

#include "core/edit/bindingedits.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kBindingRole = Qt::UserRole;
constexpr int kDeskRole = Qt::UserRole + 1;
/// What it drives, and 0–1 of what comes in; below 0 for nothing.
constexpr int kTargetRole = Qt::UserRole + 2;
constexpr int kValueRole = Qt::UserRole + 3;

/// Two lines a row: the source and what it drives; a bar shows what comes in.
class BindingDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
    return {80, 2 * option.fontMetrics.height() + 10};
  }
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& t = theme();
    painter->save();
    if (option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selectedGround());
    const QRect box = option.rect.adjusted(8, 3, -8, -3);
    painter->setPen(t.text);
    painter->drawText(box, Qt::AlignTop | Qt::AlignLeft,
                      option.fontMetrics.elidedText(index.data().toString(), Qt::ElideRight, box.width()));
    const QRect lower(box.left(), box.top() + option.fontMetrics.height() + 2, box.width(),
                      option.fontMetrics.height());
    const float value = index.data(kValueRole).toFloat();
    constexpr int kBar = 46;
    painter->setPen(t.quiet);
    painter->drawText(lower.adjusted(0, 0, -kBar - 6, 0), Qt::AlignVCenter | Qt::AlignLeft,
                      option.fontMetrics.elidedText(QStringLiteral("→ ") + index.data(kTargetRole).toString(),
                                                    Qt::ElideRight, lower.width() - kBar - 6));
    const QRect bar(lower.right() - kBar, lower.center().y() - 2, kBar, 4);
    painter->fillRect(bar, t.line);
    if (value > 0)
      painter->fillRect(
          QRect(bar.left(), bar.top(), std::max(1, static_cast<int>(std::lround(value * kBar))), 4), t.ember);
    painter->restore();
  }
};

}  // namespace

BindingList::BindingList(const Session& session, QWidget* parent) : QListWidget(parent), session_(session) {
  setObjectName(QStringLiteral("bindingList"));
  setAccessibleName(tr("What drives what"));
  setToolTip(tr("Controls, desks and keys, and what each of them drives"));
  setItemDelegate(new BindingDelegate(this));
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(this, &QListWidget::currentItemChanged, this, &BindingList::choose);
  connect(this, &QListWidget::itemClicked, this, &BindingList::choose);
  connect(&session_.document, &Document::showChanged, this, &BindingList::refill);
  connect(&session_.document, &Document::opened, this, &BindingList::refill);
  connect(&session_.stage, &Stage::ticked, this, &BindingList::follow);
  refill();
}

void BindingList::refill() {
  const QSignalBlocker quiet(this);
  const int row = currentRow();
  clear();
  const Show& show = session_.show();
  for (const auto& binding : show.bindings) {
    auto* item = new QListWidgetItem(binding->name.empty() ? said(describeSource(binding->source))
                                                           : text(binding->name));
    item->setData(kBindingRole, binding->id.value);
    item->setData(kTargetRole, said(describeTarget(show, binding->target)));
    item->setToolTip(said(describeSource(binding->source)) + QStringLiteral(" → ") +
                     said(describeTarget(show, binding->target)));
    addItem(item);
  }
  static const QStringList kUses{tr("replaces"), tr("multiplies"), tr("is added to"), tr("is the higher on")};
  for (const auto& input : show.deskInputs) {
    auto* item = new QListWidgetItem(tr("Desk, %1 %2 : %3")
                                         .arg(QLatin1String(protocolTitle(input->protocol)))
                                         .arg(input->universe)
                                         .arg(input->channel));
    item->setData(kDeskRole, input->id.value);
    item->setData(kTargetRole, kUses.at(static_cast<int>(input->use)) + QLatin1Char(' ') + text(input->name));
    addItem(item);
  }
  if (count() == 0) {
    auto* item = new QListWidgetItem(tr("Nothing yet."));
    item->setData(kTargetRole, tr("Press Learn… and move a control"));
    item->setFlags(Qt::NoItemFlags);
    addItem(item);
  }
  setCurrentRow(std::min(row, count() - 1));
}

void BindingList::follow() {
  if (!isVisible()) return;
  const LiveState& state = session_.stage.live().state;
  const QSignalBlocker quiet(this);
  for (int i = 0; i < count(); ++i) {
    QListWidgetItem* one = item(i);
    const BindingState* own = state.stateOf(BindingId{one->data(kBindingRole).toUInt()});
    const float value = own && own->isHeard ? own->control : 0;
    if (one->data(kValueRole).toFloat() != value) {
      one->setData(kValueRole, value);
      viewport()->update(visualItemRect(one));
    }
  }
}

void BindingList::choose(QListWidgetItem* item) {
  if (!item) return;
  if (const BindingId id{item->data(kBindingRole).toUInt()}; id) session_.selection.select(id);
  if (const DeskInputId id{item->data(kDeskRole).toUInt()}; id) session_.selection.select(id);
}

BindingId BindingList::chosen() const {
  return currentItem() ? BindingId{currentItem()->data(kBindingRole).toUInt()} : BindingId{};
}

}  // namespace chispa::desk
