// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <functional>
#include <span>
#include <vector>

namespace chispa::link {

/// Open Pixel Control: messages of four bytes and data over a TCP stream.
inline constexpr int kOpcPort = 7890;
inline constexpr std::size_t kOpcHeaderSize = 4;
inline constexpr std::size_t kOpcMostData = 65'535;

enum class OpcCommand : std::uint8_t {
  Set8 = 0,   ///< colours of 8 bits a channel
  Set16 = 2,  ///< colours of 16 bits a channel, the coarse byte first
};

/// Writes the four bytes in front of `length` bytes of data. Channel 0 is all.
void writeOpcHeader(std::span<std::uint8_t> packet, std::uint8_t channel, OpcCommand command,
                    std::uint16_t length);

/// Puts messages together from a stream that arrives in pieces.
class OpcReader {
 public:
  struct Message {
    std::uint8_t channel = 0;
    std::uint8_t command = 0;
    std::span<const std::uint8_t> data;
  };
  /// Takes the next piece and calls `take` for each message that is whole with it. Any bytes make messages:
  /// there is nothing to check, and never more than one message is held.
  void feed(std::span<const std::uint8_t> piece, const std::function<void(const Message&)>& take);

 private:
  std::vector<std::uint8_t> held_;
};

}  // namespace chispa::link
