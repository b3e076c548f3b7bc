// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QLabel;
class QListWidget;
class QPushButton;

namespace chispa::desk {

/// The workspace Run: plays one score again and again, with the glow before the eyes.
class RunPage : public QWidget {
  Q_OBJECT
 public:
  explicit RunPage(const Session& session, QWidget* parent = nullptr);

 private:
  void fillScores();
  void showNow();
  void start();

  Session session_;
  QListWidget* scores_;
  QPushButton* start_;
  QLabel* now_;
  QLabel* state_;
};

}  // namespace chispa::desk
