// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/base/curves.h"
#include "core/base/hash.h"
#include "core/board/say.h"
#include "core/effect/dots.h"
#include "core/effect/edges.h"

// Effects of sparks, as src/core/effect computes them.
namespace chispa::board {
namespace {

Term wordOf(Term number) {
  return number.graph->add(TermOp::Word, number);
}
Term mixedWord(Term word) {
  return word.graph->add(TermOp::MixWord, word);
}
Term unitOfWord(Term word) {
  return word.graph->add(TermOp::Unit, word);
}
Term wordSum(Term a, Term b) {
  return a.graph->add(TermOp::AddWord, a, b);
}
Term timesWord(Term a, std::uint32_t factor) {
  return a.graph->add(TermOp::TimesWord, a, a.graph->wordConstant(factor));
}
Term crossed(Term a, Term b) {
  return a.graph->add(TermOp::XorWord, a, b);
}

/// Each cell's own clock: how old its turn is, and the chance that decides about it.
struct CellTurn {
  Term age;
  Term luck;
};
CellTurn turnOf(ClipTerms& clip, Term clock) {
  Graph& graph = clip.graph();
  const Term index = clip.cellwise([](std::size_t i) { return static_cast<double>(i); });
  const Term own =
      mixedWord(crossed(timesWord(wordOf(index), kGoldenBits32), graph.wordConstant(clip.seed())));
  // Of 0 to 2: whole ones are turns that have begun meanwhile.
  const Term u = ClipTerms::partOf(clock) + unitOfWord(own);
  const Term luck = mixedWord(wordSum(wordSum(own, wordOf(ClipTerms::stepOf(clock))), wordOf(u)));
  return {fractionOf(u), luck};
}

CellLight glints(ClipTerms& clip) {
  enum { Density, Life, Rise };
  const CellTurn turn = turnOf(clip, clip.seconds() / clip.param(Life));
  const Term rise = clip.param(Rise);
  const Term fall = (1.0 - turn.age) * (1.0 / (1.0 - rise));
  const Term glow = choose(turn.age < rise, turn.age * (1.0 / rise), fall * fall);
  return {unitOfWord(clip.graph().shiftWord(turn.luck, 12)),
          choose(unitOfWord(turn.luck) < clip.param(Density), glow, 0)};
}

CellLight frost(ClipTerms& clip) {
  enum { Density, Rate, Length, White };
  const CellTurn turn = turnOf(clip, clip.seconds() * clip.param(Rate));
  const Term isLit = clip.graph().add(TermOp::And, unitOfWord(turn.luck) < clip.param(Density),
                                      turn.age < clip.param(Length));
  const Term white = clip.param(White);
  const auto colours = clip.graph().lookUp(paletteOf(*clip.clip().palette, false),
                                           unitOfWord(clip.graph().shiftWord(turn.luck, 12)));
  CellLight light{clip.number(0), isLit};
  light.colour = {colours[0] + (1.0 - colours[0]) * white, colours[1] + (1.0 - colours[1]) * white,
                  colours[2] + (1.0 - colours[2]) * white};
  return light;
}

CellLight hearth(ClipTerms& clip) {
  enum { Across, Speed, Grain, Height };
  constexpr int kMaxTongues = 12;
  const Axis axis = clip.cells().usable(clip.clip().params.axis(Across));
  const bool isOne = !clip.hasRows() && (axis == Axis::Along || axis == Axis::Columns);
  const int count = isOne ? 1 : static_cast<int>(std::lround(clip.fixed(Grain))) + 2;
  if (count > kMaxTongues) clip.refuse("it has more than ten tongues side by side");
  Graph& graph = clip.graph();
  const Term half = clip.number(0.5);
  const Term t = clip.param(Speed) * clip.seconds();
  const Term rise = t * 1.7;
  const Term y = clip.place() * (1.0 / clip.param(Height));
  const Axis other = axis == Axis::Columns ? Axis::Rows : clip.cells().usable(Axis::Columns);
  double low = 1e9, high = -1e9;
  const Term x = clip.cellwise([&](std::size_t i) {
    const double own = isOne ? 0 : static_cast<double>(clip.cells().along(other)[i]) * (count - 2);
    low = std::min(low, own);
    high = std::max(high, own);
    return own;
  });
  const Term lick = graph.noise(clip.seed() + 9, x * 2.6, y * 4.2 - rise * 1.9) - 0.5;
  const Term licked = 0.5 * lick * lower(3.0 * y, clip.number(1));
  Term heat = clip.number(0);
  for (int k = 0; k < std::min(count, kMaxTongues); ++k) {
    const auto own = clip.seed() + static_cast<std::uint64_t>(k) * 16;
    const auto swing = [&](std::uint64_t which, double pace) {
      return graph.noise(own + which, t * pace, half) - 0.5;
    };
    const double foot = k - 0.5 + 0.4 * (static_cast<double>(chance(own, 1)) - 0.5);
    // What licks at none of these cells is left out.
    constexpr double kReach = 1.8;
    if (!isOne && (foot < low - kReach || foot > high + kReach)) continue;
    const Term height = higher(0.72 + 0.7 * swing(0, 1.1) + 0.35 * swing(1, 3.1), clip.number(0.15));
    const Term bend = 1.1 * swing(2, 0.7) + 0.5 * swing(3, 2.3);
    const Term light = 1.0 + 0.24 * swing(4, 5.7);
    const Term share = y * (1.0 / height) + licked;
    const Term width = higher(0.78 * (1.0 - 0.8 * share), clip.number(0.05));
    const Term off = isOne ? clip.number(0) : absOf(x - foot - bend * share * share) / width;
    const Term body = (1.0 - eased(clip.number(0.2), clip.number(0.8), off)) *
                      (1.0 - eased(clip.number(0.55), clip.number(0.45), share));
    heat = higher(heat, body * light * (1.0 - 0.75 * share));
  }
  const Term embers = 0.55 * (1.0 - eased(clip.number(0), clip.number(0.16), y));
  const Term all = higher(heat, embers);
  const Term hot = lower(all + 0.25 * all * embers, clip.number(1));
  return {hot, eased(clip.number(0.02), clip.number(0.48), hot)};
}

/// The palette with the white heat of each of its places in it; `behind` is how far behind the head that is.
BoardPalette hotPalette(ClipTerms& clip, const std::function<float(float place)>& behind) {
  BoardPalette palette = paletteOf(*clip.clip().palette, false);
  const auto last = static_cast<float>(palette.entries.size() - 1);
  for (std::size_t i = 0; i < palette.entries.size(); ++i) {
    const float white = heatOf(behind(static_cast<float>(i) / last));
    for (float& channel : palette.entries[i]) channel += (1 - channel) * white;
  }
  return palette;
}

CellLight comets(ClipTerms& clip) {
  enum { Across, Heads, Passes, Tail, Offset, Speed, Hard = Speed + 2 };
  const double passes = clip.fixed(Passes);
  const double pace = clip.pacePerSecond(Speed, 1, passes / (clip.clip().beatLength_s * clip.beatsOfBar()));
  const double heads = std::round(clip.fixed(Heads));
  const double offset = clip.hasRows() ? clip.fixed(Offset) * static_cast<double>(clip.cells().columns) : 0;
  const auto strings = clip.cells().along(Axis::Columns);
  const Term own = clip.cellwise([&](std::size_t i) {
    const double ahead = pace < 0 ? 1 - clip.placeOf(i) : clip.placeOf(i);
    return static_cast<double>(strings[i]) * offset / heads + ahead;
  });
  clip.refuseIfHard(Hard);
  const double sign = pace < 0 ? -1 : 1;
  const Term moved = ClipTerms::partOf(clip.paceDone(Speed, 1, clip.bars() * passes) * sign);
  const double blur = edgeBlur(clip.cellWidth(), std::abs(pace), heads);
  const Term turn = fractionOf((moved - own) * heads);
  const Term behind = turn - (1 - blur < turn);
  const Term gap = (behind - blur / 2) * (1.0 / clip.param(Tail));
  const Term rest = lower(1.0 - gap, clip.number(1));
  CellLight light{rest, choose(gap < 1, rest * rest, 0) * pastTerm(behind, clip.number(1 / blur))};
  light.palette = hotPalette(clip, [](float place) { return 1 - place; });
  return light;
}

CellLight drizzle(ClipTerms& clip) {
  enum { Across, Drops, Speed, Tail, Uneven, Metric, Hard = Metric + 2 };
  const double drops = clip.fixed(Drops);
  const double speed = std::abs(clip.pacePerSecond(Metric, 1, clip.fixed(Speed)));
  clip.refuseIfHard(Hard);
  const double uneven = clip.fixed(Uneven);
  const auto columnOf = [&clip](std::size_t i) {
    return static_cast<std::uint32_t>(clip.hasRows() ? clip.cells().column[i] : 0);
  };
  const auto stringOf = [&](std::size_t i) { return mixBits32(clip.seed() ^ columnOf(i) * kGoldenBits32); };
  // How many drops pass in a second, and where they are at its beginning.
  const Term pace = clip.cellwise([&](std::size_t i) {
    const double slow = uneven * 0.7 * static_cast<double>(unitOf32(stringOf(i) << 12));
    return speed * (1 - slow) * drops;
  });
  const Term begins = clip.cellwise([&](std::size_t i) {
    return (1 - clip.placeOf(i)) * drops + 17 * static_cast<double>(unitOf32(stringOf(i)));
  });
  const Term column = clip.cellwise([&](std::size_t i) { return static_cast<double>(columnOf(i)); });
  const Term string =
      mixedWord(crossed(clip.graph().wordConstant(clip.seed()), timesWord(wordOf(column), kGoldenBits32)));
  const Term at = begins - pace * clip.seconds();
  const Term behind = 1.0 - fractionOf(at);
  // As wide as the cell and the way of a frame, for each string at its own pace.
  const Term perBlur = clip.cellwise([&](std::size_t i) {
    const double slow = uneven * 0.7 * static_cast<double>(unitOf32(stringOf(i) << 12));
    return 1 / edgeBlur(clip.cellWidth(), speed * (1 - slow), drops);
  });
  const Term gap = higher(behind - 0.5 / perBlur, clip.number(0)) * (1.0 / clip.param(Tail));
  const auto falls = [&](Term which) {
    return uneven * 0.5 <= unitOfWord(mixedWord(wordSum(string, wordOf(which))));
  };
  const Term coming = floorOf(at);
  const Term rest = 1.0 - gap;
  const Term body = choose(clip.graph().add(TermOp::And, gap < 1, falls(coming + 1.0)), rest * rest, 0) *
                    pastTerm(behind, perBlur);
  const Term head = choose(falls(coming), pastTerm(behind - 1.0, perBlur), 0);
  CellLight light{choose(clip.number(0) < head, clip.number(1), higher(rest, clip.number(0))), body + head};
  light.palette = hotPalette(clip, [](float place) { return 1 - place; });
  return light;
}

CellLight fireflies(ClipTerms& clip) {
  enum { Flies, Wander, Glow, Size };
  const FacePlaces face(clip.cells());
  const int flies = static_cast<int>(std::lround(clip.fixed(Flies)));
  const Term t = clip.seconds() * clip.fixed(Wander);
  const Term turns = clip.seconds() / clip.fixed(Glow);
  const DotReach reach = face.reachOf(static_cast<float>(1.5 * clip.fixed(Size)));
  const double perReach = std::sqrt(static_cast<double>(reach.perSquare));
  // In reaches, so that the squares of what is far fit.
  const Term x = clip.cellwise([&](std::size_t i) { return static_cast<double>(face.x(i)) * perReach; });
  const Term y = clip.cellwise([&](std::size_t i) { return static_cast<double>(face.y(i)) * perReach; });
  const Term none = clip.number(0);
  Term hue = none;
  Term covers = none;
  for (int k = 0; k < flies; ++k) {
    const auto own = static_cast<std::uint64_t>(k) * 4;
    const auto spot = [&](std::uint64_t way, float half) {
      const double wide = static_cast<double>(half) * perReach;
      return clip.graph().noise(clip.seed() + own + way, t, clip.number(0.5)) * (2.6 * wide) - 1.3 * wide;
    };
    const double pace = 0.8 + 0.4 * static_cast<double>(chance(clip.seed(), own, 2));
    const Term u = ClipTerms::partOf(turns * pace + static_cast<double>(chance(clip.seed(), own, 3))) * 2.5;
    const Term lit = eased(none, clip.number(0.35), u) *
                     (1.0 - eased(clip.number(0.35), clip.number(0.65), u)) *
                     static_cast<double>(reach.light);
    const auto off = [&](Term from, Term to) {
      const Term far = lower(absOf(from - to), clip.number(2));
      return far * far;
    };
    Term away = off(x, spot(0, face.halfWidth()));
    if (!face.isLine()) away = away + off(y, spot(1, face.halfHeight()));
    const Term near = higher(1.0 - away, none);
    const Term light = lit * near * near;
    covers = covers + light;
    hue = hue + light * static_cast<double>(chance(clip.seed(), static_cast<std::uint64_t>(k), 9));
  }
  return {hue * (1.0 / higher(covers, clip.number(0.001))), lower(covers, clip.number(1))};
}

CellLight snowfall(ClipTerms& clip) {
  enum { Flakes, Speed, Drift, Size, Lying, Many };
  constexpr int kDepths = 3;
  constexpr double kRoom = 0.36;
  const FacePlaces face(clip.cells());
  Graph& graph = clip.graph();
  const bool isLine = face.isLine();
  const double flakes = clip.fixed(Flakes);
  const double speed = clip.fixed(Speed);
  const Term t = clip.seconds();
  const Term up = clip.cellwise([&](std::size_t i) { return static_cast<double>(face.y(i)); });
  const Term across = clip.cellwise([&](std::size_t i) { return static_cast<double>(face.x(i)); });
  const Term none = clip.number(0);
  Term glow = none;
  for (int n = 0; n < kDepths; ++n) {
    const double grain = flakes / 2 * (1 + 0.6 * n);
    const double reach =
        std::min(kRoom, std::max(0.55 * clip.fixed(Size), 1.1 * static_cast<double>(face.cell()) * grain));
    const Term fallen = t * (speed * grain / (1 + 0.6 * n));
    const Term sway =
        isLine ? none : clip.param(Drift) * sineOf((t * 0.4 + n * 2.1) / (2 * kPi) + up * (0.5 / kPi));
    const Term gx = (across + sway) * grain + (isLine ? ClipTerms::partOf(fallen) : none);
    const Term gy = up * grain + (isLine ? none : ClipTerms::partOf(fallen));
    const Term boxes = wordOf(ClipTerms::stepOf(fallen));
    const Term nowhere = graph.wordConstant(0);
    const Term column = wordSum(wordOf(gx), isLine ? boxes : nowhere);
    const Term row = wordSum(wordOf(gy), isLine ? nowhere : boxes);
    const Term box = crossed(mixedWord(row), timesWord(column, 8191));
    const Term luck = mixedWord(
        crossed(graph.wordConstant(clip.seed() + static_cast<std::uint32_t>(n) * 77), mixedWord(box)));
    const double room = 1 - 2 * reach;
    const auto off = [&](Term place, Term chanceOf) {
      const Term far = (fractionOf(place) - reach - room * chanceOf) * (1 / reach);
      return far * far;
    };
    Term away = off(gx, unitOfWord(luck));
    if (!isLine) away = away + off(gy, unitOfWord(graph.shiftWord(luck, 12)));
    const Term near = higher(1.0 - away, none);
    const Term isThere = unitOfWord(mixedWord(luck)) < clip.param(Many);
    glow = higher(glow, near * near * isThere * (1 - 0.28 * n));
  }
  const Term lying = clip.param(Lying) * clip.share();
  const double row = chispa::cellWidth(clip.cells(), Axis::Rows);
  const Term ground = pastTerm(lying - clip.along(Axis::Rows), clip.number(1 / row)) *
                      choose(none < lying, clip.number(0.6), 0);
  const Term light = higher(glow, ground);
  const Term white = 0.7 * glow;
  const auto colours = graph.lookUp(paletteOf(*clip.clip().palette, false), light);
  CellLight said{none, light};
  said.colour = {colours[0] + (1.0 - colours[0]) * white, colours[1] + (1.0 - colours[1]) * white,
                 colours[2] + (1.0 - colours[2]) * white};
  return said;
}

}  // namespace

const std::map<std::string, Saying>& sparkSayings() {
  static const std::map<std::string, Saying> all = {
      {"glints", glints},   {"frost", frost},         {"hearth", hearth},    {"comets", comets},
      {"drizzle", drizzle}, {"fireflies", fireflies}, {"snowfall", snowfall}};
  return all;
}

}  // namespace chispa::board
