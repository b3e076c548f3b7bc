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

ChipMix StripType::mixOf(const std::string& letters) const {
  const auto has = [&letters](const char* any) { return letters.find_first_of(any) != std::string::npos; };
  ChipMix mix{white, has("W"), has("A"), {}, chips ? chipMapOf(*chips) : nullptr, isBrightest};
  if (!has("RGB"))
    mix.whites =
        chips ? WhiteMix(*chips, mix.hasWhite, mix.hasAmber) : WhiteMix::plain(mix.hasWhite, mix.hasAmber);
  return mix;
}

int cuttableCount(const StripType& strip, int wanted) {
  const int cut = std::max(1, strip.pixelsPerCut);
  return std::max(1, (wanted + cut / 2) / cut) * cut;
}

}  // namespace chispa
