// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/wire/patch.h"

namespace chispa {

/// True if `second` is an echo of `first`: another output that is sent the same. Both are as long, as wide
/// and as dense, and one is pinned to where the other begins; whatever else lies on channels of another is a
/// clash. The echo shows the light of the first.
bool isEcho(const Show& show, const PatchSpan& first, const PatchSpan& second);

}  // namespace chispa
