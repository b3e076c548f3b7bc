// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

#include "core/files/stripkinds.h"
#include "desk/session/session.h"

class QLabel;
class QLineEdit;
class QPushButton;
class QTreeWidget;

namespace chispa::desk {

/// The kinds of strip that ship with Chispa, and those that a maker keeps: to be searched, read about, and
/// taken into the show.
class StripKindsDialog : public QDialog {
  Q_OBJECT
 public:
  explicit StripKindsDialog(const Session& session, QWidget* parent = nullptr);

 private:
  void fill();
  void filter();
  void describe();
  void take();
  const StripKind* chosen() const;

  Session session_;
  std::vector<StripKind> kinds_;
  QLineEdit* search_;
  QTreeWidget* list_;
  QLabel* about_;
  QPushButton* take_;
};

}  // namespace chispa::desk
