// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QObject>

#include "core/vision/source.h"
#include "core/vision/spotter.h"

namespace chispa::desk {

/// Reads a camera on a thread of its own: hands on the latest picture, and during a capture gives every frame
/// to a spotter. A camera that has stopped answering is left to its thread and not waited for. UI thread; the
/// signals come from the other.
class CameraThread : public QObject {
  Q_OBJECT
 public:
  explicit CameraThread(std::unique_ptr<vision::FrameSource> source, QObject* parent = nullptr);
  ~CameraThread() override;

  /// Begins to read.
  void start();
  bool isLive() const;

  vision::Picture latest() const;
  /// Watches `leds` LEDs blink until `rounds` rounds are seen; captured() follows.
  void capture(int leds, const vision::SpotterSettings& settings, int rounds);
  /// Ends a capture with what was seen so far.
  void endCapture();
  bool isCapturing() const;
  /// Rounds seen, and the share of the one being watched.
  double roundsDone() const;
  /// Rounds since that could not be read, because light or camera fell out of step.
  int misreadRounds() const;
  /// What was seen by the last capture, told apart by these settings anew.
  vision::Sightings sightings(const vision::SpotterSettings& settings);

 signals:
  void looked();
  void captured();
  /// There are no more frames.
  void ended();

 private:
  struct Reading;
  using Signal = void (CameraThread::*)();

  static void run(const std::shared_ptr<Reading>& reading);
  static void endCapture(Reading& reading);
  static void tell(Reading& reading, Signal signal);

  /// Shared with the thread, which may outlive this.
  std::shared_ptr<Reading> reading_;
};

}  // namespace chispa::desk
