// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>

#include "core/base/inlinelist.h"
#include "core/show/binding.h"

namespace chispa {

/// A number that tells sources of values from each other, whatever they are.
using SourceCode = std::uint64_t;

/// The code of `source`; of MIDI with `device` in place of its own ("" for any), and `channel` (0 for any).
SourceCode codeOf(const BindingSource& source, const std::string& device, int channel);

/// Something that was done by hand. Trivial to copy, as it goes through queues without locks.
struct LiveEvent {
  enum class Kind : std::uint8_t {
    Control,    ///< a control has `value` 0–1; `codes` say which
    Press,      ///< the pad of look `id`
    Release,    ///< the same, let go
    Light,      ///< look `id` is to be lit (value 1) or to end (0), whatever its pad does
    Fader,      ///< of look `id`
    ZoneLevel,  ///< of zone `id`
    Tap,
    Reset,
    TimeCode,  ///< a time code is `at`, and runs (`value` 1) or stands (0); `codes` say which
  };
  Kind kind = Kind::Reset;
  std::uint32_t id = 0;
  float value = 0;
  /// The control as bindings may name it: with its device and channel, or with any. 0 for none.
  std::array<SourceCode, 4> codes{};
  Micros at{0};
};

/// What a control of MIDI, OSC or a key is called in events.
LiveEvent controlEvent(const BindingSource& source, float value);

/// Where the time code of `device` is.
LiveEvent timeCodeEvent(const std::string& device, Micros at, bool runs);

/// What follows from events that is not light: for whoever holds the player.
struct LiveRequest {
  enum class Kind : std::uint8_t {
    Light,
    Play,
    Stop,
    GoTo,
    Blackout,
    Master,
    SetListOn,
    SetListBack,
    Follow
  };
  Kind kind = Kind::Play;
  float value = 0;
  /// Of GoTo and Follow: a place in the score. To follow is to play from there (`value` 1) or to stand there
  /// (0).
  Micros at{0};
  /// The instant of the live clock at which that is so.
  Micros asked{0};
};
using LiveRequests = InlineList<LiveRequest, 16>;

}  // namespace chispa
