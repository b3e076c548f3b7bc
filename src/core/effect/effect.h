// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/colour/turnedpalette.h"
#include "core/effect/light.h"
#include "core/music/features.h"
#include "core/show/score.h"
#include "core/zone/cells.h"

namespace chispa {

class LivePicture;
class MediaLibrary;
struct ScreenPart;

/// What kind of value a parameter takes. Formula, Drawing and File are texts: in the formula language, in the
/// letters of drawings, and the name of a file beside the show. A zone is the number of its id.
enum class ParamKind { Number, Switch, Choice, Text, Formula, Drawing, File, Font, Zone };

/// One of the words a choice can be: `key` in files, `label` in the window.
struct ParamChoice {
  std::string key;
  std::string label;
};

/// What an effect can be told: its name, kind, range and what it is if nothing is said.
struct ParamSpec {
  std::string key;
  std::string label;
  ParamKind kind = ParamKind::Number;
  std::string unit;
  double low = 0;
  double high = 1;
  double step = 0.01;
  ParamValue fallback;
  std::vector<ParamChoice> choices;
  /// Counts only while the choice `onlyIf` is at `onlyIfWord`; always if empty.
  std::string onlyIf = {};
  std::string onlyIfWord = {};
  /// A number that curves and the music can move.
  bool canMove = true;

  bool isText() const { return std::holds_alternative<std::string>(fallback) && kind != ParamKind::Choice; }
};

/// What is said of a parameter, or else its fallback. Lives as long as both.
inline const ParamValue& valueOf(const ParamSpec& spec, const ParamValues& values) {
  const auto given = values.find(spec.key);
  return given == values.end() ? spec.fallback : given->second;
}

/// A clip's parameters in the order of its effect's specs, checked and within their ranges.
class ParamPack {
 public:
  ParamPack() = default;
  ParamPack(const std::vector<ParamSpec>& specs, const ParamValues& values);

  double number(std::size_t i) const { return numbers_[i]; }
  float real(std::size_t i) const { return static_cast<float>(numbers_[i]); }
  bool isOn(std::size_t i) const { return numbers_[i] != 0; }
  int choice(std::size_t i) const { return static_cast<int>(numbers_[i]); }
  Axis axis(std::size_t i) const { return static_cast<Axis>(choice(i)); }
  const std::string& text(std::size_t i) const { return (*texts_)[i]; }
  std::size_t count() const { return numbers_.size(); }
  /// A number that moves; must lie in its range.
  void setNumber(std::size_t i, double value) { numbers_[i] = value; }
  /// Room for the numbers of any effect, so that taking over another pack's allocates nothing.
  void reserve() { numbers_.reserve(kMax); }

 private:
  static constexpr std::size_t kMax = 32;
  std::vector<double> numbers_;
  std::shared_ptr<const std::vector<std::string>> texts_;
};

/// What an effect has worked out of its texts and files beforehand.
struct Prepared {
  virtual ~Prepared() = default;
};

/// Light of another zone at another time, for effects that show it again.
struct OtherLight {
  const ZoneCells* cells = nullptr;
  const LightBuffer* light = nullptr;
};

/// Some of a zone's cells, in playing order.
struct CellRange {
  std::size_t first = 0;
  std::size_t count = 0;
};

/// All that an effect may know. The same input always gives the same light.
struct EffectInput {
  const ZoneCells& cells;
  const ParamPack& params;
  TurnedPalette palette;
  /// Each cell's place 0–1 along the axis that the parameter "across" names; along the zone where there is
  /// none.
  std::span<const float> place = {};
  /// The cells to fill; all of them, unless the effect is one that looks at each cell by itself.
  CellRange range = {0, static_cast<std::size_t>(cells.count())};
  std::uint32_t seed = 1;
  /// Since the clip began, and of the whole clip, in seconds.
  double t_s = 0;
  double length_s = 1;
  /// Bars and beats since the clip began; they advance with the music.
  double bars = 0;
  double beats = 0;
  /// Beats into the bar of the music.
  double beatInBar = 0;
  /// Beats of the music's present bar.
  double beatsOfBar = 4;
  /// How much of the music's present section is over, 0–1; of the clip where the music has none.
  double section = 0;
  /// Loudness now, 0–1; 0 where there is no music.
  float level = 0;
  std::array<float, kBands> bands{};
  /// The piece and the instant in it; the piece may be null.
  const MusicFeatures* music = nullptr;
  Micros at{0};
  const Prepared* prepared = nullptr;
  /// What the part of a screen that `screenOf` names shows now; null where nobody watches it.
  const LivePicture* screen = nullptr;
  OtherLight other = {};

