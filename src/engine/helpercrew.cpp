// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/helpercrew.h"

#include <algorithm>

#include <pthread.h>

namespace chispa::engine {
namespace {

/// As many as are of use: what they share, memory and the network, has only so much room.
constexpr int kMaxHelpers = 3;

int helpersOfMachine() {
  return std::clamp(static_cast<int>(std::thread::hardware_concurrency()) - 1, 0, kMaxHelpers);
}

}  // namespace

HelperCrew::HelperCrew(int helpers) {
  const int count = helpers < 0 ? helpersOfMachine() : helpers;
  for (int i = 0; i < count; ++i)
    threads_.emplace_back([this, hand = static_cast<std::size_t>(i) + 1] { help(hand); });
}

HelperCrew::~HelperCrew() {
  stopping_.store(true);
  bell_.fetch_add(1);
  bell_.notify_all();
  for (std::thread& thread : threads_) thread.join();
}

// A round ends when its last job is done, whoever has done it: nobody waits for a helper that was late to
// wake. One that is finds no job to claim, or claims one of the round that is open by then.
void HelperCrew::take(std::size_t hand) noexcept {
  for (;;) {
    std::uint64_t state = state_.load(std::memory_order_acquire);
    const auto number = static_cast<std::uint32_t>(state);
    const std::uint32_t jobs = jobs_.load(std::memory_order_relaxed);
    if (number >= jobs) return;
    const auto call = call_.load(std::memory_order_relaxed);
    void* own = own_.load(std::memory_order_relaxed);
    // What was read belongs to this round if nobody has claimed, and nothing was closed, since.
    if (!state_.compare_exchange_weak(state, state + 1, std::memory_order_acq_rel)) continue;
    call(own, number, hand);
    if (done_.fetch_add(1, std::memory_order_acq_rel) + 1 == jobs) done_.notify_one();
  }
}

void HelperCrew::help(std::size_t hand) noexcept {
  askForRealtime(grants_);
  pthread_setname_np(pthread_self(), "chispa-helper");
  std::uint32_t seen = 0;
  for (;;) {
    bell_.wait(seen);
    seen = bell_.load();
    if (stopping_.load()) return;
    take(hand);
  }
}

void HelperCrew::work(std::size_t jobs, Work work) noexcept {
  // A job alone is not worth waking anybody.
  if (jobs < 2 || threads_.empty()) return Crew::work(jobs, work);
  const std::uint64_t round = (state_.load(std::memory_order_relaxed) >> 32) + 1;
  state_.store(round << 32 | kClosed, std::memory_order_release);
  done_.store(0, std::memory_order_relaxed);
  call_.store(work.call, std::memory_order_relaxed);
  own_.store(work.own, std::memory_order_relaxed);
  jobs_.store(static_cast<std::uint32_t>(jobs), std::memory_order_relaxed);
  state_.store((round + 1) << 32, std::memory_order_release);
  bell_.fetch_add(1);
  bell_.notify_all();
  take(0);
  for (std::uint32_t done = done_.load(std::memory_order_acquire); done < jobs;
       done = done_.load(std::memory_order_acquire))
    done_.wait(done, std::memory_order_acquire);
}

}  // namespace chispa::engine
