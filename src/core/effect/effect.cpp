// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/effect.h"

#include <algorithm>
#include <cmath>

#include "core/effect/all.h"

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
  for (const ParamSpec& spec : specs) {
    const auto given = values.find(spec.key);
    const ParamValue& value = given == values.end() ? spec.fallback : given->second;
    Value packed;
    if (spec.kind == ParamKind::Text) {
      const auto* text = std::get_if<std::string>(&value);
      packed.text = text ? *text : std::get<std::string>(spec.fallback);
    } else {
      packed.number = asNumber(spec, value).value_or(asNumber(spec, spec.fallback).value_or(0));
    }
    values_.push_back(std::move(packed));
  }
}

ParamSpec numberParam(std::string key, std::string label, std::string unit, double low, double high, double fallback,
                      double step) {
  return {std::move(key), std::move(label), ParamKind::Number, std::move(unit), low, high, step, fallback, {}};
}

ParamSpec choiceParam(std::string key, std::string label, std::vector<ParamChoice> choices, std::size_t fallback) {
  std::string word = choices.at(fallback).key;
  return {std::move(key), std::move(label), ParamKind::Choice, {}, 0, 0, 1, std::move(word), std::move(choices)};
}

ParamSpec acrossParam(Axis fallback) {
  return choiceParam("across", "Across",
                     {{"along", "along the strip"},
                      {"columns", "columns"},
                      {"rows", "rows"},
                      {"around", "around the centre"},
                      {"outward", "outward"},
                      {"height", "height"}},
                     static_cast<std::size_t>(fallback));
}

const std::vector<Effect>& effects() {
  static const std::vector<Effect> all = {ribbon(), comets(), glints(),   swell(), bloom(), parade(),
                                          pour(),   hearth(), loudness(), weave(), lettering()};
  return all;
}

const Effect* findEffect(const std::string& key) {
  const auto& all = effects();
  const auto found = std::find_if(all.begin(), all.end(), [&](const Effect& effect) { return effect.key == key; });
  return found == all.end() ? nullptr : &*found;
}

}  // namespace chispa
