// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/renderer.h"

#include <algorithm>

#include "core/render/blend.h"

namespace chispa {
namespace {

/// The same for a zone whose cells are pixels in a row: plain loops, which the compiler vectorises.
void layOnRow(const LightBuffer& light, const ZoneCells& cells, PixelFrame& frame) noexcept {
  const auto lay = [&](const std::vector<float>& from, std::vector<float>& to) {
    const float* in = from.data();
    const float* coverage = light.a.data();
    float* out = to.data() + cells.pixels[0];
    for (std::size_t i = 0; i < cells.pixels.size(); ++i) out[i] = std::min(1.f, in[i] + out[i] * (1 - coverage[i]));
  };
  lay(light.r, frame.r);
  lay(light.g, frame.g);
  lay(light.b, frame.b);
}

/// Lays a zone's light on the pixels of its cells.
void layOnPixels(const LightBuffer& light, const ZoneCells& cells, PixelFrame& frame) noexcept {
  if (cells.isPlain) return layOnRow(light, cells, frame);
  const auto count = static_cast<std::size_t>(cells.count());
  for (std::size_t cell = 0; cell < count; ++cell) {
    const float clear = 1 - light.a[cell];
    for (std::uint32_t p = cells.firstPixel[cell]; p < cells.firstPixel[cell + 1]; ++p) {
      const std::uint32_t pixel = cells.pixels[p];
      frame.r[pixel] = std::min(1.f, light.r[cell] + frame.r[pixel] * clear);
      frame.g[pixel] = std::min(1.f, light.g[cell] + frame.g[pixel] * clear);
      frame.b[pixel] = std::min(1.f, light.b[cell] + frame.b[pixel] * clear);
    }
  }
}

bool isActive(const CompiledClip& clip, Micros t) { return t >= clip.start && t < clip.start + clip.length; }

}  // namespace

float presenceAt(const CompiledClip& clip, Micros t) {
  const double in = clip.fadeIn.count() > 0 ? seconds(t - clip.start) / seconds(clip.fadeIn) : 1;
  const double out = clip.fadeOut.count() > 0 ? seconds(clip.start + clip.length - t) / seconds(clip.fadeOut) : 1;
  return clip.strength * static_cast<float>(std::clamp(std::min(in, out), 0.0, 1.0));
}

void Renderer::prepare(const CompiledShow& show) {
  if (clip_.size() >= show.mostCells) return;
  clip_.resize(show.mostCells);
  zone_.resize(show.mostCells);
}

Renderer::Instant Renderer::instantAt(const MusicGrid& grid, const MusicFeatures* features, Micros t) {
  Instant now{grid.beatAt(t), grid.barAt(t), grid.beatInBarAt(t), 0, {}};
  if (!features) return now;
  now.level = MusicFeatures::at(features->level, t);
  for (std::size_t band = 0; band < now.bands.size(); ++band)
    now.bands[band] = MusicFeatures::at(features->bands[band], t);
  return now;
}

void Renderer::runEffect(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid, const Instant& now,
                         Micros t) noexcept {
  EffectInput in{cells, clip.params, *clip.palette};
  in.seed = clip.seed;
  in.t_s = seconds(t - clip.start);
  in.length_s = seconds(clip.length);
  in.bars = now.bar - grid.barAt(clip.start);
  in.beats = now.beat - grid.beatAt(clip.start);
  in.scoreBeat = now.beat;
  in.beatInBar = now.beatInBar;
  in.level = now.level;
  in.bands = now.bands;
  clip.effect->render(in, clip_);
}

void Renderer::renderStave(const CompiledStave& stave, const MusicGrid& grid, const Instant& now, Micros t,
                           PixelFrame& frame) noexcept {
  const auto count = static_cast<std::size_t>(stave.cells->count());
  bool anything = false;
  for (const CompiledClip& clip : stave.clips) {
    if (!isActive(clip, t)) continue;
    if (!anything) zone_.clear(count);
    anything = true;
    runEffect(clip, *stave.cells, grid, now, t);
    blendOnto(zone_, clip_, count, clip.blend, presenceAt(clip, t));
  }
  if (anything) layOnPixels(zone_, *stave.cells, frame);
}

void Renderer::render(const CompiledScore& score, Micros t, PixelFrame& frame) noexcept {
  frame.clear();
  if (t < Micros(0) || t >= score.length) return;
  const Instant now = instantAt(score.grid, score.features.get(), t);
  for (const CompiledStave& stave : score.staves) renderStave(stave, score.grid, now, t, frame);
}

void Renderer::renderClip(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid,
                          const MusicFeatures* features, Micros t) noexcept {
  const auto count = static_cast<std::size_t>(cells.count());
  if (clip_.size() < count) clip_.resize(count);
  runEffect(clip, cells, grid, instantAt(grid, features, t), t);
  const float presence = presenceAt(clip, t);
  for (auto* channel : {&clip_.r, &clip_.g, &clip_.b, &clip_.a})
    for (std::size_t i = 0; i < count; ++i) (*channel)[i] *= presence;
}

}  // namespace chispa
