// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QColor>
#include <QWidget>

namespace chispa::desk {

/// LEDs one behind the other, as a row that wraps: each in the colour that it shows; an invalid colour is a
/// skipped pixel, which is hollow.
class ChainView : public QWidget {
 public:
  explicit ChainView(QWidget* parent = nullptr);
  /// `nothing` is said where there are no LEDs.
  void showColours(std::vector<QColor> colours, const QString& nothing);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<QColor> colours_;
  QString nothing_;
};

/// How a screen shows light of an LED, so that dim light can be told from none.
QColor ledColour(float r, float g, float b);

}  // namespace chispa::desk
