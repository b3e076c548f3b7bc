// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/base/curves.h"
#include "core/render/compiledlive.h"

namespace chispa {
namespace {

/// What a layer is as long as: it never ends.
constexpr Micros kEndless{std::int64_t{1} << 60};

class LiveCompiler {
 public:
  LiveCompiler(const Show& show, const CompiledShow& compiled, const MediaLibrary& media,
               const LiveSources& sources)
      : show_(show), compiled_(compiled), media_(media), sources_(sources) {}

  std::shared_ptr<const CompiledLive> run() {
    for (const auto& binding : show_.bindings) addBinding(*binding);
    for (const auto& input : show_.deskInputs) addDeskInput(*input);
    for (const auto& look : show_.looks) out_->looks.push_back(compileLook(*look));
    for (const auto& zone : show_.zones) out_->levels.push_back({zone->id, sources_.cells(*zone)});
    return out_;
  }

 private:
  CompiledLook compileLook(const Look& look) {
    CompiledLook made;
    made.id = look.id;
    made.level = static_cast<float>(look.level);
    made.fadeIn = look.fadeIn;
    made.fadeOut = look.fadeOut;
    made.fadeShape = look.fadeShape;
    made.mode = look.mode;
    made.firstFades = look.firstFades;
    made.rounds = look.rounds;
    made.end = look.end;
    made.next = look.next;
    made.round = roundOf(look);
    for (const LookStep& step : look.steps) made.steps.push_back(compileStep(step, look.id));
    return made;
  }

  CompiledStep compileStep(const LookStep& step, LookId look) {
    CompiledStep made{step.hold, step.fade, {}};
    // The order of layers decides, whatever zones they are of; neighbours of one zone share a lane.
    std::vector<const Clip*> layers;
    for (const auto& layer : step.layers) layers.push_back(layer.get());
    std::stable_sort(layers.begin(), layers.end(),
                     [](const Clip* a, const Clip* b) { return a->layer < b->layer; });
    std::vector<CompiledClips> lanes;
    for (const Clip* layer : layers) {
      const Zone* zone = find(show_.zones, layer->zone);
      if (!zone) continue;
      CompiledClip clip = compileClip(*layer, sources_.palette(layer->palette), media_);
      if (!clip.effect) continue;
      clip.fades = show_.light.fades;
      clip.start = Micros(0);
      clip.whole = layer->whole.count() > 0 ? layer->whole : layer->length;
      clip.length = kEndless;
      clip.fadeIn = clip.fadeOut = Micros(0);
      addAdjusts(look, clip);
      std::size_t lane = 0;
      while (lane < made.staves.size() && made.staves[lane].zone != zone->id) ++lane;
      if (lane == made.staves.size()) {
        made.staves.push_back({zone->id, sources_.cells(*zone)});
        lanes.emplace_back();
      }
      lanes[lane].push_back(std::move(clip));
    }
    for (std::size_t i = 0; i < lanes.size(); ++i)
      made.staves[i].shared = std::make_shared<const CompiledClips>(std::move(lanes[i]));
    return made;
  }

  void addAdjusts(LookId look, CompiledClip& clip) {
    for (const auto& binding : show_.bindings) {
      const BindingTarget& target = binding->target;
      if (target.kind != TargetKind::Parameter || target.look != look) continue;
      CompiledAdjust adjust{binding->id, CompiledMotion::kStrength, 0, 1};
      if (target.parameter == kPalettePlaceKey) {
        adjust.param = CompiledMotion::kPalettePlace;
      } else if (target.parameter != kStrengthKey) {
        const auto index = paramIndex(*clip.effect, target.parameter);
        if (!index) continue;
        const ParamSpec& spec = clip.effect->params[*index];
        if (spec.kind != ParamKind::Number || !spec.canMove) continue;
        adjust = {binding->id, *index, spec.low, spec.high};
      }
      clip.adjusts.push_back(adjust);
    }
  }

  int universeIndex(DeskUniverse universe) {
    auto& all = out_->deskUniverses;
    const auto found = std::find(all.begin(), all.end(), universe);
    if (found != all.end()) return static_cast<int>(found - all.begin());
    all.push_back(universe);
    return static_cast<int>(all.size()) - 1;
  }

  void addBinding(const Binding& binding) {
    CompiledBinding made;
    made.binding = binding;
    made.code = codeOf(binding.source, binding.source.device, binding.source.channel);
    if (binding.source.kind == SourceKind::Desk)
      made.universe = universeIndex({binding.source.protocol, binding.source.universe});
    const BindingTarget& target = binding.target;
    if (target.kind == TargetKind::Channels)
      for (int i = 0; i < target.count; ++i)
        if (const auto byte = byteOf(target, target.channel - 1 + i * target.every))
          made.bytes.push_back(*byte);
    out_->bindings.push_back(std::move(made));
  }

