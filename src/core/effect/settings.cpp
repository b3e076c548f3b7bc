// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/settings.h"

#include <algorithm>
#include <map>

namespace chispa {
namespace {

using namespace std::string_literals;

struct Shelf {
  std::string use;
  std::vector<EffectSetting> settings;
};

// Long, as they are tables: the shelf of each effect, a function a group of effects.
std::map<std::string, Shelf> flows() {
  return {
      {"ribbon",
       {"A base that is never wrong: colour that is on its way somewhere.",
        {{"Slow river", {{"repeats", 0.5}, {"passes", 0.1}}},
         {"Barber's pole", {{"repeats", 4.0}, {"passes", 1.0}, {"slant", 1.0}}},
         {"Ticker", {{"repeats", 10.0}, {"passes", -2.0}}},
         {"Still", {{"repeats", 1.0}, {"passes", 0.0}}}}}},
      {"hue-wheel",
       {"All colours, evenly bright: for parties, and to see that every strip is right.",
        {{"Drifting", {{"turns", 0.1}, {"repeats", 0.3}}},
         {"Rainbow", {{"turns", 0.25}, {"repeats", 1.0}}},
         {"Vivid", {{"turns", 1.0}, {"repeats", 2.0}, {"chroma", 0.22}, {"lightness", 0.65}}},
         {"Pastel", {{"turns", 0.2}, {"chroma", 0.05}, {"lightness", 0.85}}}}}},
      {"swell",
       {"Breath and sea: quiet passages, and large surfaces under others.",
        {{"Breath", {{"waves", 0.0}, {"passes", 0.5}, {"depth", 0.7}}},
         {"Long sea", {{"waves", 1.0}, {"passes", 0.5}, {"depth", 0.8}, {"sharpness", 1.0}}},
         {"Breakers", {{"waves", 3.0}, {"passes", 2.0}, {"depth", 1.0}, {"sharpness", 5.0}}},
         {"Pulse", {{"waves", 0.0}, {"passes", 4.0}, {"depth", 1.0}, {"sharpness", 4.0}}}}}},
      {"ripples",
       {"Drops on the beat, seen on anything that has a middle.",
        {{"Rain on a pond", {{"every", 1.0}, {"width", 0.15}, {"fade", 1.2}}},
         {"Gong", {{"every", 4.0}, {"speed", 0.5}, {"width", 0.6}, {"fade", 0.3}}},
         {"Sonar", {{"every", 4.0}, {"speed", 0.6}, {"width", 0.08}, {"fade", 0.2}}}}}},
      {"vanes",
       {"Turns about a middle: wheels, roses, the roof of a carousel.",
        {{"Windmill", {{"arms", 4.0}, {"turns", 0.25}}},
         {"Whirl", {{"arms", 3.0}, {"turns", 0.5}, {"twist", 1.0}}},
         {"Beam", {{"arms", 1.0}, {"turns", 0.5}, {"edge", 0.8}}},
         {"Sun", {{"arms", 16.0}, {"turns", 0.1}, {"edge", 0.4}}}}}},
      {"slats",
       {"Opens and closes like blinds: changes between two parts.",
        {{"Blinds", {{"slats", 8.0}, {"stagger", 0.0}}},
         {"One after the other", {{"slats", 12.0}, {"stagger", 1.0}, {"opens", 0.5}}},
         {"Gate", {{"slats", 2.0}, {"stagger", 0.0}, {"every", 2.0}}}}}},
      {"weave",
       {"Two colours that cross: busy, but never loud.",
        {{"Linen", {{"threads", 16.0}, {"passes", 0.5}, {"width", 0.6}}},
         {"Basket", {{"threads", 4.0}, {"passes", 0.5}, {"width", 0.9}}},
         {"Lace", {{"threads", 10.0}, {"passes", 1.0}, {"width", 0.2}}}}}},
      {"front",
       {"One wall of light through all pieces, at a speed one could walk, run or drive.",
        {{"Stroll", {{"speed", 1.2}, {"apart", 6.0}, {"thick", 0.6}, {"trail", 0.5}}},
         {"Sweep", {{"speed", 6.0}, {"apart", 12.0}, {"thick", 0.4}, {"trail", 0.2}}},
         {"Rising", {{"speed", 0.8}, {"apart", 3.0}, {"tilt", 90.0}}},
         {"Falling curtain of light", {{"speed", -1.5}, {"apart", 4.0}, {"tilt", 90.0}, {"trail", 0.8}}}}}},
      {"soundings",
       {"Spheres from one point: what is nearer is reached sooner.",
        {{"Heartbeat", {{"every", 2.0}, {"speed", 4.0}, {"thick", 0.8}, {"reach", 4.0}}},
         {"Signal", {{"every", 4.0}, {"speed", 2.0}, {"thick", 0.2}, {"reach", 10.0}}},
         {"Clap", {{"every", 1.0}, {"speed", 12.0}, {"thick", 1.5}, {"reach", 6.0}}}}}},
      {"pendulum",
       {"A lamp that swings through the room in time.",
        {{"Church", {{"swing", 2.5}, {"every", 8.0}, {"reach", 1.5}}},
         {"Clock", {{"swing", 0.8}, {"every", 2.0}, {"reach", 0.6}}},
         {"Search", {{"swing", 6.0}, {"every", 16.0}, {"reach", 0.8}}}}}},
      {"penumbra",
       {"Shadows that move make a room out of strips: for slow, large moments.",
        {{"Passers-by", {{"z", 3.0}, {"size", 0.5}, {"speed", 0.8}, {"apart", 2.0}}},
         {"Eclipse", {{"z", 3.0}, {"size", 1.6}, {"speed", 0.12}, {"apart", 6.0}}},
         {"Picket fence", {{"z", 2.0}, {"size", 0.2}, {"speed", 1.5}, {"apart", 0.4}}}}}}};
}

std::map<std::string, Shelf> sparks() {
  return {
      {"glints",
       {"Sparkle on top of something else.",
        {{"Stars", {{"density", 0.05}, {"life", 3.0}, {"rise", 0.4}}},
         {"Champagne", {{"density", 0.3}, {"life", 0.5}}},
         {"Glow-worms", {{"density", 0.1}, {"life", 6.0}, {"rise", 0.5}}}}}},
      {"frost",
       {"Hard white points: cold, glitter, a mirror ball.",
        {{"Mirror ball", {{"density", 0.03}, {"rate", 5.0}}},
         {"Crackle", {{"density", 0.08}, {"rate", 16.0}, {"length", 0.2}}},
         {"Single", {{"density", 0.004}, {"rate", 4.0}, {"length", 0.8}}}}}},
      {"hearth",
       {"Fire: on lanterns, under trees, on a matrix as a fireplace.",
        {{"Candle", {{"speed", 0.6}, {"grain", 1.0}, {"height", 0.7}}},
         {"Fireplace", {{"speed", 1.2}, {"grain", 5.0}, {"height", 1.2}}},
         {"Bonfire", {{"speed", 2.2}, {"grain", 9.0}, {"height", 1.8}}},
         {"Embers", {{"speed", 0.3}, {"grain", 8.0}, {"height", 0.35}}}}}},
      {"comets",
       {"Something passes by: one each bar is grand, many are a race.",
        {{"One per bar", {{"heads", 1.0}, {"passes", 1.0}, {"tail", 0.4}}},
         {"Meteors", {{"heads", 5.0}, {"passes", 0.8}, {"tail", 0.3}, {"offset", 0.31}}},
         {"Scanner", {{"heads", 1.0}, {"passes", 2.0}, {"tail", 0.15}}},
         {"Slow train", {{"heads", 3.0}, {"passes", 0.25}, {"tail", 1.0}}}}}},
      {"drizzle",
       {"Fine rain along every strip, heavy or light.",
        {{"Light rain", {{"drops", 1.0}, {"speed", 0.5}, {"tail", 0.3}}},
         {"Downpour", {{"drops", 7.0}, {"speed", 1.6}, {"tail", 0.6}}},
         {"Icicles", {{"drops", 0.6}, {"speed", 0.25}, {"tail", 0.9}, {"uneven", 1.0}}}}}},
      {"snowfall",
       {"Quiet and cold: a winter that lasts all evening.",
        {{"First flakes", {{"flakes", 3.0}, {"many", 0.15}, {"speed", 0.1}}},
         {"Snowfall", {{"flakes", 4.0}, {"many", 0.35}, {"speed", 0.16}}},
         {"Blizzard", {{"flakes", 7.0}, {"many", 0.9}, {"speed", 0.7}, {"drift", 0.5}}},
         {"Stays lying", {{"flakes", 5.0}, {"many", 0.5}, {"lying", 0.4}}}}}},
      {"rockets",
       {"Fireworks: the end of things.",
        {{"One by one", {{"every", 4.0}, {"rise", 0.9}, {"sparks", 24.0}, {"burn", 2.2}}},
         {"Finale", {{"every", 0.75}, {"rise", 0.3}, {"sparks", 30.0}, {"burn", 1.4}}},
         {"Willow", {{"every", 3.0}, {"rise", 0.8}, {"sparks", 36.0}, {"burn", 4.0}, {"reach", 1.1}}},
         {"Crackers", {{"every", 0.5}, {"rise", 0.1}, {"reach", 0.35}, {"sparks", 8.0}, {"burn", 0.5}}}}}},
      {"toss",
       {"Balls that obey gravity: cheerful, and best upright.",
        {{"Three balls", {{"balls", 3.0}, {"bounces", 0.5}}},
         {"Rubber", {{"balls", 2.0}, {"springy", 0.95}, {"bounces", 0.7}}},
         {"Hail", {{"balls", 12.0}, {"size", 0.03}, {"springy", 0.5}, {"bounces", 1.0}}}}}},
      {"fireflies",
       {"A summer night: few, soft, nowhere in particular.",
        {{"Meadow", {{"flies", 8.0}, {"wander", 0.2}, {"glow", 4.0}}},
         {"Swarming", {{"flies", 30.0}, {"wander", 0.8}, {"glow", 1.6}, {"size", 0.07}}},
         {"Will-o'-the-wisp", {{"flies", 2.0}, {"wander", 0.4}, {"glow", 8.0}, {"size", 0.3}}}}}},
      {"swarm",
       {"Lights that fly through the room and pass from piece to piece.",
        {{"Moths", {{"count", 4.0}, {"speed", 0.4}, {"reach", 0.4}}},
         {"Shoal", {{"count", 8.0}, {"speed", 1.5}, {"reach", 0.3}, {"flat", 0.8}}},
         {"Planets", {{"count", 3.0}, {"speed", 0.5}, {"reach", 1.2}, {"flat", 1.0}}}}}},
      {"cloudburst",
       {"Rain through the whole room at the speed of rain.",
        {{"Summer rain", {{"often", 0.4}, {"speed", 4.0}, {"length", 0.5}}},
         {"Storm rain", {{"often", 2.0}, {"speed", 9.0}, {"length", 1.2}, {"slant", 0.4}}},
         {"Drops", {{"apart", 0.6}, {"often", 0.2}, {"speed", 1.5}, {"length", 0.12}}}}}}};
}

std::map<std::string, Shelf> steps() {
  return {{"chase",
           {"Lamps that run, as on a fair: clear rhythm, clear direction.",
            {{"Fairground", {{"period", 4.0}, {"lit", 1.0}, {"steps", 2.0}}},
             {"Every third", {{"period", 3.0}, {"lit", 2.0}, {"steps", 1.0}}},
             {"Hard lamps", {{"period", 4.0}, {"lit", 1.0}, {"steps", 2.0}, {"soft", 0.0}}},
             {"Wide", {{"period", 24.0}, {"lit", 12.0}, {"steps", 4.0}, {"soft", 4.0}}}}}},
          {"turnabout",
           {"Parts take turns: question and answer.",
            {{"Two sides", {{"parts", 2.0}, {"every", 2.0}}},
             {"Roundabout", {{"parts", 8.0}, {"every", 1.0}}},
             {"Soft hand-over", {{"parts", 4.0}, {"every", 4.0}, {"fade", 0.8}}}}}},
          {"unveil",
           {"Beginnings: light that opens over the whole clip.",
            {{"From one end", {{"from", "start"s}}},
             {"Curtain up", {{"from", "middle"s}, {"edge", 0.2}}},
             {"Closing in", {{"from", "ends"s}, {"edge", 0.05}}},
             {"Passing band", {{"band", 0.25}, {"edge", 0.2}}}}}},
          {"pour",
           {"Fills up and, if you like, runs out again.",
            {{"Filling", {{"then", "stay"s}}},
             {"In and out", {{"then", "drain"s}}},
             {"Sharp", {{"edge", 0.01}}}}}},
          {"parade",
           {"Blocks of light that march: wide, plain, in step.",
            {{"March", {{"groups", 4.0}, {"steps", 1.0}, {"glide", 0.2}}},
             {"Waltz", {{"groups", 3.0}, {"steps", 1.0}, {"glide", 1.0}}},
             {"Checkers", {{"groups", 12.0}, {"steps", 2.0}, {"glide", 0.0}}}}}},
          {"stack",
           {"Something is built, brick by brick: for a rise before a climax.",
            {{"Wall", {{"bricks", 8.0}, {"per-beat", 1.0}}},
             {"Countdown", {{"bricks", 16.0}, {"per-beat", 2.0}, {"clears", false}}},
             {"Sand", {{"bricks", 40.0}, {"per-beat", 4.0}, {"gap", 0.0}}}}}},
          {"gauge",
           {"Shows a number: a curve of yours, a fader, or how loud it is.",
            {{"Level", {{"peak", 0.08}, {"edge", 0.02}}},
             {"Ten lamps", {{"marks", 10.0}, {"peak", 0.0}, {"edge", 0.001}}},
             {"Thermometer", {{"colours", "value"s}, {"peak", 0.0}}},
             {"Pointer", {{"peak", 0.06}, {"rest", 0.1}}}}}},
          {"footfall",
           {"Tells a story in the room: somebody comes, walks by, goes.",
            {{"Walker", {{"stride", 0.5}, {"reach", 0.6}}},
             {"Giant", {{"stride", 1.5}, {"reach", 1.8}, {"path", 9.0}}},
             {"Mouse", {{"stride", 0.12}, {"reach", 0.1}, {"path", 1.5}}}}}},
          {"strobe",
           {"For a single moment; never faster than is safe.",
            {{"On the beat", {{"rate", 2.0}, {"sync", true}}},
             {"Scattered", {{"rate", 2.5}, {"scatter", 0.7}}},
             {"Slow flashes", {{"rate", 0.4}, {"flash", 0.05}}}}}}};
}

std::map<std::string, Shelf> textures() {
  return {{"clouds",
           {"A sky that drifts: background for anything quiet.",
            {{"Fair weather", {{"grain", 1.2}, {"speed", 0.15}}},
             {"Overcast", {{"grain", 0.8}, {"speed", 0.3}, {"contrast", 0.8}}},
             {"Torn", {{"grain", 3.0}, {"speed", 0.9}, {"contrast", 3.5}, {"detail", 1.0}}}}}},
          {"marbling",
           {"Colour that folds into colour; never twice the same.",
            {{"Ink", {{"grain", 1.2}, {"speed", 0.3}, {"swirl", 1.5}}},
             {"Oil", {{"grain", 2.0}, {"speed", 0.6}, {"repeats", 3.0}}},
             {"Stone", {{"grain", 4.0}, {"speed", 0.0}, {"swirl", 0.5}}}}}},
          {"mosaic",
           {"Panes of colour: windows, tiles, leaves.",
            {{"Church window", {{"stones", 2.0}, {"moves", 0.3}, {"joint", 0.3}}},
             {"Pebbles", {{"stones", 6.0}, {"moves", 0.8}, {"joint", 0.12}}},
             {"Cells", {{"stones", 3.0}, {"moves", 2.5}, {"joint", 0.5}, {"shimmer", 0.0}}}}}},
          {"pool",
           {"Light from water: ceilings, walls, the underside of things.",
            {{"Grotto", {{"grain", 1.5}, {"speed", 0.5}, {"depth", 0.8}}},
             {"Swimming bath", {{"grain", 3.0}, {"speed", 1.2}, {"glitter", 0.9}}},
             {"Deep", {{"grain", 0.8}, {"speed", 0.3}, {"depth", 0.9}, {"glitter", 0.0}}}}}},
          {"storm",
           {"A storm far off, or overhead.",
            {{"Far off", {{"strikes", 0.2}, {"sky", 0.3}, {"width", 0.02}, {"branches", 0.0}}},
             {"Overhead", {{"strikes", 0.7}, {"sky", 0.25}, {"branches", 0.8}}},
             {"Sheet lightning", {{"strikes", 0.4}, {"sky", 0.6}, {"width", 0.01}, {"length", 1.2}}}}}},
          {"tidewater",
           {"Water that rises in the room, at one height for every piece.",
            {{"Tide", {{"every", 16.0}, {"low", -0.8}, {"high", 0.8}}},
             {"Waves", {{"every", 2.0}, {"low", -0.2}, {"high", 0.2}, {"waves", 0.12}}},
             {"Flood", {{"every", 32.0}, {"low", -1.5}, {"high", 2.5}, {"foam", 0.2}}}}}}};
}

std::map<std::string, Shelf> music() {
  return {{"loudness",
           {"The music as bars: direct, and understood at once.",
            {{"Bands", {{"shows", "bands"s}}},
             {"All together", {{"shows", "level"s}, {"edge", 0.2}}},
             {"For quiet music", {{"gain", 3.0}}}}}},
          {"bloom",
           {"The beat, without hurting: for whole pieces and large surfaces.",
            {{"Each beat", {{"every", "beat"s}}},
             {"Down-beat", {{"every", "bar"s}, {"fade", 3.0}, {"spread", 1.0}}},
             {"Off-beat", {{"every", "off"s}, {"fade", 0.6}}},
             {"Tight", {{"fade", 0.3}, {"spread", 0.0}}}}}},
          {"carillon",
           {"Every note that begins is a light that rings out.",
            {{"Bells", {{"range", "high"s}, {"length", 1.6}}},
             {"Bass", {{"range", "low"s}, {"speed", 0.3}, {"length", 0.6}}},
             {"Running", {{"speed", 2.0}, {"length", 0.5}, {"notes", 24.0}}}}}},
          {"skyline",
           {"What was just heard, moving away: shows the music's shape.",
            {{"Last moments", {{"window", 2.0}}},
             {"A long look back", {{"window", 12.0}}},
             {"Bass line", {{"shows", "band"s}, {"band", 1.0}, {"window", 3.0}}}}}},
          {"baton",
           {"Conducts: everybody sees where the bar is.",
            {{"Conductor", {{"size", 0.22}, {"figure", 0.8}, {"trail", 0.6}}},
             {"Sparkler", {{"size", 0.12}, {"figure", 1.0}, {"trail", 2.0}}},
             {"Large hand", {{"size", 0.6}, {"figure", 0.6}, {"trail", 0.2}}}}}},
          {"canon",
           {"Many pieces of one kind: lanterns, trees, windows that answer each other.",
            {{"Round", {{"later", 1.0}, {"phrase", 4.0}}},
             {"Wave of lanterns", {{"later", 0.25}, {"phrase", 4.0}, {"travel", 0.0}, {"voices", 1.0}}},
             {"Long breath", {{"later", 2.0}, {"phrase", 16.0}, {"holds", 0.5}}}}}},
          {"hourglass",
           {"How long until it changes: for openings, countdowns and patience.",
            {{"The section", {{"runs", "section"s}}},
             {"Four bars", {{"runs", "phrase"s}, {"grains", 2.0}}},
             {"In a glass", {{"runs", "section"s}, {"glass", 0.12}}}}}}};
}

std::map<std::string, Shelf> pictures() {
  return {
      {"lettering",
       {"Words, on anything with rows; long ones pass by.",
        {{"Passing", {{"moves", "pass"s}, {"passes", 0.25}}},
         {"Standing", {{"moves", "stand"s}}},
         {"With a rim", {{"rim", 0.12}, {"rim_is", "black"s}, {"ground", 0.15}}}}}},
      {"shapes",
       {"Plain figures, to be moved by curves.",
        {{"Ring", {{"shape", "ellipse"s}, {"line", 0.15}}},
         {"Star", {{"shape", "star"s}, {"wide", 0.9}, {"high", 0.9}}},
         {"Bar", {{"shape", "rectangle"s}, {"wide", 0.15}, {"high", 3.0}}}}}},
      {"drawing",
       {"Pictures that you draw, dot by dot.",
        {{"On the beat", {{"pictures", 1.0}}},
         {"Marching by", {{"pictures", 1.0}, {"passes", 0.5}, {"repeats", true}}},
         {"Still", {{"pictures", 0.0}}}}}},
      {"picture",
       {"A picture or a film on the zone.",
        {{"As it is", {{"speed", 1.0}}},
         {"Slowly", {{"speed", 0.4}}},
         {"In the palette's colours", {{"tint", 1.0}}}}}},
      {"rows",
       {"Rows of a picture as time: what was painted plays.",
        {{"As the file says", {{"rate", 0.0}}}, {"Slowly", {{"rate", 5.0}}}, {"Once", {{"then", "dark"s}}}}}},
      {"spyhole",
       {"A part of the screen, live: games, films, whatever runs there.",
        {{"A window's size", {{"width", 640.0}, {"height", 360.0}}},
         {"A strip of it", {{"width", 1280.0}, {"height", 40.0}}},
         {"In the palette's colours", {{"tint", 1.0}}}}}},
      {"echo",
       {"Lets one zone answer another.",
        {{"A beat behind", {{"delay", 0.5}}},
         {"Mirror", {{"delay", 0.0}, {"mirrored", true}}},
         {"Distant", {{"delay", 1.5}, {"level", 0.35}}}}}},
      {"spill",
       {"Makes pieces light each other up, as lamps do.",
        {{"Neighbours", {{"reach", 1.0}}},
         {"Faint", {{"reach", 2.5}, {"level", 0.4}}},
         {"In own colours", {{"reach", 1.5}, {"tint", 1.0}}}}}},
      {"formula",
       {"What nobody has thought of: written in one line.",
        {{"Wave", {{"formula", "light = sway(across * 3 - bar) ^ 2"s}}},
         {"Glow", {{"formula", "light = level"s}}},
         {"Bass and treble", {{"formula", "light = low * (1 - across) + high * across"s}}}}}}};
}

std::map<std::string, Shelf> plain() {
  return {{"hold",
           {"Light that stays: a colour for a wall, a level for a room.",
            {{"One colour", {{"spread", 0.0}}},
             {"The palette along it", {{"spread", 1.0}}},
             {"Dimmed", {{"level", 0.2}}}}}},
          {"black",
           {"Covers what lies below: a pause, a mask, a gap.",
            {{"All of it", {{"from", 0.0}, {"to", 1.0}}},
             {"First half", {{"from", 0.0}, {"to", 0.5}}},
             {"Middle", {{"from", 0.35}, {"to", 0.65}}}}}}};
}

}  // namespace

Effect withSettings(Effect effect) {
  static const auto shelves = [] {
    std::map<std::string, Shelf> all;
    for (auto part : {flows, sparks, steps, textures, music, pictures, plain}) all.merge(part());
    return all;
  }();
  if (const auto found = shelves.find(effect.key); found != shelves.end()) {
    effect.use = found->second.use;
    effect.settings = found->second.settings;
  }
  return effect;
}

namespace {

/// Whether a setting leaves a parameter as it is, unless it names it.
bool isKept(const ParamSpec& spec) {
  return spec.isText() || spec.kind == ParamKind::Zone || spec.key == "across" || spec.onlyIf == "across";
}

}  // namespace

ParamValues withSetting(const Effect& effect, const EffectSetting& setting, const ParamValues& values) {
  ParamValues made = setting.values;
  for (const ParamSpec& spec : effect.params)
    if (const auto own = values.find(spec.key); own != values.end() && isKept(spec)) made.insert(*own);
  return made;
}

std::optional<std::size_t> settingOf(const Effect& effect, const ParamValues& values) {
  for (std::size_t i = 0; i < effect.settings.size(); ++i) {
    const ParamValues made = withSetting(effect, effect.settings[i], values);
    if (std::all_of(effect.params.begin(), effect.params.end(),
                    [&](const ParamSpec& spec) { return valueOf(spec, made) == valueOf(spec, values); }))
      return i;
  }
  return std::nullopt;
}

}  // namespace chispa
