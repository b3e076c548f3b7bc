// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"
#include "core/zone/closure.h"

namespace chispa {
namespace {

enum { Across, Range, Speed, Length, Notes, Metric, Hard = Metric + 2 };

constexpr int kMax = 16;

struct Note {
  float age;
  float from;
  float hue;
};

/// The latest notes that sound: onsets of the chosen range, or, where there is no music, every beat.
int latestNotes(const EffectInput& in, double longest_s, Note (&notes)[kMax]) {
  int found = 0;
  const double places = std::round(in.params.number(Notes));
  const auto add = [&](std::uint64_t number, double age) {
    const auto place = std::floor(static_cast<double>(chance(in.seed, number)) * places);
    notes[found++] = {static_cast<float>(age), static_cast<float>((place + 0.5) / places),
                      static_cast<float>((place + 0.5) / places)};
  };
  if (!in.music) {
    for (auto n = static_cast<long>(std::floor(in.beats)); n >= 0 && found < kMax; --n) {
      const double age = (in.beats - static_cast<double>(n)) * in.beatLength_s;
      if (age > longest_s) break;
      add(static_cast<std::uint64_t>(n), age);
    }
    return found;
  }
  const auto& onsets = in.music->onsets[static_cast<std::size_t>(in.params.choice(Range))];
  auto next = std::upper_bound(onsets.begin(), onsets.end(), in.at);
  while (next != onsets.begin() && found < kMax) {
    --next;
    const double age = seconds(in.at - *next);
    if (age > longest_s || age > in.t_s) break;
    add(in.music->onsetsBefore[static_cast<std::size_t>(in.params.choice(Range))] +
            static_cast<std::uint64_t>(next - onsets.begin()),
        age);
  }
  return found;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto speed =
      static_cast<float>(std::abs(paceOf(in, Metric, 1, {0, in.params.number(Speed)}).perSecond));
  const float length = in.params.real(Length);
  // The front of a note is as soft as a cell and its way in a frame, and never hard.
  constexpr float kSoft = 0.05f;
  const auto front = in.params.isOn(Hard) ? kHardEdge
                                          : kSoft + static_cast<float>(cellWidth(in)) +
                                                speed * static_cast<float>(kSeenTogether_s);
  constexpr float kAttack_s = 0.06f;
  const bool closed = isClosed(in.cells, in.cells.usable(in.params.axis(Across)));
  Note notes[kMax];
  const int sounding = latestNotes(in, static_cast<double>(length), notes);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float glow = 0;
    float hue = 0;
    for (int k = 0; k < sounding; ++k) {
      // A note runs both ways from its own place and leaves light behind it.
      const float off = apart(in.place[i], notes[k].from, closed);
      const float behind = notes[k].age * speed - off;
      const float ringing = 1 - notes[k].age / length;
      const float own = easeBetween(0, kAttack_s, notes[k].age) * ringing * ringing * past(behind, front) *
                        exponential(-4 * (behind > 0 ? behind : 0));
      if (own > glow) hue = notes[k].hue;
      glow = higher(glow, own);
    }
    return {hue, glow};
  });
}

}  // namespace

Effect carillon() {
  return cellwise({
      .key = "carillon",
      .name = "Carillon",
      .summary = "Every note that is struck sends light running from a place of its own.",
      .params = across(
          Axis::Along,
          hardOrSoft(withPace(
              {choiceParam("range", "Follows",
                           {{"low", "low notes"}, {"middle", "middle notes"}, {"high", "high notes"}}, 2),
               numberParam("speed", "Runs", "zones per second", 0.05, 5, 0.6, 0.05),
               numberParam("length", "Sounds for", "s", 0.1, 4, 0.9, 0.1),
               numberParam("notes", "Places", "", 1, 48, 12, 1)}))),
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
