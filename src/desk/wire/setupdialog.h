// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

#include "desk/session/session.h"

class QLabel;
class QPushButton;
class QTreeWidget;

namespace chispa::desk {

/// Compares the set-up of all controllers with what the show wants, shows the differences, and sends them when asked.
/// The network is spoken to on a worker; closing the window abandons what is still under way.
class SetupDialog : public QDialog {
  Q_OBJECT
 public:
  explicit SetupDialog(const Session& session, QWidget* parent = nullptr);

 private:
  void run(bool send);

  Session session_;
  QLabel* state_;
  QTreeWidget* list_;
  QPushButton* send_;
};

}  // namespace chispa::desk
