// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/darkexit.h"

#include <array>
#include <atomic>
#include <csignal>
#include <ctime>
#include <memory>

#include <sys/resource.h>
#include <unistd.h>

namespace chispa::engine {
namespace {

constexpr std::array kCrashes = {SIGSEGV, SIGBUS, SIGFPE, SIGILL, SIGABRT};
/// Three black frames take 75 ms.
constexpr int kMaxWaits = 40;
constexpr long kWait_ns = 10'000'000;

std::atomic<Output*> dying{nullptr};

/// Only what a signal handler may call (POSIX.1-2017 §2.4.3): atomics, nanosleep() and raise().
void endInTheDark(int signal) {
  Output* output = dying.exchange(nullptr);
  if (output && !output->isOutputThread()) {
    output->switchLight(false);
    for (int i = 0; i < kMaxWaits && !output->isDark(); ++i) {
      const timespec moment{0, kWait_ns};
      ::nanosleep(&moment, nullptr);
    }
  }
  std::signal(signal, SIG_DFL);
  ::raise(signal);
}

}  // namespace

DarkExit::DarkExit(Output& output) {
  // A stack that overflowed has no room for a handler.
  static std::array<char, 64 << 10> room;
  const stack_t stack{room.data(), 0, room.size()};
  ::sigaltstack(&stack, nullptr);
  dying = &output;
  struct sigaction action {};
  action.sa_handler = endInTheDark;
  action.sa_flags = SA_ONSTACK | SA_NODEFER;
  for (const int signal : kCrashes) ::sigaction(signal, &action, nullptr);
}

DarkExit::~DarkExit() {
  dying = nullptr;
  for (const int signal : kCrashes) std::signal(signal, SIG_DFL);
}

}  // namespace chispa::engine
