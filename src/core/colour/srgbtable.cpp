// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/srgbtable.h"

namespace chispa {

const SrgbTable& SrgbTable::get() {
  static const SrgbTable table;
  return table;
}

SrgbTable::SrgbTable() {
  for (int i = 0; i <= kSteps; ++i) {
    const float light = static_cast<float>(i) / kSteps;
    values_[static_cast<std::size_t>(i)] = toSrgb8({light, light, light}).r;
  }
}

}  // namespace chispa
