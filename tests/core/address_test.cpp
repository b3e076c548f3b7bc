// SPDX-License-Identifier: GPL-3.0-or-later
#include <random>
#include <set>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/showjson.h"
#include "core/show/limits.h"
#include "core/wire/pack.h"
#include "core/wire/patch.h"
#include "core/wire/sizing.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

/// A line of strip on the first port of a controller.
struct OneLine {
  OneLine(int pixels, const std::string& order, const std::function<void(Controller&)>& change = {}) {
    put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Strip", order, 60, 5, 12, 1});
    line = addFixture(show, LineShape{pixels, 0.01}, {});
    box = addController(show, 4);
    hang(show, {line, 0, pixels}, {box, 0, 0});
    if (change) changeItem(show.controllers, box, change);
  }
  void edit(const std::function<void(Controller&)>& change) { changeItem(show.controllers, box, change); }
  std::vector<PatchSpan> spans() const { return derivePatch(show).spans; }
  std::vector<std::uint8_t> packed(const std::function<void(PixelFrame&)>& paint) const {
    const PixelMap map = mapPixels(show);
    const Packer packer(show, map, derivePatch(show), PowerBudget(show, {}));
    PixelFrame frame;
    frame.resize(static_cast<std::size_t>(map.count()));
    paint(frame);
    std::vector<std::uint8_t> bytes(packer.bufferSize());
    packer.pack(frame, DitherFrame(), 1, bytes);
    return bytes;
  }

  Show show;
  FixtureId line;
  ControllerId box;
};

TEST(Addresses, PackedPixelsAreSplitAndNoChannelIsLeft) {
  OneLine one(200, "RGB", [](Controller& c) { c.isPacked = true; });
  const auto spans = one.spans();
  ASSERT_EQ(spans.size(), 4u);
  EXPECT_EQ(spans[0].count, 170);
  EXPECT_EQ(spans[1].channel, 511);
  EXPECT_EQ(spans[1].bytes, 2);
  EXPECT_EQ(spans[2].universe, 2);
  EXPECT_EQ(spans[2].channel, 1);
  EXPECT_EQ(spans[2].firstByte, 2);
  EXPECT_EQ(spans[3].channel, 2);
  const auto bytes = one.packed([](PixelFrame& frame) { frame.r[170] = frame.g[170] = frame.b[170] = 1; });
  EXPECT_EQ(bytes[510], 255);
  EXPECT_EQ(bytes[511], 255);
  EXPECT_EQ(bytes[512], 255);
  EXPECT_EQ(bytes[509], 0);
  EXPECT_EQ(bytes[513], 0);
}

TEST(Addresses, FiveHundredAndTenChannelsHold170RgbAnd127RgbwPixels) {
  EXPECT_EQ(OneLine(400, "RGB", [](Controller& c) { c.channelsPerUniverse = 510; }).spans()[0].count, 170);
  EXPECT_EQ(OneLine(400, "RGBW", [](Controller& c) { c.channelsPerUniverse = 510; }).spans()[0].count, 127);
  EXPECT_EQ(OneLine(400, "RGBW").spans()[0].count, 128);
}

TEST(Addresses, GroupedPixelsShareAValueThatIsTheirMean) {
  OneLine one(10, "RGB");
  changeBeadSettings(one.show, {one.box, 0, 0}, [](WireSettings& s) { s.grouping = 4; });
  const auto spans = one.spans();
  ASSERT_EQ(spans.size(), 1u);
  EXPECT_EQ(spans[0].count, 3);
  EXPECT_EQ(spans[0].pixels, 10);
  const auto bytes = one.packed([](PixelFrame& frame) { frame.r[0] = frame.r[8] = frame.r[9] = 1; });
  EXPECT_NEAR(bytes[0], 64, 1);
  EXPECT_EQ(bytes[3], 0);
  EXPECT_EQ(bytes[6], 255) << "the last group has two pixels only";
}

TEST(Addresses, AFoldedStripTurnsBackEveryNPixels) {
  OneLine one(10, "RGB");
  changePortSettings(one.show, one.box, 0, [](WireSettings& s) { s.zigzag = 4; });
  std::vector<int> order;
  for (const PatchSpan& span : one.spans())
    for (int i = 0; i < span.count; ++i) order.push_back(span.pixelOf(i));
  EXPECT_EQ(order, (std::vector<int>{0, 1, 2, 3, 7, 6, 5, 4, 8, 9}));
}

