// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/striptype.h"

#include <set>

namespace chispa {

bool isChannelOrder(const std::string& order) {
  const std::set<char> letters(order.begin(), order.end());
  return !order.empty() && letters.size() == order.size() && order.find_first_not_of("RGBW") == std::string::npos;
}

}  // namespace chispa
