// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// What equal steps of a level are equal in.
enum class Evenness {
  ToTheEye,  ///< in lightness (L* of CIE 1976): half is seen as half
  InLight,   ///< in light: half is half the photons, and seen as three quarters
};

}  // namespace chispa