TEST(Addresses, WhatABeadSaysGoesBeforeItsPortAndItsStrip) {
  StripType strip;
  strip.order = "GRB";
  strip.response = {1};
  WireSettings port;
  port.brightness = 0.5;
  port.order = "BGR";
  WireSettings bead;
  bead.brightness = 0.5;
  bead.response = Response{2.2};
  const ResolvedWire wire = resolveWire(strip, Fixture{}, port, bead);
  EXPECT_EQ(wire.order, "BGR");
  EXPECT_EQ(wire.response, Response{2.2});
  EXPECT_EQ(wire.brightness, 0.25);
  OneLine one(2, "RGB");
  changeBeadSettings(one.show, {one.box, 0, 0}, [](WireSettings& s) {
    s.order = "GRB";
    s.brightness = 0.5;
  });
  const auto bytes = one.packed([](PixelFrame& frame) { frame.g[0] = 1; });
  EXPECT_NEAR(bytes[0], 128, 1);
  EXPECT_EQ(bytes[1], 0);
}

TEST(Addresses, APinKeepsAStartAndOverlapsAreTold) {
  OneLine one(100, "RGB");
  const FixtureId second = addFixture(one.show, LineShape{100, 0.01}, {0, 1, 0});
  hang(one.show, {second, 0, 100}, {one.box, 1, 0});
  fixPortStart(one.show, one.box, 1, FixedStart{1, 451});
  const auto spans = one.spans();
  EXPECT_EQ(spans[1].universe, 1);
  EXPECT_EQ(spans[1].channel, 451);
  EXPECT_EQ(spans[1].count, 20);
  EXPECT_EQ(spans[2].universe, 2);
  const auto problemsNow = [&] {
    std::string all;
    for (const Problem& p : findProblems(one.show, [](const std::string&) { return true; }))
      all += p.where.text() + ": " + p.what.text() + "\n";
    return all;
  };
  EXPECT_EQ(problemsNow().find("taken twice"), std::string::npos) << problemsNow();
  fixPortStart(one.show, one.box, 1, FixedStart{1, 100});
  EXPECT_NE(problemsNow().find("port 2: Channel 100 of universe 1 is taken twice"), std::string::npos)
      << problemsNow();
  fixPortStart(one.show, one.box, 1, FixedStart{1, 511});
  EXPECT_NE(problemsNow().find("would split a pixel"), std::string::npos) << problemsNow();
  one.edit([](Controller& c) { c.maxPixelsOfPort = 50; });
  EXPECT_NE(problemsNow().find("100 pixels hang on it, but the port drives 50"), std::string::npos)
      << problemsNow();
}

/// The same channels on two outputs: meant so where one is pinned to the other's start and is as long.
TEST(Addresses, AnEchoIsNoClashAndShowsTheLightOfTheFirst) {
  OneLine one(200, "RGB");
  const FixtureId second = addFixture(one.show, LineShape{200, 0.01}, {0, 1, 0});
  hang(one.show, {second, 0, 200}, {one.box, 1, 0});
  const auto problemsNow = [&] {
    std::string all;
    for (const Problem& p : findProblems(one.show, [](const std::string&) { return true; }))
      all += p.where.text() + ": " + p.what.text() + "\n";
    return all;
  };
  fixPortStart(one.show, one.box, 1, FixedStart{1, 1});
  EXPECT_EQ(problemsNow().find("taken twice"), std::string::npos) << problemsNow();
  const auto bytes = one.packed([](PixelFrame& frame) {
    frame.r[0] = 1;
    frame.g[200] = 1;
    frame.b[199] = 1;
  });
  EXPECT_EQ(bytes[0], 255);
  EXPECT_EQ(bytes[1], 0) << "what the second would show is not sent";
  EXPECT_EQ(bytes[512 + 3 * 29 + 2], 255) << "in the second universe too";
  // One that is shorter, or of another kind, is a mistake.
  changeItem(one.show.fixtures, second, [](Fixture& f) { f.segments[0].shape = LineShape{150, 0.01}; });
  EXPECT_NE(problemsNow().find("taken twice"), std::string::npos);
}

TEST(Addresses, TwoControllersOnOneMulticastUniverseAreTold) {
  OneLine one(10, "RGB", [](Controller& c) { c.delivery = Delivery::Multicast; });
  const ControllerId other = addController(one.show, 1);
  hang(one.show, {one.line, 0, 10}, {other, 0, 0});
  changeItem(one.show.controllers, other, [](Controller& c) {
    c.host = "127.0.0.9";
    c.delivery = Delivery::Multicast;
    c.firstUniverse = 1;
  });
  const auto problems = findProblems(one.show, [](const std::string&) { return true; });
  EXPECT_TRUE(std::any_of(problems.begin(), problems.end(), [](const Problem& p) {
    return p.what.text().find("in multicast") != std::string::npos;
  }));
}

