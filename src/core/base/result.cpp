// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/result.h"

namespace chispa {

std::string Failure::text() const {
  std::string all = where.empty() ? what : where + ": " + what;
  if (!cure.empty()) all += "\n" + cure;
  return all;
}

}  // namespace chispa
