// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include <pulse/pulseaudio.h>

#include "core/base/result.h"

namespace chispa::engine {

/// A connection to the PulseAudio server with a thread of its own, on which it calls back. Its calls are for
/// the owner's thread; what goes to the server needs the lock.
class PulseServer {
 public:
  PulseServer() = default;
  ~PulseServer();
  PulseServer(const PulseServer&) = delete;
  PulseServer& operator=(const PulseServer&) = delete;

  /// Connects, anew if it was connected; blocks until the server answers. The reason why not, or nothing.
  std::string open();
  bool isOpen() const { return loop_ != nullptr; }
  bool isConnected() const;
  pa_context* context() const { return context_; }
  /// Waits for signal(), with the lock held.
  void wait() const { pa_threaded_mainloop_wait(loop_); }
  void signal() const { pa_threaded_mainloop_signal(loop_, 0); }

  /// Keeps the server's thread out while it lives; the server must be open.
  class Lock {
   public:
    explicit Lock(const PulseServer& server) : loop_(server.loop_) { pa_threaded_mainloop_lock(loop_); }
    ~Lock() { pa_threaded_mainloop_unlock(loop_); }
    Lock(const Lock&) = delete;
    Lock& operator=(const Lock&) = delete;

   private:
    pa_threaded_mainloop* loop_;
  };

 private:
  void close();

  pa_threaded_mainloop* loop_ = nullptr;
  pa_context* context_ = nullptr;
};

/// No sound server answers, and why.
Failure pulseFailure(const std::string& why);

}  // namespace chispa::engine
