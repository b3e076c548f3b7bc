// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"

namespace chispa::demo {
namespace {

using namespace std::chrono_literals;

/// Makes looks; what a line says is all that one layer needs.
class PadMaker {
 public:
  explicit PadMaker(Show& show) : show_(show) {}

  struct Layer {
    const char* zone;
    const char* effect;
    const char* palette;
    ParamValues params = {};
    double strength = 1;
    Blend blend = Blend::Normal;
  };

  LookId add(const std::string& name, const std::vector<Layer>& layers, PadMode mode = PadMode::Toggle,
             Micros fadeIn = 400ms, Micros fadeOut = 800ms) {
    const LookId id = addLook(show_, name, clipsOf(layers));
    changeItem(show_.looks, id, [&](Look& look) {
      look.mode = mode;
      look.fadeIn = fadeIn;
      look.fadeOut = fadeOut;
      look.fadeShape = FadeShape::Soft;
    });
    return id;
  }

  /// Another step with these layers in place of the first step's.
  void addStepTo(LookId id, const std::vector<Layer>& layers, Micros hold, Micros fade) {
    Look look = *find(show_.looks, id);
    LookStep step;
    step.hold = hold;
    step.fade = fade;
    int number = 0;
    for (Clip clip : clipsOf(layers)) {
      clip.id = show_.newId<ClipId>();
      clip.layer = number++;
      step.layers.push_back(std::make_shared<const Clip>(std::move(clip)));
    }
    look.steps.push_back(std::move(step));
    put(show_.looks, std::move(look));
  }
  void timeFirstStep(LookId id, Micros hold, Micros fade) {
    changeItem(show_.looks, id, [&](Look& look) {
      look.steps.front().hold = hold;
      look.steps.front().fade = fade;
    });
  }

 private:
  std::vector<Clip> clipsOf(const std::vector<Layer>& layers) const {
    std::vector<Clip> clips;
    for (const Layer& layer : layers) {
      Clip clip;
      clip.zone = findNamed(show_.zones, layer.zone)->id;
      clip.palette = findNamed(show_.palettes, layer.palette)->id;
      clip.effect = layer.effect;
      clip.params = layer.params;
      clip.strength = layer.strength;
      clip.blend = layer.blend;
      clip.length = Micros(4s);
      clip.seed = static_cast<std::uint32_t>(clips.size()) + 11;
      clips.push_back(std::move(clip));
    }
    return clips;
  }

