// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/remap.h"

#include <algorithm>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/zone/partpixels.h"

namespace chispa {
namespace {

std::string pixelsText(int count) {
  return count == 1 ? "1 pixel" : std::to_string(count) + " pixels";
}

int clipsOn(const Show& show, ZoneId zone) {
  int count = 0;
  for (const auto& score : show.scores)
    count += static_cast<int>(std::count_if(score->clips.begin(), score->clips.end(),
                                            [zone](const auto& clip) { return clip->zone == zone; }));
  return count;
}

/// Rewrites the parts of every zone and tells what is lost by it. `rewrite` gives the parts that one becomes,
/// and adds the number of pixels that are gone to its second argument.
template <class Rewrite>
void rewriteZones(Show& show, Losses& losses, Rewrite rewrite) {
  std::vector<ZoneId> empty;
  for (const auto& zone : Items<Zone>(show.zones)) {
    std::vector<ZonePart> parts;
    int gone = 0;
    for (const ZonePart& part : zone->parts)
      for (ZonePart& next : rewrite(part, gone)) parts.push_back(std::move(next));
    if (parts == zone->parts) continue;
    std::string loss = "Zone " + zone->name + " loses " + pixelsText(gone);
    if (parts.empty() && !zone->parts.empty()) {
      empty.push_back(zone->id);
      const int clips = clipsOn(show, zone->id);
      loss += ", its last; it goes" +
              (clips > 0 ? " with its " + std::to_string(clips) + " clips" : std::string());
    }
    if (gone > 0) losses.push_back(loss + ".");
    changeItem(show.zones, zone->id, [&](Zone& z) { z.parts = parts; });
  }
  for (const ZoneId id : empty) deleteZone(show, id);
}

/// Rewrites the beads of every port; as above.
template <class Rewrite>
void rewriteBeads(Show& show, Losses& losses, Rewrite rewrite) {
  for (const auto& controller : Items<Controller>(show.controllers)) {
    Controller fitted = *controller;
    for (std::size_t p = 0; p < fitted.ports.size(); ++p) {
      std::vector<Bead> run;
      int gone = 0;
      for (const Bead& bead : controller->ports[p].run)
        for (const Bead& next : rewrite(bead, gone)) run.push_back(next);
      fitted.ports[p].run = std::move(run);
      if (gone > 0)
        losses.push_back("Port " + std::to_string(p + 1) + " of " + controller->name + " loses " +
                         pixelsText(gone) + ".");
    }
    if (fitted != *controller) put(show.controllers, fitted);
  }
}

/// How pixels of a fixture are numbered after the counts of its segments have changed.
class Recount {
 public:
  Recount(const Fixture& before, const Fixture& now) : before_(before), now_(now) {}

  bool hasSegment(int index) const { return index < std::ssize(now_.segments); }

  std::optional<int> pixelNow(int pixel) const {
    const std::size_t s = segmentOf(before_, pixel);
    const int within = pixel - firstPixelOf(before_, s);
    if (s >= now_.segments.size() || within >= pixelCount(now_.segments[s])) return std::nullopt;
    return firstPixelOf(now_, s) + within;
  }

  /// Where the gap before a pixel is now; the ends of segments stay ends.
  int gapNow(int gap) const {
    if (gap >= pixelCount(before_)) return pixelCount(now_);
    const std::size_t s = segmentOf(before_, gap);
    if (s >= now_.segments.size()) return pixelCount(now_);
    return firstPixelOf(now_, s) + std::min(gap - firstPixelOf(before_, s), pixelCount(now_.segments[s]));
  }

