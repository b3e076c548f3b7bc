// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <malloc.h>

namespace chispa {

/// Gives what was freed back to the system, where the library would keep it for later. Takes milliseconds.
inline void giveBackMemory() {
#ifdef __GLIBC__
  ::malloc_trim(0);
#endif
}

}  // namespace chispa
