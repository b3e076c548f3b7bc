// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/colour/palette.h"
#include "core/effect/light.h"
#include "core/music/features.h"
#include "core/show/score.h"
#include "core/zone/cells.h"

namespace chispa {

/// What kind of value a parameter takes.
enum class ParamKind { Number, Switch, Choice, Text };

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
};

/// A clip's parameters in the order of its effect's specs, checked and within their ranges.
class ParamPack {
 public:
  ParamPack() = default;
  ParamPack(const std::vector<ParamSpec>& specs, const ParamValues& values);

  double number(std::size_t i) const { return values_[i].number; }
  float real(std::size_t i) const { return static_cast<float>(values_[i].number); }
  bool isOn(std::size_t i) const { return values_[i].number != 0; }
  int choice(std::size_t i) const { return static_cast<int>(values_[i].number); }
  Axis axis(std::size_t i) const { return static_cast<Axis>(choice(i)); }
  const std::string& text(std::size_t i) const { return values_[i].text; }

 private:
  struct Value {
    double number = 0;
    std::string text;
  };
  std::vector<Value> values_;
};

/// All that an effect may know. The same input always gives the same light.
struct EffectInput {
  const ZoneCells& cells;
  const ParamPack& params;
  const PaletteTable& palette;
  std::uint32_t seed = 1;
  /// Since the clip began, and of the whole clip, in seconds.
  double t_s = 0;
  double length_s = 1;
  /// Bars and beats since the clip began; they advance with the music.
  double bars = 0;
  double beats = 0;
  /// Position in the score's own count, for light that falls on the beat: beats from the first, beats into the bar.
  double scoreBeat = 0;
  double beatInBar = 0;
  /// Loudness now, 0–1; 0 where there is no music.
  float level = 0;
  std::array<float, kBands> bands{};
};

/// A light function: pure, thread-safe, without state from frame to frame.
struct Effect {
  /// Its word in files; never changes.
  std::string key;
  std::string name;
  std::string summary;
  std::vector<ParamSpec> params;
  /// Fills out's first cells.count() cells. Allocates nothing, throws nothing, takes time in proportion to them.
  void (*render)(const EffectInput& in, LightBuffer& out) noexcept = nullptr;
};

/// Every effect there is, in the order of the shelf.
const std::vector<Effect>& effects();
/// The effect with `key`, or null if this version has none.
const Effect* findEffect(const std::string& key);

/// Makers of parameter specs.
ParamSpec numberParam(std::string key, std::string label, std::string unit, double low, double high, double fallback,
                      double step = 0.01);
ParamSpec choiceParam(std::string key, std::string label, std::vector<ParamChoice> choices, std::size_t fallback = 0);
/// "Across": which of the zone's axes the light runs through.
ParamSpec acrossParam(Axis fallback);

}  // namespace chispa
