// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>
#include <string_view>

namespace chispa::link {

/// Writers into a packet at a place; the caller has checked that it is long enough.
inline void putBig16(std::span<std::uint8_t> packet, std::size_t at, std::uint16_t value) {
  packet[at] = static_cast<std::uint8_t>(value >> 8);
  packet[at + 1] = static_cast<std::uint8_t>(value & 255);
}

inline void putBig32(std::span<std::uint8_t> packet, std::size_t at, std::uint32_t value) {
  putBig16(packet, at, static_cast<std::uint16_t>(value >> 16));
  putBig16(packet, at + 2, static_cast<std::uint16_t>(value & 0xffff));
}

inline std::uint16_t big16(std::span<const std::uint8_t> packet, std::size_t at) {
  return static_cast<std::uint16_t>(packet[at] << 8 | packet[at + 1]);
}

inline std::uint32_t big32(std::span<const std::uint8_t> packet, std::size_t at) {
  return static_cast<std::uint32_t>(big16(packet, at)) << 16 | big16(packet, at + 2);
}

inline void putText(std::span<std::uint8_t> packet, std::size_t at, std::string_view text) {
  for (const char c : text) packet[at++] = static_cast<std::uint8_t>(c);
}

}  // namespace chispa::link
