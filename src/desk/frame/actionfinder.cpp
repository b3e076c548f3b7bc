// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/actionfinder.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMenuBar>
#include <QVBoxLayout>

#include "desk/parts/search.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

namespace {

void eachActionOf(QMenu& menu, const QString& path,
                  const std::function<void(QAction& action, const QString& path)>& visit) {
  emit menu.aboutToShow();
  const QString here = path + plainName(menu.title()) + QStringLiteral(" ▸ ");
  for (QAction* action : menu.actions()) {
    if (action->menu())
      eachActionOf(*action->menu(), here, visit);
    else if (!action->isSeparator())
      visit(*action, here);
  }
}

}  // namespace

void eachAction(const QMenuBar& menus,
                const std::function<void(QAction& action, const QString& path)>& visit) {
  for (const QAction* top : menus.actions())
    if (top->menu()) eachActionOf(*top->menu(), {}, visit);
}

QString plainName(QString label) {
  return label.remove(QLatin1Char('&')).remove(QStringLiteral("…"));
}

ActionFinder::ActionFinder(QList<FoundAction> actions, QWidget* parent)
    : QDialog(parent, Qt::Popup),
      actions_(std::move(actions)),
      typed_(new QLineEdit),
      found_(new QListWidget) {
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
  // Those whose name has the words come before those that only their tip speaks of.
  for (const bool byTip : {false, true})
    for (qsizetype i = 0; i < actions_.size(); ++i) {
      const FoundAction& action = actions_[i];
      const bool isNamed = hasWords(action.name, typed);
      if (byTip ? isNamed || !hasWords(action.name + QLatin1Char(' ') + action.tip, typed) : !isNamed)
        continue;
      QString words = action.name;
      if (!action.keys.isEmpty()) words += QStringLiteral("   (%1)").arg(action.keys);
      if (!action.whyNot.isEmpty()) words += QStringLiteral("   — %1").arg(action.whyNot);
      auto* item = new QListWidgetItem(words);
      if (!action.whyNot.isEmpty()) item->setForeground(theme().quiet);
      item->setToolTip(action.tip);
      item->setData(Qt::UserRole, static_cast<int>(i));
      found_->addItem(item);
    }
  found_->setCurrentRow(0);
}

void ActionFinder::run() {
  const QListWidgetItem* item = found_->currentItem();
  if (!item) return;
  const FoundAction chosen = actions_[item->data(Qt::UserRole).toInt()];
  // The list stays, so that something else can be chosen.
  if (!chosen.whyNot.isEmpty()) return;
  accept();
  chosen.run();
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
