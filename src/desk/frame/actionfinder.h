// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

class QAction;
class QLineEdit;
class QListWidget;

namespace chispa::desk {

/// Finds an action by typing parts of its name, and runs it.
class ActionFinder : public QDialog {
  Q_OBJECT
 public:
  explicit ActionFinder(QList<QAction*> actions, QWidget* parent = nullptr);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void list(const QString& typed);
  void run();

  QList<QAction*> actions_;
  QLineEdit* typed_;
  QListWidget* found_;
};

}  // namespace chispa::desk
