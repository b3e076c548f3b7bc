// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/colour/evenness.h"
#include "core/show/score.h"

namespace chispa {

/// How far a fade is at `u`, 0–1 of its time. Real-time safe.
float shapedFade(FadeShape shape, float u) noexcept;

/// The light of a fade that is `level` 0–1 of its way in; of one that gives way, all that a fade in that is
/// as far from its end leaves. Real-time safe.
float fadedLight(Evenness fades, bool givesWay, float level) noexcept;

}  // namespace chispa
