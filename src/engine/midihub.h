// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <map>
#include <mutex>
#include <string>
#include <vector>

#include "core/render/compiledlive.h"
#include "core/render/livestate.h"
#include "link/midi.h"

namespace chispa::engine {

/// Hears all MIDI devices of a machine, takes those up that are plugged in later, and lights the lamps of
/// their buttons. All members are for one thread; events come on the devices' own, one at a time.
class MidiHub {
 public:
  using Event = std::function<void(const LiveEvent&)>;
  using Heard = std::function<void(const link::ControlHeard&)>;

  /// `event` gets what moves, ready for the player; `heard` the same in words, to learn from. Neither must
  /// wait.
  MidiHub(std::shared_ptr<link::MidiSystem> system, Event event, Heard heard);
  ~MidiHub();

  /// Opens what is there and was not open, and lets go of what is gone; once a second or so.
  void refresh();
  /// Devices that are heard now.
  std::vector<std::string> devices() const;
  /// Devices that bindings of `show` name and that are not there.
  std::vector<std::string> missing(const Show& show) const;
  /// Why a device that is there cannot be heard, a line each.
  const std::vector<std::string>& troubles() const { return troubles_; }
  /// Shows on the buttons what plays; only what has changed is sent.
  void light(const Show& show, const LiveState& state);

 private:
  struct Device;
  void take(Device& device, std::span<const std::uint8_t> message);

  std::shared_ptr<link::MidiSystem> system_;
  Event event_;
  Heard heard_;
  /// Devices have threads of their own: one event at a time.
  std::mutex mutex_;
  std::map<std::string, std::unique_ptr<Device>> devices_;
  std::vector<std::string> troubles_;
  std::map<BindingId, int> lamps_;
};

}  // namespace chispa::engine
