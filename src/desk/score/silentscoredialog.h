// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QString>

#include "core/show/show.h"

class QWidget;

namespace chispa::desk {

/// A score without music.
struct SilentScoreWish {
  QString name;
  double beatsPerMinute = 120;
  int beatsPerBar = 4;
  int bars = 32;
  /// The score whose light it takes; none if not set.
  ScoreId like = {};
};

/// Asks for one for `show`; nothing if it is called off.
std::optional<SilentScoreWish> askSilentScore(const Show& show, QWidget* parent);

}  // namespace chispa::desk
