// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>

namespace chispa {

/// Hands that do the jobs of one frame between them. What comes out must not depend on which hand did which
/// job.
class Crew {
 public:
  virtual ~Crew() = default;
  /// How many hands there are, the caller's among them.
  virtual std::size_t hands() const noexcept { return 1; }

  /// Does `job(number, hand)` for every number below `jobs`, each once, and returns when all are done. `hand`
  /// is below hands(), and does one job at a time. Not from within a job. Real-time safe if the job is.
  template <class Job>
  void run(std::size_t jobs, Job& job) noexcept {
    work(jobs,
         {[](void* own, std::size_t number, std::size_t hand) { (*static_cast<Job*>(own))(number, hand); },
          &job});
  }

 protected:
  /// A job without its type, so that it needs no memory of its own.
  struct Work {
    void (*call)(void* own, std::size_t number, std::size_t hand) = nullptr;
    void* own = nullptr;
  };
  virtual void work(std::size_t jobs, Work work) noexcept {
    for (std::size_t number = 0; number < jobs; ++number) work.call(work.own, number, 0);
  }
};

}  // namespace chispa