TEST(Addresses, AControllerThatInsertsSkippedPixelsIsSentNothingForThem) {
  OneLine one(10, "RGB");
  setSkipped(one.show, {one.box, 0, 0}, 3);
  EXPECT_EQ(one.spans()[0].channel, 10);
  one.edit([](Controller& c) { c.insertsSkipped = true; });
  EXPECT_EQ(one.spans()[0].channel, 1);
}

TEST(Addresses, StringsOfAConeSpreadOverPorts) {
  Show show;
  const FixtureId roof = addFixture(show, ConeShape{4, 30, 1, 0.1, 1, 0, 360, StringWay::Serpentine}, {});
  const ControllerId box = addController(show, 5);
  EXPECT_EQ(spreadOverPorts(show, roof, box, 2), 0) << "three ports are too few for four strings";
  EXPECT_EQ(spreadOverPorts(show, roof, box, 1), 4);
  EXPECT_EQ(find(show.controllers, box)->ports[4].run[0].first, 90);
}

TEST(Addresses, DdpIsOneRowOfBytes) {
  OneLine one(200, "RGB", [](Controller& c) { c.protocol = Protocol::Ddp; });
  const FixtureId second = addFixture(one.show, LineShape{5, 0.01}, {0, 1, 0});
  hang(one.show, {second, 0, 5}, {one.box, 1, 0});
  const PatchSpan last = one.spans().back();
  EXPECT_EQ(last.universe * 512 + last.channel - 1, 600) << "right behind the port before";
  EXPECT_EQ(addressText(Protocol::Ddp, last.universe, last.channel), "byte 601");
}

TEST(Sizing, AFuseHasAQuarterToSpareAndProtectsItsWire) {
  EXPECT_EQ(protectionFor(2, 1, 5).fuse_a, 3);
  EXPECT_EQ(protectionFor(8, 1, 12).fuse_a, 10);
  EXPECT_EQ(protectionFor(8, 1, 12).wire_mm2, 1) << "what carries the fuse, not the load";
  EXPECT_FALSE(protectionFor(100, 1, 12).isPossible());
  EXPECT_GT(protectionFor(8, 10, 5).wire_mm2, 6) << "a long wire loses too much";
  for (double amps = 0.1; amps < 32; amps += 0.1)
    for (const double metres : {0.2, 2.0, 10.0}) {
      const Protection chosen = protectionFor(amps, metres, 24);
      if (!chosen.isPossible()) continue;
      EXPECT_LE(amps, chosen.fuse_a);
      EXPECT_LE(chosen.fuse_a, wireCarries_a(chosen.wire_mm2)) << amps << " A over " << metres << " m";
    }
}

TEST(Sizing, AFuseThatDoesNotProtectItsWireIsAProblemWithACure) {
  OneLine one(100, "RGB");
  inject(one.show, {one.box, 0, 0}, 0);
  changeItem(one.show.controllers, one.box, [](Controller& c) {
    Injection& injection = c.ports[0].run[0].injections[0];
    injection.fuse_a = 10;
    injection.wire_mm2 = 0.5;
  });
  const auto problems = findProblems(one.show, [](const std::string&) { return true; });
  const auto found = std::find_if(problems.begin(), problems.end(), [](const Problem& p) {
    return p.what.text().find("does not protect") != std::string::npos;
  });
  ASSERT_NE(found, problems.end());
  EXPECT_EQ(found->severity, Severity::Error);
  EXPECT_NE(found->what.text().find("0.50 mm²"), std::string::npos) << found->what.text();
  EXPECT_NE(found->cure.text().find("7.5 A"), std::string::npos) << found->cure.text();
}

TEST(Sizing, FullWhiteIsDimmedAsTheSettingsSay) {
  OneLine one(100, "RGB");
  EXPECT_NEAR(portFullWhite_a(one.show, one.show.controllers[0]->ports[0]), 3.6, 1e-9);
  changePortSettings(one.show, one.box, 0, [](WireSettings& s) { s.brightness = 0.5; });
  EXPECT_NEAR(portFullWhite_a(one.show, one.show.controllers[0]->ports[0]), 1.8, 1e-9);
}

