// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string_view>

#include "core/formula/program.h"

namespace chispa::formula {

struct CellWord {
  std::string_view name;
  CellInput input;
  std::string_view meaning;
};
inline constexpr CellWord kCellWords[] = {
    {"x", CellInput::X, "place on the zone's face, −1 left to 1 right"},
    {"y", CellInput::Y, "place on the zone's face, −1 bottom to 1 top"},
    {"across", CellInput::Across, "place 0–1 along the axis chosen below"},
    {"index", CellInput::Index, "number of the cell, from 0"},
    {"column", CellInput::Column, "column of the cell, from 0"},
    {"row", CellInput::Row, "row of the cell, from 0"},
    {"angle", CellInput::Angle, "angle about the zone's centre, in turns 0–1"},
    {"radius", CellInput::Radius, "distance from the zone's centre, 0–1"},
};

struct MomentWord {
  std::string_view name;
  MomentInput input;
  std::string_view meaning;
};
inline constexpr MomentWord kMomentWords[] = {
    {"t", MomentInput::Time, "seconds since the clip began"},
    {"length", MomentInput::Length, "seconds that the clip lasts"},
    {"beat", MomentInput::Beat, "beats since the clip began; its fraction is the phase of the beat"},
    {"bar", MomentInput::Bar, "bars since the clip began"},
    {"inbar", MomentInput::BeatInBar, "beats into the bar of the music"},
    {"level", MomentInput::Level, "loudness now, 0–1"},
    {"low", MomentInput::Low, "loudness of the low bands"},
    {"middle", MomentInput::Middle, "loudness of the middle bands"},
    {"high", MomentInput::High, "loudness of the high bands"},
    {"count", MomentInput::Count, "how many cells there are"},
    {"columns", MomentInput::Columns, "how many columns"},
    {"rows", MomentInput::Rows, "how many rows"},
    {"a", MomentInput::A, "knob A, 0–1; it can be drawn as a curve or follow the music"},
    {"b", MomentInput::B, "knob B"},
    {"c", MomentInput::C, "knob C"},
    {"d", MomentInput::D, "knob D"},
};

struct FunctionWord {
  std::string_view name;
  Op op;
  int arguments;
  std::string_view call;
  std::string_view meaning;
};
/// What `sway` was called in older shows; still understood, and not offered.
inline constexpr std::string_view kOldSway = "wave";
inline constexpr FunctionWord kFunctionWords[] = {
    {"sin", Op::Sin, 1, "sin(angle)", "sine of an angle in radians"},
    {"cos", Op::Cos, 1, "cos(angle)", "cosine"},
    {"sway", Op::Sway, 1, "sway(turns)", "a sine from 0 to 1, once a turn"},
    {"tri", Op::Triangle, 1, "tri(turns)", "up and down in straight lines, 0 to 1"},
    {"saw", Op::Saw, 1, "saw(turns)", "up from 0 to 1 and back at once: the fraction"},
    {"pulse", Op::Pulse, 2, "pulse(turns, share)", "1 for a share of each turn, else 0"},
    {"abs", Op::Abs, 1, "abs(v)", "without its sign"},
    {"floor", Op::Floor, 1, "floor(v)", "the whole number below"},
    {"sqrt", Op::Sqrt, 1, "sqrt(v)", "square root; 0 below 0"},
    {"exp", Op::Exp, 1, "exp(v)", "e to the power of v"},
    {"log", Op::Log, 1, "log(v)", "natural logarithm; 0 at and below 0"},
    {"sign", Op::Sign, 1, "sign(v)", "−1, 0 or 1"},
    {"min", Op::Min, 2, "min(v, w)", "the smaller"},
    {"max", Op::Max, 2, "max(v, w)", "the larger"},
    {"clamp", Op::Clamp, 3, "clamp(v, low, high)", "v kept between two limits"},
    {"mix", Op::Mix, 3, "mix(v, w, share)", "from v at 0 to w at 1"},
    {"smooth", Op::Smooth, 3, "smooth(from, to, v)", "0 below from, 1 above to, an S between"},
    {"noise", Op::Noise, 2, "noise(v, w)", "soft chance 0–1 that changes over whole numbers"},
    {"chance", Op::Chance, 2, "chance(v, w)", "chance 0–1, another for each pair of whole numbers"},
    {"band", Op::Band, 1, "band(k)", "loudness of band k, 1 to 16"},
    {"if", Op::Choose, 3, "if(condition, then, else)", "one of two values"},
};

}  // namespace chispa::formula
