// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/fixture.h"
#include "core/show/striptype.h"

namespace chispa {

// Of pixels, length and pixels per metre any two give the third. Counts come out as the strip type can be
// cut.

/// What gives way when another of the three is changed.
enum class Follows { Length, Pixels, PerMetre };

/// Whether all three can be chosen: lines, arcs and grids. Paths and spirals are as long as their geometry;
/// all others have a pitch but no count of their own.
bool hasFreeLength(const Segment& segment);
/// Whether the count can be set: the above, paths and spirals.
bool hasFreeCount(const Segment& segment);

/// Metres from pixel to pixel along the strip.
double pitch_m(const Segment& segment);
/// The strip of a line, arc, path or spiral; one strip of a grid's.
double runLength_m(const Segment& segment);
/// Pixels of that strip.
int runPixels(const Segment& segment);

void setRunPixels(Segment& segment, int pixels, const StripType& strip, Follows follows);
void setPitch(Segment& segment, double pitch_m, const StripType& strip, Follows follows);
void setRunLength(Segment& segment, double length_m, const StripType& strip, Follows follows);

/// Drops what a grid cannot have after its sides have changed: holes outside, and more missing than a strip
/// has.
void tidyGrid(GridShape& grid);
/// A grid of just `pixels`: as many strips as that takes, the last of them short. Holes stay where they are.
void setGridPixels(GridShape& grid, int pixels);

}  // namespace chispa
