// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstdint>
#include <cstring>
#include <span>
#include <string>
#include <string_view>

#include "core/base/utf8.h"

namespace chispa::link {

/// Reads a packet from front to back; once something does not fit, everything after it is nothing and good()
/// is false.
class PacketReader {
 public:
  explicit PacketReader(std::span<const std::uint8_t> bytes) : left_(bytes) {}

  bool good() const { return good_; }
  std::size_t left() const { return left_.size(); }

  std::span<const std::uint8_t> take(std::size_t count) {
    if (!good_ || left_.size() < count) {
      good_ = false;
      return {};
    }
    const auto taken = left_.first(count);
    left_ = left_.subspan(count);
    return taken;
  }
  /// A number of up to four bytes, the highest first.
  std::uint32_t number(std::size_t bytes) {
    std::uint32_t value = 0;
    for (const std::uint8_t byte : take(bytes)) value = value << 8 | byte;
    return value;
  }
  /// A field of fixed length, up to its first zero; whatever bytes it holds, the text is well-formed UTF-8.
  std::string text(std::size_t length) {
    const auto field = take(length);
    return asUtf8(std::string(field.begin(), std::find(field.begin(), field.end(), std::uint8_t{0})));
  }
  void expect(std::size_t bytes, std::uint32_t wanted) { good_ = number(bytes) == wanted && good_; }
  void expectText(std::string_view words, std::size_t length) {
    const auto found = take(length);
    good_ = good_ && std::equal(words.begin(), words.end(), found.begin()) &&
            std::all_of(found.begin() + static_cast<std::ptrdiff_t>(words.size()), found.end(),
                        [](auto b) { return b == 0; });
  }

 private:
  std::span<const std::uint8_t> left_;
  bool good_ = true;
};

}  // namespace chispa::link
