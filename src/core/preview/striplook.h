// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/striptype.h"

namespace chispa {

/// What an eye sees where a strip is asked for `wanted`: chips that the strip lacks give nothing, its white
/// point costs light, and what is darker than its first step stays dark. Without dithering, which lies
/// between the steps.
Rgb shownBy(const StripType& strip, Rgb wanted);
/// The same for many colours of one strip, whose mix() is worked out once.
Rgb shownBy(const StripType& strip, const ChipMix& mix, Rgb wanted);

}  // namespace chispa
