// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/colour/palette.h"

/// The readers of core/files/palettefile.h, one for each format. Each fills in the stops, and the name where
/// the file has one.
namespace chispa::palettes {

/// A palette as it is read.
struct Draft {
  std::string name;
  std::vector<ColourStop> stops;
  /// The stops stand at equal distances, whatever their `at`.
  bool isEven = false;
  /// Why there is none, in a sentence; empty if the format has nothing to say.
  std::string why;

  /// Adds a stop; one that repeats the last is left out.
  void add(double at, Srgb8 colour) {
    const ColourStop stop{at, colour};
    if (stops.empty() || !(stops.back() == stop)) stops.push_back(stop);
  }
};

/// GIMP palettes: lines of three numbers 0–255.
void readGpl(const std::string& text, Draft& draft);
/// GIMP gradients: segments with a middle, a way of blending and a space of colours (devel-docs/ggr.txt of
/// GIMP).
void readGgr(const std::string& text, Draft& draft);
/// Colour tables of GMT (Cookbook, "Color palette tables"): slices or categories; RGB, HSV, CMYK, grey or
/// named colours.
void readCpt(const std::string& text, Draft& draft);
/// The first gradient with stops of an SVG drawing (SVG 2 §14.2).
void readSvg(const std::string& text, Draft& draft);
/// The first gradient() of a style sheet (CSS Images 3 §3).
void readCss(const std::string& text, Draft& draft);

}  // namespace chispa::palettes
