// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/chipbalance.h"

#include <cmath>

#include <Eigen/Dense>

namespace chispa {

std::optional<std::array<double, 3>> whiteLuminances(const std::array<Chromaticity, 3>& lights,
                                                     Chromaticity white) {
  Eigen::Matrix3d columns;
  for (int i = 0; i < 3; ++i)
    columns.col(i) = Eigen::Vector3d(xyzOf(lights[static_cast<std::size_t>(i)], 1).data());
  constexpr double kFlat = 1e-3;
  if (std::abs(columns.determinant()) < kFlat) return std::nullopt;
  const Eigen::Vector3d shares = columns.inverse() * Eigen::Vector3d(xyzOf(white, 1).data());
  return std::array{shares[0], shares[1], shares[2]};
}

}  // namespace chispa
