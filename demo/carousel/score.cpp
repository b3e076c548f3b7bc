// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include "waltz/tune.h"

namespace chispa::demo {

void addPalettes(Show& show) {
  const auto add = [&](const std::string& name, std::vector<const char*> colours) {
    Palette palette{show.newId<PaletteId>(), name, {}};
    for (std::size_t i = 0; i < colours.size(); ++i)
      palette.stops.push_back({static_cast<double>(i) / static_cast<double>(colours.size() - 1), *parseHex(colours[i])});
    put(show.palettes, palette);
  };
  add("Ember", {"#1a0205", "#7a1206", "#e0480e", "#ffb340", "#fff0c8"});
  add("Lagoon", {"#02132b", "#055a7d", "#12b3a6", "#9df2d8"});
  add("Fair", {"#ff2d55", "#ff9f1c", "#ffe45e", "#2ec4b6", "#3a86ff", "#b14aed"});
  add("Moon", {"#0a1033", "#33409a", "#8f9df0", "#f0f2ff"});
  add("Sugar", {"#ff5fa2", "#ffd6e8", "#fff6fb", "#a5d8ff"});
  add("Lamplight", {"#ff9a2e", "#ffc46b", "#ffe2b0"});
}

namespace {

/// Places clips by bar; what a line of the score says is all that it needs.
class Scribe {
 public:
  Scribe(Show& show, Score& score) : show_(show), score_(score) {}

  /// What one clip is; bars may have fractions.
  struct Line {
    const char* zone;
    double bar;
    double bars;
    const char* effect;
    const char* palette;
    ParamValues params = {};
    int layer = 0;
    Blend blend = Blend::Normal;
    double fadeIn = 0;
    double fadeOut = 0;
    double strength = 1;
  };

  void add(const Line& line) {
    Clip clip;
    clip.id = show_.newId<ClipId>();
    clip.zone = findNamed(show_.zones, line.zone)->id;
    clip.palette = findNamed(show_.palettes, line.palette)->id;
    clip.start = at(line.bar);
    clip.length = at(line.bar + line.bars) - clip.start;
    clip.effect = line.effect;
    clip.params = line.params;
    clip.layer = line.layer;
    clip.blend = line.blend;
    clip.strength = line.strength;
    clip.fadeIn = barLength() * line.fadeIn;
    clip.fadeOut = barLength() * line.fadeOut;
    clip.seed = clip.id.value;
    score_.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
  }

 private:
  struct BarLength {
    Micros operator*(double bars) const { return micros(bars * kBeatsPerBar * kBeat_s); }
  };
  static BarLength barLength() { return {}; }
  static Micros at(double bar) { return micros(kLeadIn_s + bar * kBeatsPerBar * kBeat_s); }

