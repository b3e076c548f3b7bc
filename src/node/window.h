// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

namespace chispa::node {

class Node;

/// Shows what each port's strip shows, a row of LEDs a port.
class NodeWindow : public QWidget {
 public:
  explicit NodeWindow(const Node& node);
  QSize sizeHint() const override { return {720, 320}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void scrollBy(int dots);

  const Node& node_;
  /// Many ports are taller than the window: how far it is scrolled, and how tall all of it is.
  int scrolled_ = 0;
  int tall_ = 0;
};

}  // namespace chispa::node
