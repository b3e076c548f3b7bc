// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/workbar.h"

namespace chispa::desk {
namespace {

constexpr int kSteps = 1000;
constexpr int kEvery_ms = 50;

}  // namespace

WorkBar::WorkBar(QWidget* parent) : QProgressBar(parent) {
  setRange(0, kSteps);
  timer_.setInterval(kEvery_ms);
  connect(&timer_, &QTimer::timeout, this, [this] { setValue(work_->done); });
}

WorkBar::~WorkBar() {
  leave();
}

Progress WorkBar::begin() {
  leave();
  work_ = std::make_shared<Work>();
  setValue(0);
  setVisible(true);
  timer_.start();
  return [work = work_](double share) {
    work->done = static_cast<int>(share * kSteps);
    return !work->isCancelled;
  };
}

void WorkBar::cancel() {
  if (work_) work_->isCancelled = true;
}

void WorkBar::leave() {
  cancel();
  work_.reset();
  timer_.stop();
}

void WorkBar::end() {
  leave();
  setVisible(false);
}

}  // namespace chispa::desk
