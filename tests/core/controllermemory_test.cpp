// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <ctime>
#include <random>
#include <set>

#include "boardshow.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "core/almanac/calendar.h"
#include "core/controllermemory/fill.h"
#include "core/edit/memoryedits.h"
#include "core/edit/wireedits.h"
#include "core/files/showjson.h"
#include "core/recording/framepacker.h"

namespace chispa {
namespace {

using test::BoardShow;
using Values = std::vector<std::uint8_t>;

/// A strip of six pixels on a controller, and what shall be in its memory.
class Memories : public testing::Test {
 protected:
  explicit Memories(StripType type = {}) : made_(LineShape{6, 0.1}, std::move(type)) {
    Controller controller;
    controller.id = made_.show.newId<ControllerId>();
    controller.name = "Box";
    controller.host = "127.0.0.9";
    controller.setupPort = 8090;
    controller.ports.emplace_back();
    controller.ports[0].run.push_back({made_.fixture, 0, 6});
    controller_ = controller.id;
    put(made_.show.controllers, controller);
  }

  ControllerMemory& memory() { return memory_; }
  MemoryScene& addLook(const std::string& effect, ParamValues params = {}) {
    MemoryScene scene;
    scene.look = made_.addLookOf({made_.clip(effect, std::move(params))});
    scene.length = Micros(4'000'000);
    memory_.scenes.push_back(scene);
    return memory_.scenes.back();
  }
  Result<MemoryFill> fill(const MemoryLimits& limits) {
    return fillMemory(made_.show, *compile(made_.show), controller_, memory_, limits, {});
  }
  static MemoryLimits roomy() { return {16, 10'000, 10'000, 4096, 32, 4, 1 << 20, 32, 8, 24, true}; }
  ValueLight values() { return ValueLight(made_.show, derivePatch(made_.show), 0); }

