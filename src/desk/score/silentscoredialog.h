// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QString>

class QWidget;

namespace chispa::desk {

/// A score without music.
struct SilentScoreWish {
  QString name;
  double beatsPerMinute = 120;
  int beatsPerBar = 4;
  int bars = 32;
};

/// Asks for one; nothing if it is called off.
std::optional<SilentScoreWish> askSilentScore(QWidget* parent);

}  // namespace chispa::desk
