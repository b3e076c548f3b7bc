// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/realtime.h"

#include <cerrno>

#include <pthread.h>
#include <sched.h>
#include <sys/mman.h>
#include <sys/resource.h>

namespace chispa::engine {
namespace {

int lockMemory() noexcept {
  rlimit limit{};
  if (::getrlimit(RLIMIT_MEMLOCK, &limit) != 0) return errno;
  if (limit.rlim_cur != RLIM_INFINITY) return EPERM;
  // Pages are locked as they are first touched: what is reserved and never used takes nothing.
  return ::mlockall(MCL_CURRENT | MCL_FUTURE | MCL_ONFAULT) == 0 ? 0 : errno;
}

}  // namespace

void askForRealtime(RealtimeGrants& grants) noexcept {
  const sched_param priority{.sched_priority = 10};
  grants.priority = ::pthread_setschedparam(::pthread_self(), SCHED_FIFO, &priority);
  grants.memory = lockMemory();
}

}  // namespace chispa::engine
