// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Rate, Flash, Sync, Scatter };

/// Flashes faster than this can harm people with photosensitive epilepsy (ITU-R BT.1702: no more than three a
/// second).
constexpr double kSafe_hz = 3;

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const bool byBeat = in.params.isOn(Sync);
  const double rate = in.params.number(Rate);
  // A clip that runs faster flashes faster too.
  const double allowed = std::min(rate, kSafe_hz / std::max(in.speed, 0.01));
  // On the beat it flashes 1, 2 … times a beat, or on every second, third … one, so that even the clip's
  // shortest beat is safe. What is chosen holds for the whole clip.
  const double most = allowed * in.shortestBeat_s;
  const double perBeat = most >= 1 ? std::floor(most) : 1 / std::ceil(1 / std::max(most, 0.01));
  const double turns = byBeat ? in.beats * perBeat : in.t_s * allowed;
  const float flash = in.params.real(Flash);
  const float scatter = in.params.real(Scatter);
  const float u = fraction(turns);
  const auto turn = static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(turns)));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const bool isOn = u < flash && (scatter <= 0 || chance(in.seed, i, turn) >= scatter);
    return {chance(in.seed, turn), isOn ? 1.f : 0.f};
  });
}

}  // namespace

Effect strobe() {
  return cellwise({
      .key = "strobe",
      .name = "Strobe",
      .summary = "Short flashes, never more than three a second, for the sake of the audience.",
      .params = {fixedParam("rate", "Flashes", "per second", 0.2, kSafe_hz, 2, 0.1),
                 numberParam("flash", "Flash", "of the time", 0.02, 0.6, 0.15),
                 switchParam("sync", "On the beat", true),
                 numberParam("scatter", "Left out", "of the cells", 0, 0.95, 0)},
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
