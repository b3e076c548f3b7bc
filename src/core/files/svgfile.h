// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/shape/polyline.h"

namespace chispa {

/// A round hole of a drawing.
struct SvgCircle {
  std::string id;
  Vec3 centre_m;
  double radius_m = 0;
};

/// What of a drawing can become LEDs; x to the right and y up, its lower left corner at the origin.
struct SvgDrawing {
  std::vector<SvgCircle> circles;
  /// Closed ones end in their first corner; curves are legs fine enough for any eye.
  std::vector<Outline> outlines;
};

/// Reads circles (also such as are drawn as paths) and outlines from an SVG drawing (SVG 1.1: shapes, paths
/// with all their commands, groups, transforms, physical units; no text, symbols or style). `metresPerUnit`
/// overrides what the drawing says of its size; 0 takes it from there (a bare number is 1/96 inch). Anything
/// malformed is a failure that says what and where; nothing is read then.
Result<SvgDrawing> parseSvg(const std::string& text, const std::string& where, double metresPerUnit = 0);

/// In which order holes become pixels.
enum class HoleOrder { Nearest, ById };
/// The middles of the circles, one behind the other: from the lower left to the nearest that is left, or by
/// id, numbers in ids counting as numbers.
std::vector<Vec3> holesInOrder(const SvgDrawing& drawing, HoleOrder order);

}  // namespace chispa
