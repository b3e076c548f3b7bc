// SPDX-License-Identifier: GPL-3.0-or-later
// Edits of what is played by hand: bindings that are copied along, looks that are kept and lose their zones,
// and the sheet for who patches a desk.
#include <gtest/gtest.h>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/live/desksheet.h"
#include "core/render/compiledlive.h"

namespace chispa {
namespace {

/// The sheet names the fixture whose light a cell of the desk really is, where cells do not come out even.
TEST(DeskSheet, NamesTheFixtureThatACellLights) {
  Show show;
  const FixtureId small = addFixture(show, LineShape{4, 0.1}, {});
  const FixtureId large = addFixture(show, LineShape{6, 0.1}, {});
  const ZoneId both = addZone(show, "Both", {small, large});
  addDeskInput(show, {.zone = both, .cells = 3});
  const auto rows = deskRows(show);
  ASSERT_EQ(rows.size(), 3u);
  // Cells 0–3, 4–6 and 7–9 of ten.
  EXPECT_EQ(rows[0].fixture, find(show.fixtures, small)->name);
  EXPECT_EQ(rows[1].fixture, find(show.fixtures, large)->name);
  const auto compiled = compile(show);
  const CompiledDeskInput& input = compiled->live->deskInputs[0];
  for (std::size_t place = 0; place < 3; ++place) {
    EXPECT_EQ(input.placeOf(firstCellOf(place, 3, 10)), place);
    if (place > 0) {
      EXPECT_EQ(input.placeOf(firstCellOf(place, 3, 10) - 1), place - 1);
    }
  }
}

/// Three faders become red, green and blue of a strip; thirteen become twelve zones and the master.
TEST(CopyAlong, GoesOnToTheNextControlsAndTargets) {
  Show show;
  const BindingId red = addBinding(show, {.kind = SourceKind::Control, .number = 10},
                                   {.kind = TargetKind::Channels, .channel = 1, .count = 30, .every = 3});
  EXPECT_EQ(copyAlong(show, red, {.count = 2}).size(), 2u);
  EXPECT_EQ(show.bindings[2]->source.number, 12);
  EXPECT_EQ(show.bindings[2]->target.channel, 3);
  EXPECT_EQ(show.bindings[2]->target.every, 3);

  std::vector<ZoneId> zones;
  for (int i = 0; i < 12; ++i)
    zones.push_back(addZone(show, "Post", {addFixture(show, LineShape{4, 0.1}, {})}));
  show.bindings.clear();
  std::vector<ZoneId> order;
  for (const auto& zone : show.zones) order.push_back(zone->id);
  const BindingId first = addBinding(show, {.kind = SourceKind::Control, .number = 1},
                                     {.kind = TargetKind::ZoneLevel, .zone = order[0]});
  const auto copies = copyAlong(show, first, {.count = 12, .endsInMaster = true});
  ASSERT_EQ(copies.size(), 12u);
  EXPECT_EQ(show.bindings[11]->target.zone, order[11]);
  EXPECT_EQ(show.bindings[12]->target.kind, TargetKind::Master);
  EXPECT_EQ(show.bindings[12]->source.number, 13);
}

TEST(CopyAlong, StopsWhereThereIsNoNext) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  const BindingId one = addBinding(show, {.kind = SourceKind::Control, .number = 126},
                                   {.kind = TargetKind::ZoneLevel, .zone = show.zones[0]->id});
  EXPECT_TRUE(copyAlong(show, one, {.count = 5}).empty());
}

TEST(Looks, AreKeptFromWhatTheScoreShows) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  const ZoneId zone = show.zones[0]->id;
  const ScoreId score = addScore(show, "S", "", Micros(10'000'000));
  addClip(show, score, zone, "comets", {}, Micros(0), Micros(5'000'000));
  addClip(show, score, zone, "hold", {}, Micros(1'000'000), Micros(5'000'000));
  const LookId look = keepLook(show, "Kept", score, Micros(2'000'000), {});
  ASSERT_TRUE(look);
  const auto& layers = find(show.looks, look)->steps[0].layers;
  ASSERT_EQ(layers.size(), 2u);
  EXPECT_EQ(layers[0]->effect, "comets");
  EXPECT_EQ(layers[1]->effect, "hold");
  EXPECT_EQ(find(show.looks, look)->key, "1");
  EXPECT_FALSE(keepLook(show, "Nothing", score, Micros(9'000'000), {})) << "nothing is lit there";
}

/// A zone that goes takes along what lights it by hand and nothing else.
TEST(Looks, LoseTheLayersOfAZoneThatGoes) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  addFixture(show, LineShape{4, 0.1}, {});
  const ZoneId gone = show.zones[0]->id;
  const LookId look = addLook(show, "Both", {gone, show.zones[1]->id}, "hold", {});
  addBinding(show, {}, {.kind = TargetKind::ZoneLevel, .zone = gone});
  addDeskInput(show, {.zone = gone});
  deleteZone(show, gone);
  EXPECT_EQ(find(show.looks, look)->steps[0].layers.size(), 1u);
  EXPECT_TRUE(show.bindings.empty());
  EXPECT_TRUE(show.deskInputs.empty());
}

}  // namespace
}  // namespace chispa
