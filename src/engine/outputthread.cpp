// SPDX-License-Identifier: GPL-3.0-or-later
#include <pthread.h>

#include "engine/output.h"
#include "engine/realtime.h"

namespace chispa::engine {

OutputThread::OutputThread(Output& output, Clock& clock, OutputStats& stats)
    : output_(output), clock_(clock), stats_(stats), thread_([this] { run(); }) {}

OutputThread::~OutputThread() {
  stopping_.store(true);
  thread_.join();
}

void OutputThread::run() noexcept {
  // Where the system does not allow it, frames may be later under load.
  askForRealtime(stats_.grants);
  pthread_setname_np(pthread_self(), "chispa-output");
  MonoTime next = clock_.now();
  while (!stopping_.load()) {
    clock_.sleepUntil(next);
    const MonoTime begun = clock_.now();
    stats_.lateness.add(begun - next);
    output_.step(next);
    for (const MonoTime late : output_.delays()) {
      if (!output_.isDue(late)) continue;
      clock_.sleepUntil(next + late);
      output_.stepLate(late, next + late);
    }
    stats_.frames.fetch_add(1, std::memory_order_relaxed);
    const MonoTime now = clock_.now();
    stats_.lastFrameTook_ns.store((now - begun).count(), std::memory_order_relaxed);
    stats_.leaving.add(now - next);
    const MonoTime tick = output_.tick();
    next += tick;
    if (next < now) {
      // Late by less than a step, the next frame begins at once; only what is past altogether is left out.
      const auto missed = (now - next) / tick;
      stats_.skipped.fetch_add(static_cast<std::uint64_t>(missed), std::memory_order_relaxed);
      next += missed * tick;
    }
  }
  while (output_.finish(clock_.now())) clock_.sleepUntil(clock_.now() + output_.tick());
}

}  // namespace chispa::engine
