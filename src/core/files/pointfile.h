// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/vec3.h"

namespace chispa {

/// Reads points from a table of x, y and perhaps z a line: separated by commas, semicolons, tabs or spaces,
/// with or without a heading; or from the JSON point list `[{"point": [x, y, z]}, …]`. `metresPerUnit` is
/// 0.001 for millimetres. A line that makes no sense is a failure that names it; nothing is read then.
Result<std::vector<Vec3>> parsePoints(const std::string& text, const std::string& where,
                                      double metresPerUnit = 1);

/// The points as a table with the heading x_m,y_m,z_m.
std::string pointsCsv(const std::vector<Vec3>& points);
/// The points as a JSON point list.
std::string pointsJson(const std::vector<Vec3>& points);

}  // namespace chispa
