// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/time.h"
#include "core/colour/rgb.h"

namespace chispa {

/// What an effect can be told: a number in its parameter's unit, a switch, a choice or text, a colour.
using ParamValue = std::variant<double, bool, std::string, Srgb8>;
/// Values by the parameter's key; a parameter that is not named keeps its default.
using ParamValues = std::map<std::string, ParamValue>;

/// How a clip's light meets the light of the layers below it.
enum class Blend { Normal, Add, Lighten, Multiply, Screen, Mask };

/// An effect placed on a zone for a time.
struct Clip {
  ClipId id;
  ZoneId zone;
  /// Higher layers lie on lower ones of the same zone.
  int layer = 0;
  Micros start{0};
  Micros length{0};
  /// The registry's key; may be unknown to this version, then the clip stays dark and is kept.
  std::string effect;
  ParamValues params;
  PaletteId palette;
  Blend blend = Blend::Normal;
  /// 0–1.
  double strength = 1;
  Micros fadeIn{0};
  Micros fadeOut{0};
  std::uint32_t seed = 1;

  bool operator==(const Clip&) const = default;
  Micros end() const { return start + length; }
};

/// A named instant of a mark lane.
struct Mark {
  MarkId id;
  Micros at{0};
  std::string text;

  bool operator==(const Mark&) const = default;
};

/// What the marks of a lane mean.
enum class LaneKind { Beats, Bars, Sections, Words, Free };

struct MarkLane {
  LaneId id;
  std::string name;
  LaneKind kind = LaneKind::Free;
  /// In order of time.
  std::vector<Mark> marks;

  bool operator==(const MarkLane&) const = default;
};

/// The timeline of one piece of music, or of one silent animation.
struct Score {
  ScoreId id;
  std::string name;
  /// Path of the audio file, relative to the show file where possible; empty for a silent score.
  std::string audio;
  Micros length{0};
  std::vector<MarkLane> lanes;
  /// Zones in the order of their staves; a stave further up lies over those below it.
  std::vector<ZoneId> staves;
  std::vector<std::shared_ptr<const Clip>> clips;
};

bool operator==(const Score& a, const Score& b);

/// The first lane of `kind`, or null.
const MarkLane* laneOf(const Score& score, LaneKind kind);
const Clip* findClip(const Score& score, ClipId id);

}  // namespace chispa
