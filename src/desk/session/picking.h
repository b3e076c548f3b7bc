// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <Qt>

#include "desk/session/selection.h"

namespace chispa::desk {

/// A press on `hit`, which stands for `hits` (its group), the same in every view: alone it selects them,
/// unless they are selected already and may be dragged; with Shift they are added, with Ctrl added or taken
/// out. UI thread.
inline void pick(Selection& selection, FixtureId hit, const FixtureIds& hits, Qt::KeyboardModifiers keys) {
  const bool hadIt = selection.has(hit);
  if (!(keys & (Qt::ShiftModifier | Qt::ControlModifier))) {
    if (!hadIt) selection.select(hits);
    return;
  }
  FixtureIds all = selection.fixtures();
  for (const FixtureId id : hits) std::erase(all, id);
  if (!hadIt || keys & Qt::ShiftModifier) all.insert(all.end(), hits.begin(), hits.end());
  selection.select(all.empty() ? Selected{} : Selected{all});
}

/// A click on `hit`, one of `order` as they stand in the view: alone it is selected; with Ctrl it is added or
/// taken out; with Shift everything from the one that was chosen last is selected too. UI thread.
template <OneOrMore One>
void pickOne(Selection& selection, const One& hit, const std::vector<One>& order,
             Qt::KeyboardModifiers keys) {
  std::vector<One> all = selection.all<One>();
  const auto to = std::find(order.begin(), order.end(), hit);
  const auto from = all.empty() ? order.end() : std::find(order.begin(), order.end(), all.back());
  if (keys & Qt::ControlModifier) {
    if (std::erase(all, hit) == 0) all.push_back(hit);
  } else if (keys & Qt::ShiftModifier && from != order.end() && to != order.end()) {
    // The one that the range began with stays the last, so that the next one begins there too.
    const One anchor = *from;
    for (auto one = std::min(from, to); one != std::max(from, to) + 1; ++one)
      if (std::find(all.begin(), all.end(), *one) == all.end()) all.push_back(*one);
    std::erase(all, anchor);
    all.push_back(anchor);
  } else {
    all = {hit};
  }
  selection.select(all);
}

}  // namespace chispa::desk
