// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <filesystem>
#include <string>
#include <thread>

#include "core/base/result.h"
#include "core/vision/scene.h"
#include "core/vision/simulatedcamera.h"
#include "node/node.h"

namespace chispa::node {

/// How a node is filmed.
struct Filming {
  std::filesystem::path folder;
  std::vector<vision::SceneLed> scene;
  vision::Severity severity = vision::Severity::Clean;
  double azimuth_deg = 0;
  double elevation_deg = 12;
};

/// A simulated camera in front of a simulated controller: writes what it sees of the LEDs to a folder, a
/// picture a frame, and times.csv, until it is ended. A thread of its own.
class FrameWriter {
 public:
  /// `node` outlives it. Fails if the folder cannot be made.
  static Result<std::unique_ptr<FrameWriter>> begin(const Node& node, Filming filming);
  ~FrameWriter();

  int frames() const { return frames_.load(); }

 private:
  FrameWriter(const Node& node, Filming filming);
  void run();

  const Node& node_;
  Filming filming_;
  vision::SimulatedCamera camera_;
  std::atomic<int> frames_{0};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::node