  Show& show_;
  Score& score_;
};

ParamValues across(const char* axis, ParamValues more = {}) {
  more["across"] = std::string(axis);
  return more;
}

void writeOpening(Scribe& s) {
  s.add({"Lanterns", 0, 4, "bloom", "Lamplight", {{"every", std::string("bar")}, {"fade", 3.0}}, 0, Blend::Normal, 0, 0});
  s.add({"Canopy rim", 0, 2, "glints", "Moon", {{"density", 0.12}, {"life", 1.4}}, 0, Blend::Normal, 1, 0});
  s.add({"Canopy rim", 2, 2, "pour", "Ember", across("along", {{"edge", 0.05}})});
  s.add({"Roof ribs", 2, 2, "pour", "Ember", across("rows", {{"edge", 0.3}})});
  s.add({"Posts", 0, 4, "glints", "Moon", {{"density", 0.08}, {"life", 1.2}}, 0, Blend::Normal, 1, 0.5});
  s.add({"Column", 0, 4, "swell", "Moon", across("around", {{"waves", 2.0}, {"passes", 0.5}, {"sharpness", 3.0}}), 0, Blend::Normal, 2, 0, 0.5});
  s.add({"Path edge", 0, 4, "comets", "Lamplight", across("along", {{"heads", 3.0}, {"passes", 0.5}, {"tail", 0.3}}), 0, Blend::Normal, 1, 0});
  s.add({"Booth sign", 0, 4, "lettering", "Lamplight", {{"text", std::string("LANTERN FAIR")}, {"moves", std::string("pass")}, {"passes", 0.25}}});
  s.add({"Uplights", 0, 4, "swell", "Moon", {{"waves", 1.0}, {"passes", 0.5}}, 0, Blend::Normal, 2, 0, 0.6});
}

void writeFirstRound(Scribe& s) {
  s.add({"Canopy rim", 4, 8, "ribbon", "Fair", across("along", {{"repeats", 2.0}, {"passes", 0.5}}), 0, Blend::Normal, 0.3, 0});
  s.add({"Canopy rim", 12, 8, "weave", "Fair", across("along", {{"threads", 12.0}, {"passes", 1.0}})});
  s.add({"Canopy rim", 12, 8, "glints", "Lamplight", {{"density", 0.06}, {"life", 0.5}}, 1, Blend::Lighten});
  s.add({"Roof ribs", 4, 8, "comets", "Ember", across("rows", {{"heads", 1.0}, {"passes", 1.0}, {"tail", 0.6}, {"offset", 0.0833}})});
  s.add({"Roof ribs", 12, 8, "bloom", "Ember", across("rows", {{"every", std::string("beat")}, {"fade", 0.9}, {"spread", 0.3}})});
  s.add({"Posts", 4, 8, "glints", "Lagoon", {{"density", 0.25}, {"life", 0.8}}});
  s.add({"Posts", 12, 8, "comets", "Lagoon", across("rows", {{"heads", 1.0}, {"passes", 1.0}, {"tail", 0.7}, {"offset", 0.25}})});
  s.add({"Lanterns", 4, 16, "bloom", "Lamplight", {{"every", std::string("beat")}, {"fade", 1.2}, {"accent", 0.6}}});
  s.add({"Column", 4, 8, "weave", "Moon", across("columns", {{"threads", 8.0}, {"passes", 0.5}, {"width", 0.6}})});
  s.add({"Column", 12, 8, "hearth", "Ember", across("rows", {{"speed", 1.4}, {"grain", 6.0}})});
  s.add({"Booth sign", 4, 8, "lettering", "Fair", {{"text", std::string("RIDES")}, {"width", 0.75}}});
  s.add({"Booth sign", 12, 8, "loudness", "Fair", {{"gain", 1.0}}});
  s.add({"Path edge", 4, 8, "comets", "Lamplight", across("along", {{"heads", 5.0}, {"passes", 1.0}, {"tail", 0.4}})});
  s.add({"Path edge", 12, 8, "parade", "Sugar", across("along", {{"groups", 20.0}, {"lit", 0.4}, {"glide", 0.4}})});
  s.add({"Floods", 4, 16, "bloom", "Ember", {{"every", std::string("bar")}, {"fade", 2.5}}, 0, Blend::Normal, 0, 0.5, 0.6});
  s.add({"Uplights", 4, 16, "ribbon", "Lagoon", {{"repeats", 1.0}, {"passes", 0.25}}, 0, Blend::Normal, 0.5, 0.5, 0.7});
}

void writeTurn(Scribe& s) {
  s.add({"Canopy rim", 20, 8, "swell", "Lagoon", across("around", {{"waves", 6.0}, {"passes", 1.0}, {"sharpness", 2.0}}), 0, Blend::Normal, 0.5, 0});
  s.add({"Canopy rim", 28, 6, "parade", "Sugar", across("along", {{"groups", 24.0}, {"lit", 0.5}})});
  s.add({"Canopy rim", 34, 2, "pour", "Fair", across("along", {{"edge", 0.1}})});
  s.add({"Roof ribs", 20, 8, "swell", "Moon", across("columns", {{"waves", 2.0}, {"passes", 0.5}})});
  s.add({"Roof ribs", 28, 8, "comets", "Sugar", across("columns", {{"heads", 3.0}, {"passes", 1.0}, {"tail", 0.8}, {"offset", 0.0}})});
  s.add({"Posts", 20, 8, "hearth", "Lagoon", across("rows", {{"speed", 0.8}, {"height", 1.4}})});
  s.add({"Posts", 28, 8, "parade", "Sugar", across("columns", {{"groups", 4.0}, {"lit", 0.34}, {"steps", 1.0}})});
  s.add({"Lanterns", 20, 8, "parade", "Fair", across("along", {{"groups", 4.0}, {"lit", 0.34}, {"steps", 1.0}})});
  s.add({"Lanterns", 28, 8, "bloom", "Sugar", {{"every", std::string("off")}, {"fade", 0.8}}});
  s.add({"Column", 20, 8, "swell", "Lagoon", across("height", {{"waves", 3.0}, {"passes", 1.0}, {"sharpness", 2.5}})});
  s.add({"Column", 20, 8, "glints", "Moon", {{"density", 0.04}, {"life", 0.6}}, 1, Blend::Add});
  s.add({"Column", 28, 8, "ribbon", "Sugar", across("columns", {{"repeats", 2.0}, {"passes", 0.5}, {"slant", 0.8}})});
  s.add({"Booth sign", 20, 16, "lettering", "Sugar", {{"text", std::string("THE SLOW ROUND *")}, {"moves", std::string("pass")}, {"passes", 0.2}}});
  s.add({"Path edge", 20, 16, "swell", "Lagoon", across("along", {{"waves", 5.0}, {"passes", -1.0}, {"sharpness", 3.0}})});
  s.add({"Floods", 20, 16, "ribbon", "Moon", {{"repeats", 1.0}, {"passes", 0.25}}, 0, Blend::Normal, 1, 1, 0.5});
  s.add({"Uplights", 20, 16, "bloom", "Sugar", {{"every", std::string("beat")}, {"fade", 1.0}}, 0, Blend::Normal, 0, 0, 0.8});
}

void writeLastRound(Scribe& s) {
  s.add({"Canopy rim", 36, 8, "ribbon", "Ember", across("along", {{"repeats", 6.0}, {"passes", 1.0}})});
  s.add({"Canopy rim", 44, 8, "ribbon", "Fair", across("along", {{"repeats", 3.0}, {"passes", 1.0}})});
  s.add({"Canopy rim", 36, 16, "comets", "Lamplight", across("along", {{"heads", 12.0}, {"passes", -0.5}, {"tail", 0.25}}), 1, Blend::Add});
  s.add({"Roof ribs", 36, 8, "bloom", "Lamplight", across("columns", {{"every", std::string("beat")}, {"fade", 0.8}, {"spread", 0.6}})});
  s.add({"Roof ribs", 44, 8, "ribbon", "Fair", across("columns", {{"repeats", 1.0}, {"passes", 0.5}, {"slant", 0.5}})});
  s.add({"Posts", 36, 8, "comets", "Ember", across("rows", {{"heads", 2.0}, {"passes", 1.0}, {"tail", 0.6}, {"offset", 0.0833}})});
  s.add({"Posts", 44, 8, "weave", "Fair", across("rows", {{"threads", 3.0}, {"passes", 1.0}})});
  s.add({"Lanterns", 36, 16, "bloom", "Fair", {{"every", std::string("beat")}, {"fade", 1.0}, {"accent", 0.3}}});
  s.add({"Column", 36, 8, "loudness", "Ember", {{"gain", 0.9}}});
  s.add({"Column", 44, 8, "ribbon", "Fair", across("around", {{"repeats", 1.0}, {"passes", -0.5}, {"slant", 1.2}})});
  s.add({"Column", 44, 8, "glints", "Lamplight", {{"density", 0.08}, {"life", 0.4}}, 1, Blend::Add});
  s.add({"Booth sign", 36, 16, "lettering", "Fair", {{"text", std::string("RIDES")}, {"width", 0.75}}, 1});
  s.add({"Booth sign", 36, 16, "glints", "Moon", {{"density", 0.05}, {"life", 0.7}}});
  s.add({"Path edge", 36, 16, "parade", "Fair", across("along", {{"groups", 30.0}, {"lit", 0.5}, {"glide", 0.3}})});
  s.add({"Floods", 36, 16, "bloom", "Fair", {{"every", std::string("bar")}, {"fade", 2.0}, {"spread", 0.5}}, 0, Blend::Normal, 0, 0, 0.7});
  s.add({"Uplights", 36, 16, "ribbon", "Fair", {{"repeats", 1.0}, {"passes", 0.5}}});
}

void writeClose(Scribe& s) {
  s.add({"Everything", 52, 3, "glints", "Lamplight", {{"density", 0.35}, {"life", 0.5}}, 0, Blend::Normal, 0, 1});
  s.add({"Canopy rim", 52, 3, "pour", "Ember", across("along", {{"then", std::string("drain")}})});
  s.add({"Column", 52, 3, "pour", "Moon", across("height", {{"then", std::string("drain")}})});
  s.add({"Lanterns", 55, 2.5, "swell", "Lamplight", {{"waves", 0.0}, {"passes", 0.0}}, 0, Blend::Normal, 0, 2.2});
  s.add({"Booth sign", 52, 5, "lettering", "Lamplight", {{"text", std::string("GOODNIGHT")}, {"width", 0.42}}, 1, Blend::Normal, 0.5, 2});
  s.add({"Booth sign", 52, 3, "pour", "Moon", across("columns", {{"then", std::string("drain")}, {"edge", 0.4}}), 0, Blend::Normal, 0, 0, 0.35});
  s.add({"Canopy rim", 55, 2.5, "glints", "Moon", {{"density", 0.2}, {"life", 1.2}}, 0, Blend::Normal, 0, 2.2});
}

}  // namespace

void addWaltz(Show& show) {
  Score score;
  score.id = show.newId<ScoreId>();
  score.name = "The Slow Round";
  score.audio = "slow-round.ogg";
  score.length = micros(kLength_s);
  MarkLane bars{show.newId<LaneId>(), "Bars", LaneKind::Bars, {}};
  MarkLane beats{show.newId<LaneId>(), "Beats", LaneKind::Beats, {}};
  MarkLane parts{show.newId<LaneId>(), "Sections", LaneKind::Sections, {}};
  for (int bar = 0; bar < kBars; ++bar) bars.marks.push_back({show.newId<MarkId>(), barInstant(bar), {}});
  for (int beat = 0; beat < kBars * kBeatsPerBar; ++beat) beats.marks.push_back({show.newId<MarkId>(), beatInstant(beat), {}});
  for (const Section& section : sections())
    parts.marks.push_back({show.newId<MarkId>(), barInstant(section.firstBar), section.name});
  score.lanes = {bars, beats, parts};
  for (const auto& zone : show.zones) score.staves.push_back(zone->id);
  Scribe scribe(show, score);
  writeOpening(scribe);
  writeFirstRound(scribe);
  writeTurn(scribe);
  writeLastRound(scribe);
  writeClose(scribe);
  put(show.scores, score);
}

Show carousel() {
  Show show;
  show.name = "Lantern Fair carousel";
  addPieces(show);
  addZones(show);
  addWiring(show);
  addPalettes(show);
  addWaltz(show);
  return show;
}

}  // namespace chispa::demo
