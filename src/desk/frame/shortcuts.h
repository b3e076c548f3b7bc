// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>
#include <QKeySequence>
#include <QList>
#include <QString>

class QAction;
class QMenuBar;
class QTableWidget;

namespace chispa::desk {

// Keys of the window's actions, as the maker has set them. Kept by QSettings under the action's name.

/// Gives an action the keys that were chosen for it; its own where none were. To be called once it has both a
/// name and its own keys.
void applyChosenKeys(QAction& action);

/// The sheet of all shortcuts: shown, changed by a double click, and printed as a PDF. UI thread.
class ShortcutSheet : public QDialog {
  Q_OBJECT
 public:
  ShortcutSheet(QMenuBar& menus, QWidget* parent);

  /// Writes the sheet as a PDF; asks for a file if `path` is empty.
  void print(QString path = {});

 private:
  void fill();
  void change(int row);
  void setKeys(QAction& action, const QKeySequence& keys);
  /// The action that has these keys already; null if they are free.
  QAction* ownerOf(const QKeySequence& keys, const QAction& but) const;

  QMenuBar& menus_;
  QTableWidget* table_;
  QList<QAction*> actions_;
};

}  // namespace chispa::desk
