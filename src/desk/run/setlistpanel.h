// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/nightdesk.h"

class QComboBox;
class QLabel;
class QListWidget;
class QMenu;
class QPushButton;
class QStackedWidget;

namespace chispa::desk {

class SetListLines;

/// What plays tonight: the set lists, each with its lines, or one score in a loop. UI thread.
class SetListPanel : public QWidget {
  Q_OBJECT
 public:
  SetListPanel(const Session& session, NightDesk& night, QWidget* parent = nullptr);

  SetListLines& lines() { return *lines_; }
  void addList();
  void deleteList();
  void selectList();
  /// Plays the shown list, or the score in a loop; stops it if it plays.
  void start();
  /// The shown list at ten times its speed.
  void tryFast();
  void addLook(LookId look);

 private:
  void fill();
  void showChosen();
  void follow();
  void fillAddMenu(QMenu& menu);
  QWidget* makeScores();
  QWidget* makeTransport();
  SetListId chosen() const;
  bool playsChosen() const;

  Session session_;
  NightDesk& night_;
  QComboBox* choice_;
  QStackedWidget* pages_;
  SetListLines* lines_;
  QListWidget* scores_;
  QLabel* total_;
  QPushButton* start_;
  QPushButton* back_;
  QPushButton* skip_;
};

}  // namespace chispa::desk
