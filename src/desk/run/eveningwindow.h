// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QElapsedTimer>
#include <QWidget>

#include "desk/session/nightdesk.h"

class QLabel;
class QPushButton;

namespace chispa::desk {

/// The evening on the whole screen: the light, what plays and what comes in large type. Locked, nothing that
/// a hand does has an effect until the button that unlocks, or the key U, is held for three seconds. UI
/// thread.
class EveningWindow : public QWidget {
  Q_OBJECT
 public:
  static constexpr int kUnlock_ms = 3'000;

  EveningWindow(const Session& session, NightDesk& night, QWidget* parent = nullptr);

  bool isLocked() const { return isLocked_; }
  void setLocked(bool on);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void closeEvent(QCloseEvent* event) override;

 private:
  void follow();
  void holdUnlock(bool down);

  Session session_;
  NightDesk& night_;
  QLabel* time_;
  QLabel* now_;
  QLabel* next_;
  QLabel* state_;
  QPushButton* light_;
  QPushButton* skip_;
  QPushButton* lock_;
  bool isLocked_ = false;
  QElapsedTimer held_;
};

}  // namespace chispa::desk
