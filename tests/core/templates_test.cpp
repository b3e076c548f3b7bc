// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/templates.h"

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/transfer.h"
#include "core/edit/wireedits.h"
#include "core/files/showjson.h"
#include "core/render/compiled.h"
#include "core/render/renderer.h"
#include "core/rules/invariants.h"
#include "core/show/history.h"
#include "core/show/strip.h"

namespace chispa {
namespace {

int pixelsOf(const Show& show) {
  int count = 0;
  for (const auto& fixture : show.fixtures) count += pixelCount(*fixture);
  return count;
}

/// What a new show begins with works as it stands: nothing is unwired, and its looks light it.
TEST(Templates, EachIsWholeWiredAndCanBeLit) {
  for (const ShowTemplate kind : kShowTemplates) {
    const Show show = newShow(kind);
    EXPECT_FALSE(brokenInvariant(show)) << static_cast<int>(kind);
    if (kind == ShowTemplate::Empty) {
      EXPECT_TRUE(show.fixtures.empty());
      continue;
    }
    EXPECT_GT(pixelsOf(show), 0);
    EXPECT_TRUE(unwiredPieces(show).empty()) << static_cast<int>(kind);
    EXPECT_EQ(show.looks.size(), 2u);
    for (const Problem& problem : findProblems(show, [](const std::string&) { return true; }))
      EXPECT_NE(problem.severity, Severity::Error) << problem.what.text();
    const auto compiled = compile(show, {}, {});
    EXPECT_EQ(compiled->map->positions.size(), static_cast<std::size_t>(pixelsOf(show)));
  }
}

/// A history can be walked to any of its steps, and a drag that was called off leaves none.
TEST(HistorySteps, AnyStepCanBeGoneToAndACalledOffOneIsForgotten) {
  History history(newShow(ShowTemplate::Empty));
  for (const char* name : {"one", "two", "three"})
    history.apply(name, [name](Show& show) { show.name = name; });
  EXPECT_EQ(history.names(), (std::vector<std::string>{"", "one", "two", "three"}));
  history.goTo(1);
  EXPECT_EQ(history.now().name, "one");
  EXPECT_TRUE(history.canRedo()) << "what came behind it is not lost";
  history.goTo(99);
  EXPECT_EQ(history.now().name, "three");
  history.forgetAfter(2);
  EXPECT_EQ(history.now().name, "two");
  EXPECT_FALSE(history.canRedo());
  history.forgetAfter(7);
  EXPECT_EQ(history.now().name, "two") << "nothing lies behind it";
}

/// Several pieces go to a port each, and on to the next controller.
TEST(HangInTurn, PiecesGoToAPortEachAndOnToTheNextController) {
  Show show = newShow(ShowTemplate::Empty);
  for (int n = 0; n < 5; ++n) addFixture(show, LineShape{10, 0.02}, {0, 0.1 * n, 0});
  const ControllerId first = addController(show, 3);
  const ControllerId second = addController(show, 1);
  EXPECT_EQ(hangInTurn(show, unwiredPieces(show), {first, 1, 0}), 3);
  EXPECT_TRUE(find(show.controllers, first)->ports[0].run.empty()) << "it began with the second port";
  EXPECT_EQ(find(show.controllers, first)->ports[1].run.front().fixture, show.fixtures[0]->id);
  EXPECT_EQ(find(show.controllers, first)->ports[2].run.front().fixture, show.fixtures[1]->id);
  EXPECT_EQ(find(show.controllers, second)->ports[0].run.front().fixture, show.fixtures[2]->id);
  EXPECT_EQ(unwiredPieces(show).size(), 2u) << "for these no port was left";
}

/// 384 pixels as 230 and 154, in one step.
TEST(CutToNextPort, TheRestAndWhatHangsBehindItGoAlong) {
  Show show = newShow(ShowTemplate::Empty);
  const FixtureId matrix = addFixture(show, GridShape{24, 16, 0.02, 0.02}, {});
  const FixtureId line = addFixture(show, LineShape{10, 0.02}, {});
  const ControllerId box = addController(show, 2);
  hang(show, {matrix, 0, 384}, {box, 0, 0});
  hang(show, {line, 0, 10}, {box, 0, 1});
  cutToNextPort(show, {box, 0, 0}, 230);
  const auto& ports = find(show.controllers, box)->ports;
  ASSERT_EQ(ports[0].run.size(), 1u);
  EXPECT_EQ(ports[0].run[0].count, 230);
  ASSERT_EQ(ports[1].run.size(), 2u);
  EXPECT_EQ(ports[1].run[0].first, 230);
  EXPECT_EQ(ports[1].run[0].count, 154);
  EXPECT_EQ(ports[1].run[1].fixture, line);
  // On the last port it is only cut.
  cutToNextPort(show, {box, 1, 0}, 100);
  EXPECT_EQ(find(show.controllers, box)->ports[1].run.size(), 3u);
}

/// A score without music has its grid and its length.
TEST(SilentScore, HasBeatsAndBarsOfItsTempo) {
  Show show = newShow(ShowTemplate::Ring);
  const ScoreId id = addSilentScore(show, "Silent", 90, 3, 8);
  const Score& score = *find(show.scores, id);
  EXPECT_EQ(score.length, micros(16));
  EXPECT_TRUE(score.audio.empty());
  const BeatMarks grid = beatMarksOf(score);
  ASSERT_EQ(grid.beats.size(), 24u);
  ASSERT_EQ(grid.bars.size(), 8u);
  EXPECT_EQ(grid.bars[1], micros(2));
  EXPECT_EQ(grid.beats[1], micros(60.0 / 90));
  EXPECT_EQ(score.staves.size(), show.zones.size()) << "every zone has its stave";
}

/// Fixtures go from one show into another as text, with their strip type, and lie in a zone of their own.
TEST(Transfer, FixturesComeWithTheirStripAndUseOneThatIsHere) {
  Show from = newShow(ShowTemplate::HouseFront);
  changeItem(from.stripTypes, from.stripTypes[0]->id, [](StripType& s) { s.order = "RGBW"; });
  const auto parcel =
      parseShow(showText(parcelOf(from, std::vector<FixtureId>{from.fixtures[0]->id})), "parcel");
  ASSERT_TRUE(parcel);
  Show to = newShow(ShowTemplate::Ring);
  const std::size_t strips = to.stripTypes.size();
  const Unpacked first = unpack(to, *parcel);
  ASSERT_EQ(first.fixtures.size(), 1u);
  EXPECT_EQ(to.stripTypes.size(), strips + 1) << "its strip was not here";
  EXPECT_EQ(stripTypeOf(to, *find(to.fixtures, first.fixtures[0])).order, "RGBW");
  EXPECT_EQ(to.zones.back()->name, "Eaves left");
  const Unpacked second = unpack(to, *parcel);
  EXPECT_EQ(to.stripTypes.size(), strips + 1) << "now it is";
  EXPECT_NE(find(to.fixtures, second.fixtures[0])->name, "Eaves left") << "names stay apart";
  EXPECT_FALSE(brokenInvariant(to));
}

/// A look lights the zones of the same names; what has no namesake is told.
TEST(Transfer, LooksLightTheZonesOfTheSameNames) {
  const Show from = newShow(ShowTemplate::HouseFront);
  const auto parcel = parseShow(showText(parcelOf(from, from.looks[0]->id)), "parcel");
  ASSERT_TRUE(parcel);
  Show same = newShow(ShowTemplate::HouseFront);
  const std::size_t palettes = same.palettes.size();
  const Unpacked whole = unpack(same, *parcel);
  ASSERT_EQ(whole.looks.size(), 1u);
  EXPECT_EQ(whole.withoutZone, 0);
  EXPECT_EQ(find(same.looks, whole.looks[0])->steps[0].layers.size(), 5u);
  EXPECT_EQ(same.palettes.size(), palettes) << "its palette was here";
  EXPECT_FALSE(brokenInvariant(same));
  Show other = newShow(ShowTemplate::Ring);
  EXPECT_EQ(unpack(other, *parcel).withoutZone, 5);
  EXPECT_FALSE(brokenInvariant(other));
}

TEST(Transfer, APaletteIsCopiedUnderAFreeName) {
  Show show = newShow(ShowTemplate::Empty);
  const Unpacked done = unpack(show, parcelOf(show, show.palettes[0]->id));
  ASSERT_EQ(done.palettes.size(), 1u);
  EXPECT_NE(find(show.palettes, done.palettes[0])->name, show.palettes[0]->name);
  EXPECT_EQ(find(show.palettes, done.palettes[0])->stops, show.palettes[0]->stops);
}

/// Clips go to the playhead of the open score, to zones of the same names, and beside what plays there.
TEST(Transfer, ClipsGoToAPlaceInTimeAndToTheZonesOfTheSameNames) {
  const Show from = demo::carousel();
  const Score& score = *from.scores[0];
  const std::vector<ClipId> ids{score.clips[4]->id, score.clips[9]->id};
  const Micros gap = score.clips[9]->start - score.clips[4]->start;
  const auto parcel = parseShow(showText(parcelOf(from, score.id, ids)), "parcel");
  ASSERT_TRUE(parcel);
  Show to = from;
  const Unpacked done = unpack(to, *parcel, {score.id, std::chrono::seconds(500)});
  ASSERT_EQ(done.clips.size(), 2u);
  EXPECT_EQ(done.withoutZone, 0);
  const auto clip = [&](std::size_t i) { return *find(to.scores[0]->clips, done.clips[i]); };
  const Micros first = std::min(clip(0).start, clip(1).start);
  EXPECT_EQ(first, Micros(std::chrono::seconds(500)));
  EXPECT_EQ(std::max(clip(0).start, clip(1).start) - first, std::max(gap, -gap));
  for (std::size_t i = 0; i < 2; ++i) {
    Clip moved = *find(score.clips, ids[i]);
    EXPECT_EQ(clip(i).zone, moved.zone);
    EXPECT_EQ(clip(i).palette, moved.palette) << "its palette was here";
    EXPECT_EQ(clip(i).effect, moved.effect);
    EXPECT_EQ(clip(i).params, moved.params);
  }
  // At the same place once more: on a layer that is free.
  const Unpacked again = unpack(to, *parcel, {score.id, std::chrono::seconds(500)});
  EXPECT_NE(find(to.scores[0]->clips, again.clips[0])->layer, clip(0).layer);
  EXPECT_FALSE(brokenInvariant(to));
  Show other = newShow(ShowTemplate::Ring);
  const ScoreId silent = addSilentScore(other, "Silence", 120, 4, 8);
  EXPECT_EQ(unpack(other, *parcel, {silent, Micros(0)}).withoutZone, 2);
  EXPECT_FALSE(brokenInvariant(other));
}

/// Zones lie on the fixtures of the same names; what has none with as many pixels is told.
TEST(Transfer, ZonesLieOnTheFixturesOfTheSameNames) {
  const Show from = newShow(ShowTemplate::HouseFront);
  const auto parcel = parseShow(
      showText(parcelOf(from, std::vector<ZoneId>{from.zones[0]->id, from.zones[1]->id})), "parcel");
  ASSERT_TRUE(parcel);
  Show same = from;
  const std::size_t fixtures = same.fixtures.size();
  const Unpacked done = unpack(same, *parcel);
  ASSERT_EQ(done.zones.size(), 2u);
  EXPECT_EQ(same.fixtures.size(), fixtures) << "no fixture comes with a zone";
  EXPECT_EQ(find(same.zones, done.zones[0])->parts, from.zones[0]->parts);
  EXPECT_NE(find(same.zones, done.zones[0])->name, from.zones[0]->name);
  EXPECT_FALSE(brokenInvariant(same));
  Show other = newShow(ShowTemplate::Ring);
  const Unpacked none = unpack(other, *parcel);
  EXPECT_TRUE(none.zones.empty());
  EXPECT_EQ(static_cast<std::size_t>(none.withoutFixture),
            from.zones[0]->parts.size() + from.zones[1]->parts.size());
  EXPECT_FALSE(brokenInvariant(other));
}

}  // namespace
}  // namespace chispa
