// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <numeric>
#include <random>

#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/showjson.h"
#include "core/wire/powerbudget.h"
#include "core/wire/powernet.h"
#include "core/zone/pixelmap.h"

namespace chispa {
namespace {

constexpr int kAll = 1'000'000;

/// One line of `pixels` at 60 a metre on port 1 of a controller with two ports.
struct PoweredLine {
  explicit PoweredLine(int pixels) {
    StripType strip;
    strip.id = show.newId<StripTypeId>();
    put(show.stripTypes, strip);
    fixture = addFixture(show, LineShape{pixels}, {});
    box = addController(show, 2);
    hang(show, {fixture, 0, pixels}, at(0));
  }
  ChainPlace at(int bead) const { return {box, 0, bead}; }
  void feed(int pixel, double metres, double mm2 = 1.5) {
    inject(show, at(0), pixel);
    const int last = static_cast<int>(beadAt(show, at(0))->injections.size()) - 1;
    for (int i = 0; i <= last; ++i)
      if (beadAt(show, at(0))->injections[static_cast<std::size_t>(i)].pixel == pixel)
        changeInjection(show, at(0), i, [&](Injection& injection) {
          injection.wire_m = metres;
          injection.wire_mm2 = mm2;
        });
  }
  PowerReading full() const { return readFullWhite(powerChains(show), show.supplies.size()); }

