// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <cstdlib>

#include "core/files/svgfile.h"

/// Drawings: whatever is read is finite.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto drawing = chispa::parseSvg({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (!drawing) return 0;
  for (const auto& circle : drawing->circles)
    if (!std::isfinite(circle.centre_m.x + circle.centre_m.y + circle.radius_m)) std::abort();
  for (const auto& outline : drawing->outlines)
    for (const chispa::Vec3& p : outline.corners_m)
      if (!std::isfinite(p.x + p.y)) std::abort();
  return 0;
}
