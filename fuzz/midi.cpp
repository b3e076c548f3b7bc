// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>

#include "core/files/midifile.h"

/// MIDI files: what is read lies at or behind the beginning, and beats are in order.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto marks = chispa::parseMidi({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (!marks) return 0;
  chispa::Micros last{0};
  for (const chispa::Mark& beat : marks->beats) {
    if (beat.at < last) std::abort();
    last = beat.at;
  }
  return 0;
}
