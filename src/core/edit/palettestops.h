// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/colour/palette.h"

namespace chispa {

// Changes of one palette. Its stops stay in order of their places, which are brought into 0–1.

/// Adds a stop at `at`, of the colour that the palette has there; returns which one it is.
std::size_t addStop(Palette& palette, double at);
/// Moves stop `i`, past others if need be; returns which one it is then.
std::size_t moveStop(Palette& palette, std::size_t i, double at);
/// Takes stop `i` away; the last one stays.
void removeStop(Palette& palette, std::size_t i);

/// There and back again.
void mirrorStops(Palette& palette);
/// The last colour first.
void reverseStops(Palette& palette);
/// Ends in the colour it begins with, so that it can travel around a ring without a seam; what was there
/// moves together. A palette that does so already stays as it is.
void closeLoop(Palette& palette);

}  // namespace chispa
