// SPDX-License-Identifier: GPL-3.0-or-later
// What a show may be: files and edits that break it, and what becomes of them.
#include "core/rules/invariants.h"

#include <cmath>
#include <limits>
#include <random>

#include "carousel/carousel.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "core/base/boundedjson.h"
#include "core/check/problems.h"
#include "core/edit/adoptsetup.h"
#include "core/edit/clipedits.h"
#include "core/edit/markedits.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "core/files/showjson.h"
#include "core/render/compiled.h"
#include "core/show/limits.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

Json plainShow() {
  return {{"format", "chispa-show"}, {"version", 1}, {"name", "x"}};
}
Json lineFixture(int id, int count = 5) {
  return {
      {"id", id},
      {"name", "F" + std::to_string(id)},
      {"segments", {{{"name", "s"}, {"shape", {{"kind", "line"}, {"count", count}, {"pitch_m", 0.01}}}}}}};
}
Json gridFixture(int id, int columns, int rows) {
  return {{"id", id},
          {"name", "G" + std::to_string(id)},
          {"segments",
           {{{"name", "s"},
             {"shape",
              {{"kind", "grid"},
               {"columns", columns},
               {"rows", rows},
               {"column_pitch_m", 0.01},
               {"row_pitch_m", 0.01}}}}}}};
}

Show read(const Json& json) {
  auto show = parseShow(json.dump(), "test");
  EXPECT_TRUE(show) << (show ? "" : show.failure().text());
  return show ? *std::move(show) : Show{};
}

/// It is sound, what it cannot read comes back where it stood, and all that computes light takes it.
void expectSound(const Show& show) {
  const auto broken = brokenInvariant(show);
  EXPECT_FALSE(broken) << broken->text();
  const auto again = parseShow(showText(show), "again");
  ASSERT_TRUE(again) << again.failure().text();
  EXPECT_TRUE(*again == show);
  EXPECT_TRUE(compile(show, {}, {}));
  findProblems(show, [](const std::string&) { return true; });
}

TEST(Invariants, OfTwoThingsWithOneIdTheSecondIsKeptUnread) {
  Json json = plainShow();
  json["fixtures"] = {lineFixture(1, 300), lineFixture(1, 5), lineFixture(2)};
  json["zones"] = {{{"id", 3}, {"name", "Z"}, {"parts", {{{"fixture", 1}}}}}};
  const Show show = read(json);
  ASSERT_EQ(show.fixtures.size(), 2u);
  ASSERT_EQ(show.unread.size(), 1u);
  EXPECT_EQ(show.unread[0].index, 1);
  EXPECT_NE(show.unread[0].reason.find("id 1"), std::string::npos) << show.unread[0].reason;
  expectSound(show);
  EXPECT_EQ(Json::parse(showText(show))["fixtures"][1]["segments"][0]["shape"]["count"], 5)
      << "where it stood";
}

TEST(Invariants, ThingsWithoutAnIdAreKeptUnread) {
  Json json = plainShow();
  json["palettes"] = {{{"name", "P"}, {"stops", Json::array()}}};
  const Show show = read(json);
  EXPECT_TRUE(show.palettes.empty());
  expectSound(show);
}