  Show show;
  FixtureId fixture;
  ControllerId box;
};

TEST(PowerNet, OnePixelAtTheEndOfAWireFollowsOhmsLaw) {
  PoweredLine line(1);
  line.feed(0, 10, 0.5);
  const auto reading = line.full();
  const double amps = 0.036;
  EXPECT_NEAR(reading.states[0].feed_a[0], amps, 1e-9);
  EXPECT_NEAR(reading.states[0].volts[0], 5 - amps * (0.005 + 2 * 0.0175 * 10 / 0.5), 1e-9);
  EXPECT_NEAR(reading.supply_a[0], amps, 1e-9);
}

TEST(PowerNet, ALineFedAtOneEndDropsAsItsCopperSays) {
  constexpr int kPixels = 120;
  PoweredLine line(kPixels);
  line.feed(0, 0);
  const auto reading = line.full();
  // Current through the k-th gap is that of all pixels behind it.
  double volts = 5 - kPixels * 0.036 * 0.005;
  for (int i = 0; i < kPixels; ++i) {
    if (i > 0) volts -= (kPixels - i) * 0.036 * 0.12 / 60;
    ASSERT_NEAR(reading.states[0].volts[static_cast<std::size_t>(i)], volts, 1e-6) << i;
  }
}

TEST(PowerNet, ASecondPinHalvesTheWorstDropByFour) {
  PoweredLine line(240);
  line.feed(0, 0);
  const auto one = line.full();
  line.feed(240, 0);
  const auto two = line.full();
  const auto least = [](const PowerReading& r) {
    return *std::min_element(r.states[0].volts.begin(), r.states[0].volts.end());
  };
  EXPECT_NEAR((5 - least(two)) / (5 - least(one)), 0.25, 0.03);
  EXPECT_NEAR(two.states[0].feed_a[0], two.states[0].feed_a[1], 1e-6);
}

TEST(PowerNet, CurrentsAndSharesAddUpOnRandomThreads) {
  std::mt19937 random(7);
  const auto whole = [&](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  for (int round = 0; round < 60; ++round) {
    const int pixels = whole(2, 300);
    PoweredLine line(pixels);
    line.show.newId<SupplyId>();
    addSupply(line.show, 5);
    addSupply(line.show, 5);
    for (int pins = whole(1, 5); pins > 0; --pins) line.feed(whole(0, pixels), whole(0, 20));
    for (std::size_t i = 0; i < beadAt(line.show, line.at(0))->injections.size(); ++i)
      changeInjection(line.show, line.at(0), static_cast<int>(i), [&](Injection& n) {
        n.supply = line.show.supplies[static_cast<std::size_t>(whole(0, 1))]->id;
      });
    const auto chains = powerChains(line.show);
    ASSERT_EQ(chains.size(), 1u);
    std::vector<double> amps;
    for (int i = 0; i < pixels; ++i) amps.push_back(whole(0, 60) * 1e-3);
    const ChainState state = solve(chains[0], amps);
    const double drawn = std::accumulate(amps.begin(), amps.end(), 0.0);
    EXPECT_NEAR(std::accumulate(state.feed_a.begin(), state.feed_a.end(), 0.0), drawn, 1e-6);
    const auto first = shareOf(chains[0], 0);
    const auto second = shareOf(chains[0], 1);
    double byShare = 0;
    for (std::size_t i = 0; i < first.size(); ++i) {
      EXPECT_NEAR(first[i] + second[i], 1, 1e-9);
      byShare += first[i] * amps[i];
    }
    double bySolving = 0;
    for (std::size_t f = 0; f < state.feed_a.size(); ++f)
      if (chains[0].feeds[f].supply == 0) bySolving += state.feed_a[f];
    EXPECT_NEAR(byShare, bySolving, 1e-6);
    // No voltage above the supply's, and Kirchhoff at the free end.
    for (const double v : state.volts) EXPECT_LE(v, 5 + 1e-9);
  }
}

TEST(PowerNet, AStripOfAnotherVoltageIsAChainOfItsOwn) {
  PoweredLine line(30);
  StripType twelve;
  twelve.id = line.show.newId<StripTypeId>();
  twelve.volts = 12;
  put(line.show.stripTypes, twelve);
  const FixtureId other = addFixture(line.show, LineShape{20}, {}, {}, twelve.id);
  hang(line.show, {other, 0, 20}, {line.box, 0, kAll});
  const auto chains = powerChains(line.show);
  ASSERT_EQ(chains.size(), 2u);
  EXPECT_EQ(chains[0].volts, 5);
  EXPECT_EQ(chains[1].volts, 12);
}

TEST(PowerEdits, PinsFollowTheStripWhenItIsCutAndTurned) {
  PoweredLine line(100);
  for (const int pixel : {0, 40, 100}) line.feed(pixel, pixel);
  cutBead(line.show, line.at(0), 60);
  ASSERT_EQ(beadAt(line.show, line.at(0))->injections.size(), 2u);
  ASSERT_EQ(beadAt(line.show, line.at(1))->injections.size(), 1u);
  EXPECT_EQ(beadAt(line.show, line.at(1))->injections[0].pixel, 40);
  turnBead(line.show, line.at(0));
  EXPECT_EQ(beadAt(line.show, line.at(0))->injections[1].pixel, 20);
  EXPECT_EQ(beadAt(line.show, line.at(0))->injections[1].wire_m, 40);
}

TEST(PowerEdits, PinsSurviveTheFileAndASupplyTakesItsOwnAway) {
  PoweredLine line(100);
  line.feed(10, 3, 2.5);
  changeItem(line.show.supplies, line.show.supplies[0]->id, [](Supply& s) { s.limit_a = 4; });
  changeItem(line.show.controllers, line.box, [](Controller& c) {
    c.ports[0].mark = Srgb8{200, 20, 20};
    c.ports[1].screen.columns = 9;
    c.delay_ms = 40;
    c.maxFramesPerSecond = 30;
    c.protocol = Protocol::SerialDmx;
  });
  const auto read = parseShow(showText(line.show), "test");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, line.show);
  deleteSupply(line.show, line.show.supplies[0]->id);
  EXPECT_TRUE(beadAt(line.show, line.at(0))->injections.empty());
}

TEST(PowerProblems, AreSaidWithTheirCure) {
  PoweredLine line(500);
  const auto said = [&] {
    std::string all;
    for (const Problem& problem : findProblems(line.show, [](const std::string&) { return true; }))
      all += problem.what.text() + " " + problem.cure.text() + "\n";
    return all;
  };
  EXPECT_EQ(said().find("power"), std::string::npos) << "without a supply nobody asks";
  addSupply(line.show, 5);
  EXPECT_NE(said().find("Nothing feeds it with power."), std::string::npos);
  line.feed(0, 1);
  changeInjection(line.show, line.at(0), 0, [](Injection& i) { i.fuse_a = 5; });
  EXPECT_NE(said().find("A flow through a fuse of 5 A."), std::string::npos) << said();
  EXPECT_NE(said().find("its colours fade from pixel"), std::string::npos) << said();
  changeItem(line.show.supplies, line.show.supplies[0]->id, [](Supply& s) { s.volts = 12; });
  EXPECT_NE(said().find("gives 12 V to a strip of 5 V."), std::string::npos) << said();
}

TEST(PowerBudget, MeasuresWhatTheSolverSays) {
  PoweredLine line(200);
  addSupply(line.show, 5);
  addSupply(line.show, 5);
  line.feed(0, 2);
  line.feed(150, 9);
  changeInjection(line.show, line.at(0), 1, [&](Injection& i) { i.supply = line.show.supplies[1]->id; });
  const auto chains = powerChains(line.show);
  const PowerBudget budget(line.show, chains);
  PixelFrame frame;
  frame.resize(200);
  for (std::size_t i = 0; i < 200; ++i) frame.g[i] = static_cast<float>(i) / 200;
  std::array<double, 2> measured{};
  budget.measure(frame, 0.5f, measured);
  const auto solved = readFrame(chains, 2, frame, 0.5);
  EXPECT_NEAR(measured[0], solved.supply_a[0], 1e-4);
  EXPECT_NEAR(measured[1], solved.supply_a[1], 1e-4);
}

TEST(PowerBudget, TheKeeperIsNeverOverAndRisesSlowly) {
  BudgetLimiter keeper(1);
  const std::array<double, 1> limit{2};
  std::mt19937 random(3);
  float before = 1;
  for (int i = 0; i < 2000; ++i) {
    const std::array<double, 1> wanted{std::uniform_real_distribution(0.0, 8.0)(random)};
    const float level = keeper.follow(wanted, limit, 0.025)[0];
    ASSERT_LE(wanted[0] * static_cast<double>(level), 2 + 1e-6);
    ASSERT_LE(level, before + 0.05f) << "it may fall at once, but rises gently";
    before = level;
  }
  for (int i = 0; i < 200; ++i) before = keeper.follow(std::array<double, 1>{1}, limit, 0.025)[0];
  EXPECT_GT(before, 0.99f);
}

}  // namespace
}  // namespace chispa
