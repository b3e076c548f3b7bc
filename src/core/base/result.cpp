// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/result.h"

namespace chispa {

std::string Failure::text() const {
  std::string all = where.empty() ? what.text() : where + ": " + what.text();
  if (!cure.id.empty()) all += "\n" + cure.text();
  return all;
}

}  // namespace chispa
