// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// Linear light, red, green, blue and nothing: one vector register.
using Light4 = float __attribute__((vector_size(16)));

}  // namespace chispa
