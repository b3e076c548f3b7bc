// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <condition_variable>
#include <memory>
#include <mutex>
#include <thread>
#include <vector>

#include "core/music/livehearing.h"
#include "engine/heardnow.h"

namespace chispa::engine {

/// Hears what an input takes in, on a thread of its own, and puts what is heard of it into a box. take() is
/// for the input's thread, the rest for the owner's.
class SoundListener {
 public:
  SoundListener(std::shared_ptr<HeardBox> box, std::shared_ptr<Clock> clock);
  ~SoundListener();

  void take(std::span<const float> mono);
  /// As of the last 10 ms that were heard.
  struct Meter {
    float loudness = 0;
    double tempo_bpm = 0;
    float sureness = 0;
  };
  Meter meter() const;

 private:
  void run();
  void publish(bool isOn);

  std::shared_ptr<HeardBox> box_;
  std::shared_ptr<Clock> clock_;
  LiveHearing hearing_;
  mutable std::mutex mutex_;
  std::condition_variable came_;
  std::vector<float> waiting_;
  MonoTime waitingUntil_{0};
  Meter meter_;
  bool isLeaving_ = false;
  std::thread thread_;
};

}  // namespace chispa::engine
