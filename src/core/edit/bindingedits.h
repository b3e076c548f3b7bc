// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/sentence.h"
#include "core/show/show.h"

namespace chispa {

// Edits of bindings; see planedits.h.

BindingId addBinding(Show& show, const BindingSource& source, const BindingTarget& target);
void deleteBinding(Show& show, BindingId id);

/// The same binding for the next controls.
struct CopyAlong {
  /// How many more.
  int count = 1;
  /// From control to control, and from channel to channel, or place to place in the list of zones or looks.
  int sourceStep = 1;
  int targetStep = 1;
  /// One more control than there are targets drives the master.
  bool endsInMaster = false;
};
/// Copies `id` along; stops where there is no next control, zone, look or channel. Returns the copies.
std::vector<BindingId> copyAlong(Show& show, BindingId id, const CopyAlong& along);

/// What a binding is called if it has no name: "Control 7 · channel 1 → level of Canopy rim"; a source in
/// parts that stand one after the other.
std::vector<Sentence> describeSource(const BindingSource& source);
Sentence describeTarget(const Show& show, const BindingTarget& target);
std::string describeBinding(const Show& show, const Binding& binding);

}  // namespace chispa
