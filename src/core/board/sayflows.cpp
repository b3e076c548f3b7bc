// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/base/curves.h"
#include "core/board/say.h"
#include "core/render/compiled.h"

// Effects that flow, as src/core/effect computes them.
namespace chispa::board {
namespace {

CellLight ribbon(ClipTerms& clip) {
  enum { Across, Repeats, Passes, Slant, Speed };
  const Term shift = ClipTerms::partOf(
      clip.paceDone(Speed, clip.clip().params.number(Repeats), clip.param(Passes) * clip.bars()));
  CellLight light{clip.place() * clip.param(Repeats) + clip.along(Axis::Rows) * clip.param(Slant) - shift,
                  clip.number(1)};
  light.goesRound = true;
  return light;
}

CellLight hueWheel(ClipTerms& clip) {
  enum { Across, Turns, Repeats, Chroma, Lightness, Speed };
  const auto chroma = static_cast<float>(clip.fixed(Chroma));
  const auto lightness = static_cast<float>(clip.fixed(Lightness));
  const Term shift =
      clip.paceDone(Speed, clip.clip().params.number(Repeats), clip.param(Turns) * clip.bars());
  CellLight light{clip.place() * clip.param(Repeats) - ClipTerms::partOf(shift), clip.number(1)};
  BoardPalette wheel{{}, true};
  for (int i = 0; i <= PaletteTable::kSteps; ++i) {
    const float turns = static_cast<float>(i) / PaletteTable::kSteps;
    const Rgb c = fromOkLab({lightness, chroma * cosineOfTurns(turns), chroma * chispa::sineOfTurns(turns)});
    wheel.entries.push_back({c.r, c.g, c.b});
  }
  light.palette = std::move(wheel);
  return light;
}

CellLight swell(ClipTerms& clip) {
  enum { Across, Waves, Passes, Depth, Sharpness, Speed };
  const Term shift = ClipTerms::partOf(
      clip.paceDone(Speed, clip.clip().params.number(Waves), clip.param(Passes) * clip.bars()));
  const Term wave = clamped(0.5 + 0.5 * cosineOf(clip.place() * clip.param(Waves) - shift));
  const Term lift = powerOf(wave, clip.param(Sharpness));
  const Term depth = clip.param(Depth);
  return {lift, 1.0 - depth + depth * lift};
}

CellLight ripples(ClipTerms& clip) {
  enum { Every, Speed, Width, Fade, CentreX, CentreY };
  constexpr int kMax = 12;
  const double period = clip.fixed(Every);
  const double speed = clip.fixed(Speed);
  const double width = clip.fixed(Width);
  const double cx = clip.fixed(CentreX);
  const double cy = clip.fixed(CentreY);
  double farthest = 0;
  const Term far = clip.cellwise([&](std::size_t i) {
    const double off = std::hypot(clip.xOf(i) - cx, clip.yOf(i) - cy);
    farthest = std::max(farthest, off);
    return off;
  });
  const Term now = clip.beats() / period;
  const Term latest = ClipTerms::stepOf(now);
  const Term begun = ClipTerms::partOf(now);
  Term glow = clip.number(0);
  Term hue = clip.number(0);
  // Rings that have left the zone behind are not computed.
  for (int k = 0; k < kMax && k * period * speed <= farthest + width; ++k) {
    const Term age = (begun + k) * period;
    const Term near = 1.0 - absOf(far - age * speed) / width;
    const Term own = choose(clip.number(0) < near, near * near, 0) *
                     exponentialOf(-(age * clip.param(Fade)) * speed) * (clip.number(k) <= latest);
    const Term number = clip.graph().add(TermOp::Word, latest - k);
    hue = choose(glow < own, clip.graph().chance(clip.seed(), number, clip.graph().wordConstant(0)), hue);
    glow = higher(glow, own);
  }
  return {hue, glow};
}

CellLight vanes(ClipTerms& clip) {
  enum { Arms, Turns, Twist, Edge, CentreX, CentreY };
  const double cx = clip.fixed(CentreX);
  const double cy = clip.fixed(CentreY);
  const double twist = clip.fixed(Twist);
  const double arms = std::round(clip.fixed(Arms));
  // Turns that change nothing are left out, so that the numbers stay small.
  const Term own = clip.cellwise([&](std::size_t i) {
    const double x = clip.xOf(i) - cx;
    const double y = clip.yOf(i) - cy;
    const double turns = (std::atan2(y, x) / (2 * kPi) + twist * std::hypot(x, y)) * arms;
    return turns - std::floor(turns);
  });
  const Term arm = fractionOf(own - ClipTerms::partOf(clip.param(Turns) * clip.bars()) * arms);
  const Term rim = lower(arm, 1.0 - arm) * 2;
  return {arm, eased(clip.number(0), clip.param(Edge), rim)};
}

CellLight slats(ClipTerms& clip) {
  enum { Across, Slats, Opens, Every, Stagger };
  constexpr double kRim = 0.15;
  const double slats = std::round(clip.fixed(Slats));
  const auto whichOf = [&clip, slats](std::size_t i) {
    return std::floor(static_cast<float>(clip.placeOf(i)) * static_cast<float>(slats));
  };
  const Term which = clip.cellwise([&](std::size_t i) { return static_cast<double>(whichOf(i)); });
  const Term off = clip.cellwise([&](std::size_t i) {
    return 2 * std::abs(clip.placeOf(i) * slats - static_cast<double>(whichOf(i)) - 0.5);
  });
  const Term begun = fractionOf(clip.bars() / clip.param(Every));
  const Term open =
      clip.param(Opens) * (0.5 - 0.5 * cosineOf(begun - which * clip.param(Stagger) * (1 / slats)));
  const Term place =
      clip.cellwise([&](std::size_t i) { return (static_cast<double>(whichOf(i)) + 0.5) / slats; });
  return {place, eased(off - kRim, clip.number(kRim), open * (1 + kRim) - kRim)};
}

/// How much of a thread covers a place of its repeat.
Term thread(ClipTerms& clip, Term place, double width) {
  const Term away = absOf(fractionOf(place) - 0.5);
  return 1.0 - eased(clip.number(width * 0.25), clip.number(width * 0.25), away);
}

CellLight weave(ClipTerms& clip) {
  enum { Across, Threads, Passes, Width, Speed };
  const double width = clip.fixed(Width);
  const Term shift = ClipTerms::partOf(
      clip.paceDone(Speed, clip.clip().params.number(Threads), clip.param(Passes) * clip.bars()));
  const Term along = clip.place() * clip.param(Threads);
  const Term other = clip.along(Axis::Rows);
  const Term there = thread(clip, along + other - shift, width);
  const Term sum = there + thread(clip, along - other + shift, width);
  const Term share = there / sum;
  const Rgb warp = clip.clip().palette->clamped(0.9f);
  const Rgb weft = clip.clip().palette->clamped(0.35f);
  const auto mixed = [&](float from, float to) {
    return static_cast<double>(from) + share * static_cast<double>(to - from);
  };
  CellLight light{clip.number(0), lower(sum, clip.number(1))};
  light.colour = {mixed(weft.r, warp.r), mixed(weft.g, warp.g), mixed(weft.b, warp.b)};
  return light;
}

/// A beat that counts: beats since it, and how strong it is.
struct PulseTerms {
  Term age;
  Term strength;
};

std::array<PulseTerms, 3> pulsesOf(ClipTerms& clip, int every, std::size_t accent) {
  constexpr double kHair = 1e-4;
  const Term inBar = clip.beatInBar() + kHair;
  const Term age = fractionOf(inBar);
  const Term none = clip.number(0), full = clip.number(1);
  const double bar = clip.beatsOfBar();
  if (every == 1)
    return {PulseTerms{inBar - bar, full}, PulseTerms{inBar, full}, PulseTerms{inBar + bar, full}};
  const Term isFirst = inBar < 1;
  const Term isSecond = choose(isFirst, none, inBar < 2);
  const Term isLast = bar - 1.001 < inBar;
  const Term soft = every == 2 ? full : 1.0 - clip.param(accent);
  const Term first = every == 2 ? none : full;
  return {PulseTerms{age - 1, choose(isLast, first, soft)}, PulseTerms{age, choose(isFirst, first, soft)},
          PulseTerms{age + 1, choose(isSecond, first, soft)}};
}

CellLight bloom(ClipTerms& clip) {
  enum { Across, Every, Fade, Spread, Accent };
  constexpr double kOpens = 0.18;
  const bool isFace = clip.hasRows() && clip.clip().params.axis(Across) == Axis::Along;
  const double corner =
      std::hypot(static_cast<double>(clip.cells().halfWidth), static_cast<double>(clip.cells().halfHeight));
  const Term off = clip.cellwise([&](std::size_t i) {
    return isFace ? std::hypot(clip.xOf(i), clip.yOf(i)) / corner : std::abs(2 * clip.placeOf(i) - 1);
  });
  Term glow = clip.number(0);
  for (const PulseTerms& pulse : pulsesOf(clip, clip.fixedChoice(Every), Accent)) {
    const Term age = pulse.age - clip.param(Spread) * off;
    const Term fallen = higher(age, clip.number(0)) / clip.param(Fade);
    glow = higher(glow, pulse.strength * clamped(1.0 + age * (1 / kOpens)) * exponentialOf(fallen * -3));
  }
  return {off, glow};
}

}  // namespace

const std::map<std::string, Saying>& flowSayings() {
  static const std::map<std::string, Saying> all = {
      {"ribbon", ribbon}, {"hue-wheel", hueWheel}, {"swell", swell}, {"ripples", ripples},
      {"vanes", vanes},   {"slats", slats},        {"weave", weave}, {"bloom", bloom}};
  return all;
}

}  // namespace chispa::board
