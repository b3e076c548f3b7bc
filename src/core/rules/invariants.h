// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// What a show must be, always: every member within its limits (core/show/showfields.h), ids that differ,
/// sums that a machine can carry (admission.h). All that is read, imported or edited must keep to it; what
/// computes light may rely on it.
///
/// Returns the first breach, or nothing. With `before`, a show that is known to be sound, only what differs
/// from it is looked at.
std::optional<Failure> brokenInvariant(const Show& show, const Show* before = nullptr);

}  // namespace chispa
