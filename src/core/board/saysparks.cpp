// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/base/hash.h"
#include "core/board/say.h"
#include "core/effect/curves.h"
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
  const double grain = clip.fixed(Grain);
  const double wide = clip.hasRows() ? grain * 4 : 1;
  const Term rise = clip.param(Speed) * clip.seconds();
  const Term up = clip.place();
  const Term beside = clip.along(Axis::Columns);
  const Term coarse = clip.graph().noise(clip.seed(), beside * wide, up * grain - rise);
  const Term fine = clip.graph().noise(std::uint64_t{clip.seed()} + 1, beside * (wide * 2.3),
                                       up * (grain * 2.1) - rise * 3.1);
  const Term heat = (0.65 * coarse + 0.5 * fine) * (1.15 - eased(clip.number(0), clip.param(Height), up));
  return {heat, eased(clip.number(0.08), clip.number(0.37), heat)};
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
  enum { Across, Heads, Passes, Tail, Offset };
  const double passes = clip.fixed(Passes);
  const double heads = std::round(clip.fixed(Heads));
  const double offset = clip.hasRows() ? clip.fixed(Offset) * static_cast<double>(clip.cells().columns) : 0;
  const auto strings = clip.cells().along(Axis::Columns);
  const Term own = clip.cellwise([&](std::size_t i) {
    const double ahead = passes < 0 ? 1 - clip.placeOf(i) : clip.placeOf(i);
    return static_cast<double>(strings[i]) * offset / heads + ahead;
  });
  const Term moved = ClipTerms::partOf(clip.bars() * std::abs(passes));
  const double pace = std::abs(passes) / (clip.clip().beatLength_s * kBeatsOfPace);
  const double blur = edgeBlur(clip.cellWidth(), pace, heads);
  const Term turn = fractionOf((moved - own) * heads);
  const Term behind = turn - (1 - blur < turn);
  const Term gap = behind * (1.0 / clip.param(Tail));
  const Term rest = lower(1.0 - gap, clip.number(1));
  CellLight light{rest, choose(gap < 1, rest * rest, 0) * pastTerm(behind, clip.number(1 / blur))};
  light.palette = hotPalette(clip, [](float place) { return 1 - place; });
  return light;
}

CellLight drizzle(ClipTerms& clip) {
  enum { Across, Drops, Speed, Tail, Uneven };
  const double drops = clip.fixed(Drops);
  const double speed = clip.fixed(Speed);
  const double uneven = clip.fixed(Uneven);
  const auto stringOf = [&clip](std::size_t i) {
    return static_cast<std::uint64_t>(clip.hasRows() ? clip.cells().column[i] : 0);
  };
  // How many drops pass in a second, and where they are at its beginning.
  const Term pace = clip.cellwise([&](std::size_t i) {
    const double slow = uneven * 0.7 * static_cast<double>(chance(clip.seed(), stringOf(i), 7));
    return speed * (1 - slow) * drops;
  });
  const Term begins = clip.cellwise([&](std::size_t i) {
    return (1 - clip.placeOf(i)) * drops + 17 * static_cast<double>(chance(clip.seed(), stringOf(i)));
  });
  const Term string = clip.cellwise([&](std::size_t i) { return static_cast<double>(stringOf(i)); });
  const Term at = begins - pace * clip.seconds();
  const Term part = fractionOf(at);
  const Term gap = part * (1.0 / clip.param(Tail));
  // As wide as the cell and the way of a frame, for each string at its own pace.
  const Term perBlur = clip.cellwise([&](std::size_t i) {
    const double slow = uneven * 0.7 * static_cast<double>(chance(clip.seed(), stringOf(i), 7));
    return 1 / edgeBlur(clip.cellWidth(), speed * (1 - slow), drops);
  });
  const auto falls = [&](Term which) {
    return uneven * 0.5 <= clip.graph().chance(clip.seed() + 1, wordOf(string), wordOf(which));
  };
  const Term which = floorOf(at);
  const Term rest = 1.0 - gap;
  const Term body =
      choose(clip.graph().add(TermOp::And, gap < 1, falls(which)), rest * rest, 0) * pastTerm(part, perBlur);
  const Term head = choose(falls(which + 1.0), pastTerm(part - 1.0, perBlur), 0);
  const Term glow = body + head;
  CellLight light{glow, glow};
  light.palette = hotPalette(clip, [](float place) { return 1 - std::sqrt(place); });
  return light;
}

