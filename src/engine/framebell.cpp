// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/framebell.h"

#include <sys/eventfd.h>
#include <unistd.h>

namespace chispa::engine {

FrameBell::FrameBell() : descriptor_(::eventfd(0, EFD_NONBLOCK | EFD_CLOEXEC)) {}

FrameBell::~FrameBell() {
  if (descriptor_ >= 0) ::close(descriptor_);
}

void FrameBell::hear() const {
  // Nothing rang where nothing can be read.
  eventfd_t rings = 0;
  (void)::eventfd_read(descriptor_, &rings);
}

void FrameBell::ring() noexcept {
  // It is readable already where no more can be written.
  if (isHeard_.load(std::memory_order_relaxed) && descriptor_ >= 0) (void)::eventfd_write(descriptor_, 1);
}

}  // namespace chispa::engine
