// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/recording/recording.h"
#include "link/sender.h"

namespace chispa::engine {

/// Sends the values of a recording to the controllers that its header names; no show is needed. One thread.
class RecordingSender {
 public:
  /// Fails if the recording names no controllers, as one that was only heard, or if one of them cannot be
  /// reached.
  static Result<RecordingSender> open(const RecordingHead& head, const link::E131Source& source);

  /// `values` in the order of the head's universes, 512 each.
  void send(std::span<const std::uint8_t> values, link::ControllerSender::Instant now);
  /// Leaves all of them dark. To be called three times, some milliseconds apart, as any packet may be lost.
  void end(link::ControllerSender::Instant now);

 private:
  struct Target {
    std::unique_ptr<link::ControllerSender> sender;
    /// Where its universes lie among the head's.
    std::vector<std::size_t> places;
    std::vector<std::uint8_t> values;
  };
  std::vector<Target> targets_;
};

}  // namespace chispa::engine