  /// Where a channel, from 0 and running on into the next universes, stands in the buffer of all.
  std::optional<std::uint32_t> byteOf(const BindingTarget& target, int channel) const {
    const int universe = target.universe + channel / kUniverseChannels;
    const auto& all = compiled_.patch.universes;
    for (std::size_t i = 0; i < all.size(); ++i)
      if (all[i].universe == universe &&
          show_.controllers[static_cast<std::size_t>(all[i].controller)]->id == target.controller)
        return static_cast<std::uint32_t>(i * kUniverseChannels +
                                          static_cast<std::size_t>(channel % kUniverseChannels));
    return std::nullopt;
  }

  void addDeskInput(const DeskInput& input) {
    const Zone* zone = find(show_.zones, input.zone);
    if (!zone) return;
    CompiledDeskInput made;
    made.input = input;
    made.cells = sources_.cells(*zone);
    if (made.cells->count() == 0) return;
    for (const DeskAddress& address : deskAddresses(input, made.cells->count()))
      made.places.push_back({static_cast<std::uint16_t>(universeIndex({input.protocol, address.universe})),
                             static_cast<std::uint16_t>(address.channel - 1)});
    const int width = input.bits == 16 ? 2 : 1;
    for (std::size_t i = 0; i < input.format.size(); ++i) {
      const int at = static_cast<int>(i) * width;
      if (input.format[i] == 'I') made.offsets = {at, at, at, -1};
      const auto colour = std::string("RGBW").find(input.format[i]);
      if (colour != std::string::npos) made.offsets[colour] = at;
    }
    out_->deskInputs.push_back(std::move(made));
  }

  const Show& show_;
  const CompiledShow& compiled_;
  const MediaLibrary& media_;
  const LiveSources& sources_;
  std::shared_ptr<CompiledLive> out_ = std::make_shared<CompiledLive>();
};

}  // namespace

std::shared_ptr<const CompiledLive> compileLive(const Show& show, const CompiledShow& compiled,
                                                const MediaLibrary& media, const LiveSources& sources) {
  return LiveCompiler(show, compiled, media, sources).run();
}

std::vector<DeskAddress> deskAddresses(const DeskInput& input, int zoneCells) {
  std::vector<DeskAddress> all;
  DeskAddress at{input.universe, input.channel};
  const int width = input.bytesOfCell();
  const int count = input.cells > 0 ? std::min(input.cells, zoneCells) : zoneCells;
  for (int i = 0; i < count; ++i) {
    if (at.channel + width - 1 > kUniverseChannels) at = {at.universe + 1, 1};
    all.push_back(at);
    at.channel += width;
  }
  return all;
}

const CompiledStave* CompiledStep::staveOf(ZoneId zone) const {
  const auto found =
      std::find_if(staves.begin(), staves.end(), [zone](const auto& stave) { return stave.zone == zone; });
  return found == staves.end() ? nullptr : &*found;
}

const CompiledLook* CompiledLive::lookOf(LookId id) const noexcept {
  const auto found =
      std::find_if(looks.begin(), looks.end(), [id](const CompiledLook& look) { return look.id == id; });
  return found == looks.end() ? nullptr : &*found;
}

LookMoment momentOf(const CompiledLook& look, double elapsed_s) noexcept {
  LookMoment moment;
  const double round_s = seconds(look.round);
  if (look.steps.size() < 2 || round_s <= 0) return moment;
  const auto rounds = static_cast<std::int64_t>(std::max(0.0, elapsed_s) / round_s);
  const std::size_t last = look.steps.size() - 1;
  if (look.rounds > 0 && rounds >= look.rounds) return {last, last, 1, true};
  double left = std::max(0.0, elapsed_s) - static_cast<double>(rounds) * round_s;
  for (std::size_t i = 0; i <= last; ++i) {
    const CompiledStep& step = look.steps[i];
    const double fade_s = seconds(step.fade);
    moment = {i == 0 ? last : i - 1, i, 1, false};
    if (left < fade_s) {
      // Into the first step there is nothing to fade from at the beginning.
      const bool fades = i > 0 || (rounds > 0 && look.firstFades);
      // As clips that overlap pass into each other.
      if (fades) moment.share = easeBetween(0, 1, static_cast<float>(left / fade_s));
      return moment;
    }
    left -= fade_s;
    if (left < seconds(step.hold)) return moment;
    left -= seconds(step.hold);
  }
  return moment;
}

}  // namespace chispa
