// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa::desk {

// Parts of a show on the desktop's clipboard, for here or another window of Chispa: parcels
// (core/edit/transfer.h) as the text that files hold. UI thread.

void putOnClipboard(const Show& parcel);
/// Nothing if no part of a show is there.
std::optional<Result<Show>> parcelOnClipboard();
/// Whether what is there was put there by this window, and not by another program since.
bool isOwnClipboard();

}  // namespace chispa::desk
