// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/flashwatch.h"

#include "core/check/flashes.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {

FlashWatch::FlashWatch(const Document& document, const Stage& stage, QObject* parent)
    : QObject(parent), document_(document), stage_(stage) {
  constexpr int kAfter_ms = 2'000;
  wait_.setSingleShot(true);
  wait_.setInterval(kAfter_ms);
  connect(&wait_, &QTimer::timeout, this, &FlashWatch::look);
  connect(&stage_, &Stage::compiledChanged, this, [this] {
    if (cancelled_) cancelled_->store(true);
    wait_.start();
  });
}

FlashWatch::~FlashWatch() {
  if (cancelled_) cancelled_->store(true);
}

void FlashWatch::look() {
  const auto compiled = stage_.compiled();
  if (!compiled) return;
  cancelled_ = std::make_shared<std::atomic<bool>>(false);
  runThen(
      pools::drawing(), this,
      [show = document_.show(), compiled, cancelled = cancelled_] {
        return flashProblems(show, *compiled, [&](double) { return !cancelled->load(); });
      },
      [this, cancelled = cancelled_](std::vector<Problem> problems) {
        if (cancelled->load() || problems == problems_) return;
        problems_ = std::move(problems);
        emit found();
      });
}

}  // namespace chispa::desk
