// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// Sanitizers put their own allocation in place of the library's.
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
#define CHISPA_COUNTS_FORBIDDEN 0
#else
#define CHISPA_COUNTS_FORBIDDEN 1
#endif

namespace chispa::test {

/// While it lives, counts what this thread allocates, frees and locks.
class Forbidden {
 public:
  Forbidden();
  ~Forbidden();
  Forbidden(const Forbidden&) = delete;
  Forbidden& operator=(const Forbidden&) = delete;
  int allocations() const;
  int locks() const;
};

/// While it lives, counts what all threads of the process allocate, free and lock.
class ForbiddenToAll {
 public:
  ForbiddenToAll();
  ~ForbiddenToAll();
  ForbiddenToAll(const ForbiddenToAll&) = delete;
  ForbiddenToAll& operator=(const ForbiddenToAll&) = delete;
  int allocations() const;
  int locks() const;
};

}  // namespace chispa::test
