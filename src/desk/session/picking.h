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

}  // namespace chispa::desk
