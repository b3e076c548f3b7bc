// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

namespace chispa::desk {

class GlowView;
class Stage;

/// The glow in a window of its own, for a second screen; a double click or F makes it fill the screen, Esc
/// takes that back, and then closes it. Its place is remembered. UI thread.
class GlowWindow : public QWidget {
  Q_OBJECT
 public:
  explicit GlowWindow(Stage& stage);

 signals:
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void closeEvent(QCloseEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void setFullScreen(bool on);

  GlowView* view_;
};

}  // namespace chispa::desk
