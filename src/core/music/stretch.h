// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>

#include "core/media/audio.h"

namespace chispa {

/// The clip at `rate` times its speed, 0.1–4, at the same pitch; null if `cancelled`, or if the disk has no
/// room for it. Takes about a second for a minute.
std::shared_ptr<const AudioClip> stretched(const AudioClip& clip, double rate,
                                           const std::atomic<bool>& cancelled);

/// The clip with silence before it, or, where `by` is below 0, without its beginning. It reads the clip;
/// nothing is copied.
std::shared_ptr<const AudioClip> shifted(std::shared_ptr<const AudioClip> clip, Micros by);

/// Clicks at `instants`, the first of them higher, and then the clip (if there is one) from `from` on, which
/// is heard at `begins`.
std::shared_ptr<const AudioClip> withCountIn(std::shared_ptr<const AudioClip> clip, Micros from,
                                             const std::vector<Micros>& instants, Micros begins);

}  // namespace chispa
