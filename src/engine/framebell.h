// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>

namespace chispa::engine {

/// Tells one listener, through a descriptor that becomes readable, that a frame was computed; frames that
/// nobody took note of are told of once. The output thread's side never waits.
class FrameBell {
 public:
  FrameBell();
  ~FrameBell();
  FrameBell(const FrameBell&) = delete;
  FrameBell& operator=(const FrameBell&) = delete;

  // The listener's thread:

  /// To be watched for reading; −1 if the system gave none: then nothing is heard.
  int descriptor() const { return descriptor_; }
  void listen(bool isHeard) { isHeard_.store(isHeard); }
  /// The descriptor is readable no more.
  void hear() const;

  /// Output thread.
  void ring() noexcept;

 private:
  int descriptor_;
  std::atomic<bool> isHeard_{false};
};

}  // namespace chispa::engine
