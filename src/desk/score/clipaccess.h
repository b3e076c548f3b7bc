// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>

#include "core/edit/clipedits.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Clips that a form speaks of, wherever in the show they stand.
class ClipAccess {
 public:
  virtual ~ClipAccess() = default;
  /// Calls `visit` for each of them, in the show's order, until it returns false.
  virtual void each(const Show& show, const std::function<bool(const Clip&)>& visit) const = 0;
  virtual void change(Show& show, const std::function<void(Clip&)>& edit) const = 0;

  /// The first, or null.
  const Clip* first(const Show& show) const;
};

/// Clips of the score that was open when this was made.
std::shared_ptr<const ClipAccess> clipsOfScore(const Session& session, const ClipIds& ids);
/// A layer of a look.
std::shared_ptr<const ClipAccess> layerOfLook(LookId look, ClipId layer);

}  // namespace chispa::desk
