// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <utility>

#include "core/render/compiledlive.h"
#include "core/render/laying.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

/// Scales the light of a zone's pixels.
void scalePixels(const ZoneCells& cells, float level, PixelFrame& frame) noexcept {
  for (const std::uint32_t pixel : cells.pixels)
    for (auto* channel : {&frame.r, &frame.g, &frame.b}) (*channel)[pixel] *= level;
}

/// One colour of a desk's cell, 0–1; 0 where the format has none.
float deskColour(const CompiledDeskInput& input, std::size_t colour, const CompiledDeskInput::Place& place,
                 std::span<const DeskValues> desk) noexcept {
  const int offset = input.offsets[colour];
  if (offset < 0) return 0;
  const auto& values = desk[place.universe].values;
  const auto at = static_cast<std::size_t>(place.channel + offset);
  if (input.input.bits != 16) return static_cast<float>(values[at]) / 255.f;
  return static_cast<float>(values[at] * 256 + values[at + 1]) / 65535.f;
}

/// White is light of all colours.
Rgb deskLight(const CompiledDeskInput& input, const CompiledDeskInput::Place& place,
              std::span<const DeskValues> desk) noexcept {
  const float white = deskColour(input, 3, place, desk);
  return {std::min(1.f, deskColour(input, 0, place, desk) + white),
          std::min(1.f, deskColour(input, 1, place, desk) + white),
          std::min(1.f, deskColour(input, 2, place, desk) + white)};
}

Blend blendOf(DeskUse use) {
  switch (use) {
    case DeskUse::Multiplies:
      return Blend::Multiply;
    case DeskUse::Adds:
      return Blend::Add;
    case DeskUse::Higher:
      return Blend::Lighten;
    case DeskUse::Replaces:
      break;
  }
  return Blend::Normal;
}

/// How much the desk has to say, 0–1, and whether its light is dark instead of what was heard last.
struct DeskPresence {
  float share = 1;
  bool isDark = false;
};
DeskPresence presenceOf(const DeskInput& input, const DeskValues& values, Micros t) noexcept {
  if (!values.isHeard) return {0, false};
  if (!values.isLost || input.loss == DeskLoss::Hold) return {};
  if (input.loss == DeskLoss::Dark) return {1, true};
  const double gone = seconds(t - values.lostAt);
  const double fade = seconds(input.lossFade);
  return {fade <= 0 ? 0.f : static_cast<float>(std::clamp(1 - gone / fade, 0.0, 1.0)), false};
}

}  // namespace

void Renderer::renderLook(const CompiledScore& score, const CompiledStave* from, const CompiledStave* to,
                          float share, const Instant& now, PixelFrame& frame) noexcept {
  const ZoneCells& cells = to ? *to->cells : *from->cells;
  const CellRange all = allOf(cells);
  if (all.count == 0) return;
  Scratch& scratch = scratch_[0];
  const auto layerOf = [](const CompiledStave* stave, std::size_t i) {
    return stave && i < stave->clips().size() ? &stave->clips()[i] : nullptr;
  };
  const std::size_t layers = std::max(from ? from->clips().size() : 0, to ? to->clips().size() : 0);
  bool anything = false;
  for (std::size_t i = 0; i < layers; ++i) {
    const CompiledClip* before = layerOf(from, i);
    const CompiledClip* after = layerOf(to, i);
    if (!before && !after) continue;
    const float presence = renderPassing(score, before, after, share, cells, all, now, 0);
    const Blend blend = (after ? after : before)->blend;
    if (blend != Blend::Normal) {
      if (std::exchange(anything, false)) layOnPixels(scratch.zone, cells, all, frame);
      blendOnPixels(scratch.clip, cells, all, blend, presence, frame);
      continue;
    }
    if (!std::exchange(anything, true)) scratch.zone.clear(all.count);
    blendOnto(scratch.zone, scratch.clip, all.count, blend, presence);
  }
  if (anything) layOnPixels(scratch.zone, cells, all, frame);
}

void Renderer::renderDesk(const CompiledShow& show, const LiveInstant& now, std::span<const DeskValues> desk,
                          PixelFrame& frame) noexcept {
  for (const CompiledDeskInput& input : show.live->deskInputs) {
    // The first universe tells whether the desk is there.
    const DeskPresence presence = presenceOf(input.input, desk[input.places[0].universe], now.t);
    if (presence.share <= 0) continue;
    LightBuffer& light = scratch_[0].clip;
    const CellRange all = allOf(*input.cells);
    // Neighbours of one cell of the desk have its colour.
    for (std::size_t place = 0, cell = 0; place < input.places.size(); ++place) {
      const Rgb colour = presence.isDark ? Rgb{} : deskLight(input, input.places[place], desk);
      for (; cell < all.count && input.placeOf(cell) == place; ++cell) light.set(cell, colour, 1);
    }
    blendOnPixels(light, *input.cells, all, blendOf(input.input.use), presence.share, frame);
  }
}

void Renderer::renderLive(const CompiledShow& show, const CompiledScore* playing, Micros position,
                          const LiveState& state, const LiveInstant& now, std::span<const DeskValues> desk,
                          PixelFrame& frame) noexcept {
  static const CompiledScore kNone;
  const CompiledScore& score = playing ? *playing : kNone;
  Instant instant = instantAt(score, position);
  instant.beat = now.beat;
  instant.bar = now.bar;
  instant.beatInBar = now.beatInBar;
  // What is heard now has no grid of its own.
  if (!playing || !playing->id) instant.beatsOfBar = LiveState::kBeatsPerBar;
  for (const LookPlay& play : state.plays) {
    const CompiledLook* look = show.live->lookOf(play.look);
    if (!look) continue;
    const double elapsed_s = play.elapsedAt(now.t);
    const LayerTime layer{
        &state,           now.t,
        elapsed_s,        play.beatsAt(now),
        play.barsAt(now), play.shareAt(now.t, show.light.fades) * state.fader(look->id, look->level, now.t)};
    instant.layer = &layer;
    const LookMoment moment = momentOf(*look, elapsed_s);
    const CompiledStep& to = look->steps[moment.to];
    const CompiledStep* from = moment.share < 1 ? &look->steps[moment.from] : nullptr;
    if (from)
      for (const CompiledStave& stave : from->staves)
        if (!to.staveOf(stave.zone)) renderLook(score, &stave, nullptr, moment.share, instant, frame);
    for (const CompiledStave& stave : to.staves)
      renderLook(score, from ? from->staveOf(stave.zone) : nullptr, &stave, moment.share, instant, frame);
  }
  for (const CompiledLevel& level : show.live->levels)
    if (const float share = state.zoneLevel(level.zone, now.t); share < 1)
      scalePixels(*level.cells, share, frame);
  renderDesk(show, now, desk, frame);
}

}  // namespace chispa
