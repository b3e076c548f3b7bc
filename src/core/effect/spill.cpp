// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/tint.h"

namespace chispa {
namespace {

enum { Source, Delay, Reach, Level, Tint };

/// The other zone as so many lamps, each where the middle of its cells is.
constexpr std::size_t kLamps = 24;

struct Lamp {
  Vec3 at;
  Rgb light;
};

std::size_t lampsOf(const EffectInput& in, std::array<Lamp, kLamps>& lamps) {
  const auto cells = static_cast<std::size_t>(in.other.cells->count());
  const std::size_t count = std::min(kLamps, cells);
  const LightBuffer& light = *in.other.light;
  for (std::size_t n = 0; n < count; ++n) {
    const std::size_t first = n * cells / count;
    const std::size_t last = (n + 1) * cells / count;
    Lamp lamp;
    for (std::size_t i = first; i < last; ++i) {
      lamp.at = lamp.at + in.other.cells->position_m[i];
      lamp.light = {lamp.light.r + light.r[i], lamp.light.g + light.g[i], lamp.light.b + light.b[i]};
    }
    const double share = 1.0 / static_cast<double>(last - first);
    const auto part = static_cast<float>(share);
    lamps[n] = {lamp.at * share, {lamp.light.r * part, lamp.light.g * part, lamp.light.b * part}};
  }
  return count;
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  if (!in.other.cells || in.other.cells->count() == 0) return out.clear(count);
  std::array<Lamp, kLamps> lamps;
  const std::size_t lit = lampsOf(in, lamps);
  const float reach = in.params.real(Reach);
  const float perSquare = 1 / (reach * reach);
  const float level = in.params.real(Level);
  const float tint = in.params.real(Tint);
  for (std::size_t i = 0; i < count; ++i) {
    Rgb sum;
    float weights = 0;
    for (std::size_t n = 0; n < lit; ++n) {
      const float weight = lampLight(squareApart(in.cells.position_m[i], lamps[n].at) * perSquare);
      sum = {sum.r + weight * lamps[n].light.r, sum.g + weight * lamps[n].light.g,
             sum.b + weight * lamps[n].light.b};
      weights += weight;
    }
    // Between lamps their mean, away from them less and less.
    const float share = level / higher(1, weights);
    const float bright = higher(sum.r, higher(sum.g, sum.b)) * share;
    setTinted(out, i, {sum.r * share, sum.g * share, sum.b * share}, lower(1, bright),
              in.palette.clamped(bright), tint, 1);
  }
}

}  // namespace

Effect spill() {
  ParamSpec source = numberParam("source", "Light of", "", 0, 4e9, 0, 1);
  source.kind = ParamKind::Zone;
  return {
      .key = "spill",
      .name = "Spill",
      .summary = "The light that another zone throws on this one, as near as they really are.",
      .params = {source, numberParam("delay", "Later by", "s", 0, 10, 0, 0.01),
                 numberParam("reach", "Reaches", "m", 0.05, 30, 1, 0.05),
                 numberParam("level", "Level", "", 0, 2, 1),
                 numberParam("tint", "In own colours", "", 0, 1, 0)},
      .render = render,
      .group = EffectGroup::Pictures,
  };
}

}  // namespace chispa
