// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "core/board/say.h"
#include "core/effect/edges.h"

// Effects of steps and plain ones, as src/core/effect computes them.
namespace chispa::board {
namespace {

/// What lies on the very edge of two steps counts for the later one.
constexpr double kEdge = 1.0 / 8192;

CellLight chase(ClipTerms& clip) {
  enum { Across, Period, Lit, Steps, Soft, Speed };
  const auto period = static_cast<double>(std::lround(clip.fixed(Period)));
  const double lit = clip.fixed(Lit);
  const double asked = clip.fixed(Soft);
  const auto count = static_cast<double>(clip.cells().count());
  const double lamps = clip.pacePerSecond(Speed, count, clip.fixed(Steps) / clip.clip().beatLength_s);
  const double soft = asked > 0 ? std::max(asked, lampBlur(lamps)) : 0;
  const Term moved = clip.paceDone(Speed, count, clip.param(Steps) * clip.beats());
  const Term lamp = clip.cellwise([&](std::size_t i) { return std::floor(clip.placeOf(i) * count); });
  const Term at = lamp - (soft > 0 ? moved : ClipTerms::stepOf(moved));
  const Term part = moduloOf(at, period);
  const Term glow = soft > 0 ? eased(clip.number(0), clip.number(soft), part) *
                                   (1.0 - eased(clip.number(lit), clip.number(soft), part))
                             : part < lit - 1e-3;
  constexpr double kColours = 5;
  // As numbers without a sign wrap around below 0.
  const Term group = floorOf((at - part) / period + kEdge);
  const Term which = moduloOf(group + (group < 0), kColours);
  return {(which + 0.5) * (1 / kColours), glow};
}

CellLight turnabout(ClipTerms& clip) {
  enum { Across, Parts, Every, Fade, Rest };
  const auto parts = static_cast<float>(std::lround(clip.fixed(Parts)));
  const Term turns = clip.beats() / clip.param(Every);
  const Term odd = clip.cellwise([&](std::size_t i) {
    const float at = std::min(static_cast<float>(clip.placeOf(i)) * parts, parts - 1);
    return static_cast<long>(at) & 1 ? 1.0 : 0.0;
  });
  const Term isOff = moduloOf(odd + ClipTerms::stepOf(turns), 2);
  const Term rise = eased(clip.number(0), clip.param(Fade), ClipTerms::partOf(turns));
  const Term rest = clip.param(Rest);
  const Term share = choose(isOff, 1.0 - rise, rise);
  return {choose(odd, clip.number(0.85), 0.2), rest + (1.0 - rest) * share};
}

CellLight unveil(ClipTerms& clip) {
  enum { Across, From, Edge, Band, Over };
  const int from = clip.fixedChoice(From);
  const Term edge = clip.param(Edge);
  const double band = clip.fixed(Band);
  const double over = clip.fixed(Over);
  const Term share = over > 0 ? lower(clip.share() / over, clip.number(1)) : clip.number(1);
  const Term front = share * (1.0 + edge + band);
  const Term at = clip.cellwise([&](std::size_t i) {
    const double place = clip.placeOf(i);
    const double middle = std::abs(2 * place - 1);
    return from == 0 ? place : from == 1 ? 1 - place : from == 2 ? middle : 1 - middle;
  });
  const Term ahead = eased(at, edge, front);
  return {at, band > 0 ? ahead - eased(at + band, edge, front) : ahead};
}

CellLight pour(ClipTerms& clip) {
  enum { Across, Way, Edge, Then };
  const bool backwards = clip.fixedChoice(Way) == 1;
  const bool drains = clip.fixedChoice(Then) == 1;
  const Term edge = clip.param(Edge);
  const Term u = clip.share();
  const Term isDraining = drains ? clip.number(0.5) < u : clip.number(0);
  const Term share = drains ? 2.0 * u - isDraining : u;
  const Term at =
      clip.cellwise([&](std::size_t i) { return backwards ? 1 - clip.placeOf(i) : clip.placeOf(i); });
  const Term filled = eased(at, edge, share * (1.0 + edge));
  return {at, choose(isDraining, 1.0 - filled, filled)};
}

CellLight parade(ClipTerms& clip) {
  enum { Across, Groups, Lit, Steps, Glide, Speed };
  const double groups = clip.fixed(Groups);
  const double glide = clip.fixed(Glide);
  constexpr double kStepsPerGroup = 3;
  const Term steps = clip.paceDone(Speed, groups * kStepsPerGroup, clip.param(Steps) * clip.beats());
  Term moved = ClipTerms::stepOf(steps);
  if (glide > 0) moved = moved + eased(clip.number(0), clip.number(glide), ClipTerms::partOf(steps));
  const Term place = clip.cellwise([&](std::size_t i) { return clip.placeOf(i) * groups; });
  const Term at = place - moved / kStepsPerGroup + kEdge;
  constexpr double kColours = 4;
  const auto colourOf = [&](Term block) { return (moduloOf(block, kColours) + 0.5) * (1 / kColours); };
  const Term part = fractionOf(at);
  if (glide <= 0) return {colourOf(floorOf(at)), part < clip.param(Lit)};
  // Where a cell has parts of two blocks it has the colour of the nearer: they seldom touch.
  const double perSecond =
      clip.pacePerSecond(Speed, groups * kStepsPerGroup, clip.fixed(Steps) / clip.clip().beatLength_s);
  const double blocks = std::abs(perSecond) / kStepsPerGroup;
  const double blur = edgeBlur(clip.cellWidth(), blocks / groups, groups);
  const auto past = [&](Term beyond) { return pastTerm(beyond, clip.number(1 / blur)); };
  const Term lit = clip.param(Lit);
  const Term own = past(part) - past(part - lit);
  const Term next = past(part - 1.0);
  const Term light = own + (1.0 - past(part + 1.0 - lit)) + next;
  return {colourOf(floorOf(at) + (own < next)), lower(light, clip.number(1))};
}

CellLight stack(ClipTerms& clip) {
  enum { Across, Bricks, PerBeat, Gap, Clears, Hard };
  const double bricks = std::round(clip.fixed(Bricks));
  const double gap = clip.fixed(Gap);
  clip.refuseIfHard(Hard);
  const bool clears = clip.fixed(Clears) != 0;
  const Term laid = clip.beats() * clip.param(PerBeat);
  const Term round = moduloOf(ClipTerms::stepOf(laid), clears ? 2 * bricks : bricks + 1);
  const Term fall = ClipTerms::partOf(laid);
  const Term isClearing = clears ? clip.number(bricks) <= round : clip.number(0);
  const Term down = choose(isClearing, round - bricks, 0);
  const Term lying = lower(round, clip.number(bricks));
  const auto atOf = [&](std::size_t i) {
    return static_cast<double>(static_cast<float>(clip.placeOf(i)) * static_cast<float>(bricks));
  };
  const Term which = clip.cellwise([&](std::size_t i) { return std::floor(atOf(i)); });
  const Term isBrick =
      clip.cellwise([&](std::size_t i) { return atOf(i) - std::floor(atOf(i)) > 1 - gap ? 0.0 : 1.0; });
  Graph& graph = clip.graph();
  const auto both = [&](Term a, Term b) { return graph.add(TermOp::And, a, b); };
  const Term isStanding = both(both(which < lying, down <= which), isBrick);
  const Term going = both(isClearing, graph.add(TermOp::Equal, which, down));
  const Term standing = choose(isStanding, choose(going, 1.0 - fall, clip.number(1)), 0);
  const Term at = clip.cellwise(atOf);
  const Term room = bricks - lying;
  const Term flying = bricks - fall * fall * room;
  const Term isOneFlying = both(graph.add(TermOp::Not, isClearing), lying < bricks);
  const Term pace = room * (2.0 * kSeenTogether_s / clip.clip().beatLength_s) * clip.param(PerBeat);
  const Term blur = pace * fall + clip.cellWidth() * bricks;
  const auto past = [&](Term beyond) { return pastTerm(beyond, 1.0 / blur); };
  const Term passing = choose(isOneFlying, past(at - flying) - past(at - flying - (1 - gap)), 0);
  return {choose(standing < passing, lying * (1 / bricks), (which + 0.5) * (1 / bricks)),
          higher(standing, passing)};
}

CellLight gauge(ClipTerms& clip) {
  enum { Across, Value, Edge, Peak, Colours, Marks, Rest, Hard };
  const Term value = clip.param(Value);
  const double cell = clip.cellWidth();
  const double peak = clip.fixed(Peak);
  const double marks = std::round(clip.fixed(Marks));
  clip.refuseIfHard(Hard);
  const Term at = clip.place();
  const Term edge = higher(clip.param(Edge), clip.number(cell));
  Term light = pastTerm(value * (1.0 + edge) - edge * 0.5 - at, 1.0 / edge);
  if (peak > 0) {
    const Term perWidth = clip.number(1 / std::max(cell, peak * 0.5));
    const Term tip = pastTerm(at - value + peak, perWidth) - pastTerm(at - value, perWidth);
    light = higher(light * 0.4, tip);
  }
  const double gap = std::max(0.25, std::min(0.8, cell * marks));
  const Term mark = clip.cellwise([&](std::size_t i) {
    const double inMark = clip.placeOf(i) * marks - std::floor(clip.placeOf(i) * marks);
    return marks > 0 ? static_cast<double>(past(static_cast<float>(std::min(inMark, 1 - inMark) - gap / 2),
                                                static_cast<float>(cell * marks)))
                     : 1.0;
  });
  const Term rest = clip.param(Rest);
  return {clip.fixedChoice(Colours) == 1 ? value : at, mark * (rest + (1.0 - rest) * light)};
}

CellLight strobe(ClipTerms& clip) {
  enum { Rate, Flash, Sync, Scatter };
  constexpr double kSafe_hz = 3;
  const CompiledClip& own = clip.clip();
  const double allowed = std::min(clip.fixed(Rate), kSafe_hz / std::max(own.speed, 0.01));
  const double most = allowed * own.shortestBeat_s;
  const double perBeat = most >= 1 ? std::floor(most) : 1 / std::ceil(1 / std::max(most, 0.01));
  const Term turns = clip.fixed(Sync) != 0 ? clip.beats() * perBeat : clip.seconds() * allowed;
  const double scatter = clip.fixed(Scatter);
  Graph& graph = clip.graph();
  const Term turn = graph.add(TermOp::Word, ClipTerms::stepOf(turns));
  Term isOn = ClipTerms::partOf(turns) < clip.param(Flash);
  if (scatter > 0) {
    const Term index = clip.cellwise([](std::size_t i) { return static_cast<double>(i); });
    const Term luck = graph.chance(clip.seed(), graph.add(TermOp::Word, index), turn);
    isOn = graph.add(TermOp::And, isOn, scatter <= luck);
  }
  return {graph.chance(clip.seed(), turn, graph.wordConstant(0)), isOn};
}

CellLight hold(ClipTerms& clip) {
  enum { Across, Spread, Place, Level };
  CellLight light{clip.param(Place) + (clip.place() - 0.5) * clip.param(Spread), clip.number(1)};
  light.level = clip.param(Level);
  return light;
}

CellLight black(ClipTerms& clip) {
  enum { Across, From, To };
  const Term at = clip.place();
  CellLight light{clip.number(0),
                  clip.graph().add(TermOp::And, clip.param(From) <= at, at <= clip.param(To))};
  light.colour = {clip.number(0), clip.number(0), clip.number(0)};
  return light;
}

}  // namespace

const std::map<std::string, Saying>& stepSayings() {
  static const std::map<std::string, Saying> all = {
      {"chase", chase}, {"turnabout", turnabout}, {"unveil", unveil}, {"pour", pour}, {"parade", parade},
      {"stack", stack}, {"gauge", gauge},         {"strobe", strobe}, {"hold", hold}, {"black", black}};
  return all;
}

}  // namespace chispa::board
