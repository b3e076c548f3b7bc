// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <unordered_map>
#include <unordered_set>
#include <vector>

#include "core/show/items.h"

namespace chispa {

/// The items with these ids, in the order of the ids; ids of things that are gone are passed over. One walk
/// along the list, however many ids there are.
template <class T, class IdType>
std::vector<const T*> findAll(const Items<T>& items, const std::vector<IdType>& ids) {
  std::unordered_map<IdType, const T*> byId;
  byId.reserve(ids.size());
  for (const IdType id : ids) byId.try_emplace(id, nullptr);
  for (const auto& item : items)
    if (const auto found = byId.find(item->id); found != byId.end() && !found->second)
      found->second = item.get();
  std::vector<const T*> all;
  for (const IdType id : ids)
    if (const T* item = byId.at(id)) all.push_back(item);
  return all;
}

/// Changes each of the items with these ids, in one walk along the list.
template <class T, class IdType, class F>
void changeItems(Items<T>& items, const std::vector<IdType>& ids, F change) {
  const std::unordered_set<IdType> wanted(ids.begin(), ids.end());
  for (auto& item : items) {
    if (!wanted.contains(item->id)) continue;
    T changed = *item;
    change(changed);
    item = std::make_shared<const T>(std::move(changed));
  }
}

}  // namespace chispa
