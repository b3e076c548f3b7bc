// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/finders/stripfinders.h"

#include <numeric>

namespace chispa {
namespace {

constexpr std::string_view kColours = "RGBW";

/// All orders of these letters.
void addOrders(std::string letters, std::vector<std::string>& orders) {
  std::sort(letters.begin(), letters.end());
  do orders.push_back(letters);
  while (std::next_permutation(letters.begin(), letters.end()));
}

std::vector<int> wholeNumbers(int low, int high) {
  std::vector<int> all(static_cast<std::size_t>(high - low + 1));
  std::iota(all.begin(), all.end(), low);
  return all;
}

}  // namespace

Elimination<std::string> colourOrderFinder(bool withWhite) {
  std::vector<std::string> orders;
  addOrders("RGB", orders);
  if (withWhite) addOrders("RGBW", orders);
  const int questions = withWhite ? 4 : 3;
  return {std::move(orders), questions, questions, [](const std::string& order, int channel) {
            if (channel >= static_cast<int>(order.size())) return kSecondPixel;
            return static_cast<int>(kColours.find(order[static_cast<std::size_t>(channel)]));
          }};
}

Elimination<bool> directionFinder() {
  return {{false, true}, 1, 2, [](bool isFar, int question) { return isFar == (question == 0) ? 1 : 0; }};
}

Elimination<int> skippedFinder(int most) {
  constexpr int kQuestions = 3;
  return {wholeNumbers(0, most), 1, kQuestions, [](int skipped, int pixel) { return skipped + pixel; }};
}

Elimination<int> countFinder(int most) {
  return {wholeNumbers(0, most), most, 2 * most, [most](int count, int question) {
            if (question < most) return question < count ? 1 : 0;
            return std::clamp(count - (question - most), 0, 2);
          }};
}

Elimination<int> groupingFinder(int most) {
  constexpr int kQuestions = 3;
  return {wholeNumbers(1, most), 1, kQuestions,
          [](int grouping, int value) { return 1000 * grouping * value + grouping; }};
}

}  // namespace chispa
