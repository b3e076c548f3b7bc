// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "desk/session/document.h"
#include "desk/session/selection.h"
#include "desk/session/stage.h"

namespace chispa::desk {

/// What every part of the window works on. Outlives all of them.
struct Session {
  Document& document;
  Selection& selection;
  Stage& stage;

  const Show& show() const { return document.show(); }
  void edit(const QString& name, const History::Edit& change, const QString& mergeKey = {}) const {
    document.apply(name, change, mergeKey);
  }
  /// An edit that tells first what it cannot keep.
  bool editWithCare(const QString& name, const std::function<Losses(Show&)>& change,
                    const QString& mergeKey = {}) const {
    return document.applyWithCare(name, change, mergeKey);
  }
};

}  // namespace chispa::desk
