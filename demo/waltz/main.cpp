// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <cstdint>
#include <fstream>
#include <iostream>

#include "waltz/synth.h"

namespace {

/// A RIFF/WAVE file of 16-bit stereo samples.
bool writeWave(const char* path, const std::vector<float>& samples) {
  std::ofstream out(path, std::ios::binary);
  const auto number = [&](std::uint32_t value, int bytes) {
    for (int i = 0; i < bytes; ++i) out.put(static_cast<char>(value >> (8 * i) & 255));
  };
  const auto size = static_cast<std::uint32_t>(samples.size() * 2);
  out << "RIFF";
  number(36 + size, 4);
  out << "WAVEfmt ";
  number(16, 4);
  number(1, 2);
  number(2, 2);
  number(chispa::demo::kRate, 4);
  number(chispa::demo::kRate * 4, 4);
  number(4, 2);
  number(16, 2);
  out << "data";
  number(size, 4);
  for (const float s : samples)
    number(static_cast<std::uint32_t>(std::lround(32767 * std::clamp(s, -1.f, 1.f))) & 0xffff, 2);
  return static_cast<bool>(out.flush());
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    std::cerr << "usage: chispa-demo-waltz SOUND.wav\n";
    return 2;
  }
  if (!writeWave(argv[1], chispa::demo::playTune())) {
    std::cerr << argv[1] << ": cannot be written.\n";
    return 1;
  }
  return 0;
}
