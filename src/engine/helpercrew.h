// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <cstdint>
#include <thread>
#include <vector>

#include "core/base/crew.h"
#include "engine/realtime.h"

namespace chispa::engine {

/// The output thread and its helpers, of the same priority: they claim the jobs of a frame from a counter.
/// Between frames the helpers sleep. run() is for one thread; it takes no lock and allocates nothing.
class HelperCrew final : public Crew {
 public:
  /// `helpers` threads besides the caller's; as many as there are processors beside the caller's, if it is
  /// −1.
  explicit HelperCrew(int helpers = -1);
  ~HelperCrew() override;
  HelperCrew(const HelperCrew&) = delete;
  HelperCrew& operator=(const HelperCrew&) = delete;

  std::size_t hands() const noexcept override { return threads_.size() + 1; }

 private:
  /// No job of that number can be claimed.
  static constexpr std::uint64_t kClosed = 0xffffffff;

  void work(std::size_t jobs, Work work) noexcept override;
  void help(std::size_t hand) noexcept;
  /// Claims jobs until there are none left.
  void take(std::size_t hand) noexcept;

  /// The round in the upper half, the next job to be claimed in the lower; a round is open once its job is 0.
  std::atomic<std::uint64_t> state_{kClosed};
  std::atomic<std::uint32_t> jobs_{0};
  std::atomic<std::uint32_t> done_{0};
  std::atomic<void (*)(void*, std::size_t, std::size_t)> call_{nullptr};
  std::atomic<void*> own_{nullptr};
  /// What helpers sleep on: raised with each round, and when there will be none any more.
  std::atomic<std::uint32_t> bell_{0};
  std::atomic<bool> stopping_{false};
  RealtimeGrants grants_;
  std::vector<std::thread> threads_;
};

}  // namespace chispa::engine
