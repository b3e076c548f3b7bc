// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <memory>
#include <vector>

namespace chispa {

/// A list whose elements are shared between versions of the show: copying it copies pointers only.
template <class T>
using Items = std::vector<std::shared_ptr<const T>>;

/// The item with `id`, or null.
template <class T, class IdType>
const T* find(const Items<T>& items, IdType id) {
  const auto found =
      std::find_if(items.begin(), items.end(), [id](const auto& item) { return item->id == id; });
  return found == items.end() ? nullptr : found->get();
}

/// Puts `item` in the place of the one with its id; appends it if there is none.
template <class T>
void put(Items<T>& items, T item) {
  const auto found =
      std::find_if(items.begin(), items.end(), [&](const auto& old) { return old->id == item.id; });
  if (found == items.end())
    items.push_back(std::make_shared<const T>(std::move(item)));
  else
    *found = std::make_shared<const T>(std::move(item));
}

/// Takes the item with `id` out; nothing happens if there is none.
template <class T, class IdType>
void remove(Items<T>& items, IdType id) {
  std::erase_if(items, [id](const auto& item) { return item->id == id; });
}

/// True if both hold equal values in the same order.
template <class T>
bool sameItems(const Items<T>& a, const Items<T>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [](const auto& x, const auto& y) { return x == y || *x == *y; });
}

}  // namespace chispa
