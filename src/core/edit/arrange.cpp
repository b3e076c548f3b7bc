// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/arrange.h"

#include <algorithm>
#include <limits>
#include <set>

#include "core/edit/planedits.h"

namespace chispa {
namespace {

struct Reach {
  double low = std::numeric_limits<double>::max();
  double high = std::numeric_limits<double>::lowest();

  double at(Align align) const {
    return align == Align::Low ? low : align == Align::High ? high : (low + high) / 2;
  }
  void include(const Reach& other) {
    low = std::min(low, other.low);
    high = std::max(high, other.high);
  }
};

/// How far a fixture reaches along an axis; one without pixels is where it is placed.
Reach reachOf(const Fixture& fixture, Vec3 axis) {
  Reach reach;
  for (const Vec3& p : positions(fixture)) reach.include({dot(p, axis), dot(p, axis)});
  if (reach.low > reach.high) reach.low = reach.high = dot(fixture.place.position_m, axis);
  return reach;
}

struct Placed {
  FixtureId id;
  Reach reach;
};

std::vector<Placed> reachesOf(const Show& show, const std::vector<FixtureId>& ids, Vec3 axis) {
  std::vector<Placed> all;
  for (const FixtureId id : ids)
    if (const Fixture* fixture = find(show.fixtures, id)) all.push_back({id, reachOf(*fixture, axis)});
  return all;
}

/// What a mirror through `centre` that faces along `axis` makes of a frame whose content is mirrored in its
/// own y.
Placement image(const Placement& place, Vec3 centre, Vec3 axis) {
  const auto reflect = [axis](Vec3 v) { return v - axis * (2 * dot(axis, v)); };
  const Axes own = axesOf(place);
  return placementOf(centre + reflect(place.position_m - centre),
                     {reflect(own.x), reflect(own.y) * -1, reflect(own.z)});
}

}  // namespace

void alignFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis, Align align) {
  const auto all = reachesOf(show, ids, axis);
  Reach whole;
  for (const Placed& one : all) whole.include(one.reach);
  for (const Placed& one : all) moveFixtures(show, {one.id}, axis * (whole.at(align) - one.reach.at(align)));
}

void distributeFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis) {
  auto all = reachesOf(show, ids, axis);
  if (all.size() < 3) return;
  const auto middle = [](const Placed& one) { return one.reach.at(Align::Middle); };
  std::stable_sort(all.begin(), all.end(),
                   [&](const Placed& a, const Placed& b) { return middle(a) < middle(b); });
  const double first = middle(all.front());
  const double step = (middle(all.back()) - first) / static_cast<double>(all.size() - 1);
  for (std::size_t i = 0; i < all.size(); ++i)
    moveFixtures(show, {all[i].id}, axis * (first + step * static_cast<double>(i) - middle(all[i])));
}

void mirrorFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis) {
  Reach whole;
  for (const Placed& one : reachesOf(show, ids, axis)) whole.include(one.reach);
  const Vec3 centre = axis * whole.at(Align::Middle);
  for (const FixtureId id : ids)
    changeItem(show.fixtures, id, [&](Fixture& fixture) {
      fixture.place = image(fixture.place, centre, axis);
      for (Segment& segment : fixture.segments) {
        segment.place = image(segment.place, {}, {0, 1, 0});
        segment.shape = mirrored(segment.shape);
      }
    });
}

void groupFixtures(Show& show, const std::vector<FixtureId>& ids, const std::string& name) {
  for (const FixtureId id : ids)
    changeItem(show.fixtures, id, [&](Fixture& fixture) { fixture.group = name; });
}

std::vector<FixtureId> withGroups(const Show& show, const std::vector<FixtureId>& ids) {
  const std::set<FixtureId> asked(ids.begin(), ids.end());
  std::set<std::string> groups;
  for (const auto& fixture : show.fixtures)
    if (asked.contains(fixture->id) && !fixture->group.empty()) groups.insert(fixture->group);
  // What was asked for stays first and in its order.
  std::vector<FixtureId> all = ids;
  for (const auto& fixture : show.fixtures)
    if (!asked.contains(fixture->id) && groups.contains(fixture->group)) all.push_back(fixture->id);
  return all;
}

}  // namespace chispa
