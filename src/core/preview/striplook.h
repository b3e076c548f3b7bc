// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/striptype.h"

namespace chispa {

/// What an eye sees where a strip is asked for `wanted`: chips that the strip lacks give nothing, its white
/// point costs light, and what is darker than its first step stays dark. Without dithering, which lies
/// between the steps.
Rgb shownBy(const StripType& strip, Rgb wanted);

}  // namespace chispa
