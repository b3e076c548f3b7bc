// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>
#include <utility>

namespace chispa::engine {

/// Gives values to a real-time thread without a lock: the giver hands over the newest, the taker swaps it in,
/// and the giver deletes what it replaced. The taker never allocates, frees or waits.
template <class T>
class Handover {
 public:
  Handover() = default;
  Handover(const Handover&) = delete;
  Handover& operator=(const Handover&) = delete;
  ~Handover() {
    delete incoming_.load();
    delete current_;
    collect();
  }

  /// Giver: the taker's next take() gets `value`; one that was given before and never taken is dropped.
  void give(std::unique_ptr<T> value) {
    collect();
    delete incoming_.exchange(new Box{std::move(value), nullptr});
  }
  /// Giver: deletes what the taker is done with.
  void collect() {
    Box* done = retired_.exchange(nullptr);
    while (done) delete std::exchange(done, done->next);
  }

  /// Taker: makes the newest value current, after `replacing(old, next)`; old is null at first.
  template <class F>
  void take(F replacing) noexcept {
    Box* next = incoming_.exchange(nullptr);
    if (!next) return;
    replacing(current(), *next->value);
    Box* old = std::exchange(current_, next);
    if (!old) return;
    old->next = retired_.load();
    while (!retired_.compare_exchange_weak(old->next, old)) {
    }
  }
  /// Taker: the value in use, or null before the first.
  T* current() const noexcept { return current_ ? current_->value.get() : nullptr; }

 private:
  struct Box {
    std::unique_ptr<T> value;
    Box* next;
  };
  std::atomic<Box*> incoming_{nullptr};
  std::atomic<Box*> retired_{nullptr};
  Box* current_ = nullptr;
};

}  // namespace chispa::engine
