// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/fit.h"

#include <algorithm>

#include <Eigen/Dense>

#include "core/base/median.h"

namespace chispa::vision {

std::vector<std::optional<Vec3>> laidOnto(std::span<const std::optional<Vec3>> found,
                                          std::span<const Vec3> plan, bool scales) {
  std::vector<std::optional<Vec3>> laid(found.begin(), found.end());
  std::vector<std::size_t> both;
  for (std::size_t i = 0; i < std::min(found.size(), plan.size()); ++i)
    if (found[i]) both.push_back(i);
  if (both.size() < 3) return laid;
  const auto count = static_cast<Eigen::Index>(both.size());
  Eigen::Matrix3Xd from(3, count), to(3, count);
  for (Eigen::Index k = 0; k < count; ++k) {
    const Vec3 a = *found[both[static_cast<std::size_t>(k)]];
    const Vec3 b = plan[both[static_cast<std::size_t>(k)]];
    from.col(k) << a.x, a.y, a.z;
    to.col(k) << b.x, b.y, b.z;
  }
  const Eigen::Matrix4d fit = Eigen::umeyama(from, to, scales);
  for (auto& place : laid)
    if (place) {
      const Eigen::Vector4d moved = fit * Eigen::Vector4d(place->x, place->y, place->z, 1);
      place = Vec3{moved.x(), moved.y(), moved.z()};
    }
  return laid;
}

double medianDistance(std::span<const std::optional<Vec3>> found, std::span<const Vec3> plan) {
  std::vector<double> off;
  for (std::size_t i = 0; i < std::min(found.size(), plan.size()); ++i)
    if (found[i]) off.push_back(length(*found[i] - plan[i]));
  return median(std::move(off));
}

std::vector<Vec3> filledIn(std::span<const std::optional<Vec3>> found) {
  std::vector<std::size_t> known;
  for (std::size_t i = 0; i < found.size(); ++i)
    if (found[i]) known.push_back(i);
  std::vector<Vec3> all(found.size());
  if (known.empty()) return all;
  for (std::size_t i = 0; i < found.size(); ++i) {
    const auto next = std::lower_bound(known.begin(), known.end(), i);
    if (next != known.end() && *next == i) {
      all[i] = *found[i];
      continue;
    }
    if (known.size() == 1) {
      all[i] = *found[known[0]];
      continue;
    }
    const auto after = next == known.end()     ? known.end() - 1
                       : next == known.begin() ? known.begin() + 1
                                               : next;
    const auto before = after - 1;
    const Vec3 a = *found[*before], b = *found[*after];
    const double share = (static_cast<double>(i) - static_cast<double>(*before)) /
                         (static_cast<double>(*after) - static_cast<double>(*before));
    all[i] = a + (b - a) * share;
  }
  return all;
}

}  // namespace chispa::vision
