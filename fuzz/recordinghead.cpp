// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/recordinghead.h"

#include <cstdlib>
#include <string>

/// Headers of recordings: what is read is written and read again as the same.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto head = chispa::parseHead({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (!head) return 0;
  const auto again = chispa::parseHead(chispa::headText(*head), "fuzz");
  if (!again || again->universes != head->universes || again->patch != head->patch) std::abort();
  return 0;
}
