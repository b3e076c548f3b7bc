// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/interrupt.h"

#include <csignal>
#include <initializer_list>

namespace chispa::cli {
namespace {

volatile std::sig_atomic_t interrupted = 0;

}  // namespace

void noteInterrupts() {
  for (const int signal : {SIGINT, SIGTERM, SIGHUP}) std::signal(signal, [](int) { interrupted = 1; });
}

bool isInterrupted() {
  return interrupted != 0;
}

}  // namespace chispa::cli
