// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <vector>

#include "core/colour/palette.h"

namespace chispa {

/// OKLCH: OKLab in polar form. Lightness 0–1, chroma from 0 to about 0.33, hue in degrees 0 up to 360.
struct OkLch {
  double lightness = 0;
  double chroma = 0;
  double hue_deg = 0;
};

OkLch toOkLch(Srgb8 colour);
OkLch toOkLch(Rgb colour);
/// The linear colour, with as much of its chroma as the screen's gamut holds at that lightness and hue.
Rgb linearInGamut(OkLch colour);
/// The same as screens write it.
Srgb8 fromOkLch(OkLch colour);

/// The same colours on a straight path, with stops in between where it goes along the hue: for files that
/// know stops only.
Palette straightened(const Palette& palette);

/// How colours that go together lie on the wheel of hues.
enum class Harmony { Neighbours, Opposites, Triad, Square, OneHue };
/// Four or five stops that go with `colour`, from dark to light for one hue.
std::vector<ColourStop> harmonyOf(Srgb8 colour, Harmony harmony);

/// `count` stops by chance: hues within `spread_deg` of `hue_deg`, with lightness and chroma that lie well on
/// LEDs.
std::vector<ColourStop> randomStops(double hue_deg, double spread_deg, int count, std::uint32_t seed);

/// The colours that a picture is made of: `rgba` has four bytes a dot; means of boxes of like colours, from
/// dark to light (after the median cut of P. Heckbert 1982, but cut in the middle of the widest channel).
std::vector<ColourStop> stopsOfPicture(const std::vector<std::uint8_t>& rgba, int count);

}  // namespace chispa
