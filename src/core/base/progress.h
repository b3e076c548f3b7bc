// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

namespace chispa {

/// Told the share 0–1 of long work that is done; false cancels it.
using Progress = std::function<bool(double share)>;

}  // namespace chispa
