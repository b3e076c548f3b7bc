// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <map>
#include <vector>

#include <QWidget>

#include "core/colour/rgb.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QHBoxLayout;
class QLabel;
class QSlider;
class QSpinBox;

namespace chispa::desk {

/// Thirty-two faders over the channels from any first one on. Arrow keys and the wheel move them; a group
/// moves every fader of the same colour with the one that is touched.
class Faders : public QWidget {
  Q_OBJECT
 public:
  static constexpr int kFaders = 32;

  explicit Faders(QWidget* parent = nullptr);

  /// Values of all channels from 1 to the last that is held up.
  std::vector<std::uint8_t> levels() const;
  /// First channel, from 1, counted from the target's.
  int base() const;
  void set(int channel, int value);

 signals:
  void changed();
  /// The colours of the faders, three channels each, for a palette.
  void paletteAsked(std::vector<chispa::Srgb8> colours);

 private:
  QHBoxLayout* makeTop();
  QGridLayout* makeSliders();
  /// What the faders show, three channels a colour, without black.
  std::vector<Srgb8> colours() const;
  void moved(int fader, int value);
  void showBase();
  void showValue(int fader);

  std::array<QSlider*, kFaders> sliders_{};
  std::array<QLabel*, kFaders> values_{};
  std::array<QLabel*, kFaders> channels_{};
  QSpinBox* base_;
  QComboBox* group_;
  QCheckBox* hold_;
  /// By channel, from 1; zeroes are left out.
  std::map<int, int> levels_;
  int shownBase_ = 1;
};

}  // namespace chispa::desk
