// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/parts/form.h"

class QLabel;
class QPlainTextEdit;

namespace chispa::desk {

/// Writes a formula: what is wrong is said at its letter while it is written, and the last formula that makes
/// sense plays.
class FormulaField : public QWidget {
  Q_OBJECT
 public:
  FormulaField(Form::Get<QString> get, Form::Set<QString> set, QWidget* parent = nullptr);

  /// Shows the formula as it is now: another one after undo.
  void refresh();

 private:
  void check();

  Form::Get<QString> get_;
  Form::Set<QString> set_;
  QPlainTextEdit* field_;
  QLabel* words_;
};

}  // namespace chispa::desk
