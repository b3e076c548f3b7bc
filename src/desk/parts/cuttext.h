// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QString>

#include "core/check/cutlist.h"

namespace chispa::desk {

/// What to cut, in words: "2 × 5.00 m, 300 px", and where it differs along how much it lies.
QString cutText(const CutPiece& piece);

}  // namespace chispa::desk
