// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/colour/rgb.h"

namespace chispa {

/// CIE L*a*b* (CIE 15:2004, §8.2.1) under D65, the white of sRGB.
struct CieLab {
  double lightness = 0;
  double a = 0;
  double b = 0;
};

CieLab toCieLab(Rgb colour);

/// The colour difference ΔE₀₀ of two colours (CIE 142-2001; G. Sharma, W. Wu, E. Dalal 2005): below 1 it is
/// hardly seen side by side.
double deltaE2000(const CieLab& one, const CieLab& other);

}  // namespace chispa
