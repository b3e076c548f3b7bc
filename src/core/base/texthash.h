// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <string_view>

namespace chispa {

/// FNV-1a of 64 bits (Fowler, Noll, Vo): the same for one text in every process.
constexpr std::uint64_t hashOfText(std::string_view text) {
  std::uint64_t hash = 0xcbf29ce484222325ULL;
  for (const char letter : text) {
    hash ^= static_cast<unsigned char>(letter);
    hash *= 0x100000001b3ULL;
  }
  return hash;
}

}  // namespace chispa
