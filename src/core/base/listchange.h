// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstddef>
#include <vector>

namespace chispa {

/// Where two lists differ: what lies before `first`, and from the two ends on, is alike.
struct ListChange {
  std::size_t first = 0;
  std::size_t endBefore = 0;
  std::size_t endAfter = 0;
};

/// Of lists of pointers, compared as such: an edit of one thing among thousands leaves the rest as it was.
template <class T>
ListChange changeBetween(const std::vector<T>& before, const std::vector<T>& after) {
  const auto ahead = std::mismatch(before.begin(), before.end(), after.begin(), after.end());
  const auto behind = std::mismatch(before.rbegin(), std::make_reverse_iterator(ahead.first), after.rbegin(),
                                    std::make_reverse_iterator(ahead.second));
  return {static_cast<std::size_t>(ahead.first - before.begin()),
          static_cast<std::size_t>(behind.first.base() - before.begin()),
          static_cast<std::size_t>(behind.second.base() - after.begin())};
}

}  // namespace chispa
