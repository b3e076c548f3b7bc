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

 private:
  const Node& node_;
};

}  // namespace chispa::node
