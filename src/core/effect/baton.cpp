// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dots.h"
#include "core/effect/edges.h"

namespace chispa {
namespace {

enum { Size, Figure, Trail, Stress };

constexpr int kDots = 10;
constexpr int kMaxBeats = 12;

struct Place {
  float x = 0;
  float y = 0;
};

/// Where a hand that conducts is at beat `beat` of a bar of `beats`: down on the first, up before the next
/// one, and between them to the sides (as taught: 2 down up, 3 down right up, 4 down left right up; more go
/// to and fro).
Place placeOfBeat(int beat, int beats) {
  if (beat == 0) return {0, -1};
  if (beat == beats - 1) return {beats == 2 ? 0.35f : 0.15f, 0.8f};
  if (beats == 3) return {0.9f, -0.1f};
  const float side = beat < (beats + 1) / 2 ? -1.f : 1.f;
  const float inner = beat % 2 == 1 ? 0.9f : 0.5f;
  return {side * inner, -0.25f + 0.15f * static_cast<float>(beat % 2)};
}

/// The hand `inBar` beats into the bar. It is at a beat's place as the beat falls, lifts off it, and falls to
/// the next.
Place handAt(double inBar, int beats, bool isLine) {
  const double turn = inBar / beats;
  const double t = (turn - std::floor(turn)) * beats;
  const int beat = std::min(static_cast<int>(t), beats - 1);
  const int next = (beat + 1) % beats;
  const auto u = static_cast<float>(t - beat);
  if (isLine) {
    const auto at = [beats](int n) {
      return -0.9f + 1.8f * (static_cast<float>(n) + 0.5f) / static_cast<float>(beats);
    };
    return {at(beat) + (at(next) - at(beat)) * u * u * (3 - 2 * u), 0};
  }
  const Place from = placeOfBeat(beat, beats);
  const Place to = placeOfBeat(next, beats);
  const float way = u * u * (3 - 2 * u);
  const float lift = 0.45f * u * (1 - u) * 4 * (1 - u);
  return {from.x + (to.x - from.x) * way, from.y + (to.y - from.y) * way + lift};
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const FacePlaces face(in.cells);
  const int beats = std::clamp(static_cast<int>(std::lround(in.beatsOfBar)), 2, kMaxBeats);
  const float figure = in.params.real(Figure);
  const double trail = in.params.number(Trail);
  const auto age = static_cast<float>(in.beatInBar - std::floor(in.beatInBar));
  const float first = in.beatInBar < 1 ? 1.f : 0.6f;
  const float stress = in.params.real(Stress) * first * exponential(-5 * age);
  // How far it is seen to move draws it out.
  const double seen = kSeenTogether_s / in.beatLength_s;
  const Place now = handAt(in.beatInBar + beats, beats, face.isLine());
  const Place before = handAt(in.beatInBar - seen + beats, beats, face.isLine());
  const float moved =
      figure * lengthOf((now.x - before.x) * face.halfWidth(), (now.y - before.y) * face.halfHeight());
  std::array<LightDot, kDots> dots;
  for (int n = 0; n < kDots; ++n) {
    const double back = trail * n / kDots;
    const Place hand = handAt(in.beatInBar - back + beats, beats, face.isLine());
    const float share = 1 - static_cast<float>(n) / kDots;
    const float reach =
        moved * share + in.params.real(Size) * (n == 0 ? 1 + 0.8f * stress : 0.6f + 0.4f * share);
    dots[static_cast<std::size_t>(n)] = {
        hand.x * figure * face.halfWidth(), hand.y * figure * face.halfHeight(), reach,
        in.palette.clamped(1 - share), (n == 0 ? 0.75f + 0.25f * stress : 0.45f * share * share)};
  }
  drawDots(in, face, dots, out);
}

}  // namespace

Effect baton() {
  return cellwise({
      .key = "baton",
      .name = "Baton",
      .summary = "A hand of light that beats time, in the figure of the bar.",
      .params = {numberParam("size", "Size", "", 0.02, 1, 0.28),
                 numberParam("figure", "Figure", "of the face", 0.1, 1, 0.9),
                 numberParam("trail", "Trail", "beats", 0, 3, 0.6, 0.05),
                 numberParam("stress", "Stress on the beat", "", 0, 1, 0.8)},
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
