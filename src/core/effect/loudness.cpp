// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Shows, Gain, Edge };

/// Loudness that column position `u` 0–1 shows: its own band, between neighbours in proportion.
float loudnessAt(const EffectInput& in, float u, bool bands) {
  if (!bands) return in.level;
  const float x = lower(higher(u * kBands - 0.5f, 0.f), kBands - 1.f);
  const auto low = static_cast<std::size_t>(x);
  const std::size_t high = std::min<std::size_t>(low + 1, kBands - 1);
  return in.bands[low] + (in.bands[high] - in.bands[low]) * (x - static_cast<float>(low));
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const bool bands = in.params.choice(Shows) == 0;
  const bool upright = in.cells.rows > 1;
  const auto height = in.cells.along(upright ? Axis::Rows : Axis::Along);
  const auto across = in.cells.along(upright ? Axis::Columns : Axis::Along);
  const float gain = in.params.real(Gain);
  const float edge = in.params.real(Edge);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float loud = loudnessAt(in, across[i], bands) * gain;
    // On a line the bands lie side by side as brightness; on a matrix they stand as bars.
    const float lit = bands && !upright ? lower(loud, 1.f) : easeBetween(height[i] - edge, height[i], loud);
    return {bands && !upright ? across[i] : height[i], lit};
  });
}

}  // namespace

Effect loudness() {
  return cellwise({
      .key = "loudness",
      .name = "Loudness",
      .summary = "Bars that rise with the music, by band or as a whole.",
      .params = {choiceParam("shows", "Shows", {{"bands", "low to high"}, {"level", "all together"}}),
                 numberParam("gain", "Gain", "×", 0.1, 8, 1.2, 0.1),
                 numberParam("edge", "Soft edge", "", 0.001, 0.5, 0.06)},
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
