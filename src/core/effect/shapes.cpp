// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Kind, Across, Up, Wide, High, Turned, Line, Colours };
enum class Form { Point, Line, Rectangle, Ellipse, Triangle, Pentagon, Hexagon, Octagon, Star };

struct Point {
  float x = 0;
  float y = 0;
};

constexpr std::size_t kMaxCorners = 10;

/// The corners of a shape that has some, about its middle, within half extents of 1.
struct Corners {
  std::array<Point, kMaxCorners> at{};
  std::size_t count = 0;
};

Corners cornersOf(Form form) {
  Corners corners;
  const auto add = [&](double turns, double reach) {
    corners.at[corners.count++] = {static_cast<float>(reach * std::sin(2 * kPi * turns)),
                                   static_cast<float>(reach * std::cos(2 * kPi * turns))};
  };
  const auto regular = [&](int count, double first) {
    for (int i = 0; i < count; ++i) add(first + static_cast<double>(i) / count, 1);
  };
  switch (form) {
    case Form::Rectangle:
      corners.at = {{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}}};
      corners.count = 4;
      break;
    case Form::Triangle:
      corners.at = {{{-1, -1}, {1, -1}, {0, 1}}};
      corners.count = 3;
      break;
    case Form::Pentagon:
      regular(5, 0);
      break;
    case Form::Hexagon:
      regular(6, 0);
      break;
    case Form::Octagon:
      regular(8, 1 / 16.0);
      break;
    case Form::Star:
      // The inner corners of a star of five points lie where the lines between its tips cross.
      for (int i = 0; i < 10; ++i) add(i / 10.0, i % 2 == 0 ? 1 : 0.382);
      break;
    default:
      break;
  }
  return corners;
}

/// A shape where it stands on the zone, in cells from its own middle.
class StandingShape {
 public:
  explicit StandingShape(const EffectInput& in)
      : form_(static_cast<Form>(in.params.choice(Kind))), cells_(in.cells) {
    const auto columns = static_cast<float>(std::max(1, in.cells.columns));
    const auto rows = static_cast<float>(std::max(1, in.cells.rows));
    toCells_ = std::max(columns, rows) / 2;
    // A zone without rows has its columns along itself.
    isFlat_ = in.cells.rows <= 1;
    const float across = isFlat_ ? static_cast<float>(in.cells.count()) : columns;
    if (isFlat_) toCells_ = across / 2;
    middle_ = {(in.params.real(Across) - 0.5f) * across, isFlat_ ? 0 : (in.params.real(Up) - 0.5f) * rows};
    half_ = {std::max(0.01f, in.params.real(Wide) * across / 2),
             std::max(0.01f, in.params.real(High) * rows / 2)};
    const float turns = in.params.real(Turned) / 360;
    cosine_ = cosineOfTurns(turns);
    sine_ = sineOfTurns(turns);
    line_ = in.params.real(Line) * (isFlat_ ? across : rows);
    corners_ = cornersOf(form_);
    for (std::size_t i = 0; i < corners_.count; ++i) {
      corners_.at[i].x *= half_.x;
      corners_.at[i].y *= half_.y;
    }
  }

  /// Where cell `i` lies, as seen from the shape.
  Point find(std::size_t i) const {
    const float x = (isFlat_ ? 2 * cells_.along(Axis::Along)[i] - 1 : cells_.x[i]) * toCells_ - middle_.x;
    const float y = (isFlat_ ? 0 : cells_.y[i] * toCells_) - middle_.y;
    return {x * cosine_ - y * sine_, x * sine_ + y * cosine_};
  }

  /// How far a place lies outside of the shape, in cells; below 0 inside.
  float distance(Point p) const {
    switch (form_) {
      case Form::Point:
        return std::hypot(p.x, p.y) - std::max(0.5f, line_ / 2);
      case Form::Line:
        return std::hypot(p.x - std::clamp(p.x, -half_.x, half_.x), p.y) - std::max(0.5f, line_ / 2);
      case Form::Ellipse:
        return outsideEllipse(p);
      default:
        return outsideCorners(p);
    }
  }