/// A wiring at random: beads of many fixtures, cut anywhere, in any order, with every option.
Show randomWiring(std::mt19937& random) {
  const auto n = [&random](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  Show show;
  const char* orders[] = {"RGB", "GRB", "RGBW", "W", "GRBW", "RG"};
  for (const char* order : orders) {
    StripType strip{show.newId<StripTypeId>(), order, order, 60, 5, 12, 1};
    strip.channelBits = n(0, 4) == 0 ? 16 : 8;
    put(show.stripTypes, strip);
  }
  std::vector<UnwiredPiece> pieces;
  for (int i = n(1, 8); i > 0; --i) {
    const int count = n(1, 700);
    const FixtureId id = addFixture(show, LineShape{count, 0.01}, {}, {},
                                    show.stripTypes[static_cast<std::size_t>(n(0, 5))]->id);
    const int cut = n(0, count);
    if (cut > 0) pieces.push_back({id, 0, cut});
    if (cut < count) pieces.push_back({id, cut, count - cut});
  }
  std::shuffle(pieces.begin(), pieces.end(), random);
  for (int c = n(1, 3); c > 0; --c) {
    const ControllerId id = addController(show, n(1, 6));
    changeItem(show.controllers, id, [&](Controller& box) {
      box.firstUniverse = c * 1000;
      box.portStart = static_cast<PortStart>(n(0, 1));
      box.channelsPerUniverse = n(0, 1) == 0 ? 510 : 512;
      box.isPacked = n(0, 2) == 0;
      box.insertsSkipped = n(0, 2) == 0;
      box.protocol = static_cast<Protocol>(n(0, 2));
      for (Port& port : box.ports)
        if (n(0, 3) == 0) port.settings.grouping = n(1, 5);
    });
  }
  for (const UnwiredPiece& piece : pieces) {
    const Controller& box =
        *show.controllers[static_cast<std::size_t>(n(0, static_cast<int>(show.controllers.size()) - 1))];
    const ChainPlace place{box.id, n(0, static_cast<int>(box.ports.size()) - 1), 0};
    hang(show, piece, place);
    if (n(0, 1) == 1) turnBead(show, place);
    setSkipped(show, place, n(0, 3) == 0 ? n(0, 200) : 0);
    changeBeadSettings(show, place, [&](WireSettings& s) {
      if (n(0, 4) == 0) s.zigzag = n(1, 50);
    });
  }
  return show;
}

/// For 1,000 random wirings, checked without the code that makes them: every pixel of every bead has its
/// channels once, no channel is given twice, whole pixels stay whole, order along a port rises, and the file
/// gives the same back.
TEST(Addresses, AThousandRandomWiringsObeyTheRules) {
  std::mt19937 random(2026);
  for (int round = 0; round < 1000; ++round) {
    const Show show = randomWiring(random);
    std::set<std::tuple<int, int, int>> taken;
    std::map<std::tuple<int, int, int>, int> pixels;
    std::map<std::pair<int, int>, int> lastOfPort;
    for (const PatchSpan& span : derivePatch(show).spans) {
      const Controller& box = *show.controllers[static_cast<std::size_t>(span.controller)];
      const bool isFlat = box.protocol == Protocol::Ddp;
      const int limit = isFlat ? 512 : box.channelsPerUniverse;
      ASSERT_GE(span.channel, 1);
      ASSERT_LE(span.channel + span.channelCount() - 1, limit) << "round " << round;
      ASSERT_TRUE(span.isWhole() || box.isPacked || isFlat);
      for (int c = 0; c < span.channelCount(); ++c)
        ASSERT_TRUE(taken.insert({span.controller, span.universe, span.channel + c}).second)
            << "round " << round;
      int& last = lastOfPort[{span.controller, span.port}];
      ASSERT_GT(span.universe * 512 + span.channel, last);
      last = span.universe * 512 + span.channel;
      if (span.firstByte == 0) pixels[{span.controller, span.port, span.bead}] += span.pixels;
    }
    for (std::size_t c = 0; c < show.controllers.size(); ++c)
      for (std::size_t p = 0; p < show.controllers[c]->ports.size(); ++p)
        for (std::size_t b = 0; b < show.controllers[c]->ports[p].run.size(); ++b)
          ASSERT_EQ((pixels[{static_cast<int>(c), static_cast<int>(p), static_cast<int>(b)}]),
                    show.controllers[c]->ports[p].run[b].count)
              << "round " << round;
    if (round % 50 != 0) continue;
    const auto read = parseShow(showText(show), "x");
    ASSERT_TRUE(read);
    ASSERT_EQ(*read, show);
  }
}

TEST(Problems, AGapThatAPinLeavesIsSaid) {
  Show show = demo::carousel();
  const Controller& rim = *show.controllers[0];
  fixPortStart(show, rim.id, 4, FixedStart{9, 1});
  const auto problems = findProblems(show, [](const std::string&) { return true; });
  EXPECT_TRUE(std::any_of(problems.begin(), problems.end(), [](const Problem& p) {
    return p.what.text() == "Universes 5 to 8 are left out by a fixed start.";
  }));
}

TEST(NewController, FindsRoomWhereTheLastUniverseIsUsed) {
  OneLine one(100, "RGB");
  one.edit([](Controller& c) { c.firstUniverse = limits::kMaxUniverse; });
  const ControllerId second = addController(one.show, 1);
  EXPECT_EQ(find(one.show.controllers, second)->firstUniverse, 1) << "after the last there is none";
}

}  // namespace
}  // namespace chispa
