// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>

#include "core/show/curve.h"

namespace chispa {

/// Adds a point where it belongs in time; returns its place. Both numbers are brought into 0–1.
std::size_t addPoint(Curve& curve, CurvePoint point);
/// Moves a point, but not past its neighbours.
void movePoint(Curve& curve, std::size_t i, CurvePoint to);

/// A curve as one writes it: "0:20 50:100 100:0", per cent of the clip and of the way from the least value to
/// the most.
std::string curveText(const Curve& curve);
/// Reads it; nothing if it makes no sense, or has no point.
std::optional<Curve> parseCurve(const std::string& text);

}  // namespace chispa
