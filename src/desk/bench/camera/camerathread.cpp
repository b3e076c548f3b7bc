// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/camera/camerathread.h"

namespace chispa::desk {

CameraThread::CameraThread(std::unique_ptr<eye::FrameSource> source, QObject* parent)
    : QObject(parent), source_(std::move(source)) {}

CameraThread::~CameraThread() {
  stopping_.store(true);
  if (thread_.joinable()) thread_.join();
}

void CameraThread::start() {
  thread_ = std::thread([this] { run(); });
}

eye::Picture CameraThread::latest() const {
  const std::scoped_lock lock(mutex_);
  return latest_;
}

void CameraThread::capture(int leds, const eye::SpotterSettings& settings, int rounds) {
  const std::scoped_lock lock(mutex_);
  spotter_.emplace(leds, settings);
  wantedRounds_ = rounds;
  roundsDone_.store(0);
  misreadRounds_.store(0);
  isCapturing_.store(true);
}

void CameraThread::endCapture() {
  if (!isCapturing_.exchange(false)) return;
  {
    const std::scoped_lock lock(mutex_);
    if (spotter_) spotter_->finish();
  }
  emit captured();
}

eye::Sightings CameraThread::sightings(const eye::SpotterSettings& settings) {
  const std::scoped_lock lock(mutex_);
  if (!spotter_) return {};
  spotter_->setSettings(settings);
  return spotter_->sightings();
}

void CameraThread::run() {
  while (!stopping_.load()) {
    auto frame = source_->next();
    if (!frame) {
      emit ended();
      return endCapture();
    }
    bool isDone = false;
    {
      const std::scoped_lock lock(mutex_);
      latest_ = frame->picture;
      if (isCapturing_.load() && spotter_) {
        spotter_->add(*std::move(frame));
        roundsDone_.store(spotter_->rounds() + spotter_->progress());
        misreadRounds_.store(spotter_->misreadRounds());
        isDone = spotter_->rounds() >= wantedRounds_;
      }
    }
    emit looked();
    if (isDone) endCapture();
  }
}

}  // namespace chispa::desk
