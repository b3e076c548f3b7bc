// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/base/curves.h"
#include "core/base/hash.h"
#include "core/board/say.h"

// Textures, as src/core/effect computes them.
namespace chispa::board {
namespace {

CellLight clouds(ClipTerms& clip) {
  enum { Grain, Speed, Way, Contrast, Detail };
  const double grain = clip.fixed(Grain);
  const double way = clip.fixed(Way) * kPi / 180;
  const Term t = clip.seconds();
  const Term moved = clip.param(Speed) * t * grain;
  const Term sx = moved * std::cos(way);
  const Term sy = moved * std::sin(way);
  const Term x = clip.x() * grain;
  const Term y = clip.y() * grain;
  const Term detail = clip.param(Detail) * 0.4;
  const Term low = clip.graph().noise(clip.seed(), x - sx, y - sy);
  const Term fine =
      clip.graph().noise(std::uint64_t{clip.seed()} + 1, x * 2.1 + (t * 0.2 - sx * 2.1), y * 2.1 - sy * 2.1);
  const Term thick = low * (1.0 - detail) + fine * detail;
  return {clamped(0.5 + (thick - 0.5) * clip.param(Contrast)), clip.number(1)};
}

CellLight marbling(ClipTerms& clip) {
  enum { Grain, Speed, Swirl, Repeats };
  constexpr double kTurns = 0.5 / kPi;
  const Term t = clip.seconds() * clip.param(Speed) * kTurns;
  const Term swirl = clip.param(Swirl);
  const auto own = static_cast<double>(chance(clip.seed(), 1));
  const Term x = clip.x() * clip.param(Grain);
  const Term y = clip.y() * clip.param(Grain);
  const Term bx = (x + swirl * sineOf(y * (1.7 * kTurns) + t + own)) * kTurns;
  const Term by = (y + swirl * cosineOf(x * (1.3 * kTurns) - t * 0.8)) * kTurns;
  const Term ink =
      sineOf(bx * 1.9 + t * 0.6) + sineOf(by * 2.3 - t * 0.5 + own) + sineOf((bx + by) * 1.1 + t * 0.3);
  CellLight light{ink * clip.param(Repeats) * (1.0 / 6) + 0.5, clip.number(1)};
  light.goesRound = true;
  return light;
}

CellLight pool(ClipTerms& clip) {
  enum { Grain, Speed, Depth, Glitter };
  constexpr double kTurns = 0.5 / kPi;
  constexpr int kWaves = 4;
  const Term t = clip.seconds() * clip.param(Speed) * kTurns;
  const Term depth = clip.param(Depth);
  Term x = clip.x() * clip.param(Grain);
  Term y = clip.y() * clip.param(Grain);
  Term bright = clip.number(0);
  for (int w = 0; w < kWaves; ++w) {
    const double turns =
        (static_cast<double>(chance(clip.seed(), static_cast<std::uint64_t>(w))) + w) / kWaves;
    const double dx = std::cos(2 * kPi * turns);
    const double dy = std::sin(2 * kPi * turns);
    const double pace = (1 + 0.3 * w) * 2 * kTurns;
    const Term phase = x * (dx * pace) + y * (dy * pace) + t * (1 + 0.2 * w);
    const Term slope = cosineOf(phase);
    x = x + slope * (0.35 * dy);
    y = y - slope * (0.35 * dx);
    bright = bright + (1.0 - absOf(sineOf(phase)));
  }
  const Term shine = bright * (1.0 / kWaves);
  const Term crest = eased(clip.number(0.62), clip.number(0.18), shine) * clip.param(Glitter);
  return {shine * (0.6 + 0.4 * depth) + crest, 1.0 - depth + depth * (0.35 + 0.65 * shine)};
}

}  // namespace

const std::map<std::string, Saying>& textureSayings() {
  static const std::map<std::string, Saying> all = {
      {"clouds", clouds}, {"marbling", marbling}, {"pool", pool}};
  return all;
}

}  // namespace chispa::board
