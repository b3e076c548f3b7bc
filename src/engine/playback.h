// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <thread>

#include "core/recording/recording.h"
#include "engine/output.h"

namespace chispa::engine {

/// Plays a recording through the output: each of its universes goes to the controller of the show that is
/// sent a universe of that protocol and number. It ends by itself. A thread of its own.
class Playback {
 public:
  /// Where each universe of the recording goes; nothing for those that the show has not.
  using Routes = std::vector<std::optional<ControllerId>>;
  static Routes routesIn(const Show& show, const Patch& patch, const RecordingReader& reader);

  /// `output` and `clock` outlive it.
  Playback(Output& output, Clock& clock, RecordingReader reader, Routes routes);
  ~Playback();

  Micros length() const { return length_; }
  Micros position() const { return Micros(position_us_.load()); }
  bool isDone() const { return isDone_.load(); }
  /// Why it ended early, if a block was damaged.
  const std::optional<Failure>& failure() const { return failure_; }

 private:
  void run();

  Output& output_;
  Clock& clock_;
  RecordingReader reader_;
  Routes routes_;
  Micros length_;
  /// Written before isDone() is true.
  std::optional<Failure> failure_;
  std::atomic<std::int64_t> position_us_{0};
  std::atomic<bool> isDone_{false};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::engine
