// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// Those of `clips` that show a picture: they can be turned and mirrored.
std::vector<ClipId> pictureClips(const Score& score, const std::vector<ClipId>& clips);
/// Turns what they show by so many degrees, counter-clockwise; the angle stays within −180 to 180.
void turnPictures(Show& show, ScoreId score, const std::vector<ClipId>& clips, double by_deg);
/// Switches a parameter of the lay, "mirrored" or "upside_down", over.
void switchPictures(Show& show, ScoreId score, const std::vector<ClipId>& clips, const std::string& key);

}  // namespace chispa
