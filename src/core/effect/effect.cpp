// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/effect.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <string_view>
#include <unordered_map>

#include "core/effect/all.h"
#include "core/effect/settings.h"

namespace chispa {
namespace {

double choiceIndex(const ParamSpec& spec, const ParamValue& value) {
  const auto* word = std::get_if<std::string>(&value);
  if (!word) return -1;
  const auto found = std::find_if(spec.choices.begin(), spec.choices.end(),
                                  [&](const ParamChoice& choice) { return choice.key == *word; });
  return found == spec.choices.end() ? -1 : static_cast<double>(found - spec.choices.begin());
}

/// The value as a number of its kind, or nothing if it is of another kind.
std::optional<double> asNumber(const ParamSpec& spec, const ParamValue& value) {
  if (spec.kind == ParamKind::Choice) {
    const double index = choiceIndex(spec, value);
    return index < 0 ? std::nullopt : std::optional(index);
  }
  if (const auto* on = std::get_if<bool>(&value)) return *on ? 1 : 0;
  const auto* number = std::get_if<double>(&value);
  if (!number || !std::isfinite(*number)) return std::nullopt;
  return std::clamp(*number, spec.low, spec.high);
}

}  // namespace

ParamPack::ParamPack(const std::vector<ParamSpec>& specs, const ParamValues& values) {
  std::vector<std::string> texts;
  for (const ParamSpec& spec : specs) {
    const ParamValue& value = valueOf(spec, values);
    texts.emplace_back();
    numbers_.push_back(0);
    if (spec.isText()) {
      const auto* text = std::get_if<std::string>(&value);
      texts.back() = text ? *text : std::get<std::string>(spec.fallback);
    } else {
      numbers_.back() = asNumber(spec, value).value_or(asNumber(spec, spec.fallback).value_or(0));
    }
  }
  texts_ = std::make_shared<const std::vector<std::string>>(std::move(texts));
}

Effect cellwise(Effect effect) {
  effect.isCellwise = true;
  return effect;
}

ParamSpec numberParam(std::string key, std::string label, std::string unit, double low, double high,
                      double fallback, double step) {
  return {
      std::move(key), std::move(label), ParamKind::Number, std::move(unit), low, high, step, fallback, {}};
}

ParamSpec fixedParam(std::string key, std::string label, std::string unit, double low, double high,
                     double fallback, double step) {
  ParamSpec spec = numberParam(std::move(key), std::move(label), std::move(unit), low, high, fallback, step);
  spec.canMove = false;
  return spec;
}

ParamSpec choiceParam(std::string key, std::string label, std::vector<ParamChoice> choices,
                      std::size_t fallback) {
  std::string word = choices.at(fallback).key;
  return {std::move(key),  std::move(label),  ParamKind::Choice, {}, 0, 0, 1,
          std::move(word), std::move(choices)};
}

ParamSpec switchParam(std::string key, std::string label, bool fallback) {
  return {std::move(key), std::move(label), ParamKind::Switch, {}, 0, 1, 1, fallback, {}};
}

ParamSpec textParam(std::string key, std::string label, ParamKind kind, std::string fallback) {
  return {std::move(key), std::move(label), kind, {}, 0, 0, 1, std::move(fallback), {}};
}

std::vector<ParamSpec> across(Axis fallback, std::vector<ParamSpec> rest) {
  std::vector<ParamSpec> all = {choiceParam("across", "Across",
                                            {{"along", "along the strip"},
                                             {"columns", "columns"},
                                             {"rows", "rows"},
                                             {"around", "around the centre"},
                                             {"outward", "outward"},
                                             {"height", "height"},
                                             {"plane", "a plane in space"}},
                                            static_cast<std::size_t>(fallback))};
  std::move(rest.begin(), rest.end(), std::back_inserter(all));
  for (ParamSpec angle : {numberParam("turn", "Turned", "°", -360, 360, 0, 5),
                          numberParam("tilt", "Tilted up", "°", -90, 90, 30, 5)}) {
    angle.onlyIf = "across";
    angle.onlyIfWord = "plane";
    all.push_back(std::move(angle));
  }
  return all;
}

std::optional<std::size_t> paramIndex(const Effect& effect, const std::string& key) {
  for (std::size_t i = 0; i < effect.params.size(); ++i)
    if (effect.params[i].key == key) return i;
  return std::nullopt;
}

namespace {

ParamRoles rolesOf(const Effect& effect) {
  return {.across = paramIndex(effect, "across"),
          .turn = paramIndex(effect, "turn"),
          .tilt = paramIndex(effect, "tilt"),
          .source = paramIndex(effect, "source"),
          .delay = paramIndex(effect, "delay")};
}

std::vector<Effect> shelved(std::vector<Effect> all) {
  for (Effect& effect : all) {
    effect = withSettings(std::move(effect));
    effect.roles = rolesOf(effect);
  }
  return all;
}

}  // namespace

const std::vector<Effect>& effects() {
  static const std::vector<Effect> all = shelved(
      {// Flows.
       ribbon(), hueWheel(), swell(), ripples(), vanes(), slats(), weave(), front(), soundings(), pendulum(),
       penumbra(),
       // Sparks.
       glints(), frost(), hearth(), comets(), drizzle(), snowfall(), rockets(), toss(), fireflies(), swarm(),
       cloudburst(),
       // Steps.
       chase(), turnabout(), unveil(), pour(), parade(), stack(), gauge(), footfall(), strobe(),
       // Textures.
       clouds(), marbling(), mosaic(), pool(), storm(), tidewater(),
       // Music.
       loudness(), bloom(), carillon(), skyline(), baton(), canon(), hourglass(),
       // Pictures.
       lettering(), shapes(), drawing(), picture(), rows(), screenCapture(), echo(), spill(), formulaEffect(),
       // Plain.
       hold(), black()});
  return all;
}

const Effect* findEffect(const std::string& key) {
  static const auto byKey = [] {
    std::unordered_map<std::string_view, const Effect*> all;
    for (const Effect& effect : effects()) all[effect.key] = &effect;
    return all;
  }();
  const auto found = byKey.find(key);
  return found == byKey.end() ? nullptr : found->second;
}

}  // namespace chispa
