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
#include "core/show/curvepoint.h"

namespace chispa {

/// What an effect can be told: a number in its parameter's unit, a switch, a choice or text, a colour.
using ParamValue = std::variant<double, bool, std::string, Srgb8>;
/// Values by the parameter's key; a parameter that is not named keeps its default.
using ParamValues = std::map<std::string, ParamValue>;

/// How a clip's light meets the light of the layers below it.
enum class Blend { Normal, Add, Lighten, Multiply, Screen, Mask, CutOut };

/// The course of a fade: in proportion, slow at both ends, slow at its beginning, slow at its end.
enum class FadeShape { Even, Soft, Late, Early };

/// What moves a parameter while its clip plays.
enum class Driver { Curve, Level, Band, Onset, BeatPhase, BarPhase, Parameter };

/// How one parameter moves: what drives it, and the values, in the parameter's unit, at the driver's 0 and at
/// its 1.
struct Motion {
  Driver driver = Driver::Curve;
  double low = 0;
  double high = 1;
  /// For Driver::Curve: in order of `at`; straight between points.
  std::vector<CurvePoint> points;
  /// For Driver::Band: the band, from the lowest at 0. For Driver::Onset: low 0, middle 1, high 2.
  int band = 0;
  /// For Driver::Parameter: the key of the number that is followed.
  std::string parameter;

  bool operator==(const Motion&) const = default;
};

/// Motions by the parameter's key; "strength" moves the clip's strength, "palette_place" how far its palette
/// is turned, in whole palettes.
using Motions = std::map<std::string, Motion>;
inline constexpr const char* kStrengthKey = "strength";
inline constexpr const char* kPalettePlaceKey = "palette_place";

/// An effect, or a building block, placed on a zone for a time.
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
  /// How far the palette is turned, in whole palettes, and how often it turns in a bar; its end then joins
  /// its beginning.
  double paletteShift = 0;
  double paletteTurns = 0;
  Blend blend = Blend::Normal;
  /// 0–1.
  double strength = 1;
  Micros fadeIn{0};
  Micros fadeOut{0};
  FadeShape fadeShape = FadeShape::Even;
  /// It fades out because something else comes in its place: what that takes it gives.
  bool givesWay = false;
  std::uint32_t seed = 1;
  /// The effect's own time at the clip's start, and how much of it passes in a second.
  Micros contentOffset{0};
  double speed = 1;
  /// What effects with a beginning and an end run over, in their own time; 0: up to the clip's end.
  Micros whole{0};
  Motions motions;
  /// Plays this block in place of an effect.
  BlockId block;
  /// 0: in its zone's stave. Else it lies over all staves, higher ones on lower ones: what was played live.
  int over = 0;

  bool operator==(const Clip&) const = default;
  Micros end() const { return start + length; }
};

/// A named instant of a mark lane, or, where `length` is given, a stretch of time.
struct Mark {
  MarkId id;
  Micros at{0};
  std::string text;
  Micros length{0};

  bool operator==(const Mark&) const = default;
};

/// What the marks of a lane mean.
enum class LaneKind {
  Beats,
  Bars,
  Sections,
  Words,
  Free,
  Phonemes,
  LowOnsets,
  MiddleOnsets,
  HighOnsets,
  Notes,
  Chords
};

struct MarkLane {
  LaneId id;
  std::string name;
  LaneKind kind = LaneKind::Free;
  /// In order of time.
  std::vector<Mark> marks;

  bool operator==(const MarkLane&) const = default;
};

/// Staves that are folded away together, under one name.
struct StaveFolder {
  std::string name;
  std::vector<ZoneId> zones;
  bool isFolded = false;

  bool operator==(const StaveFolder&) const = default;
};

/// A building block: clips that stand in any number of places, and change in all of them at once. Its clips'
/// times count from its beginning; a clip without a zone plays on the stave where the block stands, any other
/// on its own zone.
struct Block {
  BlockId id;
  std::string name;
  Micros length{0};
  std::vector<std::shared_ptr<const Clip>> clips;
};

bool operator==(const Block& a, const Block& b);

/// An effect with values of its own, saved under a name.
struct OwnEffect {
  OwnEffectId id;
  std::string name;
  std::string effect;
  ParamValues params;

  bool operator==(const OwnEffect&) const = default;
};

/// The timeline of one piece of music, or of one silent animation.
struct Score {
  ScoreId id;
  std::string name;
  /// Path of the audio file, relative to the show file where possible; empty for a silent score.
  std::string audio;
  /// Where in the score the sound begins; below 0 its beginning is not heard.
  Micros audioStart{0};
  Micros length{0};
  /// What pictures of a silent score are counted in.
  double framesPerSecond = 40;
  std::vector<MarkLane> lanes;
  /// Zones in the order of their staves; a stave further up lies over those below it.
  std::vector<ZoneId> staves;
  std::vector<StaveFolder> folders;
  std::vector<std::shared_ptr<const Clip>> clips;
};

bool operator==(const Score& a, const Score& b);

/// The first lane of `kind`, or null.
const MarkLane* laneOf(const Score& score, LaneKind kind);
const Clip* findClip(const Score& score, ClipId id);
/// Instants of the marks of the first lane of `kind`, in order of time.
std::vector<Micros> instantsOf(const Score& score, LaneKind kind);

}  // namespace chispa
