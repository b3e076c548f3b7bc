// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "core/music/heardmusic.h"
#include "engine/clock.h"
#include "engine/triplebuffer.h"

namespace chispa::engine {

/// What is heard now, handed to the thread that makes light.
struct HeardNow {
  HeardMusic music;
  /// When the last of it had been heard; and whether anything is listened to.
  MonoTime at{0};
  bool isOn = false;

  void resize(std::size_t size) { music.resize(size); }
};
using HeardBox = TripleBuffer<HeardNow>;
/// A box with room for all that is heard.
std::shared_ptr<HeardBox> makeHeardBox();

}  // namespace chispa::engine
