// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>

#include "carousel/carousel.h"
#include "waltz/tune.h"

namespace chispa::demo {

void addPalettes(Show& show) {
  const auto add = [&](const std::string& name, std::vector<const char*> colours) {
    Palette palette{show.newId<PaletteId>(), name, {}};
    for (std::size_t i = 0; i < colours.size(); ++i)
      palette.stops.push_back(
          {static_cast<double>(i) / static_cast<double>(colours.size() - 1), *parseHex(colours[i])});
    put(show.palettes, palette);
  };
  add("Ember", {"#1a0205", "#7a1206", "#e0480e", "#ffb340", "#fff0c8"});
  add("Lagoon", {"#02132b", "#055a7d", "#12b3a6", "#9df2d8"});
  add("Fair", {"#ff2d55", "#ff9f1c", "#ffe45e", "#2ec4b6", "#3a86ff", "#b14aed"});
  add("Moon", {"#0a1033", "#33409a", "#8f9df0", "#f0f2ff"});
  add("Sugar", {"#ff5fa2", "#ffd6e8", "#fff6fb", "#a5d8ff"});
  add("Lamplight", {"#ff9a2e", "#ffc46b", "#ffe2b0"});
  add("White", {"#ffffff", "#ffffff"});
}

namespace {

/// Places clips by bar; what a line of the score says is all that it needs.
class Scribe {
 public:
  Scribe(Show& show, Score& score) : show_(show), score_(score) {}