  /// How much of the cell at that place it covers, 0–1.
  float coverage(Point p) const {
    const float d = distance(p);
    const bool isFilled = line_ <= 0 || form_ == Form::Point || form_ == Form::Line;
    const float edge = isFilled ? d : std::abs(d) - std::max(0.5f, line_ / 2);
    return std::clamp(0.5f - edge, 0.f, 1.f);
  }

  float acrossOf(Point p) const { return std::clamp(0.5f + 0.5f * p.x / half_.x, 0.f, 1.f); }
  float outwardOf(Point p) const { return std::min(1.f, std::hypot(p.x / half_.x, p.y / half_.y)); }
  float aroundOf(Point p) const {
    return fraction(std::atan2(static_cast<double>(p.x), static_cast<double>(p.y)) / (2 * kPi) + 1);
  }

 private:
  /// The distance to first order (G. Taubin, IEEE PAMI 13 (11), 1991).
  float outsideEllipse(Point p) const {
    const float x = p.x / half_.x, y = p.y / half_.y;
    const float reach = std::hypot(x, y);
    const float slope = std::hypot(x / half_.x, y / half_.y);
    return slope > 1e-6f ? reach * (reach - 1) / slope : -std::min(half_.x, half_.y);
  }

  /// The distance to the nearest side, and how often a line to the left crosses sides.
  float outsideCorners(Point p) const {
    float nearest = 1e18f;
    bool isInside = false;
    for (std::size_t i = 0, k = corners_.count - 1; i < corners_.count; k = i++) {
      const Point a = corners_.at[i], b = corners_.at[k];
      const float bx = b.x - a.x, by = b.y - a.y, px = p.x - a.x, py = p.y - a.y;
      const float share = std::clamp((px * bx + py * by) / std::max(1e-12f, bx * bx + by * by), 0.f, 1.f);
      const float dx = px - share * bx, dy = py - share * by;
      nearest = std::min(nearest, dx * dx + dy * dy);
      if ((a.y > p.y) != (b.y > p.y) && px < (p.y - a.y) / by * bx) isInside = !isInside;
    }
    return isInside ? -std::sqrt(nearest) : std::sqrt(nearest);
  }

  Form form_;
  const ZoneCells& cells_;
  bool isFlat_ = false;
  float toCells_ = 1;
  Point middle_;
  Point half_;
  float cosine_ = 1;
  float sine_ = 0;
  float line_ = 0;
  Corners corners_;
};

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const StandingShape shape(in);
  const int colours = in.params.choice(Colours);
  const auto shade = [&](auto place) {
    return [&shape, place](std::size_t i) -> Shade {
      const Point p = shape.find(i);
      return {place(p), shape.coverage(p)};
    };
  };
  if (colours == 0)
    shadeCells(in, out, shade([&](Point p) { return shape.acrossOf(p); }));
  else if (colours == 1)
    shadeCells(in, out, shade([&](Point p) { return shape.outwardOf(p); }));
  else
    shadeCellsAround(in, out, shade([&](Point p) { return shape.aroundOf(p); }));
}

}  // namespace

Effect shapes() {
  return cellwise({
      .key = "shapes",
      .name = "Shapes",
      .summary = "A shape, filled or as a line, that curves and music move, turn and stretch.",
      .params = {choiceParam("shape", "Shape",
                             {{"point", "point"},
                              {"line", "line"},
                              {"rectangle", "rectangle"},
                              {"ellipse", "ellipse"},
                              {"triangle", "triangle"},
                              {"pentagon", "pentagon"},
                              {"hexagon", "hexagon"},
                              {"octagon", "octagon"},
                              {"star", "star"}},
                             3),
                 numberParam("x", "Middle, across", "", -1, 2, 0.5),
                 numberParam("y", "Middle, up", "", -1, 2, 0.5),
                 numberParam("wide", "Width", "of the zone", 0, 3, 0.6),
                 numberParam("high", "Height", "of the zone", 0, 3, 0.8),
                 numberParam("turned", "Turned", "°", -360, 360, 0, 5),
                 numberParam("line", "Line (0: filled)", "of the zone", 0, 1, 0),
                 choiceParam("colours", "Colours run",
                             {{"across", "across"}, {"outward", "from the middle"}, {"around", "around"}},
                             1)},
      .render = render,
      .group = EffectGroup::Pictures,
      .wantsRows = true,
  });
}

}  // namespace chispa
