// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

// Things on their way from one place of a show to another, or into another show. A parcel is a show that
// holds nothing but these things and what they need: strip types of fixtures, palettes and zones of looks and
// clips, fixtures of zones. As text it is what files are (showText()).

Show parcelOf(const Show& show, const std::vector<FixtureId>& ids);
Show parcelOf(const Show& show, PaletteId id);
Show parcelOf(const Show& show, LookId id);
Show parcelOf(const Show& show, const std::vector<ZoneId>& ids);
/// Clips of a score.
Show parcelOf(const Show& show, ScoreId score, const std::vector<ClipId>& ids);

/// What was put in; empty lists where nothing was.
struct Unpacked {
  std::vector<FixtureId> fixtures;
  std::vector<PaletteId> palettes;
  std::vector<LookId> looks;
  std::vector<ZoneId> zones;
  std::vector<ClipId> clips;
  /// Layers of looks, and clips, whose zone has no namesake here, or whose block is not here; they were left
  /// out.
  int withoutZone = 0;
  /// Parts of zones whose fixture has no namesake with as many pixels here; they were left out.
  int withoutFixture = 0;
};

/// Where clips go: the first of them begins at `at`.
struct ClipsPlace {
  ScoreId score;
  Micros at{0};
};

/// Puts what a parcel holds into `show`, under free names and ids of its own. Strip types and palettes that
/// are here already, whatever they are called by number, are used; layers and clips go to the zone of the
/// same name, parts of zones to the fixture of the same name. Fixtures lie beside the place that they came
/// from, each with a zone of the whole of it.
Unpacked unpack(Show& show, const Show& parcel, const ClipsPlace& place = {});

}  // namespace chispa
