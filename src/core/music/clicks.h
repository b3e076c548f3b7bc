// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "core/media/audio.h"
#include "core/music/beatlevel.h"

namespace chispa {

/// The clip with a click on each beat, a higher one where a bar begins. It reads the clip; nothing is copied.
/// Any thread may read it.
std::shared_ptr<const AudioClip> withClicks(std::shared_ptr<const AudioClip> clip, const BeatMarks& marks);

}  // namespace chispa
