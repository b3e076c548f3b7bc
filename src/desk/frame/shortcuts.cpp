// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/shortcuts.h"

#include <QAction>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QKeySequenceEdit>
#include <QLabel>
#include <QMenu>
#include <QMenuBar>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QTableWidget>
#include <QVBoxLayout>

#include "desk/frame/actionfinder.h"
#include "desk/parts/named.h"
#include "desk/parts/paper.h"
#include "desk/parts/papertable.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr const char* kOwnKeys = "ownKeys";

QString settingOf(const QAction& action) {
  return QStringLiteral("shortcuts/") + action.objectName();
}

QString menuOf(const QAction& action) {
  const auto* menu = qobject_cast<const QMenu*>(action.parent());
  return menu ? plainName(menu->title()) : QString();
}

/// Asks for keys; nothing if it is called off.
std::optional<QKeySequence> askKeys(QWidget* parent, const QString& name, const QKeySequence& now) {
  QDialog dialog(parent);
  dialog.setObjectName(QStringLiteral("keysDialog"));
  dialog.setWindowTitle(name);
  auto* column = new QVBoxLayout(&dialog);
  column->addWidget(new QLabel(ShortcutSheet::tr("Press the keys for “%1”.").arg(name)));
  auto* field = new QKeySequenceEdit(now);
  named(field, "keysField", ShortcutSheet::tr("Keys"),
        ShortcutSheet::tr("Press the keys; up to four in a row"));
  column->addWidget(field);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
  QPushButton* none = buttons->addButton(ShortcutSheet::tr("No keys"), QDialogButtonBox::ActionRole);
  column->addWidget(buttons);
  QObject::connect(none, &QPushButton::clicked, field, &QKeySequenceEdit::clear);
  QObject::connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
  QObject::connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
  if (dialog.exec() != QDialog::Accepted) return std::nullopt;
  return field->keySequence();
}

}  // namespace

void applyChosenKeys(QAction& action) {
  action.setProperty(kOwnKeys, action.shortcut().toString(QKeySequence::PortableText));
  const QSettings settings;
  if (const QString name = settingOf(action); settings.contains(name))
    action.setShortcut(QKeySequence::fromString(settings.value(name).toString(), QKeySequence::PortableText));
}

ShortcutSheet::ShortcutSheet(QMenuBar& menus, QWidget* parent)
    : QDialog(parent), menus_(menus), table_(new QTableWidget) {
  setObjectName(QStringLiteral("shortcutSheet"));
  setWindowTitle(tr("Shortcuts"));
  resize(textWidth(72), 560);
  auto* column = new QVBoxLayout(this);
  named(table_, "shortcutTable", tr("Shortcuts"),
        tr("Enter or a double click changes the keys of an action"));
  table_->setColumnCount(3);
  table_->setHorizontalHeaderLabels({tr("Menu"), tr("Action"), tr("Keys")});
  table_->verticalHeader()->hide();
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  column->addWidget(table_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  QPushButton* print = buttons->addButton(tr("Print…"), QDialogButtonBox::ActionRole);
  named(print, "shortcutPrint", tr("Print…"), tr("Writes the sheet as a PDF"));
  QPushButton* reset = buttons->addButton(tr("All as delivered"), QDialogButtonBox::ResetRole);
  named(reset, "shortcutReset", tr("All as delivered"), tr("Gives every action its own keys back"));
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
  connect(print, &QPushButton::clicked, this, [this] { this->print(); });
  connect(reset, &QPushButton::clicked, this, [this] {
    for (QAction* action : actions_)
      setKeys(*action,
              QKeySequence::fromString(action->property(kOwnKeys).toString(), QKeySequence::PortableText));
    fill();
  });
  connect(table_, &QTableWidget::cellActivated, this, &ShortcutSheet::change);
  fill();
}

void ShortcutSheet::fill() {
  actions_.clear();
  eachAction(menus_, [this](QAction& action, const QString&) {
    if (!action.objectName().isEmpty()) actions_ << &action;
  });
  table_->setRowCount(static_cast<int>(actions_.size()));
  for (int row = 0; row < actions_.size(); ++row) {
    const QAction& action = *actions_[row];
    const QString cells[] = {menuOf(action), plainName(action.text()),
                             action.shortcut().toString(QKeySequence::NativeText)};
    for (int c = 0; c < 3; ++c) table_->setItem(row, c, new QTableWidgetItem(cells[c]));
  }
  table_->resizeColumnToContents(0);
  table_->resizeColumnToContents(2);
}

QAction* ShortcutSheet::ownerOf(const QKeySequence& keys, const QAction& but) const {
  const auto found = std::find_if(actions_.begin(), actions_.end(), [&](const QAction* action) {
    return action != &but && action->shortcut() == keys;
  });
  return found == actions_.end() ? nullptr : *found;
}

void ShortcutSheet::setKeys(QAction& action, const QKeySequence& keys) {
  action.setShortcut(keys);
  const QString words = keys.toString(QKeySequence::PortableText);
  QSettings settings;
  if (words == action.property(kOwnKeys).toString())
    settings.remove(settingOf(action));
  else
    settings.setValue(settingOf(action), words);
}

void ShortcutSheet::change(int row) {
  QAction& action = *actions_[row];
  const auto keys = askKeys(this, plainName(action.text()), action.shortcut());
  if (!keys) return;
  if (QAction* owner = keys->isEmpty() ? nullptr : ownerOf(*keys, action)) {
    const auto answer = QMessageBox::question(this, tr("Keys that are taken"),
                                              tr("“%1” has these keys. Give them to “%2”?")
                                                  .arg(plainName(owner->text()), plainName(action.text())));
    if (answer != QMessageBox::Yes) return;
    setKeys(*owner, {});
  }
  setKeys(action, *keys);
  fill();
  table_->setCurrentCell(row, 2);
}

void ShortcutSheet::print(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("Print…"), tr("shortcuts.pdf"), tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  const bool isWritten =
      writePdf(path, tr("Chispa: shortcuts"), QPageSize::A4, QPageLayout::Portrait,
               [this](QPainter& painter, QPdfWriter& pdf) {
                 PaperTable table(painter, tr("Chispa: shortcuts"), {tr("Menu"), tr("Action"), tr("Keys")},
                                  {0, 420, 1'450}, [&pdf] { pdf.newPage(); });
                 for (const QAction* action : actions_)
                   if (!action->shortcut().isEmpty())
                     table.addRow({menuOf(*action), plainName(action->text()),
                                   action->shortcut().toString(QKeySequence::NativeText)});
               });
  if (!isWritten)
    QMessageBox::warning(
        this, tr("Chispa"),
        tr("The sheet could not be written.\n%1\nCheck that the folder exists and has room.").arg(path));
}

}  // namespace chispa::desk
