// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <vector>

#include <QStringList>

#include "core/show/items.h"
#include "desk/parts/format.h"

namespace chispa::desk {

/// Names and ids of a list, for a choice; perhaps with `none` before them.
template <class T>
struct NamedItems {
  QStringList names;
  std::vector<decltype(T::id)> ids;

  explicit NamedItems(const Items<T>& items, const QString& none = {}) {
    if (!none.isEmpty()) {
      names << none;
      ids.push_back({});
    }
    for (const auto& item : items) {
      names << text(item->name);
      ids.push_back(item->id);
    }
  }
  int placeOf(decltype(T::id) id) const {
    const auto found = std::find(ids.begin(), ids.end(), id);
    return found == ids.end() ? -1 : static_cast<int>(found - ids.begin());
  }
  auto idAt(int place) const {
    return place >= 0 && place < std::ssize(ids) ? ids[static_cast<std::size_t>(place)] : decltype(T::id){};
  }
};

}  // namespace chispa::desk
