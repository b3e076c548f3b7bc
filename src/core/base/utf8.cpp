// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/utf8.h"

#include <cstddef>

namespace chispa {
namespace {

/// Bytes of the well-formed character at the beginning of `text`; 0 if there is none.
std::size_t characterLength(std::string_view text) {
  const auto byte = [&](std::size_t i) { return i < text.size() ? static_cast<unsigned char>(text[i]) : 0u; };
  const auto follows = [&](std::size_t i, unsigned low = 0x80, unsigned high = 0xbf) {
    return byte(i) >= low && byte(i) <= high;
  };
  const unsigned first = byte(0);
  if (first < 0x80) return 1;
  if (first >= 0xc2 && first <= 0xdf) return follows(1) ? 2 : 0;
  if (first >= 0xe0 && first <= 0xef) {
    const bool second = first == 0xe0   ? follows(1, 0xa0)
                        : first == 0xed ? follows(1, 0x80, 0x9f)
                                        : follows(1);
    return second && follows(2) ? 3 : 0;
  }
  if (first >= 0xf0 && first <= 0xf4) {
    const bool second = first == 0xf0   ? follows(1, 0x90)
                        : first == 0xf4 ? follows(1, 0x80, 0x8f)
                                        : follows(1);
    return second && follows(2) && follows(3) ? 4 : 0;
  }
  return 0;
}

}  // namespace

bool isUtf8(std::string_view text) {
  while (!text.empty()) {
    const std::size_t length = characterLength(text);
    if (length == 0) return false;
    text.remove_prefix(length);
  }
  return true;
}

std::string asUtf8(std::string_view text) {
  std::string out;
  while (!text.empty()) {
    const std::size_t length = characterLength(text);
    if (length == 0)
      out += "\xef\xbf\xbd";
    else
      out += text.substr(0, length);
    text.remove_prefix(length == 0 ? 1 : length);
  }
  return out;
}

}  // namespace chispa
