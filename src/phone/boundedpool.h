// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <semaphore>

#include <httplib.h>

namespace chispa::phone {

/// Threads that serve connections. While too many wait for one, no more are accepted: those stay with the
/// system, which turns them away, and take no file descriptor of ours.
class BoundedPool final : public httplib::TaskQueue {
 public:
  BoundedPool(std::size_t threads, std::ptrdiff_t maxConnections) : pool_(threads), free_(maxConnections) {}

  /// Waits until there is room. Thread that accepts.
  void enqueue(std::function<void()> serve) override {
    free_.acquire();
    pool_.enqueue([this, serve = std::move(serve)] {
      serve();
      free_.release();
    });
  }
  void shutdown() override { pool_.shutdown(); }

 private:
  httplib::ThreadPool pool_;
  std::counting_semaphore<> free_;
};

}  // namespace chispa::phone
