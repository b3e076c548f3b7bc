// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/order.h"

#include <algorithm>
#include <numeric>

namespace chispa {

std::vector<int> nearestOrder(const std::vector<Vec3>& points, int first) {
  return orderThrough(points, points.empty() ? points : std::vector{points[static_cast<std::size_t>(first)]}, 1e-9);
}

std::vector<int> orderThrough(const std::vector<Vec3>& points, const std::vector<Vec3>& stroke, double reach_m) {
  std::vector<int> order;
  std::vector<int> left(points.size());
  std::iota(left.begin(), left.end(), 0);
  const auto takeNearest = [&](Vec3 to, double within) {
    const auto nearest = std::min_element(left.begin(), left.end(), [&](int a, int b) {
      return length(points[static_cast<std::size_t>(a)] - to) < length(points[static_cast<std::size_t>(b)] - to);
    });
    if (nearest == left.end() || length(points[static_cast<std::size_t>(*nearest)] - to) > within) return false;
    order.push_back(*nearest);
    left.erase(nearest);
    return true;
  };
  for (const Vec3& at : stroke)
    while (takeNearest(at, reach_m)) {}
  while (!left.empty()) takeNearest(order.empty() ? points.front() : points[static_cast<std::size_t>(order.back())], 1e30);
  return order;
}

}  // namespace chispa
