// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/segmentedits.h"

#include <algorithm>
#include <numeric>

#include "core/edit/planedits.h"
#include "core/shape/polyline.h"
#include "core/show/strip.h"

namespace chispa {
namespace {

std::ptrdiff_t offset(std::size_t index) {
  return static_cast<std::ptrdiff_t>(index);
}

/// Changes a fixture and lets zones and beads follow its pixels: `fate` says where each is then.
template <class F>
Losses reshape(Show& show, FixtureId id, F change, const std::function<std::optional<int>(int)>& pixelAfter) {
  const Fixture* found = find(show.fixtures, id);
  if (!found) return {};
  const Fixture before = *found;
  changeItem(show.fixtures, id, change);
  return followPixels(show, {before}, [&](PixelPlace place) -> std::optional<PixelPlace> {
    const auto now = pixelAfter(place.pixel);
    return now ? std::optional(PixelPlace{id, *now}) : std::nullopt;
  });
}

std::optional<int> samePixel(int pixel) {
  return pixel;
}

bool hasSegment(const Show& show, FixtureId id, std::size_t index) {
  const Fixture* fixture = find(show.fixtures, id);
  return fixture && index < fixture->segments.size();
}

Segment asPoints(const std::string& name, std::vector<Vec3> points) {
  return {name, PointsShape{std::move(points)}, {}};
}

using Halves = std::pair<Segment, Segment>;

/// Both halves of a segment whose data runs forth, cut in front of pixel `at` of its shape.
Halves cut(const Segment& whole, int at) {
  Halves halves{whole, whole};
  if (const auto* line = std::get_if<LineShape>(&whole.shape)) {
    halves.first.shape = LineShape{at, line->pitch_m};
    halves.second.shape = LineShape{line->count - at, line->pitch_m};
    halves.second.place.position_m = placed(whole.place, {at * line->pitch_m, 0, 0});
  } else if (const auto* arc = std::get_if<ArcShape>(&whole.shape)) {
    const double share = arc->sweep_deg * at / arc->count;
    halves.first.shape = ArcShape{at, arc->radius_m, arc->start_deg, share};
    halves.second.shape =
        ArcShape{arc->count - at, arc->radius_m, arc->start_deg + share, arc->sweep_deg - share};
  } else if (const auto* path = std::get_if<PathShape>(&whole.shape); path && !path->smooth) {
    const auto [before, after] =
        splitPolyline(path->corners, polylineLength_m(path->corners) * at / path->count);
    halves.first.shape = PathShape{at, before};
    halves.second.shape = PathShape{path->count - at, after};
  } else {
    const auto points = positions(whole);
    halves.first = asPoints(whole.name, {points.begin(), points.begin() + at});
    halves.second = asPoints(whole.name, {points.begin() + at, points.end()});
  }
  return halves;
}

Halves cutInDataOrder(const Segment& segment, int at) {
  if (!segment.reversed) return cut(segment, at);
  Segment forth = segment;
  forth.reversed = false;
  auto [tail, head] = cut(forth, pixelCount(segment) - at);
  for (Segment* half : {&head, &tail}) {
    // Points were taken in the order of the shape; all others know that they run backwards.
    if (auto* points = std::get_if<PointsShape>(&half->shape))
      std::reverse(points->points.begin(), points->points.end());
    else
      half->reversed = true;
  }
  return {head, tail};
}

bool isNear(double a, double b) {
  return std::abs(a - b) < 1e-6;
}
bool isNear(Vec3 a, Vec3 b) {
  return length(a - b) < 1e-6;
}

/// One segment that has all pixels of both in place, if their kind allows it.
std::optional<Segment> continued(const Segment& a, const Segment& b) {
  if (a.reversed || b.reversed) return std::nullopt;
  Segment whole = a;
  if (const auto* first = std::get_if<LineShape>(&a.shape)) {
    const auto* second = std::get_if<LineShape>(&b.shape);
    if (second && isNear(first->pitch_m, second->pitch_m))
      whole.shape = LineShape{first->count + second->count, first->pitch_m};
  } else if (const auto* arc = std::get_if<ArcShape>(&a.shape)) {
    const auto* more = std::get_if<ArcShape>(&b.shape);
    if (more && isNear(arc->radius_m, more->radius_m)) {
      whole.shape =
          ArcShape{arc->count + more->count, arc->radius_m, arc->start_deg, arc->sweep_deg + more->sweep_deg};
    }
  } else if (const auto* path = std::get_if<PathShape>(&a.shape)) {
    const auto* more = std::get_if<PathShape>(&b.shape);
    if (more && !path->smooth && !more->smooth && !path->corners.empty()) {
      PathShape joined{path->count + more->count, path->corners};
      for (const Vec3& corner : more->corners) {
        const Vec3 here = placed(relativeTo(a.place, b.place), corner);
        if (isNear(here, joined.corners.back())) continue;
        joined.corners.push_back(here);
      }
      whole.shape = joined;
    }
  }
  auto wanted = positions(a);
  for (const Vec3& point : positions(b)) wanted.push_back(point);
  const auto got = positions(whole);
  const bool fits = std::equal(got.begin(), got.end(), wanted.begin(), wanted.end(),
                               [](Vec3 x, Vec3 y) { return isNear(x, y); });
  return fits ? std::optional(whole) : std::nullopt;
}

}  // namespace

void addSegment(Show& show, FixtureId id, const Shape& shape, const Placement& world) {
  const Fixture* found = find(show.fixtures, id);
  if (!found) return;
  const Fixture before = *found;
  changeItem(show.fixtures, id, [&](Fixture& fixture) {
    fixture.segments.push_back({std::string(shapeName(shape)), shape, relativeTo(fixture.place, world)});
  });
  // A bead that hung the whole of it hangs the new segment too.
  remap(show, before);
}

Losses removeSegment(Show& show, FixtureId id, std::size_t index) {
  if (!hasSegment(show, id, index) || find(show.fixtures, id)->segments.size() < 2) return {};
  const Fixture& fixture = *find(show.fixtures, id);
  const int first = firstPixelOf(fixture, index);
  const int count = pixelCount(fixture.segments[index]);
  return reshape(
      show, id, [index](Fixture& f) { f.segments.erase(f.segments.begin() + offset(index)); },
      [=](int pixel) -> std::optional<int> {
        if (pixel < first) return pixel;
        return pixel < first + count ? std::nullopt : std::optional(pixel - count);
      });
}

void splitSegment(Show& show, FixtureId id, std::size_t index, int at) {
  if (!hasSegment(show, id, index)) return;
  const Fixture& fixture = *find(show.fixtures, id);
  const int grain = std::max(1, stripTypeOf(show, fixture).pixelsPerCut);
  const int legal = (at + grain / 2) / grain * grain;
  if (legal <= 0 || legal >= pixelCount(fixture.segments[index])) return;
  reshape(
      show, id,
      [&](Fixture& f) {
        auto [head, tail] = cutInDataOrder(f.segments[index], legal);
        tail.name = head.name + " 2";
        f.segments[index] = head;
        f.segments.insert(f.segments.begin() + offset(index) + 1, tail);
      },
      samePixel);
}

void joinSegments(Show& show, FixtureId id, std::size_t index) {
  if (!hasSegment(show, id, index + 1)) return;
  reshape(
      show, id,
      [&](Fixture& f) {
        const Segment& a = f.segments[index];
        const Segment& b = f.segments[index + 1];
        std::optional<Segment> whole = continued(a, b);
        if (!whole) {
          auto points = positions(a);
          for (const Vec3& point : positions(b)) points.push_back(point);
          whole = asPoints(a.name, points);
        }
        f.segments[index] = *whole;
        f.segments.erase(f.segments.begin() + offset(index) + 1);
      },
      samePixel);
}

void reverseSegment(Show& show, FixtureId id, std::size_t index) {
  if (!hasSegment(show, id, index)) return;
  // The strip is turned round in its place: who is first on the wire is so still, and stands elsewhere.
  changeItem(show.fixtures, id,
             [index](Fixture& f) { f.segments[index].reversed = !f.segments[index].reversed; });
}

void moveSegment(Show& show, FixtureId id, std::size_t from, std::size_t to) {
  if (!hasSegment(show, id, from) || !hasSegment(show, id, to) || from == to) return;
  const Fixture before = *find(show.fixtures, id);
  std::vector<std::size_t> order(before.segments.size());
  std::iota(order.begin(), order.end(), 0u);
  order.erase(order.begin() + offset(from));
  order.insert(order.begin() + offset(to), from);
  Fixture after = before;
  for (std::size_t i = 0; i < order.size(); ++i) after.segments[i] = before.segments[order[i]];
  changeItem(show.fixtures, id, [&](Fixture& f) { f = after; });
  // Zones keep the pixels; beads keep their places on the wire, which is what has changed.
  const Items<Controller> wiring = show.controllers;
  followPixels(show, {before}, [&](PixelPlace place) -> std::optional<PixelPlace> {
    const std::size_t old = segmentOf(before, place.pixel);
    const auto now = static_cast<std::size_t>(std::find(order.begin(), order.end(), old) - order.begin());
    return PixelPlace{id, firstPixelOf(after, now) + place.pixel - firstPixelOf(before, old)};
  });
  show.controllers = wiring;
}

void renumberSegment(Show& show, FixtureId id, std::size_t index, const std::vector<int>& order) {
  if (!hasSegment(show, id, index)) return;
  const Fixture before = *find(show.fixtures, id);
  const int first = firstPixelOf(before, index);
  std::vector<int> placeNow(order.size());
  for (std::size_t i = 0; i < order.size(); ++i)
    placeNow[static_cast<std::size_t>(order[i])] = static_cast<int>(i);
  const Items<Controller> wiring = show.controllers;
  reshape(
      show, id,
      [&](Fixture& f) {
        const auto points = positions(f.segments[index]);
        std::vector<Vec3> sorted;
        for (const int old : order) sorted.push_back(points[static_cast<std::size_t>(old)]);
        f.segments[index] = asPoints(f.segments[index].name, sorted);
      },
      [&](int pixel) -> std::optional<int> {
        const int within = pixel - first;
        return within < 0 || within >= std::ssize(placeNow)
                   ? pixel
                   : first + placeNow[static_cast<std::size_t>(within)];
      });
  show.controllers = wiring;
}

void joinFixtures(Show& show, const std::vector<FixtureId>& ids) {
  std::vector<Fixture> before;
  for (const FixtureId id : ids)
    if (const Fixture* fixture = find(show.fixtures, id)) before.push_back(*fixture);
  if (before.size() < 2) return;
  Fixture whole = before.front();
  std::vector<int> firsts{0};
  for (std::size_t i = 1; i < before.size(); ++i) {
    firsts.push_back(pixelCount(whole));
    for (Segment segment : before[i].segments) {
      segment.place = relativeTo(whole.place, composed(before[i].place, segment.place));
      if (before[i].segments.size() == 1) segment.name = before[i].name;
      whole.segments.push_back(std::move(segment));
    }
    remove(show.fixtures, before[i].id);
  }
  put(show.fixtures, whole);
  followPixels(show, before, [&](PixelPlace place) -> std::optional<PixelPlace> {
    for (std::size_t i = 0; i < before.size(); ++i)
      if (before[i].id == place.fixture) return PixelPlace{whole.id, firsts[i] + place.pixel};
    return std::nullopt;
  });
}

std::vector<FixtureId> separateSegments(Show& show, FixtureId id) {
  const Fixture* found = find(show.fixtures, id);
  if (!found || found->segments.size() < 2) return {};
  const Fixture before = *found;
  std::vector<FixtureId> made;
  for (std::size_t i = 0; i < before.segments.size(); ++i) {
    Fixture one = before;
    if (i > 0) {
      one.id = show.newId<FixtureId>();
      one.name = freeName(show.fixtures, before.name + " " + before.segments[i].name);
    }
    one.place = composed(before.place, before.segments[i].place);
    one.segments = {before.segments[i]};
    one.segments[0].place = {};
    put(show.fixtures, one);
    made.push_back(one.id);
  }
  followPixels(show, {before}, [&](PixelPlace place) -> std::optional<PixelPlace> {
    const std::size_t s = segmentOf(before, place.pixel);
    return PixelPlace{made[s], place.pixel - firstPixelOf(before, s)};
  });
  return made;
}

}  // namespace chispa
