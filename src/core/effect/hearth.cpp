// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Speed, Grain, Height };

constexpr int kMaxTongues = 34;

/// A tongue of flame at an instant.
struct Tongue {
  float foot;
  /// How high it licks, and how far its tip has bent aside.
  float height;
  float bend;
  float light;
};

/// Tongues side by side, each with a life of its own: two slow swings of noise raise it, a fast small one is
/// its flicker.
std::array<Tongue, kMaxTongues> tonguesOf(const EffectInput& in, int count) {
  std::array<Tongue, kMaxTongues> tongues;
  const double t = in.t_s * in.params.number(Speed);
  for (int k = 0; k < count; ++k) {
    const auto own = in.seed + static_cast<std::uint64_t>(k) * 16;
    const auto swing = [&](std::uint64_t which, double pace) {
      return noise(own + which, t * pace, 0.5) - 0.5f;
    };
    tongues[static_cast<std::size_t>(k)] = {static_cast<float>(k) - 0.5f + 0.4f * (chance(own, 1) - 0.5f),
                                            0.72f + 0.7f * swing(0, 1.1) + 0.35f * swing(1, 3.1),
                                            1.1f * swing(2, 0.7) + 0.5f * swing(3, 2.3),
                                            1 + 0.24f * swing(4, 5.7)};
  }
  return tongues;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto up = in.place;
  const Axis axis = in.cells.usable(in.params.axis(Across));
  // A single column of cells is one flame; what has a width has tongues side by side.
  const bool isOne = in.cells.rows <= 1 && (axis == Axis::Along || axis == Axis::Columns);
  const auto beside = in.cells.along(axis == Axis::Columns ? Axis::Rows : in.cells.usable(Axis::Columns));
  const double grain = in.params.number(Grain);
  const int count = isOne ? 1 : static_cast<int>(std::lround(grain)) + 2;
  const std::array<Tongue, kMaxTongues> tongues = tonguesOf(in, count);
  const float across = isOne ? 0.f : static_cast<float>(count - 2);
  const float height = in.params.real(Height);
  const double rise = in.params.number(Speed) * in.t_s * 1.7;
  shadeCells(in, out, [&](std::size_t i) CHISPA_INLINED -> Shade {
    const float y = up[i] / height;
    const float x = beside[i] * across;
    // Their edges lick upwards.
    const float lick =
        noise(in.seed + 9, static_cast<double>(x) * 2.6, static_cast<double>(y) * 4.2 - rise * 1.9) - 0.5f;
    const int nearest = static_cast<int>(x + 1);
    float heat = 0;
#pragma GCC unroll 3
    for (int n = 0; n < 3; ++n) {
      const Tongue& tongue =
          tongues[static_cast<std::size_t>(isOne ? 0 : std::clamp(nearest + n - 1, 0, kMaxTongues - 1))];
      const float share = y / higher(0.15f, tongue.height) + 0.5f * lick * lower(1, 3 * y);
      // It narrows to its tip, and bends the more the higher.
      const float width = 0.78f * (1 - 0.8f * share);
      const float off = std::abs(x - tongue.foot - tongue.bend * share * share) / higher(0.05f, width);
      const float body = (1 - easeBetween(0.2f, 1, isOne ? 0 : off)) * (1 - easeBetween(0.55f, 1, share));
      heat = higher(heat, body * tongue.light * (1 - 0.75f * share));
    }
    // The bed of embers under it glows evenly.
    const float embers = 0.55f * (1 - easeBetween(0, 0.16f, y));
    heat = lower(1.f, higher(heat, embers) + 0.25f * heat * embers);
    return {heat, easeBetween(0.02f, 0.5f, heat)};
  });
}

}  // namespace

Effect hearth() {
  return cellwise({
      .key = "hearth",
      .name = "Hearth",
      .summary = "Tongues of flame rise and bend over embers.",
      .params = across(Axis::Rows, {numberParam("speed", "Rises", "times per second", 0.05, 6, 1.2, 0.05),
                                    numberParam("grain", "Tongues", "side by side", 1, 30, 5, 0.5),
                                    numberParam("height", "Flame height", "", 0.1, 4, 1.2, 0.05)}),
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
