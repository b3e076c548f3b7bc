// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/memory.h"

#include <fstream>
#include <random>
#include <thread>

#include "capture.h"
#include "eventually.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <httplib.h>

#include "core/almanac/sun.h"
#include "core/controllermemory/content.h"
#include "link/memorystore.h"
#include "link/nodememory.h"
#include "node/interface.h"

namespace chispa::node {
namespace {

/// Content as Chispa writes it: `scenes` scenes of two channels, three steps each.
MemoryContent contentOf(int scenes) {
  MemoryContent content;
  content.place = {52.52, 13.41, "CET-1CEST,M3.5.0,M10.5.0/3"};
  for (int i = 0; i < scenes; ++i) {
    SceneContent scene;
    scene.name = "Scene " + std::to_string(i + 1);
    scene.channels = {{Protocol::E131, 1, 1, 3}};
    const auto light = static_cast<std::uint8_t>(50 * (i + 1));
    scene.steps = {{200, 100, {light, 0, 0}}, {0, 300, {0, light, 0}}, {100, 50, {0, 0, light}}};
    content.scenes.push_back(scene);
  }
  return content;
}

Content readAs(const MemoryContent& content, const MemoryLimits& limits = {}) {
  std::string why;
  const auto read = parseContent(chispa::toJson(content).dump(), limits, why);
  EXPECT_TRUE(read) << why;
  return read.value_or(Content{});
}

UtcMillis at(const char* text) {
  const auto utc = parseUtc(text);
  EXPECT_TRUE(utc) << text;
  return utc.value_or(0);
}

TEST(NodeCalendar, InstantsGoThereAndBack) {
  for (const char* text : {"1970-01-01T00:00:00Z", "2026-12-24T16:30:05Z", "2028-02-29T23:59:59Z"})
    EXPECT_EQ(utcText(at(text)), text);
  for (const char* text :
       {"", "2026-12-24", "2026-02-29T10:00:00Z", "2026-12-24T25:00:00Z", "2026-12-24T16:30:05"})
    EXPECT_FALSE(parseUtc(text)) << text;
  for (const char* zone :
       {"UTC0", "CET-1CEST,M3.5.0,M10.5.0/3", "<-03>3", "<+0330>-3:30", "EST5EDT,M3.2.0,M11.1.0"})
    EXPECT_TRUE(isPosixZone(zone)) << zone;
  for (const char* zone : {"", "rubbish", "Europe/Berlin", "../../etc/passwd"})
    EXPECT_FALSE(isPosixZone(zone)) << zone;
}

TEST(NodeCalendar, ItsSunIsThatOfTheAlmanacToTwoMinutes) {
  const std::vector<std::pair<double, double>> places{
      {52.52, 13.41}, {-33.9, 151.2}, {0.3, -78.5}, {64.1, -21.9}, {21.3, -157.9}};
  int compared = 0;
  for (const auto& [north, east] : places)
    for (int day = 0; day < 730; day += 5) {
      const std::chrono::sys_days date{std::chrono::days(20'780 + day)};
      const SunTimes sun = sunOn(date, north, east);
      const Place place{north, east, "UTC0"};
      const auto compare = [&](const std::optional<Instant>& is, double height, bool isRising) {
        const auto own = sunPasses(date, place, height, isRising);
        ASSERT_EQ(own.has_value(), is.has_value()) << north << " " << day;
        if (!is) return;
        EXPECT_NEAR(static_cast<double>(*own) / 1000, static_cast<double>(is->time_since_epoch().count()),
                    120)
            << north << " " << day << " " << height << isRising;
        ++compared;
      };
      // Where the sun only just passes, minutes are many.
      if (std::abs(north) > 60 && (day % 365 > 120 && day % 365 < 260)) continue;
      compare(sun.sunset, -0.833, false);
      compare(sun.sunrise, -0.833, true);
      compare(sun.dusk, -6, false);
      compare(sun.dawn, -6, true);
    }
  EXPECT_GT(compared, 2'000);
}

TEST(NodeCalendar, KeepsToItsNights) {
  const Place berlin{52.52, 13.41, "CET-1CEST,M3.5.0,M10.5.0/3"};
  const auto last = [&](NightlyTime time, const char* now) {
    const auto found = lastOf(time, berlin, at(now));
    return found ? utcText(*found) : std::string("never");
  };
  NightlyTime nine;
  nine.minutes = 21 * 60;
  EXPECT_EQ(last(nine, "2026-12-24T20:00:00Z"), "2026-12-24T20:00:00Z");
  EXPECT_EQ(last(nine, "2026-12-24T19:59:59Z"), "2026-12-23T20:00:00Z");
  // Summer time.
  EXPECT_EQ(last(nine, "2026-07-01T22:00:00Z"), "2026-07-01T19:00:00Z");
  // After midnight is the night of the day before: Saturday's 01:00 comes on Sunday. 2026-11-28 is a
  // Saturday.
  NightlyTime one;
  one.minutes = 60;
  one.weekdays = 1 << 5;
  EXPECT_EQ(last(one, "2026-11-29T00:00:00Z"), "2026-11-29T00:00:00Z");
  EXPECT_EQ(last(one, "2026-11-28T23:59:00Z"), "2026-11-22T00:00:00Z");
  NightlyTime advent = nine;
  advent.first = "11-29";
  advent.last = "01-06";
  advent.except = {"12-31"};
  EXPECT_EQ(last(advent, "2026-11-28T23:00:00Z"), "never");
  EXPECT_EQ(last(advent, "2026-11-29T23:00:00Z"), "2026-11-29T20:00:00Z");
  EXPECT_EQ(last(advent, "2026-12-31T23:00:00Z"), "2026-12-30T20:00:00Z");
  EXPECT_EQ(last(advent, "2027-01-06T23:00:00Z"), "2027-01-06T20:00:00Z");
  EXPECT_EQ(last(advent, "2027-01-20T23:00:00Z"), "never");
  NightlyTime eve = nine;
  eve.only = {"2026-12-24"};
  EXPECT_EQ(last(eve, "2026-12-26T12:00:00Z"), "2026-12-24T20:00:00Z");
  EXPECT_EQ(last(eve, "2027-12-26T12:00:00Z"), "never");
  NightlyTime dawn;
  dawn.kind = "dawn";
  dawn.only = {"2026-12-24"};
  EXPECT_EQ(last(dawn, "2026-12-26T12:00:00Z").substr(0, 10), "2026-12-25");
}

TEST(NodeMemory, PlaysAsChispaSaysItWill) {
  std::mt19937 random(3);
  for (int round = 0; round < 40; ++round) {
    MemoryContent content = contentOf(1);
    SceneContent& scene = content.scenes.front();
    scene.steps.clear();
    for (int i = 0; i < 1 + static_cast<int>(random() % 6); ++i)
      scene.steps.push_back({static_cast<std::int64_t>(random() % 300),
                             static_cast<std::int64_t>(random() % 300),
                             {static_cast<std::uint8_t>(random()), static_cast<std::uint8_t>(random()),
                              static_cast<std::uint8_t>(random())}});
    scene.rounds = static_cast<int>(random() % 3);
    scene.then = AfterScene::Stay;
    Memory memory{MemoryLimits{}};
    memory.fill(readAs(content), 0);
    memory.play(1, 0);
    for (int i = 0; i < 60; ++i) {
      const std::int64_t t = i * 37;
      memory.advance(t);
      const auto wanted = valuesAt(scene, t);
      for (int c = 0; c < 3; ++c)
        ASSERT_EQ(memory.valueAt("e131", 1, c + 1), wanted[static_cast<std::size_t>(c)]) << round << " " << t;
    }
  }
}

TEST(NodeMemory, ScenesFollowAndContactsStartThem) {
  MemoryContent content = contentOf(3);
  content.scenes[0].rounds = 2;
  content.scenes[0].then = AfterScene::Next;
  content.scenes[1].rounds = 1;
  content.scenes[1].then = AfterScene::Dark;
  content.starts = {{3, {2, {}, {}}}};
  content.atPowerOn = 1;
  Memory memory{MemoryLimits{}};
  memory.fill(readAs(content), 1'000);
  const auto playingAt = [&](std::int64_t now) {
    memory.advance(now);
    return memory.playing();
  };
  EXPECT_EQ(playingAt(1'000), 1);
  EXPECT_EQ(playingAt(1'000 + 1'499), 1);
  EXPECT_EQ(playingAt(1'000 + 1'500), 2);
  EXPECT_EQ(memory.valueAt("e131", 1, 1), 0);
  EXPECT_EQ(playingAt(1'000 + 2'250), 0);
  EXPECT_EQ(memory.valueAt("e131", 1, 3), 0);
  EXPECT_FALSE(memory.press(1, 5'000));
  EXPECT_TRUE(memory.press(2, 5'000));
  EXPECT_EQ(playingAt(5'100), 3);
  EXPECT_EQ(memory.valueAt("e131", 1, 1), 75);
}

TEST(NodeMemory, TheClockStartsWhatIsDueAndCatchesUp) {
  MemoryContent content = contentOf(2);
  content.starts = {{1, {0, {NightTimeKind::Sunset, -10}, {}}},
                    {0, {0, {NightTimeKind::Clock, 22 * 60}, {}}}};
  content.atPowerOn = 2;
  Memory memory{MemoryLimits{}};
  memory.fill(readAs(content), 0);
  memory.advance(0);
  // Its clock was never set.
  EXPECT_EQ(memory.playing(), 2);
  EXPECT_FALSE(memory.toJson(0)["clock"]["set"].get<bool>());
  // Berlin's sun sets at 15:56 there on that day, an hour less in UTC.
  memory.setClock(at("2026-12-24T14:40:00Z"), 0);
  memory.advance(0);
  EXPECT_EQ(memory.playing(), 0) << "the last start was yesterday's 22:00";
  std::int64_t now = 0;
  while (memory.playing() == 0 && now < 3'600'000) memory.advance(now += 1'000);
  EXPECT_EQ(memory.playing(), 1);
  EXPECT_NEAR(static_cast<double>(now) / 60'000, 6, 2);
  // Switched on in the middle of the evening: what would play, as far in as it would be.
  Memory late{MemoryLimits{}};
  late.setClock(at("2026-12-24T18:00:00Z"), 0);
  late.fill(readAs(content), 0);
  EXPECT_EQ(late.playing(), 1);
  // Sixty times as fast.
  late.setSpeed(60, 0);
  late.advance(3 * 60'000 - 1'000);
  EXPECT_EQ(late.playing(), 1);
  EXPECT_EQ(late.toJson(60'000)["clock"]["utc"], "2026-12-24T19:00:00Z");
  late.advance(3 * 60'000 + 1'000);
  EXPECT_EQ(late.playing(), 0);
}

TEST(NodeMemory, WordsOfTheCommandLineAreLimits) {
  std::string why;
  const auto limits =
      parseMemoryWords("scenes=2,steps=30,bytes=900,channels=60,contacts=1,starts=3,nofades", why);
  ASSERT_TRUE(limits) << why;
  EXPECT_EQ(limits->scenes, 2);
  EXPECT_EQ(limits->stepsOfScene, 30);
  EXPECT_FALSE(limits->fades);
  EXPECT_TRUE(parseMemoryWords("", why));
  for (const char* words : {"scenes", "scenes=", "scenes=x", "scenes=-1", "wings=2", "bytes=999999999999"})
    EXPECT_FALSE(parseMemoryWords(words, why)) << words;
}

/// A node with its interface, and the client that Chispa has.
class MemoryOfNode : public testing::Test {
 protected:
  void start(NodeOptions options) {
    options.name = "Box";
    options.listen = address_;
    node_.emplace(std::move(options));
    http_.emplace(*node_);
    std::string why;
    ASSERT_TRUE(http_->start(address_, 8090, why)) << why;
    controller_.name = "Box";
    controller_.host = address_;
    controller_.setupPort = 8090;
  }
  void strike(const std::string& words) {
    std::string why;
    const auto faults = parseFaultWords(words, why);
    ASSERT_TRUE(faults) << why;
    node_->setFaults(*faults);
  }
  int put(const std::string& path, const std::string& body) {
    httplib::Client client(address_, 8090);
    const auto answer = client.Put(path, body, "application/json");
    return answer ? answer->status : 0;
  }

  std::string address_ = test::loopbackAddress(14);
  std::optional<Node> node_;
  std::optional<Interface> http_;
  Controller controller_;
  test::TemporaryFolder folder_;
};

TEST_F(MemoryOfNode, IsWrittenReadBackKeptAndPutBack) {
  start({});
  const link::MemoryStore store(folder_.path());
  const auto keep = [&](const MemoryContent& before) { return store.keep(controller_, before); };
  const auto first = link::writeMemory(controller_, contentOf(2), keep);
  ASSERT_TRUE(first) << first.failure().text();
  EXPECT_TRUE(first->isVerified());
  EXPECT_TRUE(store.keptOf(controller_).empty()) << "there was nothing to keep";
  const auto second = link::writeMemory(controller_, contentOf(3), keep);
  ASSERT_TRUE(second);
  EXPECT_TRUE(second->isVerified());
  const auto kept = store.keptOf(controller_);
  ASSERT_EQ(kept.size(), 1u);
  EXPECT_EQ(kept.front().content, contentOf(2));
  const auto back = link::writeMemory(controller_, kept.front().content);
  ASSERT_TRUE(back);
  EXPECT_EQ(back->now.content, contentOf(2));
  // Started from afar, and set.
  ASSERT_TRUE(link::playFromMemory(controller_, 2));
  EXPECT_FALSE(link::readMemory(controller_)->isClockSet);
  ASSERT_TRUE(link::setClock(controller_, std::chrono::sys_seconds(std::chrono::seconds(1'800'000'000))));
  const auto state = link::readMemory(controller_);
  ASSERT_TRUE(state);
  EXPECT_TRUE(state->isClockSet);
  EXPECT_EQ(state->clock.substr(0, 10), "2027-01-15");
}

TEST_F(MemoryOfNode, SaysThatThereIsNone) {
  NodeOptions options;
  options.memory.reset();
  start(options);
  const auto state = link::readMemory(controller_);
  ASSERT_FALSE(state);
  EXPECT_NE(state.failure().text().find("no memory of its own"), std::string::npos) << state.failure().text();
  EXPECT_EQ(put("/clock", R"({"utc":"2026-12-24T16:30:00Z"})"), 404);
  controller_.setupPort = 0;
  EXPECT_NE(link::readMemory(controller_).failure().text().find("set-up port"), std::string::npos);
}

TEST_F(MemoryOfNode, RefusesWhatItCannotHoldAndKeepsWhatItHeld) {
  NodeOptions options;
  options.memory->scenes = 2;
  start(options);
  ASSERT_TRUE(link::writeMemory(controller_, contentOf(1))->isVerified());
  const auto tooMany = link::writeMemory(controller_, contentOf(3));
  ASSERT_FALSE(tooMany);
  EXPECT_NE(tooMany.failure().text().find("3 scenes, of 2"), std::string::npos) << tooMany.failure().text();
  // It is not only Chispa that looks at the limits.
  EXPECT_EQ(put("/memory", chispa::toJson(contentOf(3)).dump()), 400);
  for (const char* rubbish : {"", "{", "[]", "{\"scenes\":[{}]}", "{\"scenes\":7}"})
    EXPECT_EQ(put("/memory", rubbish), 400);
  EXPECT_EQ(put("/clock", "{\"utc\":\"tomorrow\"}"), 400);
  EXPECT_EQ(put("/memory/play", "{\"scene\":1e300}"), 400);
  EXPECT_EQ(put("/memory/contact", "{\"contact\":4}"), 404);
  EXPECT_EQ(link::readMemory(controller_)->content, contentOf(1));
  strike("refuse");
  EXPECT_FALSE(link::writeMemory(controller_, contentOf(2)));
  strike("memory-fails=2");
  const auto full = link::writeMemory(controller_, contentOf(2));
  ASSERT_FALSE(full);
  EXPECT_NE(full.failure().text().find("full after scene 2"), std::string::npos) << full.failure().text();
  EXPECT_EQ(link::readMemory(controller_)->content, contentOf(1));
}

TEST_F(MemoryOfNode, LosesPowerAndPlaysNothingHalf) {
  start({});
  MemoryContent playing = contentOf(2);
  playing.atPowerOn = 1;
  ASSERT_TRUE(link::writeMemory(controller_, playing)->isVerified());
  EXPECT_EQ(node_->shownScene(), 1);
  strike("power-fails=2");
  const auto broken = link::writeMemory(controller_, contentOf(3));
  ASSERT_TRUE(broken) << broken.failure().text();
  EXPECT_FALSE(broken->isVerified());
  EXPECT_FALSE(broken->now.isWhole);
  EXPECT_NE(broken->trouble.find("power"), std::string::npos) << broken->trouble;
  EXPECT_EQ(node_->shownScene(), 0);
  ASSERT_TRUE(link::writeMemory(controller_, playing)->isVerified());
  EXPECT_TRUE(link::readMemory(controller_)->isWhole);
  EXPECT_EQ(node_->shownScene(), 1);
}

TEST_F(MemoryOfNode, StandsInThePublishedSchema) {
  start({});
  MemoryContent content = contentOf(1);
  content.starts = {{1, {0, {NightTimeKind::Clock, 60}, {3, "12-01", "12-24", {"12-24"}, {"12-31"}}}},
                    {1, {2, {}, {}}}};
  ASSERT_TRUE(link::writeMemory(controller_, content)->isVerified());
  node_->setClock(at("2026-12-24T15:40:00Z"));
  std::ifstream in(CHISPA_SOURCE_DIR "/docs/node-interface.schema.json");
  const auto schema = nlohmann::json::parse(in);
  const nlohmann::json sent = node_->memory();
  const auto& of = schema["$defs"];
  // Every member that is sent is described, and every one that must be there is sent.
  const std::function<void(const nlohmann::json&, const nlohmann::json&, const std::string&)> check =
      [&](const nlohmann::json& value, const nlohmann::json& given, const std::string& path) {
        nlohmann::json rule = given;
        if (rule.contains("$ref")) rule = of[rule["$ref"].get<std::string>().substr(8)];
        if (value.is_object()) {
          for (const auto& [key, member] : value.items()) {
            ASSERT_TRUE(rule["properties"].contains(key)) << path << "/" << key;
            check(member, rule["properties"][key], path + "/" + key);
          }
          for (const auto& key : rule.value("required", nlohmann::json::array()))
            EXPECT_TRUE(value.contains(key.get<std::string>())) << path << "/" << key;
        }
        if (value.is_array())
          for (const auto& element : value) check(element, rule["items"], path + "/0");
        if (!value.is_number()) return;
        EXPECT_GE(value, rule.value("minimum", value)) << path;
        EXPECT_LE(value, rule.value("maximum", value)) << path;
      };
  check(sent, of["memory"], "");
  EXPECT_EQ(sent["content"]["starts"].size(), 2u);
}

}  // namespace
}  // namespace chispa::node
