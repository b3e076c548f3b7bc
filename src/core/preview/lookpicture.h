// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/preview/clippicture.h"
#include "core/render/compiledlive.h"

namespace chispa {

/// `shown_s` seconds of a look's light from `elapsed_s` after it began: time to the right, each step's
/// largest zones above each other, each with its cells from bottom to top. Fades between steps are drawn as
/// cuts.
ClipPicture drawLook(const CompiledLook& look, double elapsed_s, double shown_s, int width, int height);

}  // namespace chispa
