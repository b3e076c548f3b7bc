// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/actionfinder.h"

#include <QAction>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QString plainName(const QAction* action) { return QString(action->text()).remove(QLatin1Char('&')).remove(QStringLiteral("…")); }

bool matches(const QString& name, const QString& typed) {
  const QStringList words = typed.split(QLatin1Char(' '), Qt::SkipEmptyParts);
  return std::all_of(words.begin(), words.end(), [&](const QString& word) { return name.contains(word, Qt::CaseInsensitive); });
}

}  // namespace

ActionFinder::ActionFinder(QList<QAction*> actions, QWidget* parent)
    : QDialog(parent, Qt::Popup), actions_(std::move(actions)), typed_(new QLineEdit), found_(new QListWidget) {
  setObjectName(QStringLiteral("actionFinder"));
  setMinimumSize(textWidth(60), 320);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 8, 8, 8);
  typed_->setPlaceholderText(tr("What do you want to do?"));
  typed_->setAccessibleName(tr("Find an action"));
  typed_->setToolTip(tr("Type parts of its name; Enter runs the first"));
  typed_->installEventFilter(this);
  found_->setAccessibleName(tr("Actions found"));
  column->addWidget(typed_);
  column->addWidget(found_);
  connect(typed_, &QLineEdit::textChanged, this, &ActionFinder::list);
  connect(typed_, &QLineEdit::returnPressed, this, &ActionFinder::run);
  connect(found_, &QListWidget::itemActivated, this, &ActionFinder::run);
  connect(found_, &QListWidget::itemClicked, this, &ActionFinder::run);
  list({});
  typed_->setFocus();
}

void ActionFinder::list(const QString& typed) {
  found_->clear();
  for (qsizetype i = 0; i < actions_.size(); ++i) {
    const QAction* action = actions_[i];
    if (!action->isEnabled() || !matches(plainName(action), typed)) continue;
    const QString keys = action->shortcut().toString(QKeySequence::NativeText);
    auto* item = new QListWidgetItem(keys.isEmpty() ? plainName(action) : QStringLiteral("%1   (%2)").arg(plainName(action), keys));
    item->setData(Qt::UserRole, static_cast<int>(i));
    found_->addItem(item);
  }
  found_->setCurrentRow(0);
}

void ActionFinder::run() {
  const QListWidgetItem* item = found_->currentItem();
  if (!item) return;
  QAction* action = actions_[item->data(Qt::UserRole).toInt()];
  accept();
  action->trigger();
}

bool ActionFinder::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
      const int row = found_->currentRow() + (key == Qt::Key_Down ? 1 : -1);
      found_->setCurrentRow(std::clamp(row, 0, std::max(0, found_->count() - 1)));
      return true;
    }
  }
  return QDialog::eventFilter(watched, event);
}

}  // namespace chispa::desk
