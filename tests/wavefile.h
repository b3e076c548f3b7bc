// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>
#include <cstdint>
#include <string>

namespace chispa::test {

/// A WAVE file of 16 bits: `sound(seconds)`, ±1, on each of `channels`.
template <class Sound>
std::string waveFile(int rate, int channels, double length_s, Sound sound) {
  std::string data;
  const auto put = [&data](std::uint32_t value, int bytes) {
    for (int i = 0; i < bytes; ++i) data.push_back(static_cast<char>(value >> (8 * i)));
  };
  const int frames = static_cast<int>(rate * length_s);
  const auto bytes = static_cast<std::uint32_t>(frames * channels * 2);
  data += "RIFF";
  put(36 + bytes, 4);
  data += "WAVEfmt ";
  put(16, 4);
  put(1, 2);
  put(static_cast<std::uint32_t>(channels), 2);
  put(static_cast<std::uint32_t>(rate), 4);
  put(static_cast<std::uint32_t>(rate * channels * 2), 4);
  put(static_cast<std::uint32_t>(channels * 2), 2);
  put(16, 2);
  data += "data";
  put(bytes, 4);
  for (int i = 0; i < frames; ++i) {
    const auto value = static_cast<std::int32_t>(std::lround(sound(static_cast<double>(i) / rate) * 32'767));
    for (int c = 0; c < channels; ++c) put(static_cast<std::uint32_t>(value), 2);
  }
  return data;
}

}  // namespace chispa::test
