// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>

#include "link/midi.h"
#include "link/osc.h"

/// MIDI messages and OSC packets: whatever they are, a control lies between 0 and 1, and an address begins
/// with a slash.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const std::span bytes(data, size);
  chispa::link::MidiReader reader("device");
  for (std::size_t at = 0; at < size;) {
    const std::size_t length = std::min<std::size_t>(size - at, 1 + bytes[at] % 12);
    const auto heard = reader.read(bytes.subspan(at, length));
    if (heard && !(heard->value >= 0 && heard->value <= 1)) std::abort();
    const auto code = reader.takeTimeCode();
    if (code && (code->at.count() < 0 || code->at > std::chrono::hours(25))) std::abort();
    at += length;
  }
  for (const chispa::link::OscHeard& one : chispa::link::readOsc(bytes))
    if (one.address.empty() || one.address[0] != '/') std::abort();
  return 0;
}
