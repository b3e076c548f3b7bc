// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace chispa::engine {

/// Something that sound can be heard from.
struct SoundSource {
  /// What the sound server calls it; never changes.
  std::string name;
  std::string title;
  /// It is what the computer itself plays.
  bool isOwnSound = false;
};

/// Takes in sound, the mean of the channels, at AudioClip::kRate; on a thread of the input.
using SoundHeard = std::function<void(std::span<const float> mono)>;

/// A source that is listened to for as long as this lives.
class SoundInput {
 public:
  virtual ~SoundInput() = default;
  /// The source, or the sound server, went; nothing more comes.
  virtual bool isLost() const = 0;
};

/// Sources of the PulseAudio server: microphones, and what the computer plays. Blocks for a moment.
Result<std::vector<SoundSource>> soundSources();

/// Listens to the source `name` of the PulseAudio server, ten milliseconds at a time.
Result<std::unique_ptr<SoundInput>> openSoundInput(const std::string& name, SoundHeard heard);

}  // namespace chispa::engine
