// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QLineEdit>

namespace chispa::desk {

/// A field laid over a name to change it there: Enter takes what it says, Esc or leaving it keeps the old
/// name. No key goes on to what lies beneath. Deletes itself. UI thread.
class NameField : public QLineEdit {
  Q_OBJECT
 public:
  /// `take` is called with a name that is not empty and is another one.
  NameField(const QString& name, QRect over, QWidget* parent, std::function<void(const QString&)> take);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  QString before_;
  std::function<void(const QString&)> take_;
};

}  // namespace chispa::desk
