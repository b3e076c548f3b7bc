// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <string>
#include <string_view>
#include <utility>

namespace chispa {

/// Effects that were called otherwise when older files were written.
inline constexpr std::array<std::pair<std::string_view, std::string_view>, 3> kRenamedEffects{
    {{"pinwheel", "vanes"}, {"curtain", "unveil"}, {"juggle", "toss"}}};

/// The key of today for the `key` of an effect in a file.
inline std::string keyOfToday(const std::string& key) {
  for (const auto& [before, today] : kRenamedEffects)
    if (key == before) return std::string(today);
  return key;
}

}  // namespace chispa
