// SPDX-License-Identifier: GPL-3.0-or-later
#include <random>
#include <set>

#include "carousel/carousel.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/portsettings.h"
#include "core/render/compiled.h"
#include "core/show/strip.h"
#include "core/wire/pack.h"
#include "core/wire/power.h"

namespace chispa {
namespace {

/// A show of one line of strip of the given order on one port.
Show lineShow(int pixels, const std::string& order) {
  Show show;
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Strip", order, 60, 5, 12, 1});
  const FixtureId line = addFixture(show, LineShape{pixels, 0.01}, {});
  const ControllerId box = addController(show, 2);
  hang(show, {line, 0, pixels}, {box, 0, 0});
  return show;
}

TEST(Patch, RgbFillsAUniverseWithA170Pixels) {
  const Patch patch = derivePatch(lineShow(171, "GRB"));
  ASSERT_EQ(patch.spans.size(), 2u);
  EXPECT_EQ(patch.spans[0].count, 170);
  EXPECT_EQ(patch.universes[0].channels, 510);
  EXPECT_EQ(patch.spans[1].universe, patch.spans[0].universe + 1);
  EXPECT_EQ(patch.spans[1].channel, 1);
}

TEST(Patch, RgbwFillsAUniverseWith128Pixels) {
  const Patch patch = derivePatch(lineShow(129, "RGBW"));
  ASSERT_EQ(patch.spans.size(), 2u);
  EXPECT_EQ(patch.spans[0].count, 128);
  EXPECT_EQ(patch.universes[0].channels, 512);
}

TEST(Patch, SkippedPixelsTakeChannels) {
  Show show = lineShow(10, "RGB");
  setSkipped(show, {show.controllers.front()->id, 0, 0}, 2);
  EXPECT_EQ(derivePatch(show).spans[0].channel, 7);
}

TEST(Patch, PortsStartAUniverseOrContinue) {
  Show show = lineShow(10, "RGB");
  const ControllerId box = show.controllers.front()->id;
  cutBead(show, {box, 0, 0}, 4);
  moveBead(show, {box, 0, 1}, {box, 1, 0});
  EXPECT_EQ(derivePatch(show).spans[1].universe, 2);
  EXPECT_EQ(derivePatch(show).spans[1].channel, 1);
  changeItem(show.controllers, box, [](Controller& c) { c.portStart = PortStart::Continue; });
  EXPECT_EQ(derivePatch(show).spans[1].universe, 1);
  EXPECT_EQ(derivePatch(show).spans[1].channel, 13);
}

TEST(Patch, AReversedBeadSendsItsLastPixelFirst) {
  Show show = lineShow(10, "RGB");
  turnBead(show, {show.controllers.front()->id, 0, 0});
  const PatchSpan span = derivePatch(show).spans[0];
  EXPECT_EQ(span.pixelOf(0), 9);
  EXPECT_EQ(span.pixelOf(9), 0);
}

/// The wire rules, for random wirings: pixels whole, no channel used twice on one controller, data order
/// kept, every hung pixel addressed.
TEST(Patch, RandomWiringsObeyTheRules) {
  std::mt19937 random(3);
  const auto pick = [&random](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  const char* orders[] = {"RGB", "GRB", "RGBW", "W", "BGR"};
  for (int round = 0; round < 1000; ++round) {
    Show show;
    for (const char* order : orders)
      put(show.stripTypes, StripType{show.newId<StripTypeId>(), order, order, 60, 5, 12, 1});
    const ControllerId box = addController(show, pick(1, 6));
    changeItem(show.controllers, box,
               [&](Controller& c) { c.portStart = static_cast<PortStart>(pick(0, 1)); });
    int hung = 0;
    for (int f = 0; f < 5; ++f) {
      const FixtureId id = addFixture(show, LineShape{pick(1, 400), 0.01}, {});
      changeFixture(show, id, [&](Fixture& fixture) {
        fixture.stripType = show.stripTypes[static_cast<std::size_t>(pick(0, 4))]->id;
      });
      const int count = pixelCount(*find(show.fixtures, id));
      const int port = pick(0, static_cast<int>(show.controllers[0]->ports.size()) - 1);
      hang(show, {id, 0, count}, {box, port, pick(0, 3)});
      hung += count;
      const int beads =
          static_cast<int>(show.controllers[0]->ports[static_cast<std::size_t>(port)].run.size());
      const ChainPlace any{box, port, pick(0, beads - 1)};
      if (pick(0, 1)) cutBead(show, any, pick(0, 200));
      if (pick(0, 2) == 0) turnBead(show, any);
      if (pick(0, 2) == 0) setSkipped(show, any, pick(0, 5));
    }
    std::set<std::pair<int, int>> channels;
    std::set<std::pair<std::uint32_t, int>> pixels;
    std::pair<int, int> last{0, 0};
    for (const PatchSpan& span : derivePatch(show).spans) {
      for (int i = 0; i < span.count; ++i) {
        const int first = span.channelOf(i);
        ASSERT_GE(first, 1);
        ASSERT_LE(first + span.channelsPerPixel - 1, kUniverseChannels) << "a pixel straddles two universes";
        ASSERT_LT(last, std::pair(span.universe, first)) << "data order is lost";
        last = {span.universe, first};
        for (int c = 0; c < span.channelsPerPixel; ++c)
          ASSERT_TRUE(channels.insert({span.universe, first + c}).second);
        ASSERT_TRUE(pixels.insert({span.fixture.value, span.pixelOf(i)}).second);
      }
    }
    ASSERT_EQ(static_cast<int>(pixels.size()), hung);
  }
}

TEST(Patch, TheCarouselIsWiredWholly) {
  const Show show = demo::carousel();
  int sum = 0;
  for (const PatchSpan& span : derivePatch(show).spans) sum += span.count;
  EXPECT_EQ(sum, 4046);
  EXPECT_TRUE(unwiredPieces(show).empty());
}

TEST(Packer, PutsChannelsInTheOrderOfTheStrip) {
  const Show show = lineShow(2, "GRB");
  const PixelMap map = mapPixels(show);
  const Packer packer(show, map, derivePatch(show), PowerBudget(show, {}));
  PixelFrame frame;
  frame.resize(2);
  frame.r[0] = 1;
  frame.b[1] = 1;
  std::vector<std::uint8_t> bytes(packer.bufferSize(), 99);
  packer.pack(frame, DitherFrame(), 1, bytes);
  EXPECT_EQ(std::vector(bytes.begin(), bytes.begin() + 7),
            (std::vector<std::uint8_t>{0, 255, 0, 0, 0, 255, 99}));
}

TEST(Packer, WhiteTakesWhatTheColoursHaveInCommon) {
  const Show show = lineShow(1, "RGBW");
  const PixelMap map = mapPixels(show);
  const Packer packer(show, map, derivePatch(show), PowerBudget(show, {}));
  PixelFrame frame;
  frame.resize(1);
  frame.r[0] = 1;
  frame.g[0] = 1;
  frame.b[0] = 1;
  std::vector<std::uint8_t> bytes(packer.bufferSize(), 0);
  packer.pack(frame, DitherFrame(), 1, bytes);
  EXPECT_EQ(std::vector(bytes.begin(), bytes.begin() + 4), (std::vector<std::uint8_t>{0, 0, 0, 255}));
}

TEST(Packer, FullAndDarkAreExact) {
  const ResponseTable bent(Response{2.2});
  for (std::uint32_t dither = 0; dither < 256; ++dither) {
    EXPECT_EQ(bent.value(0, dither), 0);
    EXPECT_EQ(bent.value(1, dither), 255);
  }
}

TEST(Packer, ManyValuesAtOnceAreThoseOfEachByItself) {
  std::vector<float> light;
  for (int i = 0; i < 1000; ++i) light.push_back(static_cast<float>(i) / 900.f - 0.05f);
  light.push_back(std::nanf(""));
  std::vector<std::uint8_t> dither(light.size());
  for (std::size_t i = 0; i < dither.size(); ++i) dither[i] = static_cast<std::uint8_t>(i * 37);
  for (const double response : {1.0, 0.6, 2.2}) {
    const ResponseTable table(Response{response}, 8);
    std::vector<std::uint8_t> values(light.size(), 99);
    table.values(light.data(), dither.data(), light.size(), values.data());
    for (std::size_t i = 0; i < light.size(); ++i)
      ASSERT_EQ(values[i], table.value(light[i], dither[i])) << response << " " << light[i];
  }
}

TEST(Packer, LongStripsBothWaysAreTheirPixelsOneByOne) {
  for (const bool isTurned : {false, true}) {
    Show show = lineShow(600, "GRB");
    const ControllerId box = show.controllers.front()->id;
    if (isTurned) turnBead(show, {box, 0, 0});
    const auto compiled = compile(show);
    PixelFrame frame;
    frame.resize(600);
    for (std::size_t i = 0; i < 600; ++i) {
      frame.r[i] = static_cast<float>(i) / 600;
      frame.g[i] = 1 - frame.r[i];
      frame.b[i] = 0.3f * frame.r[i];
    }
    std::vector<std::uint8_t> bytes(compiled->packer->bufferSize(), 0);
    const DitherFrame dither{4, 1};
    compiled->packer->pack(frame, dither, 1, bytes);
    for (std::size_t i = 0; i < 600; ++i) {
      const std::size_t pixel = isTurned ? 599 - i : i;
      const auto valueOf = [&](float light, int channel) {
        return ResponseTable().value(
            light, DitherTables::get().plane(dither, channel)[DitherTables::placeInLine(pixel)]);
      };
      const std::array rgb{valueOf(frame.r[pixel], 0), valueOf(frame.g[pixel], 1),
                           valueOf(frame.b[pixel], 2)};
      const std::uint8_t* at = &bytes[i / 170 * 512 + i % 170 * 3];
      ASSERT_EQ((std::array<std::uint8_t, 3>{at[0], at[1], at[2]}),
                (std::array<std::uint8_t, 3>{rgb[1], rgb[0], rgb[2]}))
          << i << " " << isTurned;
    }
  }
}

TEST(WireEdits, CuttingAtPixel170AndHangingTheRestOnTheNextPort) {
  Show show = lineShow(300, "GRB");
  const ControllerId box = show.controllers.front()->id;
  cutBead(show, {box, 0, 0}, 170);
  moveBead(show, {box, 0, 1}, {box, 1, 0});
  const Bead* rest = beadAt(show, {box, 1, 0});
  ASSERT_TRUE(rest);
  EXPECT_EQ(rest->first, 170);
  EXPECT_EQ(rest->count, 130);
}

TEST(WireEdits, CuttingAReversedBeadKeepsDataOrder) {
  Show show = lineShow(10, "RGB");
  const ControllerId box = show.controllers.front()->id;
  turnBead(show, {box, 0, 0});
  cutBead(show, {box, 0, 0}, 3);
  std::vector<int> order;
  for (const PatchSpan& span : derivePatch(show).spans)
    for (int i = 0; i < span.count; ++i) order.push_back(span.pixelOf(i));
  EXPECT_EQ(order, (std::vector<int>{9, 8, 7, 6, 5, 4, 3, 2, 1, 0}));
}

TEST(WireEdits, WhatIsTakenOffLiesInTheTray) {
  Show show = lineShow(300, "GRB");
  const ControllerId box = show.controllers.front()->id;
  cutBead(show, {box, 0, 0}, 170);
  unhang(show, {box, 0, 0});
  const auto loose = unwiredPieces(show);
  ASSERT_EQ(loose.size(), 1u);
  EXPECT_EQ(loose[0].first, 0);
  EXPECT_EQ(loose[0].count, 170);
}

TEST(WireEdits, OfSeveralThatAreTakenOffEachIsTheOneThatWasMeant) {
  Show show = lineShow(300, "GRB");
  const ControllerId box = show.controllers.front()->id;
  for (int bead = 0; bead < 4; ++bead) cutBead(show, {box, 0, bead}, 50);
  const auto run = [&] { return show.controllers[0]->ports[0].run; };
  const std::vector<Bead> all = run();
  ASSERT_EQ(all.size(), 5u);
  // Whatever their order, and however often one is named.
  unhang(show, {{box, 0, 0}, {box, 0, 3}, {box, 0, 1}, {box, 0, 3}, {box, 0, 9}});
  EXPECT_EQ(run(), (std::vector<Bead>{all[2], all[4]}));
}

TEST(PlanEdits, ALongerStripTakesItsBeadAlong) {
  Show show = lineShow(100, "GRB");
  const FixtureId id = show.fixtures.front()->id;
  changeFixture(show, id, [](Fixture& f) { std::get<LineShape>(f.segments[0].shape).count = 120; });
  EXPECT_EQ(show.controllers[0]->ports[0].run[0].count, 120);
  changeFixture(show, id, [](Fixture& f) { std::get<LineShape>(f.segments[0].shape).count = 50; });
  EXPECT_EQ(show.controllers[0]->ports[0].run[0].count, 50);
}

TEST(PlanEdits, DeletingAFixtureTakesItOffPortsAndZones) {
  Show show = demo::carousel();
  deleteFixtures(show, {findNamed(show.fixtures, "Canopy rim")->id});
  EXPECT_FALSE(findNamed(show.zones, "Canopy rim"));
  EXPECT_TRUE(show.controllers[0]->ports[0].run.empty());
  for (const auto& clip : show.scores[0]->clips) EXPECT_TRUE(find(show.zones, clip->zone));
}

TEST(PortSettings, SayWhereEachSectionBegins) {
  const Show show = demo::carousel();
  const auto settings = portSettings(show, derivePatch(show), 1);
  ASSERT_EQ(settings.size(), 4u);
  ASSERT_EQ(settings[0].sections.size(), 4u);
  EXPECT_EQ(settings[0].sections[0].skippedBefore, 1);
  EXPECT_EQ(settings[0].sections[0].universe, 16);
  EXPECT_EQ(settings[0].sections[0].channel, 4);
  EXPECT_EQ(settings[0].sections[1].channel, 4 + 32 * 3);
}

TEST(PortSettings, SurviveTheirJson) {
  const Show show = demo::carousel();
  const auto settings = portSettings(show, derivePatch(show), 0);
  const auto read = parsePortSettings(toJson(settings).dump(), "test");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, settings);
}

TEST(Power, FullWhiteOfTheShowFollowsFromItsStrips) {
  const auto amps = fullWhiteAmps(lineShow(100, "GRB"));
  EXPECT_NEAR(amps.at(5), 100 * 3 * 0.012, 1e-9);
}

TEST(Power, AFrameDrawsInProportionToItsLight) {
  const Show show = lineShow(100, "GRB");
  PixelFrame frame;
  frame.resize(100);
  std::fill(frame.r.begin(), frame.r.end(), 0.5f);
  EXPECT_NEAR(frameAmps(powerChains(show), frame, 0.5).at(5), 100 * 0.012 * 0.25, 1e-6);
}

}  // namespace
}  // namespace chispa
