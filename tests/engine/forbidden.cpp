// SPDX-License-Identifier: GPL-3.0-or-later
// Stands before the C library's allocation and locks, and counts what a thread asks of them while it must
// not.
#include "engine/forbidden.h"

#if CHISPA_COUNTS_FORBIDDEN
#include <atomic>
#include <cstddef>

#include <dlfcn.h>
#include <pthread.h>

namespace {

thread_local bool isWatched = false;
thread_local int allocations = 0;
thread_local int locks = 0;
std::atomic<bool> areAllWatched{false};
std::atomic<int> allAllocations{0};
std::atomic<int> allLocks{0};

void noteAllocation() {
  if (isWatched) ++allocations;
  if (areAllWatched.load(std::memory_order_relaxed)) ++allAllocations;
}

}  // namespace

extern "C" {

// The library's own, under the names that glibc gives them for this purpose.
void* __libc_malloc(std::size_t size);
void* __libc_calloc(std::size_t count, std::size_t size);
void* __libc_realloc(void* old, std::size_t size);
void __libc_free(void* memory);

void* malloc(std::size_t size) {
  noteAllocation();
  return __libc_malloc(size);
}
void* calloc(std::size_t count, std::size_t size) {
  noteAllocation();
  return __libc_calloc(count, size);
}
void* realloc(void* old, std::size_t size) {
  noteAllocation();
  return __libc_realloc(old, size);
}
void free(void* memory) {
  if (memory) noteAllocation();
  __libc_free(memory);
}

int pthread_mutex_lock(pthread_mutex_t* mutex) {
  using Lock = int (*)(pthread_mutex_t*);
  static const auto real = reinterpret_cast<Lock>(::dlsym(RTLD_NEXT, "pthread_mutex_lock"));
  if (isWatched) ++locks;
  if (areAllWatched.load(std::memory_order_relaxed)) ++allLocks;
  return real(mutex);
}

}  // extern "C"

namespace chispa::test {

Forbidden::Forbidden() {
  ::allocations = ::locks = 0;
  isWatched = true;
}
Forbidden::~Forbidden() {
  isWatched = false;
}
int Forbidden::allocations() const {
  return ::allocations;
}
int Forbidden::locks() const {
  return ::locks;
}

ForbiddenToAll::ForbiddenToAll() {
  allAllocations = allLocks = 0;
  areAllWatched = true;
}
ForbiddenToAll::~ForbiddenToAll() {
  areAllWatched = false;
}
int ForbiddenToAll::allocations() const {
  return allAllocations;
}
int ForbiddenToAll::locks() const {
  return allLocks;
}

}  // namespace chispa::test
#endif