  Show& show_;
};

ParamValues across(const char* axis, ParamValues more = {}) {
  more["across"] = std::string(axis);
  return more;
}

/// Posts light up in turn, four at a time, and the lanterns above them stay warm.
void addLanternCount(PadMaker& pads) {
  const auto stepOf = [](int first) {
    std::vector<PadMaker::Layer> layers{{"Lanterns", "hold", "Lamplight", {{"level", 0.25}}}};
    static const char* const kPosts[] = {"Post 1", "Post 2", "Post 3", "Post 4",  "Post 5",  "Post 6",
                                         "Post 7", "Post 8", "Post 9", "Post 10", "Post 11", "Post 12"};
    for (int i = 0; i < 4; ++i)
      layers.push_back({kPosts[first + 3 * i], "hold", "Lamplight", {{"spread", 0.6}}});
    return layers;
  };
  const LookId id = pads.add("Lantern count", stepOf(0));
  pads.timeFirstStep(id, 700ms, 150ms);
  pads.addStepTo(id, stepOf(1), 700ms, 150ms);
  pads.addStepTo(id, stepOf(2), 700ms, 150ms);
}

void addTurnOfColours(PadMaker& pads) {
  const auto sheet = [](const char* palette) {
    return std::vector<PadMaker::Layer>{{"Canopy rim", "hold", palette, {{"spread", 1.0}}},
                                        {"Roof ribs", "hold", palette, across("columns", {{"spread", 1.0}})},
                                        {"Posts", "hold", palette, across("rows", {{"spread", 0.8}})}};
  };
  const LookId id = pads.add("Turn of colours", sheet("Ember"), PadMode::Toggle, 1s, 2s);
  pads.timeFirstStep(id, 3s, 2s);
  pads.addStepTo(id, sheet("Lagoon"), 3s, 2s);
  pads.addStepTo(id, sheet("Moon"), 3s, 2s);
  pads.addStepTo(id, sheet("Sugar"), 3s, 2s);
}

void addWelcome(PadMaker& pads) {
  const LookId id =
      pads.add("Welcome", {{"Booth sign", "lettering", "Fair", {{"text", std::string("WELCOME")}}},
                           {"Path edge", "comets", "Lamplight", {{"heads", 6.0}}}});
  pads.timeFirstStep(id, 6s, 500ms);
  pads.addStepTo(id,
                 {{"Booth sign", "lettering", "Sugar", {{"text", std::string("RIDES")}}},
                  {"Path edge", "glints", "Lamplight"}},
                 6s, 500ms);
}

}  // namespace

void addLooks(Show& show) {
  PadMaker pads(show);
  pads.add("Dusk glow",
           {{"By height", "hold", "Ember", {{"spread", 0.7}, {"place", 0.3}, {"level", 0.5}}},
            {"Lanterns", "hold", "Lamplight"}},
           PadMode::Toggle, 3s, 4s);
  pads.add("Quiet rim", {{"Canopy rim", "swell", "Moon", {{"waves", 3.0}, {"passes", 0.25}}}},
           PadMode::Toggle, 1s, 2s);
  pads.add("Full fair", {{"Canopy rim", "parade", "Fair"},
                         {"Roof ribs", "comets", "Fair", {{"passes", 1.0}}},
                         {"Posts", "ribbon", "Fair", across("rows")},
                         {"Column", "marbling", "Fair"},
                         {"Lanterns", "glints", "Lamplight", {{"density", 0.7}}}});
  addLanternCount(pads);
  pads.add("Sea",
           {{"Column", "clouds", "Lagoon"},
            {"Canopy rim", "swell", "Lagoon", {{"waves", 5.0}, {"passes", 0.5}}},
            {"Roof ribs", "swell", "Lagoon", across("rows", {{"waves", 1.5}, {"passes", -0.5}})}},
           PadMode::Toggle, 1s, 2s);
  pads.add("Sparkle on all",
           {{"Everything", "glints", "Moon", {{"density", 0.12}, {"life", 0.5}}, 1, Blend::Add}},
           PadMode::Hold, 0ms, 1s);
  pads.add("Flash",
           {{"Floods", "hold", "Sugar", {{"place", 0.6}}}, {"Uplights", "hold", "Sugar", {{"place", 0.6}}}},
           PadMode::Flash, 0ms, 2s);
  pads.add("Work light", {{"Everything", "hold", "Lamplight", {{"place", 1.0}, {"level", 0.6}}}},
           PadMode::OnlyThis, 200ms, 500ms);
  pads.add("Hearth", {{"Column", "hearth", "Ember"}, {"Posts", "hearth", "Ember"}}, PadMode::Toggle, 1s, 2s);
  addTurnOfColours(pads);
  addWelcome(pads);
  pads.add("Dark", {{"Everything", "black", "Moon"}}, PadMode::Toggle, 1s, 1s);
}

void addDesks(Show& show) {
  DeskInput lanterns;
  lanterns.name = "Lanterns";
  lanterns.zone = findNamed(show.zones, "Lanterns")->id;
  lanterns.universe = 90;
  lanterns.cells = 0;
  lanterns.use = DeskUse::Multiplies;
  addDeskInput(show, lanterns);
  constexpr int kRibs = 12;
  constexpr int kCellsOfRib = 4;
  DeskInput ribs;
  ribs.name = "Roof ribs";
  ribs.zone = findNamed(show.zones, "Roof ribs")->id;
  ribs.universe = 91;
  ribs.cells = kRibs * kCellsOfRib;
  ribs.use = DeskUse::Replaces;
  addDeskInput(show, ribs);
  const auto bind = [&](int control, const char* zone) {
    addBinding(show, {.kind = SourceKind::Control, .channel = 1, .number = control},
               {.kind = TargetKind::ZoneLevel, .zone = findNamed(show.zones, zone)->id});
  };
  bind(1, "Canopy rim");
  bind(2, "Roof ribs");
  bind(3, "Posts");
  bind(4, "Column");
  const BindingId master = addBinding(show, {.kind = SourceKind::Control, .channel = 1, .number = 9},
                                      {.kind = TargetKind::Master});
  changeItem(show.bindings, master, [](Binding& binding) {
    binding.name = "Fader 9, master";
    binding.response = BindingResponse::Eased;
    binding.takesOver = true;
  });
  const auto onPad = [&](int note, const char* look) {
    const BindingId id = addBinding(show, {.kind = SourceKind::Note, .channel = 1, .number = note},
                                    {.kind = TargetKind::Look, .look = findNamed(show.looks, look)->id});
    changeItem(show.bindings, id, [](Binding& binding) { binding.lamp = {true, 0, 10, 127}; });
  };
  onPad(36, "Sparkle on all");
  onPad(37, "Flash");
}

}  // namespace chispa::demo
