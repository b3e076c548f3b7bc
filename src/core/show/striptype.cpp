// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/striptype.h"

#include <algorithm>
#include <set>

namespace chispa {

bool isChannelOrder(const std::string& order) {
  const std::set<char> letters(order.begin(), order.end());
  return !order.empty() && letters.size() == order.size() &&
         order.find_first_not_of(kChipLetters) == std::string::npos;
}

int cuttableCount(const StripType& strip, int wanted) {
  const int cut = std::max(1, strip.pixelsPerCut);
  return std::max(1, (wanted + cut / 2) / cut) * cut;
}

}  // namespace chispa
