// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <string>

#include "core/files/palettefile.h"

/// Palettes of other programs: what is read has colours, in order, within the palette.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size == 0) return 0;
  constexpr int kFormats = 5;
  const auto palette = chispa::parsePalette({reinterpret_cast<const char*>(data + 1), size - 1},
                                            static_cast<chispa::PaletteFormat>(data[0] % kFormats), "fuzz");
  if (!palette) return 0;
  double last = 0;
  for (const chispa::ColourStop& stop : palette->stops) {
    if (!(stop.at >= last && stop.at <= 1)) std::abort();
    last = stop.at;
  }
  return palette->stops.empty() ? (std::abort(), 0) : 0;
}
