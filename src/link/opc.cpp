// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/opc.h"

#include "link/bytes.h"

namespace chispa::link {

void writeOpcHeader(std::span<std::uint8_t> packet, std::uint8_t channel, OpcCommand command,
                    std::uint16_t length) {
  packet[0] = channel;
  packet[1] = static_cast<std::uint8_t>(command);
  putBig16(packet, 2, length);
}

void OpcReader::feed(std::span<const std::uint8_t> piece, const std::function<void(const Message&)>& take) {
  held_.insert(held_.end(), piece.begin(), piece.end());
  std::span<const std::uint8_t> left(held_);
  while (left.size() >= kOpcHeaderSize) {
    const std::size_t length = big16(left, 2);
    if (left.size() < kOpcHeaderSize + length) break;
    take({left[0], left[1], left.subspan(kOpcHeaderSize, length)});
    left = left.subspan(kOpcHeaderSize + length);
  }
  held_.erase(held_.begin(), held_.end() - static_cast<std::ptrdiff_t>(left.size()));
}

}  // namespace chispa::link
