// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <thread>

#include "core/recording/recording.h"
#include "link/receiver.h"

namespace chispa::link {

/// Writes what a receiver hears to a recording, forty times a second where something changes, until it is
/// ended. The universes are those that are heard when it begins. A thread of its own.
class StreamRecorder {
 public:
  /// `receiver` outlives it. Fails if nothing is heard, or the file cannot be written.
  static Result<std::unique_ptr<StreamRecorder>> begin(const Receiver& receiver,
                                                       const std::filesystem::path& path);
  ~StreamRecorder();

  Micros length() const { return Micros(length_us_.load()); }
  /// Ends the recording; fails if not all could be written.
  Outcome end();
  /// True as soon as something could not be written, as on a full disk; it is to be ended then. Any thread.
  bool isFailing() const { return isFailing_.load(); }

 private:
  StreamRecorder(const Receiver& receiver, RecordingWriter writer, std::vector<RecordedUniverse> universes);
  void run();

  const Receiver& receiver_;
  RecordingWriter writer_;
  std::vector<RecordedUniverse> universes_;
  std::atomic<std::int64_t> length_us_{0};
  std::atomic<bool> isFailing_{false};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::link
