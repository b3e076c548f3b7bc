// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>

#include <QWidget>

namespace chispa::desk {

/// The 512 values of a universe as a field of cells; what changed last stands out. A click, or the arrow
/// keys, choose a channel.
class UniverseField : public QWidget {
  Q_OBJECT
 public:
  explicit UniverseField(QWidget* parent = nullptr);
  void showValues(const std::array<std::uint8_t, 512>& values, int used);
  /// The channel that is chosen, from 0.
  int chosen() const { return chosen_; }
  void choose(int channel);

 signals:
  void channelChosen(int channel);

 protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  static constexpr int kColumns = 32;
  static constexpr int kRows = 16;
  int cellAt(QPointF at) const;

  std::array<std::uint8_t, 512> values_{};
  /// Paintings since a value changed, up to a dozen.
  std::array<std::uint8_t, 512> age_{};
  int used_ = 0;
  int chosen_ = 0;
};

}  // namespace chispa::desk
