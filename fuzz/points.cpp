// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <cstdlib>

#include "core/files/pointfile.h"

/// Tables and JSON lists of points: whatever is read is finite and comes back as it was written.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto points = chispa::parsePoints({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (!points) return 0;
  for (const chispa::Vec3& p : *points)
    if (!std::isfinite(p.x + p.y + p.z)) std::abort();
  const auto again = chispa::parsePoints(chispa::pointsJson(*points), "fuzz");
  if (!again || *again != *points) std::abort();
  return 0;
}
