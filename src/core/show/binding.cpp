// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/binding.h"

#include <algorithm>

namespace chispa {

bool isDeskFormat(const std::string& format) {
  std::string letters = format;
  std::sort(letters.begin(), letters.end());
  return letters == "I" || letters == "BGR" || letters == "BGRW";
}

}  // namespace chispa
