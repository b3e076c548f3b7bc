// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>

#include <QObject>

#include "core/eye/source.h"
#include "core/eye/spotter.h"

namespace chispa::desk {

/// Reads a camera on a thread of its own: hands on the latest picture, and during a capture gives every frame
/// to a spotter.
class CameraThread : public QObject {
  Q_OBJECT
 public:
  explicit CameraThread(std::unique_ptr<eye::FrameSource> source, QObject* parent = nullptr);
  ~CameraThread() override;

  /// Begins to read.
  void start();
  bool isLive() const { return source_->isLive(); }

  eye::Picture latest() const;
  /// Watches `leds` LEDs blink until `rounds` rounds are seen; captured() follows.
  void capture(int leds, const eye::SpotterSettings& settings, int rounds);
  /// Ends a capture with what was seen so far.
  void endCapture();
  bool isCapturing() const { return isCapturing_.load(); }
  /// Rounds seen, and the share of the one being watched.
  double roundsDone() const { return roundsDone_.load(); }
  /// Rounds since that could not be read, because light or camera fell out of step.
  int misreadRounds() const { return misreadRounds_.load(); }
  /// What was seen by the last capture, told apart by these settings anew.
  eye::Sightings sightings(const eye::SpotterSettings& settings);

 signals:
  void looked();
  void captured();
  /// There are no more frames.
  void ended();

 private:
  void run();

  std::unique_ptr<eye::FrameSource> source_;
  mutable std::mutex mutex_;
  eye::Picture latest_;
  std::optional<eye::Spotter> spotter_;
  int wantedRounds_ = 0;
  std::atomic<bool> isCapturing_{false};
  std::atomic<double> roundsDone_{0};
  std::atomic<int> misreadRounds_{0};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::desk