  BoardShow made_;
  ControllerId controller_;
  ControllerMemory memory_;
};

SceneContent twoSteps() {
  SceneContent scene;
  scene.name = "Two";
  scene.channels = {{Protocol::E131, 1, 1, 2}};
  scene.steps = {{100, 200, {100, 0}}, {50, 150, {0, 255}}};
  scene.rounds = 2;
  return scene;
}

TEST(MemoryContents, AScenePlaysItsStepsItsRoundsAndWhatFollows) {
  SceneContent scene = twoSteps();
  EXPECT_EQ(scene.length_ms(), 500);
  EXPECT_EQ(valuesAt(scene, 0), (Values{0, 0}));
  EXPECT_EQ(valuesAt(scene, 50), (Values{50, 0}));
  EXPECT_EQ(valuesAt(scene, 100), (Values{100, 0}));
  EXPECT_EQ(valuesAt(scene, 299), (Values{100, 0}));
  EXPECT_EQ(valuesAt(scene, 325), (Values{50, 128}));
  EXPECT_EQ(valuesAt(scene, 499), (Values{0, 255}));
  // The second round comes out of the last step.
  EXPECT_EQ(valuesAt(scene, 550), (Values{50, 128}));
  EXPECT_EQ(valuesAt(scene, 5'000), (Values{0, 255}));
  scene.then = AfterScene::Dark;
  EXPECT_EQ(valuesAt(scene, 1'000), (Values{0, 0}));
  scene.rounds = 0;
  EXPECT_EQ(valuesAt(scene, 500'000'100), (Values{100, 0}));
  EXPECT_EQ(valuesAt(scene, -1), (Values{0, 0}));
}

TEST(MemoryContents, ComeBackFromJsonAsTheyWere) {
  MemoryContent content;
  content.name = "Carousel";
  content.place = {52.5, 13.25, "CET-1CEST,M3.5.0,M10.5.0/3"};
  content.scenes = {twoSteps(), twoSteps()};
  content.scenes[1].then = AfterScene::Next;
  content.scenes[1].next = 1;
  content.starts = {{1, {0, {NightTimeKind::Sunset, -15}, {96, "11-28", "12-24", {}, {"12-01"}}}},
                    {0, {0, {NightTimeKind::Clock, 1320}, {}}},
                    {2, {3, {}, {}}}};
  content.atPowerOn = 2;
  const auto read = parseMemoryContent(toJson(content).dump(), "here");
  ASSERT_TRUE(read) << read.failure().text();
  EXPECT_EQ(*read, content);
  EXPECT_TRUE(differencesOf(*read, content).empty());
}

TEST(MemoryContents, LiesAreToldAndDoNoHarm) {
  const std::string good = toJson([] {
                             MemoryContent content;
                             content.scenes = {twoSteps()};
                             return content;
                           }())
                               .dump();
  ASSERT_TRUE(parseMemoryContent(good, "here"));
  const auto with = [&](const std::string& from, const std::string& to) {
    std::string text = good;
    const auto at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    return parseMemoryContent(text.replace(at, from.size(), to), "here");
  };
  for (const auto& [from, to] : std::vector<std::pair<std::string, std::string>>{
           {"6400", "64zz"},
           {"6400", "640"},
           {"\"count\":2", "\"count\":513"},
           {"\"count\":2", "\"count\":-1"},
           {"\"universe\":1", "\"universe\":1e300"},
           {"\"fade_ms\":100", "\"fade_ms\":-100"},
           {"\"hold_ms\":200", "\"hold_ms\":\"long\""},
           {"\"version\":1", "\"version\":2"},
           {"\"at_power_on\":0", "\"at_power_on\":2"},
           {"\"starts\":[]", "\"starts\":[{\"scene\":2}]"},
           {"\"starts\":[]", "\"starts\":[{\"scene\":1,\"at\":{\"kind\":\"noon\",\"minutes\":0}}]"},
           {"\"then\":\"stay\"", "\"then\":\"explode\""}}) {
    const auto read = with(from, to);
    ASSERT_FALSE(read) << to;
    EXPECT_NE(read.failure().text().find("makes no sense"), std::string::npos) << read.failure().text();
  }
  for (const char* rubbish : {"", "{", "[]", "7", "{\"scenes\":7}", "{\"scenes\":[7]}"})
    EXPECT_FALSE(parseMemoryContent(rubbish, "here")) << rubbish;
}

TEST(MemoryContents, WhatIsMoreThanTheLimitsIsSaidWithBothNumbers) {
  MemoryContent content;
  content.scenes = {twoSteps(), twoSteps()};
  content.starts = {{1, {5, {}, {}}}};
  MemoryLimits limits{2, 4, 2, 2, 1, 5, 2 * 32 + 4 * (8 + 2) + 24, 32, 8, 24, true};
  EXPECT_EQ(bytesOf(content, limits), limits.bytes);
  EXPECT_TRUE(excessesOf(content, limits).empty());
  limits.bytes -= 1;
  ASSERT_EQ(excessesOf(content, limits).size(), 1u);
  EXPECT_EQ(excessesOf(content, limits).front(), "128 bytes, of 127");
  limits = {1, 3, 1, 1, 0, 4, 10, 32, 8, 24, false};
  // Scenes; steps, channels and fades of each of two; steps in all, starts, contacts, bytes.
  EXPECT_EQ(excessesOf(content, limits).size(), 11u);
}

TEST_F(Memories, ValuesLeadBackToTheLightTheyWereMadeOf) {
  std::mt19937 random(16);
  std::uniform_real_distribution<float> light(0, 1);
  for (const char* order : {"RGB", "GRB", "RGBW", "W"})
    for (const int bits : {8, 16})
      for (const double response : {1.0, 2.2}) {
        StripType type;
        type.order = order;
        type.channelBits = bits;
        type.response = {response};
        type.white = {1, 0.8f, 0.6f};
        Memories::made_ = BoardShow(LineShape{6, 0.1}, type);
        Controller controller;
        controller.id = made_.show.newId<ControllerId>();
        controller.ports.emplace_back();
        controller.ports[0].run.push_back({made_.fixture, 0, 6});
        controller.ports[0].settings.brightness = 0.5;
        controller.isPacked = true;
        // Values that are split over two universes.
        controller.ports[0].fixedStart = FixedStart{1, 506};
        put(made_.show.controllers, controller);
        const auto compiled = compile(made_.show);
        const ValueLight back(made_.show, compiled->patch, 0);
        ASSERT_EQ(back.count(), 6u) << order << bits;
        EXPECT_EQ(back.hasWideValues(), bits == 16);
        PixelFrame frame;
        frame.resize(6);
        for (std::size_t i = 0; i < 6; ++i) {
          frame.r[i] = light(random);
          frame.g[i] = order == std::string("W") ? frame.r[i] : light(random);
          frame.b[i] = order == std::string("W") ? frame.r[i] : light(random);
        }
        Values all(compiled->packer->bufferSize());
        compiled->packer->pack(frame, DitherFrame(), 1, all);
        Values own;
        for (std::size_t i = 0; i < compiled->patch.universes.size(); ++i)
          own.insert(
              own.end(), all.begin() + static_cast<std::ptrdiff_t>(i * 512),
              all.begin() + static_cast<std::ptrdiff_t>(i * 512) + compiled->patch.universes[i].channels);
        ASSERT_EQ(std::ssize(own), back.channels());
        for (std::size_t i = 0; i < 6; ++i) {
          const Rgb found = back.lightOf(own, i);
          const std::uint32_t pixel = back.pixelOf(*compiled->map, i);
          // A step of 8 bits at half brightness, in the strip's darkest colour; the packer's table has 4,096.
          const float step = (bits == 8 ? 2.2f / 255 : 0.002f) * 2 / 0.6f;
          EXPECT_NEAR(found.r, frame.r[pixel], step) << order << bits << response;
          EXPECT_NEAR(found.g, frame.g[pixel], step) << order << bits << response;
          EXPECT_NEAR(found.b, frame.b[pixel], step) << order << bits << response;
        }
      }
}

TEST_F(Memories, StepsKeepWithinTheirToleranceWhateverTheLight) {
  std::mt19937 random(7);
  const ValueLight light = values();
  for (int round = 0; round < 12; ++round) {
    // Stretches that stand, ramps, and noise.
    ValueFrames frames{25, 1, {}};
    Values now(18, 0);
    while (frames.frames.size() < 90) {
      Values next(18);
      for (auto& value : next) value = static_cast<std::uint8_t>(random() % 256);
      const int length = 1 + static_cast<int>(random() % 12);
      const bool glides = random() % 2 == 0;
      for (int i = 1; i <= length; ++i) {
        Values frame(18);
        for (std::size_t c = 0; c < 18; ++c)
          frame[c] =
              glides ? static_cast<std::uint8_t>((now[c] * (length - i) + next[c] * i) / length) : next[c];
        frames.frames.push_back(frame);
      }
      now = next;
    }
    for (const double tolerance : {0.0, 1.0, 5.0}) {
      for (const bool mayFade : {true, false}) {
        SceneContent scene;
        scene.channels = {{Protocol::E131, 1, 1, 18}};
        scene.steps = findSteps(frames, light, {tolerance, mayFade}, {});
        ASSERT_EQ(scene.length_ms(), 25 * std::ssize(frames.frames));
        for (const MemoryStep& step : scene.steps) EXPECT_TRUE(mayFade || step.fade_ms == 0);
        for (std::size_t i = 0; i < frames.frames.size(); ++i) {
          const Values shown = valuesAt(scene, 25 * static_cast<std::int64_t>(i));
          if (tolerance == 0) {
            EXPECT_EQ(shown, frames.frames[i]) << i;
          }
          EXPECT_LE(errorOf(light, shown, frames.frames[i]).most, tolerance + 1e-9) << i;
        }
        EXPECT_LE(scene.steps.size(), frames.frames.size());
      }
    }
  }
}

TEST_F(Memories, WhatStandsIsOneStepAndARampIsTwo) {
  const ValueLight light = values();
  ValueFrames still{50, 1, std::vector<Values>(100, Values(18, 40))};
  const auto one = findSteps(still, light, {0, true}, {});
  ASSERT_EQ(one.size(), 1u);
  EXPECT_EQ(one.front().hold_ms, 5'000);
  ValueFrames ramp{50, 1, {}};
  for (int i = 0; i <= 200; ++i) ramp.frames.push_back(Values(18, static_cast<std::uint8_t>(i)));
  const auto two = findSteps(ramp, light, {0, true}, {});
  ASSERT_EQ(two.size(), 2u);
  EXPECT_EQ(two[1].fade_ms, 10'000);
  // It is cancelled in between.
  EXPECT_TRUE(findSteps(ramp, light, {0, false}, [](double) { return false; }).empty());
}

TEST_F(Memories, AnEffectBecomesStepsThatAreToldHowNearTheyCome) {
  addLook("swell");
  memory().tolerance = 1;
  const auto made = fill(roomy());
  ASSERT_TRUE(made) << made.failure().text();
  ASSERT_EQ(made->content.scenes.size(), 1u);
  const SceneContent& scene = made->content.scenes.front();
  EXPECT_EQ(scene.length_ms(), 4'000);
  EXPECT_LE(scene.steps.size(), 80u);
  EXPECT_LE(made->scenes.front().error.mean, 1);
  EXPECT_GT(made->scenes.front().bytes, std::ssize(scene.steps) * 18);
  // With no tolerance every instant is as Chispa would send it.
  memory().tolerance = 0;
  const auto exact = fill(roomy());
  ASSERT_TRUE(exact);
  EXPECT_GE(exact->content.scenes.front().steps.size(), scene.steps.size());
  const auto compiled = compile(made_.show);
  SceneLight light(made_.show, *compiled, memory().scenes.front().look);
  FramePacker packer(*compiled, 20, Dither::None);
  PixelFrame frame;
  for (int i = 0; i < 80; ++i) {
    light.render(std::chrono::milliseconds(50 * i), frame);
    const Values& sent = packer.pack(frame);
    const Values shown = spreadValues(compiled->patch, 0, exact->content.scenes.front(),
                                      valuesAt(exact->content.scenes.front(), 50 * i));
    ASSERT_TRUE(std::equal(shown.begin(), shown.end(), sent.begin())) << i;
  }
}

TEST_F(Memories, OnlyChannelsThatAreLitAreKept) {
  // A window that lights the third pixel alone.
  addLook("hold");
  changeItem(made_.show.zones, made_.zone, [](Zone& zone) { zone.parts.front().runs = {{2, 1}}; });
  const auto made = fill(roomy());
  ASSERT_TRUE(made) << made.failure().text();
  const auto& channels = made->content.scenes.front().channels;
  ASSERT_EQ(channels.size(), 1u);
  EXPECT_EQ(channels.front().channel, 7);
  EXPECT_LE(channels.front().count, 3);
  EXPECT_EQ(made->content.scenes.front().steps.size(), 1u);
}

TEST_F(Memories, ALookComesOutOfTheDarkInItsOwnTime) {
  addLook("hold");
  changeItem(made_.show.looks, memory().scenes.front().look,
             [](Look& look) { look.fadeIn = Micros(2'000'000); });
  const auto made = fill(roomy());
  ASSERT_TRUE(made);
  const SceneContent& scene = made->content.scenes.front();
  ASSERT_EQ(scene.steps.size(), 1u);
  EXPECT_EQ(scene.steps.front().fade_ms, 2'000);
  EXPECT_EQ(scene.steps.front().hold_ms, 4'000);
  EXPECT_LE(made->scenes.front().error.most, 1);
  MemoryLimits rigid = roomy();
  rigid.fades = false;
  const auto stiff = fill(rigid);
  ASSERT_TRUE(stiff);
  EXPECT_TRUE(excessesOf(stiff->content, rigid).empty());
}

TEST_F(Memories, WhatDoesNotFitIsMadeToFitOrToldSo) {
  addLook("glints");
  memory().tolerance = 0;
  MemoryLimits limits = roomy();
  const auto full = fill(limits);
  ASSERT_TRUE(full);
  limits.steps = limits.stepsOfScene = static_cast<int>(full->content.scenes.front().steps.size()) * 2 / 3;
  EXPECT_FALSE(excessesOf(full->content, limits).empty());
  const auto compiled = compile(made_.show);
  const auto fit = fitMemory(made_.show, *compiled, controller_, memory(), limits, {});
  ASSERT_TRUE(fit) << fit.failure().text();
  EXPECT_GT(fit->tolerance, 0);
  EXPECT_TRUE(excessesOf(fit->fill.content, limits).empty());
  limits.bytes = 10;
  const auto none = fitMemory(made_.show, *compiled, controller_, memory(), limits, {});
  ASSERT_FALSE(none);
  EXPECT_NE(none.failure().text().find("of 10"), std::string::npos) << none.failure().text();
}

TEST_F(Memories, TheSunNeedsAPlaceAndScenesNeedTheirSource) {
  addLook("hold").starts.push_back({});
  auto made = fill(roomy());
  ASSERT_FALSE(made);
  EXPECT_NE(made.failure().text().find("no place"), std::string::npos) << made.failure().text();
  made_.show.almanac.zone = "Europe/Berlin";
  made_.show.almanac.latitude_deg = 52.5;
  made = fill(roomy());
  ASSERT_TRUE(made) << made.failure().text();
  EXPECT_EQ(made->content.place.timeZone, "CET-1CEST,M3.5.0,M10.5.0/3");
  ASSERT_EQ(made->content.starts.size(), 1u);
  EXPECT_EQ(made->content.starts.front().scene, 1);
  remove(made_.show.looks, memory().scenes.front().look);
  made = fill(roomy());
  ASSERT_FALSE(made);
  EXPECT_NE(made.failure().text().find("is gone"), std::string::npos);
}

TEST_F(Memories, HalvesOfSixteenBitsAreNotFaded) {
  changeItem(made_.show.stripTypes, made_.show.stripTypes.front()->id,
             [](StripType& type) { type.channelBits = 16; });
  addLook("swell");
  changeItem(made_.show.looks, memory().scenes.front().look,
             [](Look& look) { look.fadeIn = Micros(1'000'000); });
  const auto made = fill(roomy());
  ASSERT_TRUE(made) << made.failure().text();
  for (const MemoryStep& step : made->content.scenes.front().steps) EXPECT_EQ(step.fade_ms, 0);
}

TEST_F(Memories, NamesOfScenesFollowWhenOneGoesOrMoves) {
  for (int i = 0; i < 4; ++i) addMemoryScene(made_.show, controller_, made_.addLookOf({made_.clip("hold")}));
  const auto now = [&]() -> const ControllerMemory& {
    return find(made_.show.controllers, controller_)->memory;
  };
  changeMemory(made_.show, controller_, [](ControllerMemory& m) {
    m.scenes[0].next = 3;
    m.scenes[3].next = 2;
    m.atPowerOn = 4;
  });
  const LookId third = now().scenes[2].look, second = now().scenes[1].look, fourth = now().scenes[3].look;
  moveMemoryScene(made_.show, controller_, 3, 0);
  EXPECT_EQ(now().scenes[0].look, fourth);
  EXPECT_EQ(now().atPowerOn, 1);
  EXPECT_EQ(now().scenes[static_cast<std::size_t>(now().scenes[0].next - 1)].look, second);
  EXPECT_EQ(now().scenes[static_cast<std::size_t>(now().scenes[1].next - 1)].look, third);
  removeMemoryScene(made_.show, controller_, 2);
  EXPECT_EQ(now().scenes[0].next, 0);
  EXPECT_EQ(now().scenes[static_cast<std::size_t>(now().scenes[1].next - 1)].look, third);
  EXPECT_EQ(startsOf(now(), 7), nullptr);
}

TEST_F(Memories, TheAlmanacBecomesScenesWithTheirTimes) {
  const LookId look = made_.addLookOf({made_.clip("hold")});
  const ScoreId score = made_.addScoreOf({made_.clip("swell")}, Micros(3'000'000));
  SetList list;
  list.id = made_.show.newId<SetListId>();
  list.rounds = 0;
  SetListItem first, second;
  first.kind = PieceKind::Score;
  first.score = score;
  first.repeats = 2;
  second.kind = PieceKind::Look;
  second.look = look;
  second.length = Micros(5'000'000);
  list.items = {first, second};
  put(made_.show.setLists, list);
  Rule evening, morning;
  evening.id = made_.show.newId<RuleId>();
  evening.list = list.id;
  morning.id = made_.show.newId<RuleId>();
  morning.kind = PieceKind::Look;
  morning.look = look;
  morning.from = {NightTimeKind::Dawn, -30};
  morning.until = {NightTimeKind::Sunrise, 0};
  put(made_.show.rules, evening);
  put(made_.show.rules, morning);
  const ControllerMemory memory = memoryOfAlmanac(made_.show, {});
  ASSERT_EQ(memory.scenes.size(), 3u);
  EXPECT_EQ(memory.scenes[0].rounds, 2);
  EXPECT_EQ(memory.scenes[0].then, AfterScene::Next);
  EXPECT_EQ(memory.scenes[1].next, 1);
  EXPECT_EQ(memory.scenes[1].length, Micros(5'000'000));
  ASSERT_EQ(memory.scenes[0].starts.size(), 1u);
  EXPECT_TRUE(memory.scenes[1].starts.empty());
  EXPECT_EQ(memory.scenes[2].starts.front().at, morning.from);
  ASSERT_EQ(memory.darkens.size(), 2u);
  EXPECT_EQ(memory.darkens[1].at, morning.until);
}

TEST_F(Memories, IsPartOfTheShowsFile) {
  MemoryScene& scene = addLook("hold");
  scene.rounds = 3;
  scene.then = AfterScene::Next;
  scene.next = 1;
  scene.starts = {{2, {}, {}}, {0, {NightTimeKind::Clock, 60}, {3, "", "", {"2026-12-24"}, {}}}};
  memory().darkens = {{}};
  memory().atPowerOn = 1;
  memory().written = "2026-11-29T17:20:00Z";
  changeMemory(made_.show, controller_, [&](ControllerMemory& m) { m = memory(); });
  const auto read = parseShow(showText(made_.show), "here");
  ASSERT_TRUE(read) << read.failure().text();
  EXPECT_TRUE(read->unread.empty());
  EXPECT_EQ(find(read->controllers, controller_)->memory, memory());
}

/// What glibc makes of a rule of POSIX: seconds that are added to UTC at `at`.
long offsetByLibrary(const std::string& zone, std::time_t at) {
  ::setenv("TZ", zone.c_str(), 1);
  ::tzset();
  std::tm parts{};
  ::localtime_r(&at, &parts);
  return parts.tm_gmtoff;
}

TEST(PosixZones, APlaceKeepsItsTimeForTenYears) {
  const auto cities = citiesOfZoneTable();
  ASSERT_GT(cities.size(), 300u);
  int asked = 0;
  for (std::size_t i = 0; i < cities.size(); i += 3) {
    const auto rule = posixZone(cities[i].zone);
    ASSERT_TRUE(rule) << cities[i].zone;
    const auto zone = TimeZone::named(cities[i].zone);
    ASSERT_TRUE(zone);
    // Some lands follow the moon, and their coming years are written out one by one.
    static const std::set<std::string> kByTheMoon{"Africa/Casablanca", "Africa/El_Aaiun", "Asia/Gaza",
                                                  "Asia/Hebron"};
    if (kByTheMoon.contains(cities[i].zone)) continue;
    for (int day = 0; day < 10 * 365; day += 11) {
      const Instant at =
          Instant(std::chrono::sys_days(std::chrono::days(20'800 + day))) + std::chrono::hours(day % 24);
      EXPECT_EQ(offsetByLibrary(*rule, at.time_since_epoch().count()), zone->offsetAt(at).count())
          << cities[i].zone << " " << *rule << " " << dateText(std::chrono::floor<std::chrono::days>(at));
      ++asked;
    }
  }
  ::unsetenv("TZ");
  ::tzset();
  EXPECT_GT(asked, 40'000);
  EXPECT_FALSE(posixZone("../../etc/passwd"));
  EXPECT_FALSE(posixZone("Europe/Madrid", "/nowhere"));
}

}  // namespace
}  // namespace chispa
