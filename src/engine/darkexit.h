// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "engine/output.h"

namespace chispa::engine {

/// While it lives, a crash of any thread but the output's (SIGSEGV, SIGBUS, SIGFPE, SIGILL, SIGABRT) first
/// ends in the dark: the handler asks `output` for black, gives it a moment to send it, and lets the signal
/// do what it would have done. One at a time; `output` outlives it.
class DarkExit {
 public:
  explicit DarkExit(Output& output);
  ~DarkExit();
  DarkExit(const DarkExit&) = delete;
  DarkExit& operator=(const DarkExit&) = delete;
};

}  // namespace chispa::engine
