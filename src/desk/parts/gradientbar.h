// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QImage>
#include <QWidget>

#include "core/colour/palette.h"

namespace chispa::desk {

/// A palette as a strip of its colours.
QImage gradientImage(const Palette& palette, int width, int height);

/// Shows a palette that lives elsewhere.
class GradientBar : public QWidget {
 public:
  explicit GradientBar(std::function<Palette()> palette, QWidget* parent = nullptr);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::function<Palette()> palette_;
};

}  // namespace chispa::desk
