// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/render/compiled.h"

namespace chispa {

void measureBeats(const MusicGrid& grid, CompiledClip& clip) {
  const double beats = grid.beatAt(clip.end()) - grid.beatAt(clip.start);
  if (beats > 0) clip.beatLength_s = seconds(clip.length) / beats;
  constexpr Micros kLeast{10'000};
  Micros shortest = std::max(kLeast, grid.beatLength(clip.start));
  for (Micros t = clip.start; t < clip.end(); t += std::max(kLeast, grid.beatLength(t)))
    shortest = std::min(shortest, std::max(kLeast, grid.beatLength(t)));
  clip.shortestBeat_s = seconds(shortest);
}

MusicGrid gridOf(const Score& score) {
  return {instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars)};
}

std::shared_ptr<const PaletteTable> tableOf(const Show& show, PaletteId id) {
  const Palette* palette = find(show.palettes, id);
  return std::make_shared<const PaletteTable>(palette ? *palette : Palette{});
}

namespace {

std::optional<CompiledMotion> compileMotion(const Effect& effect, const std::string& key,
                                            const Motion& motion) {
  CompiledMotion compiled;
  compiled.motion = motion;
  if (key == kPalettePlaceKey) {
    constexpr double kMaxTurns = 1'000;
    compiled.param = CompiledMotion::kPalettePlace;
    compiled.least = -kMaxTurns;
    compiled.most = kMaxTurns;
  } else if (key != kStrengthKey) {
    const auto index = paramIndex(effect, key);
    if (!index || effect.params[*index].kind != ParamKind::Number) return std::nullopt;
    compiled.param = *index;
    compiled.least = effect.params[*index].low;
    compiled.most = effect.params[*index].high;
  }
  if (motion.driver != Driver::Parameter) return compiled;
  const auto follows = paramIndex(effect, motion.parameter);
  if (!follows || effect.params[*follows].kind != ParamKind::Number || follows == compiled.param)
    return std::nullopt;
  compiled.follows = *follows;
  compiled.followsLeast = effect.params[*follows].low;
  compiled.followsMost = effect.params[*follows].high;
  return compiled;
}

}  // namespace

std::vector<Clip> unfolded(const Show& show, const Clip& clip) {
  if (!clip.block) return {clip};
  std::vector<Clip> clips;
  const Block* block = find(show.blocks, clip.block);
  if (!block) return clips;
  for (const auto& part : block->clips) {
    // Blocks do not stand in blocks.
    if (part->block || part->start >= clip.length) continue;
    Clip one = *part;
    one.zone = part->zone ? part->zone : clip.zone;
    one.start += clip.start;
    one.length = std::min(one.length, clip.end() - one.start);
    one.whole =
        one.whole.count() > 0 ? one.whole : micros(seconds(part->length) * part->speed) + part->contentOffset;
    one.layer += clip.layer;
    one.strength *= clip.strength;
    one.seed ^= clip.seed;
    clips.push_back(std::move(one));
  }
  return clips;
}

CompiledClip compileClip(const Clip& clip, std::shared_ptr<const PaletteTable> palette,
                         const MediaLibrary& media) {
  CompiledClip compiled;
  compiled.id = clip.id;
  compiled.effect = findEffect(clip.effect);
  compiled.start = clip.start;
  compiled.length = clip.length;
  compiled.fadeIn = clip.fadeIn;
  compiled.fadeOut = clip.fadeOut;
  compiled.fadeShape = clip.fadeShape;
  compiled.givesWay = clip.givesWay;
  compiled.contentOffset = clip.contentOffset;
  compiled.speed = clip.speed;
  compiled.whole = clip.whole;
  compiled.layer = clip.layer;
  compiled.blend = clip.blend;
  compiled.strength = static_cast<float>(std::clamp(clip.strength, 0.0, 1.0));
  compiled.seed = clip.seed;
  compiled.palette = std::move(palette);
  compiled.paletteShift = clip.paletteShift;
  compiled.paletteTurns = clip.paletteTurns;
  if (!compiled.effect) return compiled;
  const Effect& effect = *compiled.effect;
  compiled.params = ParamPack(effect.params, clip.params);
  if (effect.prepare) compiled.prepared = effect.prepare(compiled.params, media);
  if (effect.screenOf) compiled.screen = media.findLive(effect.screenOf(compiled.params));
  if (effect.roles.source)
    compiled.source = ZoneId{static_cast<std::uint32_t>(compiled.params.number(*effect.roles.source))};
  for (const auto& [key, motion] : clip.motions)
    if (auto made = compileMotion(effect, key, motion)) compiled.motions.push_back(*std::move(made));
  return compiled;
}

}  // namespace chispa
