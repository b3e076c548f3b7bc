// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/score.h"

namespace chispa {

/// Cuts what lies before `at` off a clip; its content goes on as if nothing had been cut.
void cutBefore(Clip& clip, Micros at);
/// Cuts what lies behind `at` off a clip.
void cutBehind(Clip& clip, Micros at);

}  // namespace chispa