TEST(Invariants, PixelsAreAddedUpInSixtyFourBits) {
  Json fixture = lineFixture(1, limits::kMaxPixelsOfSegment);
  const Json segment = fixture["segments"][0];
  for (int i = 0; i < 11'000; ++i) fixture["segments"].push_back(segment);
  Json json = plainShow();
  json["fixtures"] = {fixture, lineFixture(2)};
  const Show show = read(json);
  ASSERT_EQ(show.fixtures.size(), 1u) << "2.2 thousand million pixels are none";
  EXPECT_NE(show.unread.at(0).reason.find("2200200000"), std::string::npos) << show.unread[0].reason;
  expectSound(show);
}

TEST(Invariants, FourMillionPixelsMayBeAndOneMoreMayNot) {
  Json json = plainShow();
  for (int id = 1; id <= 20; ++id) json["fixtures"].push_back(lineFixture(id, limits::kMaxPixelsOfSegment));
  Show show = read(json);
  EXPECT_EQ(pixelCount(show), limits::kMaxPixels);
  EXPECT_FALSE(brokenInvariant(show));
  const Show full = show;
  addFixture(show, LineShape{1, 0.1}, {});
  ASSERT_TRUE(brokenInvariant(show, &full));
  EXPECT_NE(brokenInvariant(show, &full)->what.text().find("4000001"), std::string::npos);
}

TEST(Invariants, RunsOfAllPartsShareOneBudget) {
  Json json = plainShow();
  json["fixtures"] = {lineFixture(1, 1000)};
  Json zone = {{"id", 2}, {"name", "Z"}, {"parts", Json::array()}};
  for (int i = 0; i < 3'000; ++i)
    zone["parts"].push_back({{"fixture", 1}, {"runs", {{{"first", 0}, {"count", 2'000'000}, {"step", 0}}}}});
  json["zones"] = {zone};
  const Show show = read(json);
  EXPECT_TRUE(show.zones.empty());
  expectSound(show);
}

TEST(Invariants, WholeFixturesTakenAgainAndAgainCountToo) {
  Json json = plainShow();
  json["fixtures"] = {lineFixture(1, 100'000)};
  for (int z = 0; z < 100; ++z) {
    Json zone = {{"id", 10 + z}, {"name", "Z"}, {"parts", Json::array()}};
    for (int i = 0; i < 30; ++i) zone["parts"].push_back({{"fixture", 1}});
    json["zones"].push_back(zone);
  }
  EXPECT_EQ(read(json).zones.size(), static_cast<std::size_t>(limits::kMaxZonePixels / 3'000'000));
}

TEST(Invariants, AZoneMayNotHaveMorePlacesThanItCanKeep) {
  Json json = plainShow();
  json["fixtures"] = {gridFixture(1, 46'400, 1), gridFixture(2, 1, 46'400)};
  json["zones"] = {
      {{"id", 3},
       {"name", "Side by side"},
       {"layout", "side-by-side"},
       {"parts", {{{"fixture", 1}}, {{"fixture", 2}}}}},
      {{"id", 4}, {"name", "One behind the other"}, {"parts", {{{"fixture", 1}}, {{"fixture", 2}}}}}};
  const Show show = read(json);
  ASSERT_EQ(show.zones.size(), 1u);
  EXPECT_EQ(show.zones[0]->id, ZoneId{4});
  expectSound(show);
}

TEST(Invariants, SkippedPixelsOfManyBeadsAreAddedUp) {
  Json json = plainShow();
  json["fixtures"] = {lineFixture(1)};
  Json run = Json::array();
  for (int i = 0; i < 5'000; ++i)
    run.push_back({{"fixture", 1}, {"first", 0}, {"count", 5}, {"skipped_before", 10'000}});
  json["controllers"] = {{{"id", 2}, {"name", "C"}, {"host", "127.0.0.1"}, {"ports", {{{"run", run}}}}}};
  EXPECT_TRUE(read(json).controllers.empty());
}

TEST(Invariants, BlocksCountWhereverTheyStand) {
  Json json = plainShow();
  Json clips = Json::array(), stands = Json::array();
  for (int i = 1; i <= 2'000; ++i) {
    clips.push_back({{"id", i}, {"effect", "swell"}, {"length_us", 1'000'000}});
    stands.push_back({{"id", i}, {"block", 9}, {"length_us", 1'000'000}});
  }
  json["blocks"] = {{{"id", 9}, {"name", "B"}, {"length_us", 1'000'000}, {"clips", clips}}};
  json["scores"] = {{{"id", 10}, {"name", "S"}, {"length_us", 1'000'000}, {"clips", stands}}};
  const Show show = read(json);
  EXPECT_EQ(show.blocks.size(), 1u);
  EXPECT_TRUE(show.scores.empty()) << "four million clips";
  expectSound(show);
}

TEST(Invariants, AnIdNearTheEndOfNumbersLeavesRoomForMore) {
  for (const std::uint64_t id :
       {3'999'999'999ull, 4'000'000'001ull, 4'294'967'294ull, 4'294'967'295ull, 99'999'999'999ull}) {
    Json json = plainShow();
    json["fixtures"] = {lineFixture(1)};
    json["fixtures"][0]["id"] = id;
    json["next_id"] = id;
    Show show = read(json);
    addFixture(show, LineShape{3, 0.1}, {});
    expectSound(show);
    EXPECT_LT(show.nextId, 100u) << "fresh ids are counted from the near end";
  }
}

TEST(Invariants, OneBadElementOfAScoreLeavesTheOthersAlone) {
  Json json = plainShow();
  json["scores"] = {{{"id", 1},
                     {"name", "S"},
                     {"length_us", 60'000'000},
                     {"lanes",
                      {{{"id", 2},
                        {"name", "Beats"},
                        {"kind", "beats"},
                        {"marks",
                         {{{"id", 3}, {"at_us", 1'000'000}},
                          {{"id", 4}, {"at_us", 90'000'000'000}},
                          {{"id", 5}, {"at_us", 2'000'000}}}}},
                       7}},
                     {"staves", {11, 12, 11, "x"}},
                     {"clips",
                      {{{"id", 6}, {"effect", "swell"}, {"zone", 11}},
                       {{"id", 7}, {"blend", "burn"}},
                       {{"id", 6}, {"effect", "swell"}}}}}};
  const Show show = read(json);
  ASSERT_EQ(show.scores.size(), 1u);
  const Score& score = *show.scores[0];
  ASSERT_EQ(score.lanes.size(), 1u);
  EXPECT_EQ(score.lanes[0].marks.size(), 2u) << "a mark beyond 24 hours takes nothing along";
  EXPECT_EQ(score.staves, (std::vector<ZoneId>{ZoneId{11}, ZoneId{12}}));
  EXPECT_EQ(score.clips.size(), 1u);
  EXPECT_EQ(show.unread.size(), 6u);
  expectSound(show);
  const Json again = Json::parse(showText(show));
  EXPECT_EQ(again["scores"][0]["lanes"][0]["marks"][1]["at_us"], 90'000'000'000);
  EXPECT_EQ(again["scores"][0]["lanes"][1], 7);
  EXPECT_EQ(again["scores"][0]["staves"], json["scores"][0]["staves"]);
  EXPECT_EQ(again["scores"][0]["clips"][1]["blend"], "burn");
}

TEST(Invariants, WhatCouldNotBeReadOfAScoreGoesWithIt) {
  Json json = plainShow();
  json["scores"] = {{{"id", 1}, {"name", "S"}, {"clips", {7}}}, {{"id", 2}, {"name", "T"}}};
  Show show = read(json);
  ASSERT_EQ(show.unread.size(), 1u);
  remove(show.scores, ScoreId{1});
  expectSound(read(Json::parse(showText(show))));
}

TEST(Invariants, ListsThatAreNoneAreKeptAndNeverCoverNewOnes) {
  Json json = plainShow();
  json["own_effects"] = {7};
  json["palettes"] = "all of them";
  Show show = read(json);
  EXPECT_EQ(Json::parse(showText(show))["own_effects"], Json({7}));
  EXPECT_EQ(Json::parse(showText(show))["palettes"], "all of them");
  put(show.palettes, Palette{show.newId<PaletteId>(), "New", {{0, {1, 2, 3}}}});
  const Json again = Json::parse(showText(show));
  EXPECT_EQ(again["palettes"][0]["name"], "New");
  EXPECT_EQ(again["palettes (unread)"], "all of them");
  EXPECT_EQ(read(again).palettes.size(), 1u);
}

TEST(Invariants, BracketsMayNotNestWithoutEnd) {
  for (const auto& [open, close] : {std::pair("[", "]"), std::pair("{\"a\":", "}")}) {
    std::string deep = R"({"format": "chispa-show", "version": 1, "name": "x", "later": )";
    for (int i = 0; i < 300'000; ++i) deep += open;
    deep += "1";
    for (int i = 0; i < 300'000; ++i) deep += close;
    const auto show = parseShow(deep + "}", "deep.chispa");
    ASSERT_FALSE(show);
    EXPECT_NE(show.failure().what.text().find("deep"), std::string::npos);
    EXPECT_EQ(show.failure().where, "deep.chispa");
  }
  Json json = plainShow();
  json["name"] = std::string(1000, '[') + "\\\"";
  EXPECT_EQ(read(json).name.size(), 1002u) << "brackets in a text do not nest";
}

TEST(Invariants, AFileMayNotHoldMoreValuesThanMemory) {
  std::string wide = R"({"format": "chispa-show", "version": 1, "later": [0)";
  for (std::size_t i = 0; i < kMaxJsonValues; ++i) wide += ",0";
  EXPECT_FALSE(parseShow(wide + "]}", "wide.chispa"));
}

/// Every number and word of the demo's file is turned into something extreme, one or a few at a time.
TEST(Invariants, AnythingReadIsSavedAndReadAsTheSame) {
  const Json whole = Json::parse(showText(demo::carousel()));
  const std::vector<Json> extremes = {0,
                                      -1,
                                      1,
                                      1e9,
                                      -1e9,
                                      1e300,
                                      4'294'967'295u,
                                      9'223'372'036'854'775'807,
                                      86'400'000'000,
                                      86'400'000'001,
                                      "",
                                      "\xc3\xa9",
                                      true,
                                      nullptr,
                                      Json::array(),
                                      Json::object(),
                                      0.02,
                                      1e-300,
                                      Json::array({1, 2, 3})};
  std::mt19937 random(5);
  std::vector<Json::json_pointer> places;
  const Json flat = whole.flatten();
  for (const auto& [path, value] : flat.items()) places.emplace_back(path);
  for (int round = 0; round < 120; ++round) {
    Json hurt = whole;
    for (int i = 0; i < 1 + round % 5; ++i) {
      try {
        hurt.at(places[random() % places.size()]) = extremes[random() % extremes.size()];
      } catch (const Json::exception&) {
        continue;  // What it stood in has been replaced already.
      }
    }
    const auto show = parseShow(hurt.dump(), "hurt");
    if (!show) continue;
    const auto broken = brokenInvariant(*show);
    ASSERT_FALSE(broken) << broken->text();
    const auto again = parseShow(showText(*show), "again");
    ASSERT_TRUE(again) << again.failure().text();
    ASSERT_TRUE(*again == *show)
        << round << "\n"
        << Json::diff(Json::parse(showText(*show)), Json::parse(showText(*again))).dump(1)
        << (again->unread == show->unread) << again->nextId << " " << show->nextId;
  }
}

/// Edits with numbers that no field would let through: they are either refused, or what they make is saved
/// and read as the same.
TEST(Invariants, NoEditMakesWhatCannotBeReadAgain) {
  const Show before = demo::carousel();
  const double nan = std::numeric_limits<double>::quiet_NaN(), inf = std::numeric_limits<double>::infinity();
  const FixtureId fixture = before.fixtures[0]->id;
  const ScoreId score = before.scores[0]->id;
  const ClipId clip = before.scores[0]->clips[0]->id;
  using Edit = std::function<void(Show&, double)>;
  const std::vector<Edit> edits = {
      [&](Show& s, double v) {
        moveFixtures(s, {fixture}, {v, 0, 0});
      },
      [&](Show& s, double v) {
        addFixture(s, LineShape{5, v}, {});
      },
      [&](Show& s, double v) {
        addFixture(s, ArcShape{12, 0.1, v, v}, {0, v, 0});
      },
      [&](Show& s, double v) {
        addFixture(s, PointsShape{{{v, v, v}}}, {});
      },
      [&](Show& s, double v) {
        duplicateInRow(s, {fixture}, 3, {v, 0, 0});
      },
      [&](Show& s, double v) {
        changeItem(s.stripTypes, s.stripTypes[0]->id, [&](StripType& t) {
          t.white = {static_cast<float>(v), 0.333333f, 1};
        });
      },
      [&](Show& s, double v) {
        changeItem(s.stripTypes, s.stripTypes[0]->id, [&](StripType& t) { t.volts = v; });
      },
      [&](Show& s, double v) {
        changeItem(s.controllers, s.controllers[0]->id, [&](Controller& c) { c.delay_ms = v; });
      },
      [&](Show& s, double v) {
        changeItem(s.palettes, s.palettes[0]->id, [&](Palette& p) { p.stops.push_back({v, {1, 2, 3}}); });
      },
      [&](Show& s, double v) { changeClips(s, score, {clip}, [&](Clip& c) { c.strength = v; }); },
      [&](Show& s, double v) { changeClips(s, score, {clip}, [&](Clip& c) { c.params["x"] = v; }); },
      [&](Show& s, double v) {
        changeClips(s, score, {clip}, [&](Clip& c) {
          c.start = Micros(std::isfinite(v) ? static_cast<std::int64_t>(std::clamp(v, -1e18, 1e18)) : -1);
        });
      },
      [&](Show& s, double v) {
        changeClips(s, score, {clip}, [&](Clip& c) {
          c.motions["speed"] = Motion{Driver::Curve, v, 1, {{0.5, 0.5}, {0.1, v}}, 0, {}};
        });
      },
      [&](Show& s, double) {
        changeItem(s.scores, score, [](Score& one) { one.name = "\xff\xfe caf\xe9"; });
      },
      [&](Show& s, double) {
        changeItem(s.scores, score, [](Score& one) { one.clips.push_back(one.clips.front()); });
      },
      [&](Show& s, double) {
        changeItem(s.scores, score, [](Score& one) { one.staves.push_back(one.staves.front()); });
      },
      [&](Show& s, double) { s.fixtures.push_back(s.fixtures.front()); },
      [&](Show& s, double) { s.name = "\xed\xa0\x80"; },
  };
  int refused = 0;
  for (std::size_t e = 0; e < edits.size(); ++e)
    for (const double v : {0.0, -1.0, 1.0, 0.3333333333333333, 1e-300, 1e6, 1e300, nan, inf, -inf}) {
      Show after = before;
      edits[e](after, v);
      if (brokenInvariant(after, &before)) {
        EXPECT_TRUE(brokenInvariant(after)) << "with and without what it was before";
        ++refused;
        continue;
      }
      EXPECT_FALSE(brokenInvariant(after)) << e << " " << v;
      const auto again = parseShow(showText(after), "again");
      ASSERT_TRUE(again) << again.failure().text();
      EXPECT_TRUE(*again == after && again->unread.empty()) << "edit " << e << " with " << v;
    }
  EXPECT_GT(refused, 60);
}

TEST(Invariants, ASetUpThatLiesMakesASoundShow) {
  Show show = demo::carousel();
  const ControllerId id = show.controllers[0]->id;
  for (const int universe : {0, 1, 63'999})
    for (const int skipped : {0, 10, 10'000}) {
      Show after = show;
      adoptSetup(after, id,
                 {{1, Protocol::Ddp, {{5, "RGB", skipped, universe, 1, 8, 1, 1, false, 0}}, 512, true}});
      const auto broken = brokenInvariant(after, &show);
      EXPECT_FALSE(broken) << broken->text();
      for (const PatchUniverse& used : derivePatch(after).universes) EXPECT_GE(used.universe, 0);
    }
}

}  // namespace
}  // namespace chispa
