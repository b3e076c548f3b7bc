// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <vector>

namespace chispa::desk {

/// What `value` gives of all of `things` where that is one and the same; nothing where they differ, or where
/// there are none: the field of a form then shows that it is mixed.
template <class Thing, class Value>
auto sameOf(const std::vector<const Thing*>& things, const Value& value)
    -> std::optional<std::decay_t<decltype(value(*things.front()))>> {
  if (things.empty()) return std::nullopt;
  auto first = value(*things.front());
  for (const Thing* thing : things)
    if (!(value(*thing) == first)) return std::nullopt;
  return first;
}

}  // namespace chispa::desk
