// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/clipterms.h"

#include <algorithm>
#include <cmath>

#include "core/colour/lightness.h"
#include "core/effect/pace.h"
#include "core/render/renderer.h"

namespace chispa::board {
namespace {

/// At the instant of a step it counts as taken, though the board's numbers may be a hair below it.
constexpr double kHair_s = 0.0002;

Term aHairLater(Term time) {
  const Graph::Node& node = (*time.graph)[time];
  return node.op == TermOp::Ramp ? time + std::abs(node.rate) * kHair_s : time;
}

/// Straight lines that stay within `tolerance` of the points (Douglas, Peucker 1973).
void simplify(const std::vector<std::pair<double, double>>& points, std::size_t first, std::size_t last,
              double tolerance, std::vector<std::pair<double, double>>& kept) {
  double worst = tolerance;
  std::size_t at = first;
  for (std::size_t i = first + 1; i < last; ++i) {
    const double share = (points[i].first - points[first].first) / (points[last].first - points[first].first);
    const double off = std::abs(points[first].second + (points[last].second - points[first].second) * share -
                                points[i].second);
    if (off <= worst) continue;
    worst = off;
    at = i;
  }
  if (at == first) return kept.push_back(points[last]);
  simplify(points, first, at, tolerance, kept);
  simplify(points, at, last, tolerance, kept);
}

}  // namespace

ClipTerms::ClipTerms(Graph& graph, const CompiledClip& clip, const ZoneCells& cells,
                     const std::vector<std::size_t>& kept, const SceneTime& time)
    : graph_(graph), clip_(clip), cells_(cells), kept_(kept), time_(time) {
  findPlaces();
}

void ClipTerms::findPlaces() {
  const Axis axis = axisOf(clip_, clip_.params, cells_);
  if (axis != Axis::Plane) {
    const auto places = cells_.along(axis);
    places_.assign(places.begin(), places.end());
    return;
  }
  places_.resize(static_cast<std::size_t>(cells_.count()));
  const ParamRoles& roles = clip_.effect->roles;
  planePlaces(cells_, fixed(roles.turn.value()), fixed(roles.tilt.value()), places_);
}

void ClipTerms::refuse(std::string why) {
  if (!refusal_) refusal_ = std::move(why);
}

Term ClipTerms::alongClip() {
  if (time_.isLook) {
    const double whole_s = std::max(1e-3, chispa::seconds(clip_.whole));
    return fractionOf(graph_.ramp(0, 1 / whole_s));
  }
  const double length_s = std::max(1e-6, chispa::seconds(clip_.length));
  return graph_.ramp(-chispa::seconds(clip_.start) / length_s, 1 / length_s);
}

Term ClipTerms::moved(const Motion& motion) {
  Term driven = graph_.constant(0);
  switch (motion.driver) {
    case Driver::Curve: {
      std::vector<std::pair<double, double>> points;
      for (const CurvePoint& point : motion.points) points.emplace_back(point.at, point.value);
      driven = alongLines(alongClip(), points);
      break;
    }
    case Driver::BeatPhase:
      driven = partOf(inTime([this](Micros t) { return time_.grid.beatAt(t); }, 1 / time_.beat_s));
      break;
    case Driver::BarPhase:
      driven = partOf(
          inTime([this](Micros t) { return time_.grid.barAt(t); }, 1 / (time_.beat_s * time_.beatsOfBar)));
      break;
    case Driver::Level:
    case Driver::Band:
    case Driver::Onset:
      refuse("it follows the music");
      break;
    case Driver::Parameter:
      refuse("one of its numbers follows another");
      break;
  }
  return driven * (motion.high - motion.low) + motion.low;
}

Term ClipTerms::param(std::size_t i) {
  for (const CompiledMotion& motion : clip_.motions)
    if (motion.param == i)
      return lower(higher(moved(motion.motion), graph_.constant(motion.least)), graph_.constant(motion.most));
  return graph_.constant(clip_.params.number(i));
}

double ClipTerms::fixed(std::size_t i) {
  for (const CompiledMotion& motion : clip_.motions)
    if (motion.param == i) refuse("“" + clip_.effect->params[i].label + "” moves");
  return clip_.params.number(i);
}

Term ClipTerms::strength() {
  for (const CompiledMotion& motion : clip_.motions)
    if (motion.param == CompiledMotion::kStrength) return clamped(moved(motion.motion));
  return graph_.constant(static_cast<double>(clip_.strength));
}

bool ClipTerms::movesPalette() const {
  return std::any_of(clip_.motions.begin(), clip_.motions.end(), [](const CompiledMotion& motion) {
    return motion.param == CompiledMotion::kPalettePlace;
  });
}

Term ClipTerms::inTime(const std::function<double(Micros)>& position, double perSecond) {
  if (time_.isLook) return graph_.ramp(0, perSecond);
  // As straight lines, where the tempo keeps steady for a while.
  constexpr double kStep_s = 0.1;
  constexpr double kTolerance = 0.004;
  constexpr std::size_t kMaxLines = 24;
  std::vector<std::pair<double, double>> points;
  const double from_s = chispa::seconds(clip_.start);
  const double to_s = std::max(from_s + kStep_s, chispa::seconds(clip_.end()));
  const int steps = std::max(1, static_cast<int>(std::ceil((to_s - from_s) / kStep_s)));
  for (int i = 0; i <= steps; ++i) {
    const double t_s = from_s + (to_s - from_s) * i / steps;
    points.emplace_back(t_s, position(micros(t_s)));
  }
  std::vector<std::pair<double, double>> lines = {points.front()};
  simplify(points, 0, points.size() - 1, kTolerance, lines);
  if (lines.size() == 2) {
    const double rate = (lines[1].second - lines[0].second) / (lines[1].first - lines[0].first);
    return graph_.ramp(lines[0].second - rate * lines[0].first, rate);
  }
  if (lines.size() > kMaxLines) refuse("the tempo changes too often");
  return alongLines(sceneSeconds(), lines);
}

Term ClipTerms::seconds() {
  const double contentOffset_s = chispa::seconds(clip_.contentOffset);
  if (!time_.isLook)
    return graph_.ramp(contentOffset_s - clip_.speed * chispa::seconds(clip_.start), clip_.speed);
  const Term t = graph_.ramp(contentOffset_s, clip_.speed);
  return clip_.effect->isWhole ? moduloOf(aHairLater(t), std::max(1e-3, chispa::seconds(clip_.whole))) : t;
}

double ClipTerms::length_s() const {
  if (time_.isLook || clip_.whole.count() > 0) return std::max(1e-3, chispa::seconds(clip_.whole));
  return chispa::seconds(clip_.contentOffset) + clip_.speed * chispa::seconds(clip_.length);
}

Term ClipTerms::share() {
  return length_s() > 0 ? seconds() / length_s() : graph_.constant(1);
}

Term ClipTerms::beats() {
  const auto at = [this](Micros t) { return time_.grid.beatAt(t); };
  const Term now = inTime(at, 1 / time_.beat_s);
  if (time_.isLook) return now * clip_.speed;
  const double start = at(clip_.start);
  const double before = clip_.contentOffset.count() != 0 ? start - at(clip_.start - clip_.contentOffset) : 0;
  return (now - start) * clip_.speed + before;
}

Term ClipTerms::bars() {
  const auto at = [this](Micros t) { return time_.grid.barAt(t); };
  const Term now = inTime(at, 1 / (time_.beat_s * time_.beatsOfBar));
  if (time_.isLook) return now * clip_.speed;
  const double start = at(clip_.start);
  const double before = clip_.contentOffset.count() != 0 ? start - at(clip_.start - clip_.contentOffset) : 0;
  return (now - start) * clip_.speed + before;
}

Term ClipTerms::beatInBar() {
  if (time_.isLook) return moduloOf(graph_.ramp(0, 1 / time_.beat_s), time_.beatsOfBar);
  // Bars of equal beats: their place in the bar tells it.
  const Micros middle = clip_.start + clip_.length / 2;
  const double bar = time_.grid.barAt(middle);
  const double beats = time_.grid.beatAt(time_.grid.barStart(std::floor(bar) + 1)) -
                       time_.grid.beatAt(time_.grid.barStart(std::floor(bar)));
  const Term now = inTime([this](Micros t) { return time_.grid.barAt(t); }, 0);
  return partOf(now) * std::round(beats);
}

Term ClipTerms::stepOf(Term time) {
  return floorOf(aHairLater(time));
}
Term ClipTerms::partOf(Term time) {
  return fractionOf(aHairLater(time));
}

Term ClipTerms::cellwise(const std::function<double(std::size_t)>& valueOf) {
  std::vector<float> values;
  values.reserve(kept_.size());
  for (const std::size_t cell : kept_) values.push_back(static_cast<float>(valueOf(cell)));
  return graph_.input(std::move(values));
}

Term ClipTerms::along(Axis axis) {
  return cellwise([values = cells_.along(axis)](std::size_t i) { return static_cast<double>(values[i]); });
}

namespace {

Term shapedTerm(FadeShape shape, Term u) {
  switch (shape) {
    case FadeShape::Soft:
      return smoothed(u);
    case FadeShape::Late:
      return u * u;
    case FadeShape::Early:
      return 1.0 - (1.0 - u) * (1.0 - u);
    case FadeShape::Even:
      break;
  }
  return u;
}

/// As lightOfLightness().
Term lightTerm(Term lightness) {
  const Term root = (lightness + 0.16) * (1 / 1.16);
  return choose(double{kLightnessBend} < lightness, root * root * root,
                lightness * (1 / double{kLightnessSlope}));
}

/// As lightnessOf().
Term lightnessTerm(Term light) {
  const Term root = powerOf(light, light.graph->constant(1.0 / 3)) * 1.16 - 0.16;
  return choose(double{kLightnessBendLight} < light, root, light * double{kLightnessSlope});
}

}  // namespace

Term pastTerm(Term beyond, Term perWidth) {
  return clamped(beyond * perWidth + 0.5);
}

Term fadeTerm(FadeShape shape, Evenness fades, bool givesWay, Term u) {
  const Term level = shapedTerm(shape, u);
  if (fades == Evenness::InLight) return level;
  return givesWay ? 1.0 - lightTerm(1.0 - level) : lightTerm(level);
}

Term mixTerm(Term from, Term to, Term share, Evenness fades) {
  if (fades == Evenness::InLight) return from + (to - from) * share;
  const Term old = lightnessTerm(from);
  return lightTerm(old + (lightnessTerm(to) - old) * share);
}

BoardPalette paletteOf(const PaletteTable& table, bool goesRound) {
  BoardPalette palette{{}, goesRound};
  for (int i = 0; i <= PaletteTable::kSteps; ++i) {
    const float u = static_cast<float>(i) / PaletteTable::kSteps;
    const Rgb c = goesRound ? table.wrapped(u) : table.clamped(u);
    palette.entries.push_back({c.r, c.g, c.b});
  }
  return palette;
}

Term ClipTerms::paceDone(std::size_t pace, double units, Term byMusic) {
  return fixedChoice(pace) == 0 ? byMusic : seconds() * pacePerSecond(pace, units, 0);
}

double ClipTerms::pacePerSecond(std::size_t pace, double units, double byMusic) {
  return fixedChoice(pace) == 0 ? byMusic : unitsPerSecond(cells_, clip_.params, fixed(pace + 1), units);
}

void ClipTerms::refuseIfHard(std::size_t hard) {
  if (fixed(hard) != 0) refuse("its edges are hard");
}

double ClipTerms::beatsOfBar() const {
  return time_.isLook ? time_.beatsOfBar : time_.grid.beatsOfBarAt(clip_.start);
}

}  // namespace chispa::board
