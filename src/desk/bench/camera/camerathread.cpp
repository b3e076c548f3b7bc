// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/camera/camerathread.h"

#include <atomic>
#include <chrono>
#include <future>
#include <mutex>
#include <optional>
#include <thread>

namespace chispa::desk {

struct CameraThread::Reading {
  std::unique_ptr<vision::FrameSource> source;
  bool isLive = false;
  std::mutex mutex;
  vision::Picture latest;
  std::optional<vision::Spotter> spotter;
  int wantedRounds = 0;
  std::atomic<bool> isCapturing{false};
  std::atomic<double> roundsDone{0};
  std::atomic<int> misreadRounds{0};
  std::atomic<bool> isStopping{false};
  /// Who is told; null once it is gone.
  std::mutex listening;
  CameraThread* listener = nullptr;
  std::promise<void> over;
  std::future<void> ending;
};

CameraThread::CameraThread(std::unique_ptr<vision::FrameSource> source, QObject* parent)
    : QObject(parent), reading_(std::make_shared<Reading>()) {
  reading_->isLive = source->isLive();
  reading_->source = std::move(source);
  reading_->listener = this;
}

CameraThread::~CameraThread() {
  using namespace std::chrono_literals;
  // A frame or two of any camera that is well, so that its device is free again.
  constexpr auto kPatience = 500ms;
  reading_->isStopping.store(true);
  {
    const std::scoped_lock lock(reading_->listening);
    reading_->listener = nullptr;
  }
  if (reading_->ending.valid()) reading_->ending.wait_for(kPatience);
}

void CameraThread::start() {
  reading_->ending = reading_->over.get_future();
  std::thread([reading = reading_] { run(reading); }).detach();
}

bool CameraThread::isLive() const {
  return reading_->isLive;
}
bool CameraThread::isCapturing() const {
  return reading_->isCapturing.load();
}
double CameraThread::roundsDone() const {
  return reading_->roundsDone.load();
}
int CameraThread::misreadRounds() const {
  return reading_->misreadRounds.load();
}

vision::Picture CameraThread::latest() const {
  const std::scoped_lock lock(reading_->mutex);
  return reading_->latest;
}

void CameraThread::capture(int leds, const vision::SpotterSettings& settings, int rounds) {
  const std::scoped_lock lock(reading_->mutex);
  reading_->spotter.emplace(leds, settings);
  reading_->wantedRounds = rounds;
  reading_->roundsDone.store(0);
  reading_->misreadRounds.store(0);
  reading_->isCapturing.store(true);
}

void CameraThread::endCapture() {
  endCapture(*reading_);
}

void CameraThread::endCapture(Reading& reading) {
  if (!reading.isCapturing.exchange(false)) return;
  {
    const std::scoped_lock lock(reading.mutex);
    if (reading.spotter) reading.spotter->finish();
  }
  tell(reading, &CameraThread::captured);
}

void CameraThread::tell(Reading& reading, Signal signal) {
  const std::scoped_lock lock(reading.listening);
  if (reading.listener) emit(reading.listener->*signal)();
}

vision::Sightings CameraThread::sightings(const vision::SpotterSettings& settings) {
  const std::scoped_lock lock(reading_->mutex);
  if (!reading_->spotter) return {};
  reading_->spotter->setSettings(settings);
  return reading_->spotter->sightings();
}

void CameraThread::run(const std::shared_ptr<Reading>& reading) {
  while (!reading->isStopping.load()) {
    auto frame = reading->source->next();
    if (!frame) {
      tell(*reading, &CameraThread::ended);
      endCapture(*reading);
      break;
    }
    bool isDone = false;
    {
      const std::scoped_lock lock(reading->mutex);
      reading->latest = frame->picture;
      if (reading->isCapturing.load() && reading->spotter) {
        reading->spotter->add(*std::move(frame));
        reading->roundsDone.store(reading->spotter->rounds() + reading->spotter->progress());
        reading->misreadRounds.store(reading->spotter->misreadRounds());
        isDone = reading->spotter->rounds() >= reading->wantedRounds;
      }
    }
    tell(*reading, &CameraThread::looked);
    if (isDone) endCapture(*reading);
  }
  // The device is free before anybody hears of the end.
  reading->source.reset();
  reading->over.set_value();
}

}  // namespace chispa::desk
