// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/liveinputs.h"

class QLabel;
class QMenu;
class QProgressBar;
class QToolButton;

namespace chispa::desk {

/// What looks without a score follow: a microphone, or what the computer plays; how loud it is, and the tempo
/// that is heard. Off until a source is chosen. UI thread.
class SoundRow : public QWidget {
  Q_OBJECT
 public:
  SoundRow(const Session& session, LiveInputs& inputs, QWidget* parent = nullptr);

 signals:
  void failed(const QString& words);

 private:
  void fillMenu();
  void showState();
  void showMeter();

  Session session_;
  LiveInputs& inputs_;
  QToolButton* choose_;
  QMenu* menu_;
  QProgressBar* level_;
  QLabel* tempo_;
};

}  // namespace chispa::desk
