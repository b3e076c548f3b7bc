// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/time.h"
#include "core/media/audio.h"

namespace chispa::engine {

/// Something that plays sound and knows what is heard now.
class Sound {
 public:
  virtual ~Sound() = default;
  /// Starts `clip` at `from`; what played before stops.
  virtual void play(std::shared_ptr<const AudioClip> clip, Micros from) = 0;
  /// At the position `at` of what plays, as heard() counts it, `clip` begins without a gap; heard() counts
  /// on.
  virtual void follow(std::shared_ptr<const AudioClip> clip, Micros at) = 0;
  virtual void stop() = 0;
  /// A moment of `clip` at `at` is heard, as under a finger that goes over it; what played stops. Until
  /// stop(), heard() knows of nothing.
  virtual void touch(std::shared_ptr<const AudioClip> clip, Micros at) = 0;
  /// Position in the clip that is heard at this moment; nothing while none is known (starting, stopped,
  /// silent).
  virtual std::optional<Micros> heard() = 0;
  /// True if nothing will be heard now.
  virtual bool isSilent() const { return false; }
  /// True if it cannot play although it is meant to, as when the sound server went; reopen() may help. What
  /// played has stopped.
  virtual bool isLost() const { return false; }
  /// Tries to get it back; true if it can play again.
  virtual bool reopen() { return false; }
  /// Plays through the device of that name from the next play() on; empty: the one that the desktop has
  /// chosen, which also serves while that of the name is not there.
  virtual void setDevice(const std::string&) {}
  /// For the pulse bar: "sound through …", or why there is none.
  virtual std::string description() const = 0;
};

/// Something that sound can be heard through.
struct SoundDevice {
  std::string name;
  std::string title;

  bool operator==(const SoundDevice&) const = default;
};
/// Asks the sound server, which may take a moment. Fails if none answers. Any thread.
Result<std::vector<SoundDevice>> soundDevices();

/// Sound through the PulseAudio server. Where none answers, `whyNot` says why, and the sound is lost until it
/// is reopened.
std::unique_ptr<Sound> openPulse(std::string& whyNot);

/// Plays nothing; the clock goes on without it.
std::unique_ptr<Sound> makeSilence(std::string why);

}  // namespace chispa::engine
