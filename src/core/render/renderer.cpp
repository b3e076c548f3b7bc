// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/renderer.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/curves.h"
#include "core/colour/lightness.h"
#include "core/render/blend.h"
#include "core/render/fade.h"
#include "core/render/laying.h"
#include "core/show/curve.h"

namespace chispa {
namespace {

/// True while the clip behind it on its layer takes over.
bool isPassing(const CompiledClip& clip, Micros t) {
  return clip.crossOut.count() > 0 && t >= clip.end() - clip.crossOut;
}
/// How far it has taken over from the clip before it; 1 where there is none.
float takenOver(const CompiledClip& clip, Micros t) {
  if (clip.crossIn.count() == 0 || t >= clip.start + clip.crossIn) return 1;
  return easeBetween(0, 1, static_cast<float>(seconds(t - clip.start) / seconds(clip.crossIn)));
}

/// Where in its curves a look's layer is.
double shareOfRound(const CompiledClip& clip, double elapsed_s) {
  const double rounds = elapsed_s / std::max(1e-3, seconds(clip.whole));
  return rounds - std::floor(rounds);
}

}  // namespace

bool isShown(const CompiledClip& clip, Micros t) noexcept {
  return clip.isActiveAt(t) && clip.effect && !isPassing(clip, t);
}

Axis axisOf(const CompiledClip& clip, const ParamPack& params, const ZoneCells& cells) noexcept {
  return cells.usable(clip.effect->axisOf(params));
}

float fadeAt(const CompiledClip& clip, Micros t) noexcept {
  const double in = clip.fadeIn.count() > 0 ? seconds(t - clip.start) / seconds(clip.fadeIn) : 1;
  const double out = clip.fadeOut.count() > 0 ? seconds(clip.end() - t) / seconds(clip.fadeOut) : 1;
  const double part = std::clamp(std::min(in, out), 0.0, 1.0);
  return fadedLight(clip.fades, clip.givesWay && out < in,
                    shapedFade(clip.fadeShape, static_cast<float>(part)));
}

Renderer::Renderer() {
  for (Scratch& scratch : scratch_) scratch.params.reserve();
}

void Renderer::prepare(std::size_t cells) {
  if (cells_ >= cells) return;
  cells_ = cells;
  for (Scratch& scratch : scratch_) {
    for (LightBuffer* light : {&scratch.clip, &scratch.before, &scratch.zone}) light->resize(cells);
    scratch.place.resize(cells);
  }
}

namespace {

/// How much of the section that `t` lies in is over.
std::optional<double> sectionShare(const CompiledScore& score, Micros t) noexcept {
  if (score.sections.empty()) return std::nullopt;
  const auto next = std::upper_bound(score.sections.begin(), score.sections.end(), t);
  const Micros begin = next == score.sections.begin() ? Micros(0) : *std::prev(next);
  const Micros end = next == score.sections.end() ? score.length : *next;
  return end > begin ? std::clamp(seconds(t - begin) / seconds(end - begin), 0.0, 1.0) : 0.0;
}

}  // namespace

Renderer::Instant Renderer::instantAt(const CompiledScore& score, Micros t) noexcept {
  Instant now{t,
              score.grid.beatAt(t),
              score.grid.barAt(t),
              score.grid.beatInBarAt(t),
              score.grid.beatsOfBarAt(t),
              sectionShare(score, t),
              0,
              {}};
  if (!score.features) return now;
  const Micros heard = t - score.audioStart;
  now.level = MusicFeatures::at(score.features->level, heard);
  for (std::size_t band = 0; band < now.bands.size(); ++band)
    now.bands[band] = MusicFeatures::at(score.features->bands[band], heard);
  return now;
}

void Renderer::Moved::set(std::size_t param, double value, ParamPack& params) noexcept {
  if (param == CompiledMotion::kStrength)
    strength = static_cast<float>(value);
  else if (param == CompiledMotion::kPalettePlace)
    palettePlace = value;
  else
    params.setNumber(param, value);
}

Renderer::Moved Renderer::applyMotions(const CompiledScore& score, const CompiledClip& clip,
                                       const Instant& now, ParamPack& params) noexcept {
  Moved moved{clip.strength, {}};
  const auto driven = [&](const CompiledMotion& m) -> double {
    switch (m.motion.driver) {
      case Driver::Curve:
        return curveAt(m.motion.points,
                       now.layer ? shareOfRound(clip, now.layer->elapsed_s)
                                 : seconds(now.t - clip.start) / std::max(1e-6, seconds(clip.length)));
      case Driver::Level:
        return static_cast<double>(now.level);
      case Driver::Band:
        return static_cast<double>(now.bands[static_cast<std::size_t>(m.motion.band)]);
      case Driver::Onset:
        return score.features ? static_cast<double>(score.features->onsetAt(
                                    static_cast<std::size_t>(m.motion.band), now.t - score.audioStart))
                              : 0;
      case Driver::BeatPhase:
        return static_cast<double>(fraction(now.beat));
      case Driver::BarPhase:
        return static_cast<double>(fraction(now.bar));
      case Driver::Parameter:
        return m.followsMost > m.followsLeast
                   ? (params.number(m.follows) - m.followsLeast) / (m.followsMost - m.followsLeast)
                   : 0;
    }
    return 0;
  };
  for (const CompiledMotion& m : clip.motions) {
    const double value =
        std::clamp(m.motion.low + (m.motion.high - m.motion.low) * driven(m), m.least, m.most);
    moved.set(m.param, value, params);
  }
  if (now.layer)
    for (const CompiledAdjust& adjust : clip.adjusts) applyAdjust(adjust, now, moved, params);
  return moved;
}

void Renderer::applyAdjust(const CompiledAdjust& adjust, const Instant& now, Moved& moved,
                           ParamPack& params) noexcept {
  const BindingState* bound = now.layer->state->stateOf(adjust.binding);
  if (!bound || !bound->isHeard) return;
  const auto share = static_cast<double>(bound->value.at(now.layer->now));
  moved.set(adjust.param, adjust.least + (adjust.most - adjust.least) * share, params);
}

std::span<const float> Renderer::placesOf(const CompiledClip& clip, const ParamPack& params,
                                          const ZoneCells& cells, std::vector<float>& room) noexcept {
  const Axis axis = axisOf(clip, params, cells);
  if (axis != Axis::Plane) return cells.along(axis);
  const auto places = std::span(room).first(static_cast<std::size_t>(cells.count()));
  const ParamRoles& roles = clip.effect->roles;
  planePlaces(cells, params.number(roles.turn.value()), params.number(roles.tilt.value()), places);
  return places;
}

OtherLight Renderer::otherLight(const CompiledScore& score, const CompiledClip& clip, const ParamPack& params,
                                const Instant& now, std::size_t depth) noexcept {
  // An echo of an echo is dark.
  if (!clip.source || depth + 1 >= kDepths) return {};
  const CompiledStave* stave = score.staveOf(clip.source);
  if (!stave) return {};
  const Instant then = instantAt(score, now.t - micros(params.number(clip.effect->roles.delay.value())));
  LightBuffer& light = scratch_[depth + 1].zone;
  const CellRange all = allOf(*stave->cells);
  if (!renderZone(score, stave->clips(), *stave->cells, all, then, depth + 1)) light.clear(all.count);
  return {stave->cells.get(), &light};
}

float Renderer::runEffect(const CompiledScore& score, const CompiledClip& clip, const ZoneCells& cells,
                          const CellRange& range, const Instant& now, std::size_t depth) noexcept {
  Scratch& scratch = scratch_[depth];
  Moved moved{clip.strength, {}};
  const ParamPack* params = &clip.params;
  if (!clip.motions.empty() || (now.layer && !clip.adjusts.empty())) {
    scratch.params = clip.params;
    moved = applyMotions(score, clip, now, scratch.params);
    params = &scratch.params;
  }
  const double bars = barsOf(score, clip, now);
  EffectInput in{cells, *params, clip.paletteAt(bars, moved.palettePlace)};
  in.bars = bars;
  in.range = range;
  in.other = otherLight(score, clip, *params, now, depth);
  in.place = placesOf(clip, *params, cells, scratch.place);
  in.seed = clip.seed;
  setTime(score, clip, now, in);
  in.beatInBar = now.beatInBar;
  in.beatsOfBar = now.beatsOfBar;
  in.section = now.section.value_or(std::clamp(in.t_s / in.length_s, 0.0, 1.0));
  in.level = now.level;
  in.bands = now.bands;
  in.music = score.features.get();
  in.at = now.t - score.audioStart;
  in.beatLength_s = clip.beatLength_s;
  in.shortestBeat_s = clip.shortestBeat_s;
  in.speed = clip.speed;
  in.prepared = clip.prepared.get();
  in.screen = clip.screen.get();
  clip.effect->render(in, scratch.clip);
  return moved.strength * (now.layer ? now.layer->presence : fadeAt(clip, now.t));
}

double Renderer::barsOf(const CompiledScore& score, const CompiledClip& clip, const Instant& now) noexcept {
  if (now.layer) return clip.speed * now.layer->bars;
  const double startBar = score.grid.barAt(clip.start);
  const bool hasContentOffset = clip.contentOffset.count() != 0;
  return clip.speed * (now.bar - startBar) +
         (hasContentOffset ? startBar - score.grid.barAt(clip.start - clip.contentOffset) : 0);
}

void Renderer::setTime(const CompiledScore& score, const CompiledClip& clip, const Instant& now,
                       EffectInput& in) noexcept {
  if (now.layer) {
    const LayerTime& layer = *now.layer;
    in.length_s = std::max(1e-3, seconds(clip.whole));
    const double t_s = seconds(clip.contentOffset) + clip.speed * layer.elapsed_s;
    // What has a beginning and an end comes round again.
    in.t_s = clip.effect->isWhole ? t_s - std::floor(t_s / in.length_s) * in.length_s : t_s;
    in.beats = clip.speed * layer.beats;
    return;
  }
  in.t_s = seconds(clip.contentOffset) + clip.speed * seconds(now.t - clip.start);
  in.length_s = clip.whole.count() > 0 ? seconds(clip.whole)
                                       : seconds(clip.contentOffset) + clip.speed * seconds(clip.length);
  const double startBeat = score.grid.beatAt(clip.start);
  const bool hasContentOffset = clip.contentOffset.count() != 0;
  in.beats = clip.speed * (now.beat - startBeat) +
             (hasContentOffset ? startBeat - score.grid.beatAt(clip.start - clip.contentOffset) : 0);
}

float Renderer::renderLayer(const CompiledScore& score, std::span<const CompiledClip> clips, std::size_t i,
                            float taken, const ZoneCells& cells, const CellRange& range, const Instant& now,
                            std::size_t depth) noexcept {
  if (taken >= 1) return runEffect(score, clips[i], cells, range, now, depth);
  return renderPassing(score, &clips[i - 1], &clips[i], taken, cells, range, now, depth);
}

float Renderer::renderPassing(const CompiledScore& score, const CompiledClip* from, const CompiledClip* to,
                              float share, const ZoneCells& cells, const CellRange& range, const Instant& now,
                              std::size_t depth) noexcept {
  if (!from) return runEffect(score, *to, cells, range, now, depth) * lightOfLevel(to->fades, share);
  if (!to) return runEffect(score, *from, cells, range, now, depth) * lightOfLevel(from->fades, 1 - share);
  // Both as one layer.
  Scratch& scratch = scratch_[depth];
  const float before = runEffect(score, *from, cells, range, now, depth);
  std::swap(scratch.clip, scratch.before);
  scale(scratch.before, range.count, before);
  scale(scratch.clip, range.count, runEffect(score, *to, cells, range, now, depth));
  mixLight(scratch.before, share, to->fades, range.count, scratch.clip);
  return 1;
}

bool Renderer::renderZone(const CompiledScore& score, std::span<const CompiledClip> clips,
                          const ZoneCells& cells, const CellRange& range, const Instant& now,
                          std::size_t depth, PixelFrame* below) noexcept {
  Scratch& scratch = scratch_[depth];
  bool anything = false;
  for (std::size_t i = 0; i < clips.size(); ++i) {
    const CompiledClip& clip = clips[i];
    if (!isShown(clip, now.t)) continue;
    const float taken = takenOver(clip, now.t);
    if (below && clip.blend != Blend::Normal) {
      // It acts on all that lies below, in this zone and in the staves under it: that is on the pixels first.
      if (std::exchange(anything, false)) layOnPixels(scratch.zone, cells, range, *below);
      const float presence = renderLayer(score, clips, i, taken, cells, range, now, depth);
      blendOnPixels(scratch.clip, cells, range, clip.blend, presence, *below);
      continue;
    }
    const bool isFirst = !std::exchange(anything, true);
    if (isFirst && taken >= 1 && clip.blend == Blend::Normal) {
      // Nothing lies below: what it shows is the zone's light.
      const float presence = runEffect(score, clip, cells, range, now, depth);
      std::swap(scratch.clip, scratch.zone);
      if (presence < 1) scale(scratch.zone, range.count, presence);
      continue;
    }
    if (isFirst) scratch.zone.clear(range.count);
    const float presence = renderLayer(score, clips, i, taken, cells, range, now, depth);
    blendOnto(scratch.zone, scratch.clip, range.count, clip.blend, presence);
  }
  return anything;
}

bool Renderer::canBeTiled(const CompiledClip& clip) noexcept {
  return !clip.effect || (clip.effect->isCellwise && clip.effect->axisOf(clip.params) != Axis::Plane);
}

bool Renderer::canTile(std::span<const CompiledClip> clips, Micros t) noexcept {
  return std::all_of(clips.begin(), clips.end(),
                     [t](const CompiledClip& clip) { return !clip.isActiveAt(t) || canBeTiled(clip); });
}

bool Renderer::isLit(const CompiledStave& stave, Micros t) noexcept {
  return std::any_of(stave.clips().begin(), stave.clips().end(),
                     [t](const CompiledClip& clip) { return isShown(clip, t); });
}

void Renderer::renderTile(const CompiledScore& score, const CompiledStave& stave, const CellRange& range,
                          const Instant& now, PixelFrame& frame) noexcept {
  if (renderZone(score, stave.clips(), *stave.cells, range, now, 0, &frame))
    layOnPixels(scratch_[0].zone, *stave.cells, range, frame);
}

void Renderer::renderFirstTile(const CompiledScore& score, const CompiledStave& stave, const CellRange& range,
                               const Instant& now, PixelFrame& frame) noexcept {
  const auto clips = stave.clips();
  const bool actsBelow = std::any_of(clips.begin(), clips.end(), [&](const CompiledClip& clip) {
    return isShown(clip, now.t) && clip.blend != Blend::Normal;
  });
  if (!actsBelow && renderZone(score, clips, *stave.cells, range, now, 0))
    return putOnPixels(scratch_[0].zone, *stave.cells, range, frame);
  clearPixels(stave.cells->pixels[range.first], range.count, frame);
  if (actsBelow) renderTile(score, stave, range, now, frame);
}

void Renderer::renderStave(const CompiledScore& score, const CompiledStave& stave, const Instant& now,
                           PixelFrame& frame) noexcept {
  if (!isLit(stave, now.t)) return;
  const std::size_t count = allOf(*stave.cells).count;
  const std::size_t step = canTile(stave.clips(), now.t) ? kTile : std::max<std::size_t>(1, count);
  for (std::size_t first = 0; first < count; first += step)
    renderTile(score, stave, {first, std::min(step, count - first)}, now, frame);
}

void Renderer::render(const CompiledScore& score, Micros t, PixelFrame& frame) noexcept {
  frame.clear();
  if (t < Micros(0) || t >= score.length) return;
  const Instant now = instantAt(score, t);
  for (const CompiledStave& stave : score.staves) renderStave(score, stave, now, frame);
}

void Renderer::renderClips(const CompiledScore& score, std::span<const CompiledClip> clips,
                           const ZoneCells& cells, Micros t) noexcept {
  const CellRange all = allOf(cells);
  if (!renderZone(score, clips, cells, all, instantAt(score, t), 0)) scratch_[0].zone.clear(all.count);
}

}  // namespace chispa
