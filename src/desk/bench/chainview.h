// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>
#include <vector>

namespace chispa::desk {

/// A port's chain as a row of LEDs that wraps; one is lit, skipped ones are hollow.
class ChainView : public QWidget {
 public:
  explicit ChainView(QWidget* parent = nullptr);
  /// `skipped[i]` tells whether place i of the chain is a skipped pixel; `lit` is −1 for none.
  void showChain(std::vector<bool> skipped, int lit);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<bool> skipped_;
  int lit_ = -1;
};

}  // namespace chispa::desk