CellLight fireflies(ClipTerms& clip) {
  enum { Flies, Wander, Glow, Size };
  const int flies = static_cast<int>(std::lround(clip.fixed(Flies)));
  const Term t = clip.seconds() * clip.fixed(Wander);
  const Term turns = clip.seconds() / clip.fixed(Glow);
  const double size = clip.fixed(Size);
  const Term across = clip.hasRows() ? clip.x() : clip.cellwise([&](std::size_t i) {
    return 2 * static_cast<double>(clip.cells().along(Axis::Along)[i]) - 1;
  });
  const Term up = clip.hasRows() ? clip.y() : clip.number(0);
  Term glow = clip.number(0);
  Term hue = clip.number(static_cast<double>(chance(clip.seed(), 0, 9)));
  for (int k = 0; k < flies; ++k) {
    const auto own = static_cast<std::uint64_t>(k) * 4;
    const auto spot = [&](std::uint64_t seed) {
      return 2.6 * clip.graph().noise(clip.seed() + seed, t, clip.number(0.5)) - 1.3;
    };
    const double pace = 0.8 + 0.4 * static_cast<double>(chance(clip.seed(), own, 2));
    const Term phase = ClipTerms::partOf(turns * pace + static_cast<double>(chance(clip.seed(), own, 3)));
    const Term lit = choose(phase < 0.4, sineOf(phase * 1.25), 0);
    // In halves of its size: squares of what is farther would not fit.
    const auto off = [&](Term from, Term to) {
      const Term far = clip.graph().add(TermOp::Min, absOf(from - to) * (1 / size), clip.number(8));
      return far * far;
    };
    const Term away =
        clip.hasRows() ? off(across, spot(own)) + off(up, spot(own + 1)) : off(across, spot(own));
    const Term light = lit * exponentialOf(-away);
    hue =
        choose(glow < light,
               clip.number(static_cast<double>(chance(clip.seed(), static_cast<std::uint64_t>(k), 9))), hue);
    glow = higher(glow, light);
  }
  return {hue, glow};
}

CellLight snowfall(ClipTerms& clip) {
  enum { Flakes, Speed, Drift, Size, Lying };
  constexpr int kLevels = 3;
  Graph& graph = clip.graph();
  const bool isLine = !clip.hasRows();
  const double flakes = clip.fixed(Flakes);
  const double speed = clip.fixed(Speed);
  const double size = clip.fixed(Size);
  const Term t = clip.seconds();
  const Term up = isLine ? clip.number(0) : clip.y();
  const Term across = isLine ? 2.0 * clip.along(Axis::Along) : clip.x();
  Term glow = clip.number(0);
  for (int n = 0; n < kLevels; ++n) {
    const double grain = flakes * (1 + 0.5 * n);
    const Term fallen = t * (speed * grain / (1 + 0.6 * n));
    const Term sway = isLine ? clip.number(0)
                             : clip.param(Drift) * sineOf((t * 0.7 + n * 2.1) / (2 * kPi) + up * (1 / kPi));
    const Term none = clip.number(0);
    const Term gx = (across + sway) * grain + (isLine ? ClipTerms::partOf(fallen) : none);
    const Term gy = up * grain + (isLine ? none : ClipTerms::partOf(fallen));
    const Term boxes = wordOf(ClipTerms::stepOf(fallen));
    const Term nowhere = graph.wordConstant(0);
    const Term column = wordSum(wordOf(gx), isLine ? boxes : nowhere);
    const Term row = wordSum(wordOf(gy), isLine ? nowhere : boxes);
    const Term box = crossed(mixedWord(row), timesWord(column, 8191));
    const Term luck = mixedWord(
        crossed(graph.wordConstant(clip.seed() + static_cast<std::uint32_t>(n) * 77), mixedWord(box)));
    const Term dx = fractionOf(gx) - 0.25 - 0.5 * unitOfWord(luck);
    const Term dy = fractionOf(gy) - 0.25 - 0.5 * unitOfWord(graph.shiftWord(luck, 12));
    const Term off = isLine ? absOf(dx) : rootOf(dx * dx + dy * dy);
    glow =
        higher(glow, (1.0 - eased(clip.number(size * 0.4), clip.number(size * 0.6), off)) * (1 - 0.25 * n));
  }
  const Term ground = clip.along(Axis::Rows) < clip.param(Lying) * clip.share();
  return {higher(glow, ground), higher(glow, ground * 0.6)};
}

}  // namespace

const std::map<std::string, Saying>& sparkSayings() {
  static const std::map<std::string, Saying> all = {
      {"glints", glints},   {"frost", frost},         {"hearth", hearth},    {"comets", comets},
      {"drizzle", drizzle}, {"fireflies", fireflies}, {"snowfall", snowfall}};
  return all;
}

}  // namespace chispa::board
