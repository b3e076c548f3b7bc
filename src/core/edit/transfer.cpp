// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/transfer.h"

#include <algorithm>

#include "core/edit/layerallocator.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"

namespace chispa {
namespace {

constexpr Vec3 kBeside_m{0.25, -0.25, 0};

/// Takes the item with `id` along, once.
template <class T, class IdType>
void take(Items<T>& parcel, const Items<T>& from, IdType id) {
  const T* found = find(from, id);
  if (found && !find(parcel, id)) put(parcel, *found);
}

/// The id here of an item that came along: that of one that is the same under any number, or else under
/// another name, or of a copy that is added.
template <class T, class IdType>
IdType hereOf(Show& show, Items<T>& here, T item) {
  const auto sameBut = [&](bool forName) {
    return std::find_if(here.begin(), here.end(), [&](const auto& known) {
      T alike = *known;
      alike.id = item.id;
      if (forName) alike.name = item.name;
      return alike == item;
    });
  };
  for (const bool forName : {false, true})
    if (const auto known = sameBut(forName); known != here.end()) return (*known)->id;
  item.id = show.newId<IdType>();
  item.name = freeName(here, item.name);
  const IdType id = item.id;
  put(here, std::move(item));
  return id;
}

void unpackFixtures(Show& show, const Show& parcel, Unpacked& done) {
  for (const auto& came : parcel.fixtures) {
    Fixture fixture = *came;
    if (const StripType* strip = find(parcel.stripTypes, came->stripType))
      fixture.stripType = hereOf<StripType, StripTypeId>(show, show.stripTypes, *strip);
    fixture.id = show.newId<FixtureId>();
    fixture.name = freeName(show.fixtures, came->name);
    fixture.place.position_m = fixture.place.position_m + kBeside_m;
    put(show.fixtures, fixture);
    addZone(show, fixture.name, {fixture.id});
    done.fixtures.push_back(fixture.id);
  }
}

/// What came along, for the zone of the same name here; nothing if there is none.
std::optional<Clip> clipHere(Show& show, const Show& parcel, const Clip& came) {
  const Zone* from = find(parcel.zones, came.zone);
  const Zone* zone = from ? findNamed(show.zones, from->name) : nullptr;
  if (!zone) return std::nullopt;
  Clip clip = came;
  clip.id = show.newId<ClipId>();
  clip.zone = zone->id;
  if (const Palette* palette = find(parcel.palettes, came.palette))
    clip.palette = hereOf<Palette, PaletteId>(show, show.palettes, *palette);
  return clip;
}

/// The palette of a clip, and its zone: the name is enough to find the namesake by, and its fixtures stay
/// where they are.
void takeWithClip(Show& parcel, const Show& show, const Clip& clip) {
  take(parcel.palettes, show.palettes, clip.palette);
  const Zone* zone = find(show.zones, clip.zone);
  if (!zone || find(parcel.zones, zone->id)) return;
  Zone named = *zone;
  named.parts.clear();
  put(parcel.zones, std::move(named));
}

void unpackLooks(Show& show, const Show& parcel, Unpacked& done) {
  for (const auto& came : parcel.looks) {
    Look look = *came;
    look.id = show.newId<LookId>();
    look.name = freeName(show.looks, came->name);
    look.key = freePadKey(show);
    // Another look to go on with did not come along.
    look.next = {};
    if (look.end == LookEnd::GoOn) look.end = LookEnd::Stay;
    for (LookStep& step : look.steps) {
      std::vector<std::shared_ptr<const Clip>> layers;
      for (const auto& layer : step.layers) {
        if (auto clip = clipHere(show, parcel, *layer))
          layers.push_back(std::make_shared<const Clip>(*std::move(clip)));
        else
          ++done.withoutZone;
      }
      step.layers = std::move(layers);
    }
    done.looks.push_back(look.id);
    put(show.looks, std::move(look));
  }
}

/// The fixture here that a part of a zone is laid on: the namesake of its own, with as many pixels.
const Fixture* namesake(const Show& show, const Show& parcel, const ZonePart& part) {
  const Fixture* from = find(parcel.fixtures, part.fixture);
  const Fixture* here = from ? findNamed(show.fixtures, from->name) : nullptr;
  const bool isAlike =
      here && here->segments.size() == from->segments.size() && pixelCount(*here) == pixelCount(*from);
  return isAlike ? here : nullptr;
}

void unpackZones(Show& show, const Show& parcel, Unpacked& done) {
  for (const auto& came : parcel.zones) {
    Zone zone = *came;
    zone.parts.clear();
    for (ZonePart part : came->parts)
      if (const Fixture* fixture = namesake(show, parcel, part)) {
        part.fixture = fixture->id;
        zone.parts.push_back(part);
      } else {
        ++done.withoutFixture;
      }
    if (zone.parts.empty()) continue;
    zone.id = show.newId<ZoneId>();
    zone.name = freeName(show.zones, came->name);
    // Another show's scores are others.
    zone.score = {};
    done.zones.push_back(zone.id);
    put(show.zones, std::move(zone));
  }
}

/// Whether what a clip plays in place of an effect is here; blocks do not come along.
bool hasItsBlock(const Show& show, const Show& parcel, const Clip& clip) {
  if (!clip.block) return true;
  const Block* came = find(parcel.blocks, clip.block);
  const Block* here = find(show.blocks, clip.block);
  return came && here && *came == *here;
}

void unpackClips(Show& show, const Show& parcel, const ClipsPlace& place, Unpacked& done) {
  for (const auto& from : parcel.scores) {
    if (from->clips.empty() || !find(show.scores, place.score)) continue;
    const auto first = std::min_element(from->clips.begin(), from->clips.end(),
                                        [](const auto& a, const auto& b) { return a->start < b->start; });
    const Micros later = place.at - (*first)->start;
    std::vector<Clip> clips;
    for (const auto& came : from->clips) {
      auto clip = hasItsBlock(show, parcel, *came) ? clipHere(show, parcel, *came) : std::nullopt;
      if (!clip) {
        ++done.withoutZone;
        continue;
      }
      clip->start += later;
      clips.push_back(*std::move(clip));
    }
    changeItem(show.scores, place.score, [&](Score& score) {
      LayerAllocator layers(score);
      for (Clip& clip : clips) {
        clip.layer = layers.take(clip.zone, clip.start, clip.end(), clip.layer);
        done.clips.push_back(clip.id);
        score.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
      }
    });
  }
}

}  // namespace

Show parcelOf(const Show& show, const std::vector<FixtureId>& ids) {
  Show parcel;
  for (const FixtureId id : ids)
    if (const Fixture* fixture = find(show.fixtures, id)) {
      take(parcel.stripTypes, show.stripTypes, fixture->stripType);
      put(parcel.fixtures, *fixture);
    }
  return parcel;
}

Show parcelOf(const Show& show, PaletteId id) {
  Show parcel;
  take(parcel.palettes, show.palettes, id);
  return parcel;
}

Show parcelOf(const Show& show, LookId id) {
  Show parcel;
  take(parcel.looks, show.looks, id);
  if (parcel.looks.empty()) return parcel;
  for (const LookStep& step : parcel.looks.front()->steps)
    for (const auto& layer : step.layers) takeWithClip(parcel, show, *layer);
  return parcel;
}

Show parcelOf(const Show& show, const std::vector<ZoneId>& ids) {
  Show parcel;
  for (const ZoneId id : ids) {
    take(parcel.zones, show.zones, id);
    const Zone* zone = find(show.zones, id);
    for (const ZonePart& part : zone ? zone->parts : std::vector<ZonePart>{}) {
      const Fixture* fixture = find(show.fixtures, part.fixture);
      if (fixture) take(parcel.stripTypes, show.stripTypes, fixture->stripType);
      take(parcel.fixtures, show.fixtures, part.fixture);
    }
  }
  return parcel;
}

Show parcelOf(const Show& show, ScoreId score, const std::vector<ClipId>& ids) {
  Show parcel;
  const Score* from = find(show.scores, score);
  if (!from) return parcel;
  Score held;
  held.id = from->id;
  held.name = from->name;
  held.length = from->length;
  for (const auto& clip : from->clips)
    if (std::find(ids.begin(), ids.end(), clip->id) != ids.end()) {
      takeWithClip(parcel, show, *clip);
      take(parcel.blocks, show.blocks, clip->block);
      held.clips.push_back(clip);
    }
  if (!held.clips.empty()) put(parcel.scores, std::move(held));
  return parcel;
}

Unpacked unpack(Show& show, const Show& parcel, const ClipsPlace& place) {
  Unpacked done;
  if (!parcel.scores.empty()) {
    unpackClips(show, parcel, place, done);
    return done;
  }
  // Fixtures that came with zones only say what their parts lie on.
  const bool isOfZones = std::any_of(parcel.zones.begin(), parcel.zones.end(),
                                     [](const auto& zone) { return !zone->parts.empty(); });
  if (isOfZones) {
    unpackZones(show, parcel, done);
    return done;
  }
  unpackFixtures(show, parcel, done);
  unpackLooks(show, parcel, done);
  // Palettes that came by themselves; those of looks are here by now.
  if (parcel.looks.empty())
    for (const auto& palette : parcel.palettes) {
      Palette copy = *palette;
      copy.id = show.newId<PaletteId>();
      copy.name = freeName(show.palettes, palette->name);
      done.palettes.push_back(copy.id);
      put(show.palettes, std::move(copy));
    }
  return done;
}

}  // namespace chispa
