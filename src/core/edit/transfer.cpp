// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/transfer.h"

#include <algorithm>

#include "core/edit/lookedits.h"
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
        const Zone* from = find(parcel.zones, layer->zone);
        const Zone* zone = from ? findNamed(show.zones, from->name) : nullptr;
        if (!zone) {
          ++done.layersWithoutZone;
          continue;
        }
        Clip clip = *layer;
        clip.id = show.newId<ClipId>();
        clip.zone = zone->id;
        if (const Palette* palette = find(parcel.palettes, clip.palette))
          clip.palette = hereOf<Palette, PaletteId>(show, show.palettes, *palette);
        layers.push_back(std::make_shared<const Clip>(std::move(clip)));
      }
      step.layers = std::move(layers);
    }
    done.looks.push_back(look.id);
    put(show.looks, std::move(look));
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
    for (const auto& layer : step.layers) {
      take(parcel.palettes, show.palettes, layer->palette);
      const Zone* zone = find(show.zones, layer->zone);
      if (!zone || find(parcel.zones, zone->id)) continue;
      // Its name is enough to find its namesake by, and its fixtures stay where they are.
      Zone named = *zone;
      named.parts.clear();
      put(parcel.zones, std::move(named));
    }
  return parcel;
}

Unpacked unpack(Show& show, const Show& parcel) {
  Unpacked done;
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
