// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include <QWidget>

namespace chispa::node {

class Node;

/// Shows what each port's strip shows, a row of LEDs a port, with a button for each scene of its memory.
class NodeWindow : public QWidget {
 public:
  explicit NodeWindow(Node& node);
  QSize sizeHint() const override { return {720, 320}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void scrollBy(int dots);
  /// Buttons as the memory has scenes now; the one that plays is down.
  void refreshScenes();
  void placeScenes();

  Node& node_;
  QWidget* scenes_ = nullptr;
  std::vector<std::string> sceneNames_;
  /// Many ports are taller than the window: how far it is scrolled, and how tall all of it is.
  int scrolled_ = 0;
  int tall_ = 0;
};

}  // namespace chispa::node
