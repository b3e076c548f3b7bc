// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dots.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Flakes, Speed, Drift, Size, Lying, Many };

constexpr int kDepths = 3;
/// A flake keeps so far from the edge of its box, in boxes, so that none is cut off.
constexpr float kRoom = 0.36f;

/// One of the distances that flakes fall at: on a face across and up, on a line along it only.
struct Depth {
  float grain;
  /// How far they have fallen, in boxes: the part behind the point and the whole ones, so that it stays exact
  /// for hours.
  float fallenAcross, fallenUp;
  std::uint32_t boxesAcross, boxesUp;
  float sway;
  /// Its flakes' reach, in boxes, and how bright they are.
  float reach, light;
  std::uint32_t seed;
};

std::array<Depth, kDepths> depthsOf(const EffectInput& in, const FacePlaces& face) {
  std::array<Depth, kDepths> depths;
  for (int n = 0; n < kDepths; ++n) {
    // Near flakes are large, bright and fast, far ones small, dim and slow.
    const double grain = in.params.number(Flakes) / 2 * (1 + 0.6 * n);
    const double fallen = in.t_s * in.params.number(Speed) * grain / (1 + 0.6 * n);
    const auto boxes = static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(fallen)));
    const float part = fraction(fallen);
    const bool isLine = face.isLine();
    const float least = 1.1f * face.cell() * static_cast<float>(grain);
    const float reach = lower(kRoom, higher(0.55f * in.params.real(Size), least));
    depths[static_cast<std::size_t>(n)] = {static_cast<float>(grain),
                                           isLine ? part : 0.f,
                                           isLine ? 0.f : part,
                                           isLine ? boxes : 0,
                                           isLine ? 0 : boxes,
                                           fraction((in.t_s * 0.4 + n * 2.1) / (2 * kPi)),
                                           reach,
                                           1 - 0.28f * static_cast<float>(n),
                                           in.seed + static_cast<std::uint32_t>(n) * 77};
  }
  return depths;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const FacePlaces face(in.cells);
  const float many = in.params.real(Many);
  const float lying = in.params.real(Lying) * static_cast<float>(in.length_s > 0 ? in.t_s / in.length_s : 0);
  const float drift = face.isLine() ? 0 : in.params.real(Drift);
  const float upward = face.isLine() ? 0 : 1;
  const auto rows = in.cells.along(Axis::Rows);
  const auto row = static_cast<float>(cellWidth(in.cells, Axis::Rows));
  const std::array<Depth, kDepths> depths = depthsOf(in, face);
  shadeHotCells(in, out, [&](std::size_t i) -> HotShade {
    const float x = face.x(i);
    const float up = face.y(i);
    float glow = 0;
    // Each flake lives in a box of its distance's own grid; most boxes are empty.
#pragma GCC unroll 3
    for (int n = 0; n < kDepths; ++n) {
      const Depth& depth = depths[static_cast<std::size_t>(n)];
      const float sway = drift * sineOfTurns(depth.sway + up * static_cast<float>(0.5 / kPi));
      const float gx = (x + sway) * depth.grain + depth.fallenAcross;
      const float gy = up * depth.grain + depth.fallenUp;
      const float column = std::floor(gx);
      const float rowOfBox = std::floor(gy);
      const std::uint32_t box =
          mixBits32(static_cast<std::uint32_t>(static_cast<std::int32_t>(rowOfBox)) + depth.boxesUp) ^
          (static_cast<std::uint32_t>(static_cast<std::int32_t>(column)) + depth.boxesAcross) * 8191u;
      const std::uint32_t luck = mixBits32(depth.seed ^ mixBits32(box));
      const float room = 1 - 2 * depth.reach;
      const float dx = gx - column - depth.reach - room * unitOf32(luck);
      const float dy = (gy - rowOfBox - depth.reach - room * unitOf32(luck << 12)) * upward;
      const float near = higher(0.f, 1 - (dx * dx + dy * dy) / (depth.reach * depth.reach));
      const float isThere = unitOf32(mixBits32(luck)) < many ? 1.f : 0.f;
      glow = higher(glow, near * near * depth.light * isThere);
    }
    const float ground = past(lying - rows[i], row) * (lying > 0 ? 0.6f : 0.f);
    // Cold: the brighter, the whiter.
    return {higher(glow, ground), higher(glow, ground), 0.7f * glow};
  });
}

}  // namespace

Effect snowfall() {
  return cellwise({
      .key = "snowfall",
      .name = "Snowfall",
      .summary = "A few soft flakes, near and far, sink and sway; they can stay lying.",
      .params = {numberParam("flakes", "Flakes across", "", 1, 20, 4, 0.5),
                 numberParam("speed", "Falls", "half-zones per second", 0.02, 3, 0.16),
                 numberParam("drift", "Drift", "", 0, 1, 0.15),
                 numberParam("size", "Size", "", 0.05, 0.7, 0.35),
                 numberParam("lying", "Stays lying up to", "of the height", 0, 1, 0),
                 numberParam("many", "How many", "of their places", 0.02, 1, 0.35)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
