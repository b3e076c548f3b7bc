// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <vector>

namespace chispa {

/// The middle of the values, the upper one of two; 0 if there are none.
inline double median(std::vector<double> values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace chispa
