// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <vector>

#include "core/base/frame.h"
#include "core/show/show.h"

namespace chispa {

/// The whole installation as a grid: a line a fixture, its pixels from left to right in data order; what is
/// longer than the picture goes on in the next line. Fills `rgba` with width × height dots of four bytes,
/// rows from the top.
void drawUnrolled(const Show& show, const PixelFrame& frame, int width, int height,
                  std::vector<std::uint8_t>& rgba);

}  // namespace chispa