  /// What one clip is; bars may have fractions.
  struct Line {
    std::string zone;
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
    Motions motions = {};
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
    clip.motions = line.motions;
    clip.fadeShape = FadeShape::Soft;
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

std::string post(int number) {
  return "Post " + std::to_string(number);
}

/// A band of light that passes through the whole carousel, from below or from above.
void passThrough(Scribe& s, double bar, double bars, const char* palette, const char* from) {
  s.add({"By height", bar, bars, "unveil", palette,
         across("height", {{"from", std::string(from)}, {"band", 0.25}, {"edge", 0.2}}), 0, Blend::Normal, 0,
         0, 0.9});
}

constexpr int kBreath = 2;
constexpr int kPulse = 3;

/// How much of its light each bar leaves, as a conductor would draw it: little while the music is soft, all
/// of it where it is loud, and a little less all over until the last round.
constexpr std::array<double, kBars> kDynamics{
    0.12, 0.97, 0.43, 0.81, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00,
    1.00, 1.00, 1.00, 1.00, 1.00, 0.52, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00,
    0.53, 0.53, 0.51, 0.51, 0.54, 0.50, 0.55, 0.71, 0.86, 0.99, 0.90, 1.00, 1.00, 0.92,
    1.00, 1.00, 0.58, 0.44, 0.45, 0.42, 0.45, 0.45, 0.47, 0.10, 1.00, 0.68, 1.00, 1.00};

/// One curve over the whole score, with a point in the middle of each bar.
void drawDynamics(Scribe& s) {
  Motion curve{Driver::Curve, 0, 1, {}, 0, {}};
  for (int bar = 0; bar < kBars; ++bar)
    curve.points.push_back({(bar + 0.5) / kBars, 1 - kDynamics[static_cast<std::size_t>(bar)]});
  s.add({"Everything",
         0,
         kBars,
         "black",
         "Moon",
         {},
         kBreath,
         Blend::Normal,
         0,
         0,
         1,
         {{kStrengthKey, curve}}});
}

/// All that lies below is held back where little is heard, from instant to instant.
void breathe(Scribe& s) {
  const Motion heard{Driver::Level, 0.95, -0.35, {}, 0, {}};
  s.add({"Everything",
         0,
         kBars,
         "black",
         "Moon",
         {},
         kBreath - 1,
         Blend::Normal,
         0,
         0,
         1,
         {{kStrengthKey, heard}}});
}

/// The beat in all surfaces at once: they open on it and close again by `depth`.
void pulse(Scribe& s, double bar, double bars, double depth, const char* palette) {
  s.add({"Everything",
         bar,
         bars,
         "bloom",
         palette,
         {{"every", std::string("beat")}, {"fade", 1.1}, {"accent", 0.25}},
         kPulse,
         Blend::Multiply,
         0,
         0,
         depth});
}

/// One beat of night, so that what returns is seen to return.
void holdBreath(Scribe& s, double bar) {
  s.add({"Everything",
         bar - 1.0 / kBeatsPerBar,
         1.0 / kBeatsPerBar,
         "black",
         "Moon",
         {},
         kPulse + 1,
         Blend::Normal,
         0.1,
         0});
}

void writeOpening(Scribe& s) {
  breathe(s);
  drawDynamics(s);
  holdBreath(s, 4);
  s.add({"Lanterns",
         0,
         4,
         "bloom",
         "Lamplight",
         {{"every", std::string("bar")}, {"fade", 3.0}},
         0,
         Blend::Normal,
         0,
         0});
  s.add({"Canopy rim", 0, 2, "glints", "Moon", {{"density", 0.12}, {"life", 1.4}}, 0, Blend::Normal, 1, 0});
  s.add({"Canopy rim", 2, 2, "pour", "Lamplight", across("along", {{"edge", 0.05}})});
  s.add({"Roof ribs", 2, 2, "pour", "Lamplight", across("rows", {{"edge", 0.3}})});
  s.add({"Posts",
         0,
         4,
         "snowfall",
         "Moon",
         {{"flakes", 3.0}, {"speed", 0.25}, {"size", 0.4}},
         0,
         Blend::Normal,
         1,
         0.5});
  s.add({"Column", 0, 4, "clouds", "Moon", {{"grain", 2.5}, {"speed", 0.2}}, 0, Blend::Normal, 2, 0, 0.7});
  s.add({"Path edge",
         0,
         4,
         "fireflies",
         "Lamplight",
         {{"flies", 14.0}, {"size", 0.05}, {"glow", 1.8}},
         0,
         Blend::Normal,
         1,
         0});
  s.add({"Booth sign",
         0,
         4,
         "lettering",
         "Lamplight",
         {{"text", std::string("LANTERN FAIR")}, {"moves", std::string("pass")}, {"passes", 0.25}}});
  s.add({"Uplights", 0, 4, "hold", "Moon", across("around", {{"spread", 0.6}}), 0, Blend::Normal, 2, 0, 0.6});
  s.add({"Floods", 1, 3, "swell", "Moon", {{"waves", 1.0}, {"passes", 0.5}}, 0, Blend::Normal, 2, 0, 0.35});
}

void writeFirstRound(Scribe& s) {
  pulse(s, 12, 8, 0.3, "White");
  passThrough(s, 4, 1, "Ember", "start");
  s.add({"Canopy rim", 4, 8, "ribbon", "Ember", across("along", {{"repeats", 2.0}, {"passes", 0.5}}), 0,
         Blend::Normal, 0.3, 0});
  s.add({"Canopy rim", 4, 8, "frost", "Ember", {{"density", 0.03}}, 1, Blend::Add});
  // The rim's two colours of thread run against each other, and pass into what follows.
  s.add({"Canopy rim", 11.5, 8.5, "weave", "Ember", across("along", {{"threads", 12.0}, {"passes", 1.0}})});
  s.add({"Canopy rim", 12, 8, "glints", "Ember", {{"density", 0.06}, {"life", 0.5}}, 1, Blend::Lighten});
  s.add({"Roof ribs", 4, 8, "comets", "Ember",
         across("rows", {{"heads", 1.0}, {"passes", 1.0}, {"tail", 0.6}, {"offset", 0.0833}})});
  s.add({"Roof ribs", 12, 8, "bloom", "Ember",
         across("rows", {{"every", std::string("beat")}, {"fade", 0.9}, {"spread", 0.3}})});
  s.add(
      {"Posts", 4, 8, "drizzle", "Lagoon", across("rows", {{"drops", 1.2}, {"speed", 0.6}, {"tail", 0.6}})});
  // One post a beat, four times round.
  for (int beat = 0; beat < 24; ++beat)
    s.add({post(beat % 12 + 1), 12 + beat / 3.0, 1.0, "pour", beat < 12 ? "Lagoon" : "Ember",
           across("along", {{"then", std::string("drain")}, {"edge", 0.3}}), 0, Blend::Normal, 0, 0.2});
  s.add({"Lanterns",
         4,
         16,
         "bloom",
         "Ember",
         {{"every", std::string("beat")}, {"fade", 1.2}, {"accent", 0.6}}});
  s.add({"Column", 4, 8, "slats", "Lagoon",
         across("columns", {{"slats", 16.0}, {"every", 1.0}, {"stagger", 1.0}}), 0, Blend::Normal, 0, 0,
         0.6});
  s.add({"Column", 12, 8, "hearth", "Ember", across("rows", {{"speed", 1.4}, {"grain", 6.0}})});
  s.add({"Booth sign", 4, 8, "lettering", "Ember", {{"text", std::string("RIDES")}, {"width", 0.75}}});
  s.add({"Booth sign", 12, 8, "loudness", "Ember", {{"gain", 1.0}}});
  s.add({"Path edge", 4, 8, "chase", "Ember",
         across("along", {{"period", 12.0}, {"lit", 4.0}, {"steps", 12.0}, {"soft", 2.0}})});
  s.add({"Path edge", 12, 8, "parade", "Lagoon",
         across("along", {{"groups", 20.0}, {"lit", 0.4}, {"glide", 0.4}})});
  s.add({"Floods",
         4,
         16,
         "bloom",
         "Ember",
         {{"every", std::string("bar")}, {"fade", 2.5}},
         0,
         Blend::Normal,
         0,
         0.5,
         0.6});
  s.add({"Uplights",
         4,
         16,
         "ribbon",
         "Lagoon",
         {{"repeats", 1.0}, {"passes", 0.25}},
         0,
         Blend::Normal,
         0.5,
         0.5,
         0.7});
}

void writeTurn(Scribe& s) {
  holdBreath(s, 36);
  passThrough(s, 20, 1, "Moon", "end");
  // The turn's loudest bar.
  passThrough(s, 24, 1, "Sugar", "start");
  s.add({"Canopy rim",
         20,
         8,
         "ripples",
         "Moon",
         {{"every", 3.0}, {"speed", 0.5}, {"width", 0.35}, {"centre-x", -1.0}},
         0,
         Blend::Normal,
         0.5,
         0});
  s.add({"Canopy rim", 20, 8, "swell", "Moon",
         across("around", {{"waves", 6.0}, {"passes", 0.5}, {"sharpness", 4.0}}), 1, Blend::Screen, 0.5, 0,
         0.5});
  s.add({"Canopy rim", 28, 6, "turnabout", "Sugar",
         across("along", {{"parts", 48.0}, {"every", 1.0}, {"fade", 0.4}})});
  s.add({"Canopy rim", 34, 2, "pour", "Sugar", across("along", {{"edge", 0.1}})});
  s.add({"Roof ribs", 20, 8, "vanes", "Moon", {{"arms", 3.0}, {"turns", 0.25}, {"edge", 0.7}}});
  s.add({"Roof ribs", 28, 8, "comets", "Sugar",
         across("columns", {{"heads", 3.0}, {"passes", 1.0}, {"tail", 0.8}, {"offset", 0.0}})});
  s.add({"Posts", 20, 8, "hearth", "Moon", across("rows", {{"speed", 0.8}, {"height", 1.4}})});
  s.add(
      {"Posts", 28, 8, "toss", "Sugar", across("rows", {{"balls", 12.0}, {"bounces", 0.5}, {"size", 0.2}})});
  s.add({"Lanterns", 20, 8, "parade", "Sugar",
         across("along", {{"groups", 4.0}, {"lit", 0.34}, {"steps", 1.0}})});
  s.add({"Lanterns", 28, 8, "turnabout", "Sugar", across("along", {{"parts", 12.0}, {"every", 1.0}})});
  s.add({"Column", 20, 8, "pool", "Moon", {{"grain", 4.0}, {"speed", 1.2}}});
  s.add({"Column diagonal", 22, 6, "comets", "Moon",
         across("along", {{"heads", 2.0}, {"passes", 1.0}, {"tail", 0.4}}), 0, Blend::Normal, 0.5, 0.5});
  s.add({"Column", 28, 8, "mosaic", "Sugar", {{"stones", 6.0}, {"moves", 0.9}}});
  s.add({"Booth sign",
         20,
         16,
         "lettering",
         "Sugar",
         {{"text", std::string("THE SLOW ROUND *")}, {"moves", std::string("pass")}, {"passes", 0.2}},
         1});
  s.add({"Booth sign",
         20,
         16,
         "marbling",
         "Moon",
         {{"grain", 2.0}, {"speed", 0.5}},
         0,
         Blend::Normal,
         1,
         1,
         0.18});
  s.add({"Path edge", 20, 16, "carillon", "Moon",
         across("along", {{"range", std::string("high")}, {"speed", 0.25}, {"length", 1.2}})});
  s.add({"Floods", 20, 16, "hue-wheel", "Moon", across("along", {{"turns", 0.125}, {"chroma", 0.12}}), 0,
         Blend::Normal, 1, 1, 0.5});
  s.add({"Uplights",
         20,
         16,
         "bloom",
         "Sugar",
         {{"every", std::string("beat")}, {"fade", 1.0}},
         0,
         Blend::Normal,
         0,
         0,
         0.8});
}

void writeLastRound(Scribe& s) {
  pulse(s, 36, 16, 0.6, "White");
  // From the rim to the roof on every bar of the last eight.
  for (int bar = 44; bar < 52; ++bar) passThrough(s, bar, 1, "Fair", "start");
  passThrough(s, 36, 1, "Fair", "start");
  s.add({"Canopy rim", 36, 8, "ribbon", "Lamplight", across("along", {{"repeats", 6.0}, {"passes", 1.0}})});
  s.add({"Canopy rim", 44, 8, "hue-wheel", "Fair",
         across("along", {{"repeats", 3.0}, {"turns", 1.0}, {"chroma", 0.22}})});
  s.add({"Rim mirrored", 36, 8, "comets", "Lamplight",
         across("along", {{"heads", 3.0}, {"passes", 1.0}, {"tail", 0.3}})});
  s.add({"Canopy rim", 44, 8, "comets", "Lamplight",
         across("along", {{"heads", 12.0}, {"passes", -0.5}, {"tail", 0.25}}), 1, Blend::Add});
  s.add({"Roof ribs",
         36,
         8,
         "gauge",
         "Lamplight",
         across("rows", {{"edge", 0.2}, {"peak", 0.15}}),
         0,
         Blend::Normal,
         0,
         0,
         1,
         {{"value", {Driver::Level, 0.05, 1, {}, 0, {}}}}});
  s.add({"Roof ribs", 44, 8, "ribbon", "Fair",
         across("columns", {{"repeats", 1.0}, {"passes", 0.5}, {"slant", 0.5}})});
  s.add({"Posts", 36, 8, "stack", "Lamplight", across("rows", {{"bricks", 6.0}, {"per-beat", 1.0}})});
  s.add({"Posts", 44, 8, "weave", "Fair", across("rows", {{"threads", 3.0}, {"passes", 1.0}})});
  s.add({"Lanterns",
         36,
         16,
         "bloom",
         "Fair",
         {{"every", std::string("beat")}, {"fade", 1.0}, {"accent", 0.3}}});
  s.add({"Column", 36, 8, "rockets", "Fair", {{"every", 1.5}, {"reach", 0.5}, {"rise", 0.4}}});
  s.add({"Column",
         44,
         8,
         "formula",
         "Fair",
         across("columns", {{"formula", std::string("swirl = across * 2 + y * a - bar / 2\nlight = 0.25 + "
                                                    "0.75 * sway(swirl * 2) ^ 2\nshade = saw(swirl)")},
                            {"a", 0.6}}),
         0,
         Blend::Normal,
         0,
         0,
         1,
         {{"a", {Driver::Curve, 0.1, 1, {{0, 0}, {0.5, 1}, {1, 0.2}}, 0, {}}}}});
  s.add({"Column", 44, 8, "frost", "Lamplight", {{"density", 0.05}, {"rate", 6.0}}, 1, Blend::Add});
  s.add({"Booth sign",
         36,
         8,
         "drawing",
         "Lamplight",
         {{"fit", std::string("whole")}, {"pictures", 1.0}, {"repeats", true}, {"passes", 0.25}}});
  s.add({"Booth sign",
         44,
         8,
         "lettering",
         "Fair",
         {{"text", std::string("RIDES")}, {"width", 0.75}, {"rim", 0.15}},
         1});
  s.add({"Booth sign", 44, 8, "glints", "Lamplight", {{"density", 0.05}, {"life", 0.7}}});
  s.add({"Path edge", 36, 16, "skyline", "Fair", across("along", {{"window", 1.8}, {"gain", 1.1}})});
  s.add({"Floods",
         36,
         16,
         "echo",
         "Fair",
         {{"source", 0.0}, {"delay", 0.23}, {"mirrored", true}},
         0,
         Blend::Normal,
         0,
         0,
         0.7});
  s.add({"Uplights", 36, 16, "ribbon", "Fair", {{"repeats", 1.0}, {"passes", 0.5}}});
  for (int beat = 0; beat < 12; ++beat)
    s.add({post(12 - beat), 48 + beat / 3.0, 1.0, "bloom", "Fair",
           across("along", {{"every", std::string("beat")}, {"fade", 2.0}, {"spread", 0.4}}), 0,
           Blend::Normal, 0, 0.3});
}

void writeClose(Scribe& s) {
  // The last breath: all of it once more, slowly in, and slowly out.
  s.add({"Everything", 54.6, 3.2, "swell", "Lamplight", across("height", {{"waves", 0.5}, {"passes", 0.1}}),
         5, Blend::Lighten, 1.4, 1.8, 0.1});
  s.add({"Everything",
         52,
         3,
         "glints",
         "Lamplight",
         {{"density", 0.35}, {"life", 0.5}},
         0,
         Blend::Normal,
         0,
         1});
  s.add({"Canopy rim", 52, 3, "pour", "Lamplight", across("along", {{"then", std::string("drain")}})});
  s.add({"Column", 52, 3, "unveil", "Moon",
         across("height", {{"from", std::string("end")}, {"band", 0.6}, {"edge", 0.3}})});
  s.add({"Lanterns", 55, 2.5, "hold", "Lamplight", {}, 0, Blend::Normal, 0, 2.2});
  s.add({"Booth sign",
         52,
         5,
         "lettering",
         "Lamplight",
         {{"text", std::string("GOODNIGHT")}, {"width", 0.42}},
         1,
         Blend::Normal,
         0.5,
         2});
  s.add({"Booth sign", 52, 3, "pour", "Moon",
         across("columns", {{"then", std::string("drain")}, {"edge", 0.4}}), 0, Blend::Normal, 0, 0, 0.35});
  s.add({"Path edge",
         53,
         4.5,
         "fireflies",
         "Lamplight",
         {{"flies", 8.0}, {"size", 0.05}},
         0,
         Blend::Normal,
         1,
         2});
  s.add(
      {"Canopy rim", 55, 2.5, "glints", "Moon", {{"density", 0.2}, {"life", 1.2}}, 0, Blend::Normal, 0, 2.2});
}

/// What an echo shows is known by its zone's number.
void aimEchoes(const Show& show, Score& score) {
  for (auto& clip : score.clips) {
    if (clip->effect != "echo") continue;
    Clip aimed = *clip;
    aimed.params["source"] = static_cast<double>(findNamed(show.zones, "Lanterns")->id.value);
    clip = std::make_shared<const Clip>(std::move(aimed));
  }
}

/// What passes through everything lies on top, and single posts on the posts; these are folded away.
void orderStaves(const Show& show, Score& score) {
  const auto id = [&](const std::string& name) { return findNamed(show.zones, name)->id; };
  // What lies over the others is played seldom, and is out of the way until it is opened.
  StaveFolder over{"Over all", {}, true};
  for (const char* name : {"By height", "Everything", "Rim mirrored", "Column diagonal"})
    over.zones.push_back(id(name));
  score.staves = over.zones;
  score.folders.push_back(over);
  StaveFolder posts{"Posts one by one", {}, true};
  for (int n = 1; n <= 12; ++n) posts.zones.push_back(id(post(n)));
  score.staves.insert(score.staves.end(), posts.zones.begin(), posts.zones.end());
  score.folders.push_back(posts);
  for (const auto& zone : show.zones)
    if (std::find(score.staves.begin(), score.staves.end(), zone->id) == score.staves.end())
      score.staves.push_back(zone->id);
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
  for (int bar = 0; bar < kBars; ++bar)
    bars.marks.push_back({show.newId<MarkId>(), barInstant(bar), {}, Micros(0)});
  for (int beat = 0; beat < kBars * kBeatsPerBar; ++beat)
    beats.marks.push_back({show.newId<MarkId>(), beatInstant(beat), {}, Micros(0)});
  for (const Section& section : sections())
    parts.marks.push_back({show.newId<MarkId>(), barInstant(section.firstBar), section.name, Micros(0)});
  score.lanes = {bars, beats, parts};
  orderStaves(show, score);
  Scribe scribe(show, score);
  writeOpening(scribe);
  writeFirstRound(scribe);
  writeTurn(scribe);
  writeLastRound(scribe);
  writeClose(scribe);
  aimEchoes(show, score);
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
  addLooks(show);
  addDesks(show);
  addNights(show);
  return show;
}

}  // namespace chispa::demo
