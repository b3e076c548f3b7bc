// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/score.h"

namespace chispa {

using Curve = std::vector<CurvePoint>;

/// Value of a curve at `at`, a share of its clip: straight between points, level before the first and behind
/// the last; of no points 0. Real-time safe.
double curveAt(const Curve& curve, double at) noexcept;

}  // namespace chispa