  /// How long a beat of the music is over the whole clip: on the mean, and the shortest. The same in every
  /// frame.
  double beatLength_s = 0.5;
  double shortestBeat_s = 0.5;
  /// How much of the clip's own time, and how many of its beats, pass in one of the music's.
  double speed = 1;
};

/// Kinds of effects, as the shelf sorts them.
enum class EffectGroup { Flows, Sparks, Steps, Textures, Music, Pictures, Plain };

/// Some of an effect's parameters that go well together, under a name.
struct EffectSetting {
  std::string name;
  ParamValues values;
};

/// Parameters that mean the same in every effect that has them, by their place among its specs.
struct ParamRoles {
  /// Which of the zone's axes the light runs through, and how the plane in space lies that may be one.
  std::optional<std::size_t> across;
  std::optional<std::size_t> turn;
  std::optional<std::size_t> tilt;
  /// The other zone that is shown, and how much later.
  std::optional<std::size_t> source;
  std::optional<std::size_t> delay;
};

/// A light function: pure, thread-safe, without state from frame to frame.
struct Effect {
  /// Its word in files; never changes.
  std::string key;
  std::string name;
  std::string summary;
  std::vector<ParamSpec> params;
  /// Fills out's first range.count cells with those of the range. Allocates nothing, throws nothing, takes
  /// time in proportion to them.
  void (*render)(const EffectInput& in, LightBuffer& out) noexcept = nullptr;
  EffectGroup group = EffectGroup::Plain;
  /// Works out what render() is given as `prepared`; may be null, and may give null.
  std::shared_ptr<const Prepared> (*prepare)(const ParamPack& params, const MediaLibrary& media) = nullptr;
  /// The part of a screen whose picture render() is given as `screen`; null if it looks at none.
  ScreenPart (*screenOf)(const ParamPack& params) = nullptr;
  /// It has a beginning and an end: it runs over the clip's whole length.
  bool isWhole = false;
  /// It is at its best with rows to stand on.
  bool wantsRows = false;
  /// It can fill any range of cells: each one's light depends on that cell alone. Set by cellwise().
  bool isCellwise = false;

  /// What it is good for, in a line, and settings to begin from; settings.cpp.
  std::string use = {};
  std::vector<EffectSetting> settings = {};

  /// Looked up in `params` by effects().
  ParamRoles roles = {};

  /// The axis that these parameters of it choose; along the zone if it has none to choose.
  Axis axisOf(const ParamPack& pack) const { return roles.across ? pack.axis(*roles.across) : Axis::Along; }
};

/// Every effect there is, in the order of the shelf.
const std::vector<Effect>& effects();
/// The effect with `key`, or null if this version has none.
const Effect* findEffect(const std::string& key);

/// Number of the parameter `key` of `effect`, or nothing.
std::optional<std::size_t> paramIndex(const Effect& effect, const std::string& key);

/// `effect` as one that fills any range of cells.
Effect cellwise(Effect effect);

/// Makers of parameter specs.
ParamSpec numberParam(std::string key, std::string label, std::string unit, double low, double high,
                      double fallback, double step = 0.01);
/// A number that stays what it is for the whole clip.
ParamSpec fixedParam(std::string key, std::string label, std::string unit, double low, double high,
                     double fallback, double step = 1);
ParamSpec choiceParam(std::string key, std::string label, std::vector<ParamChoice> choices,
                      std::size_t fallback = 0);
ParamSpec switchParam(std::string key, std::string label, bool fallback);
ParamSpec textParam(std::string key, std::string label, ParamKind kind, std::string fallback);
/// "Across", which of the zone's axes the light runs through, before `rest`, and the angles of the plane
/// behind it.
std::vector<ParamSpec> across(Axis fallback, std::vector<ParamSpec> rest);

}  // namespace chispa
