// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/score.h"

namespace chispa {

/// How far a fade is at `u`, 0–1 of its time. Real-time safe.
float shapedFade(FadeShape shape, float u) noexcept;

}  // namespace chispa
