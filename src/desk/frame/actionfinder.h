// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QDialog>

class QAction;
class QLineEdit;
class QListWidget;
class QMenuBar;

namespace chispa::desk {

/// Something that can be done, wherever it stands in the window.
struct FoundAction {
  /// Where it stands and what it is called: "File ▸ Save".
  QString name;
  /// More words to find it by.
  QString tip;
  QString keys;
  std::function<void()> run;
  /// Why it cannot be done now; empty if it can.
  QString whyNot;
};

/// Calls `visit` with every action of the menus and of the menus in them, and where it stands: "File ▸ ". A
/// menu that fills itself does so first.
void eachAction(const QMenuBar& menus,
                const std::function<void(QAction& action, const QString& path)>& visit);

/// A label as it is read: without its mnemonic and dots.
QString plainName(QString label);

/// Finds an action by typing parts of its name or tip, and runs it.
class ActionFinder : public QDialog {
  Q_OBJECT
 public:
  explicit ActionFinder(QList<FoundAction> actions, QWidget* parent = nullptr);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void list(const QString& typed);
  void run();

  QList<FoundAction> actions_;
  QLineEdit* typed_;
  QListWidget* found_;
};

}  // namespace chispa::desk
