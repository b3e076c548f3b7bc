// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Later, Phrase, Travel, Holds, Voices };

/// Every piece of the zone sings one phrase; each comes in after the one that hangs next to it.
CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double later = in.params.number(Later);
  const double phrase = in.params.number(Phrase);
  const auto travel = in.params.real(Travel);
  const float holds = in.params.real(Holds);
  const auto voices = std::max(1.0, std::round(in.params.number(Voices)));
  const float rise = higher(0.04f, static_cast<float>(kSeenTogether_s / in.beatLength_s / phrase));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const auto voice = static_cast<double>(in.cells.piece[i]);
    const double turn = (in.beats - voice * later) / phrase;
    // Until its turn comes a piece is silent.
    const float sings = turn >= 0 ? 1.f : 0.f;
    const float age = fraction(turn) - travel * in.cells.alongPiece[i] * 0.5f;
    const float glow = easeBetween(0, rise, age) * (1 - easeBetween(holds, lower(1, holds + 0.35f), age));
    // The first voice has the palette's end, those after it what lies before.
    return {static_cast<float>(1 - (std::fmod(voice, voices) + 0.5) / voices), glow * sings};
  });
}

}  // namespace

Effect canon() {
  return cellwise({
      .key = "canon",
      .name = "Canon",
      .summary = "All pieces sing the same phrase, each a little after its neighbour.",
      .params = {numberParam("later", "Each comes in", "beats later", 0.0625, 16, 1, 0.0625),
                 numberParam("phrase", "A phrase is", "beats", 0.5, 64, 4, 0.5),
                 numberParam("travel", "Runs along the piece", "", 0, 1, 0.5),
                 numberParam("holds", "Held for", "of the phrase", 0.05, 0.9, 0.3),
                 numberParam("voices", "Colours", "", 1, 24, 4, 1)},
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