 private:
  const Fixture& before_;
  const Fixture& now_;
};

std::vector<ZonePart> remapPart(const ZonePart& part, const Fixture& before, const Fixture& now,
                                const Recount& recount, int& gone) {
  const auto numbers = pixelsOf(before, part);
  std::vector<int> left;
  for (const int n : numbers)
    if (const auto place = recount.pixelNow(n)) left.push_back(*place);
  gone += static_cast<int>(numbers.size() - left.size());
  const bool isWhole = part.runs.empty() && (!part.segment || recount.hasSegment(*part.segment));
  if (isWhole) return {part};
  if (left.empty()) return {};
  // Runs within a segment do not care what is in front of it.
  return left.size() == numbers.size() && part.segment ? std::vector{part} : std::vector{partOf(now, left)};
}

}  // namespace

Losses remap(Show& show, const Fixture& before) {
  Losses losses;
  const Fixture* now = find(show.fixtures, before.id);
  if (!now) return losses;
  const auto sameCount = [](const Segment& a, const Segment& b) { return pixelCount(a) == pixelCount(b); };
  if (std::equal(before.segments.begin(), before.segments.end(), now->segments.begin(), now->segments.end(),
                 sameCount))
    return losses;
  const Recount recount(before, *now);
  rewriteZones(show, losses, [&](const ZonePart& part, int& gone) {
    return part.fixture == before.id ? remapPart(part, before, *now, recount, gone) : std::vector{part};
  });
  rewriteBeads(show, losses, [&](const Bead& bead, int& gone) -> std::vector<Bead> {
    if (bead.fixture != before.id) return {bead};
    Bead fitted = bead;
    fitted.first = recount.gapNow(bead.first);
    fitted.count = recount.gapNow(bead.first + bead.count) - fitted.first;
    gone += std::max(0, bead.count - fitted.count);
    for (Injection& injection : fitted.injections)
      injection.pixel = std::clamp(injection.pixel, 0, fitted.count);
    return fitted.count > 0 ? std::vector{fitted} : std::vector<Bead>{};
  });
  return losses;
}

namespace {

/// Pixels one by one, as stretches of fixtures again.
std::vector<ZonePart> partsAt(const Show& show, const std::vector<PixelPlace>& places) {
  std::vector<ZonePart> parts;
  for (std::size_t at = 0; at < places.size();) {
    const FixtureId fixture = places[at].fixture;
    std::vector<int> numbers;
    for (; at < places.size() && places[at].fixture == fixture; ++at) numbers.push_back(places[at].pixel);
    parts.push_back(partOf(*find(show.fixtures, fixture), numbers));
  }
  return parts;
}

std::vector<Bead> beadsAt(const Bead& model, std::vector<PixelPlace> places) {
  if (model.reversed) std::reverse(places.begin(), places.end());
  std::vector<Bead> beads;
  for (const PixelPlace& place : places) {
    Bead* last = beads.empty() ? nullptr : &beads.back();
    const int step = last && last->fixture == place.fixture ? (place.pixel == last->first + last->count ? 1
                                                               : place.pixel == last->first - 1         ? -1
                                                                                                        : 0)
                                                            : 0;
    if (last && step != 0 && (last->count == 1 || (step < 0) == last->reversed)) {
      last->reversed = step < 0;
      if (step < 0) --last->first;
      ++last->count;
    } else {
      beads.push_back(model);
      beads.back().fixture = place.fixture;
      beads.back().first = place.pixel;
      beads.back().count = 1;
      beads.back().reversed = false;
      beads.back().injections.clear();
      if (last) beads.back().skippedBefore = 0;
    }
  }
  // Power enters where it did, as far along the thread.
  for (const Injection& injection : model.injections) {
    int before = 0;
    for (Bead& bead : beads) {
      const bool isHere = injection.pixel <= before + bead.count || &bead == &beads.back();
      if (isHere) bead.injections.push_back(injection);
      if (isHere) bead.injections.back().pixel = std::clamp(injection.pixel - before, 0, bead.count);
      if (isHere) break;
      before += bead.count;
    }
  }
  return beads;
}

}  // namespace

Losses followPixels(Show& show, const std::vector<Fixture>& before, const PixelRemap& pixelAfter) {
  Losses losses;
  const auto changed = [&](FixtureId id) {
    const auto found =
        std::find_if(before.begin(), before.end(), [id](const Fixture& f) { return f.id == id; });
    return found == before.end() ? nullptr : &*found;
  };
  const auto placesNow = [&](FixtureId id, const std::vector<int>& numbers, int& gone) {
    std::vector<PixelPlace> places;
    for (const int n : numbers)
      if (const auto now = pixelAfter({id, n}))
        places.push_back(*now);
      else
        ++gone;
    return places;
  };
  rewriteZones(show, losses, [&](const ZonePart& part, int& gone) {
    const Fixture* fixture = changed(part.fixture);
    return fixture ? partsAt(show, placesNow(part.fixture, pixelsOf(*fixture, part), gone))
                   : std::vector{part};
  });
  rewriteBeads(show, losses, [&](const Bead& bead, int& gone) {
    if (!changed(bead.fixture)) return std::vector{bead};
    std::vector<int> numbers;
    for (int i = 0; i < bead.count; ++i) numbers.push_back(bead.first + i);
    return beadsAt(bead, placesNow(bead.fixture, numbers, gone));
  });
  return losses;
}

}  // namespace chispa
