// SPDX-License-Identifier: GPL-3.0-or-later
// Set lists and nights: through a stagehand that only notes, through a player to the bytes that leave, and
// the log.
#include <fstream>
#include <random>

#include "eventually.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <sqlite3.h>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/setlistedits.h"
#include "core/edit/wireedits.h"
#include "engine/handclock.h"
#include "engine/night/nightwatch.h"
#include "engine/night/playerhand.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;
using std::chrono::days;
using std::chrono::hours;
using std::chrono::milliseconds;
using std::chrono::minutes;

/// Notes what it is asked for; scores pass with the time it is told.
class NotingHand final : public Stagehand {
 public:
  explicit NotingHand(const Show& show, const MonoTime& now) : show_(show), now_(now) {}

  void playScore(const ScorePlay& play) override {
    play_ = play;
    since_ = now_;
    said += " " + find(show_.scores, play.score)->name;
    if (play.from.count() >= 1'000'000) said += "+" + std::to_string(play.from.count() / 1'000'000);
  }
  void stopScore(Micros) override {
    play_.reset();
    said += " /";
  }
  std::optional<Micros> scorePosition() override {
    if (!play_) return std::nullopt;
    const auto passed = std::chrono::duration_cast<Micros>(now_ - since_);
    return std::min(play_->from + passed, find(show_.scores, play_->score)->length);
  }
  void prepare(ScoreId, Micros) override {}
  void lightLook(LookId look) override { said += " (" + find(show_.looks, look)->name; }
  void endLook(LookId) override { said += ")"; }
  void switchLight(bool on) override { said += on ? " ON" : " OFF"; }

  std::string said;

 private:
  const Show& show_;
  const MonoTime& now_;
  std::optional<ScorePlay> play_;
  MonoTime since_{0};
};

class Nights : public testing::Test {
 protected:
  Nights() {
    show_.name = "Fair";
    show_.almanac = {"Somewhere", 41.4, 2.2, "Europe/Madrid", {}};
    for (const char* name : {"a", "b"}) {
      Score score;
      score.id = show_.newId<ScoreId>();
      score.name = name;
      score.length = Micros((show_.scores.empty() ? 10 : 20) * 1'000'000);
      put(show_.scores, score);
    }
    Look look;
    look.id = show_.newId<LookId>();
    look.name = "l";
    put(show_.looks, look);
    list_ = addSetList(show_, "Evening");
    SetListItem line = lineOf(look.id);
    line.length = Micros(5'000'000);
    insertLines(show_, list_, 0, {lineOf(show_.scores[0]->id), line, lineOf(show_.scores[1]->id)});
    changeItem(show_.setLists, list_, [](SetList& list) { list.rounds = 0; });
    rule_ = addRule(show_, "Evenings");
    changeItem(show_.rules, rule_, [](Rule& rule) {
      rule.from = {NightTimeKind::Clock, 21 * 60};
      rule.until = {NightTimeKind::Clock, 21 * 60 + 1};
    });
    watch_.setShow(show_);
  }
  WallTime local(const std::string& text) const {
    return *parseLocal(text, *TimeZone::named("Europe/Madrid"));
  }
  void beginAt(const std::string& text) {
    wall_ = local(text);
    watch_.begin(wall_);
    watch_.tick(wall_, mono_);
  }
  /// Both clocks go on together, a tick each 100 ms.
  void pass(milliseconds time) {
    for (milliseconds gone{0}; gone < time; gone += 100ms) {
      wall_ += 100ms;
      mono_ += 100ms;
      watch_.tick(wall_, mono_);
    }
  }
  std::string said() { return std::exchange(hand_.said, {}); }

  Show show_;
  SetListId list_;
  RuleId rule_;
  MonoTime mono_{1s};
  WallTime wall_{};
  NotingHand hand_{show_, mono_};
  NightWatch watch_{hand_, nullptr};
};

TEST_F(Nights, LightGoesOnAndOffByTheRule) {
  beginAt("2027-07-01T20:59:55");
  EXPECT_EQ(said(), "");
  pass(6s);
  EXPECT_EQ(said(), " ON a");
  pass(30s);
  EXPECT_EQ(said(), " / (l) b");
  pass(24s);
  EXPECT_EQ(said(), " a / (l) b");
  pass(6s);
  EXPECT_EQ(said(), " /") << "its time is over";
  pass(3s);
  EXPECT_EQ(said(), " OFF");
}

TEST_F(Nights, BegunInTheMiddleItIsWhereItWouldBe) {
  beginAt("2027-07-01T21:00:25");
  EXPECT_EQ(said(), " ON b+10");
  watch_.stop(wall_, "killed");
  said();
  beginAt("2027-07-01T21:00:12");
  EXPECT_EQ(said(), " ON (l");
}

TEST_F(Nights, AClockThatIsSetDoesNotStopWhatPlays) {
  beginAt("2027-07-01T21:00:02");
  said();
  wall_ += 20s;
  pass(1s);
  EXPECT_EQ(said(), "") << "the same slot runs, the piece goes on";
  wall_ += 1h;
  pass(1s);
  EXPECT_EQ(said(), " /") << "its time is over by the new clock";
  pass(3s);
  EXPECT_EQ(said(), " OFF");
  wall_ -= 1h;
  pass(1s);
  EXPECT_EQ(said(), " ON b+12") << "and it is taken up again where it would be";
}

TEST_F(Nights, HeldOffTonightItPlaysAgainTomorrow) {
  beginAt("2027-07-01T21:00:02");
  said();
  watch_.hold(true);
  pass(3s);
  EXPECT_EQ(said(), " / OFF");
  watch_.hold(false);
  pass(1s);
  EXPECT_EQ(said(), " ON a+5");
  watch_.hold(true);
  pass(3s);
  said();
  wall_ = local("2027-07-02T21:00:00");
  pass(1s);
  EXPECT_EQ(said(), " ON a") << "the next night is another";
}

TEST_F(Nights, ItCanPlayLongerTonight) {
  beginAt("2027-07-01T21:00:55");
  watch_.playLonger(minutes(1));
  said();
  pass(60s);
  EXPECT_NE(said().find("a"), std::string::npos);
  pass(9s);
  EXPECT_NE(said().find("OFF"), std::string::npos);
  wall_ = local("2027-07-02T21:00:55");
  pass(10s);
  EXPECT_NE(said().find("OFF"), std::string::npos) << "only tonight";
}

TEST_F(Nights, BetweenTheRulesALookIsLit) {
  show_.almanac.between = show_.looks[0]->id;
  watch_.setShow(show_);
  beginAt("2027-07-01T20:59:58");
  EXPECT_EQ(said(), " ON (l");
  pass(4s);
  EXPECT_EQ(said(), ") a");
  pass(60s);
  EXPECT_NE(said().find("(l"), std::string::npos);
}

TEST_F(Nights, AShowThatIsChangedGoesOnAsItIsNow) {
  beginAt("2027-07-01T21:00:02");
  said();
  deleteLine(show_, list_, 1);
  watch_.setShow(show_);
  pass(10s);
  EXPECT_EQ(said(), " b") << "the piece goes on, then what follows now";
  deleteRule(show_, rule_);
  watch_.setShow(show_);
  pass(1s);
  EXPECT_EQ(said(), " /");
}

TEST_F(Nights, SkipBackAndAfterThisOne) {
  beginAt("2027-07-01T21:00:00");
  said();
  Performer& own = watch_.performer();
  own.skip(mono_);
  EXPECT_EQ(said(), " / (l");
  own.playNext(2);
  own.skip(mono_);
  EXPECT_EQ(said(), ") b");
  own.back(mono_);
  EXPECT_EQ(said(), " / (l");
  pass(4s);
  own.back(mono_);
  EXPECT_EQ(said(), "") << "a look that goes on has nothing to begin anew";
  own.jump(0, mono_);
  EXPECT_EQ(said(), ") a");
}

/// Two weeks at once, with a clock that changes to winter time in them, and each night once more after a kill
/// at a random moment: every slot is played, in order, and light ends dark.
TEST_F(Nights, TwoWeeksWithKillsAndClockChangesPlayEverySlot) {
  const test::TemporaryFolder folder;
  auto log = NightLog::open(folder.path() / "nights.sqlite");
  ASSERT_TRUE(log) << log.failure().text();
  std::mt19937 chance(4);
  const Date first = *parseDate("2027-10-25");
  for (int night = 0; night < 14; ++night) {
    const Date date = first + days(night);
    wall_ = local(dateText(date) + "T20:59:00");
    const int killAt_s = 61 + static_cast<int>(chance() % 58);
    std::string light;
    for (int life = 0; life < 2; ++life) {
      NotingHand hand(show_, mono_);
      NightWatch watch(hand, log->get());
      watch.setShow(show_);
      watch.begin(wall_);
      watch.tick(wall_, mono_);
      const int until_s = life == 0 ? killAt_s : 180;
      while (wall_ < local(dateText(date) + "T20:59:00") + std::chrono::seconds(until_s)) {
        wall_ += 200ms;
        mono_ += 200ms;
        watch.tick(wall_, mono_);
      }
      light += hand.said;
      if (life == 1) {
        EXPECT_TRUE(light.ends_with(" OFF")) << light;
      }
    }
  }
  (*log)->flush();
  EXPECT_EQ((*log)->trouble(), "");
  for (int night = 0; night < 14; ++night) {
    std::vector<std::string> kinds;
    for (const NightEvent& event :
         NightReader(folder.path() / "nights.sqlite").events(dateText(first + days(night))))
      if (event.kind == "slot" || event.kind == "dark") kinds.push_back(event.kind);
    EXPECT_EQ(kinds, (std::vector<std::string>{"slot", "slot", "dark"})) << dateText(first + days(night));
  }
}

/// The whole way: a set list through a player to light. What played before fades away under what follows.
TEST(SetListLight, FadesFromScoreToScore) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  const ZoneId zone = show.zones.front()->id;
  show.light.fades = Evenness::InLight;
  const PaletteId red = addPalette(show, "Red", {{0, {255, 0, 0}}});
  const PaletteId blue = addPalette(show, "Blue", {{0, {0, 0, 255}}});
  for (const auto& [name, palette] : {std::pair{"red", red}, std::pair{"blue", blue}}) {
    const ScoreId score = addScore(show, name, "", Micros(1'000'000));
    addClip(show, score, zone, "hold", palette, Micros(0), Micros(1'000'000));
  }
  const SetListId list = addSetList(show, "L");
  SetListItem line = lineOf(show.scores[0]->id);
  line.fade = Micros(400'000);
  insertLines(show, list, 0, {line, lineOf(show.scores[1]->id)});
  auto clock = std::make_shared<HandClock>();
  Player::Options options;
  options.clock = clock;
  options.runsThreads = false;
  Player player(std::move(options));
  player.setShow(show, compile(show));
  PlayerHand hand(player, [](const Score&) { return nullptr; });
  hand.setShow(show);
  Performer performer(hand);
  performer.begin(show, {.kind = PieceKind::SetList, .list = list}, 1, Micros(0), clock->now());
  const auto pass = [&](MonoTime time) {
    for (MonoTime gone{0}; gone < time; gone += 25ms) {
      clock->pass(25ms);
      performer.tick(clock->now());
      player.advance();
    }
  };
  pass(500ms);
  const float red0 = player.latestFrame().r[0];
  EXPECT_GT(red0, 0.5f);
  EXPECT_EQ(player.latestFrame().b[0], 0.f);
  pass(700ms);
  const float mixedRed = player.latestFrame().r[0], mixedBlue = player.latestFrame().b[0];
  EXPECT_GT(mixedRed, 0.2f * red0);
  EXPECT_LT(mixedRed, 0.8f * red0);
  EXPECT_GT(mixedBlue, 0.f);
  pass(300ms);
  EXPECT_EQ(player.latestFrame().r[0], 0.f);
  EXPECT_GT(player.latestFrame().b[0], mixedBlue);
  pass(1s);
  EXPECT_FALSE(performer.isPerforming()) << "the list has ended";
  EXPECT_EQ(player.latestFrame().b[0], 0.f);
}

/// Notes what it is asked to play; what is heard goes with the clock.
class JoiningSound final : public Sound {
 public:
  JoiningSound(std::shared_ptr<HandClock> clock, std::string& said) : clock_(std::move(clock)), said_(said) {}
  void play(std::shared_ptr<const AudioClip> clip, Micros from) override {
    said_ += "play" + std::to_string(clip->frames() / 48'000) + " ";
    from_ = from;
    begun_ = clock_->now();
  }
  void follow(std::shared_ptr<const AudioClip> clip, Micros at) override {
    said_ += clip ? "join" + std::to_string(clip->frames() / 48'000) + "@" +
                        std::to_string(at.count() / 1'000'000) + " "
                  : std::string();
  }
  void touch(std::shared_ptr<const AudioClip>, Micros) override {}
  void stop() override { begun_.reset(); }
  std::optional<Micros> heard() override {
    if (!begun_ || clock_->now() <= *begun_) return std::nullopt;
    return from_ + std::chrono::duration_cast<Micros>(clock_->now() - *begun_);
  }
  std::string description() const override { return "notes"; }

 private:
  std::shared_ptr<HandClock> clock_;
  std::string& said_;
  Micros from_{0};
  std::optional<MonoTime> begun_;
};

/// One piece of music joins the other to the sample: the sound is begun once, and the score goes on where the
/// one before it ended.
TEST(SetListSound, OnePieceJoinsTheOtherWithoutAGap) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  const SetListId list = addSetList(show, "L");
  std::map<std::string, std::shared_ptr<const AudioClip>> clips;
  for (const int seconds : {2, 3, 4}) {
    auto clip = std::make_shared<AudioBuffer>();
    clip->samples.resize(static_cast<std::size_t>(seconds) * 48'000 * 2);
    const std::string name = std::to_string(seconds) + ".wav";
    clips[name] = clip;
    insertLines(show, list, 99, {lineOf(addScore(show, name, name, Micros(seconds * 1'000'000)))});
  }
  auto clock = std::make_shared<HandClock>();
  std::string said;
  Player::Options options;
  options.clock = clock;
  options.runsThreads = false;
  options.sound = std::make_unique<JoiningSound>(clock, said);
  Player player(std::move(options));
  player.setShow(show, compile(show));
  PlayerHand hand(player, [&](const Score& score) { return clips[score.audio]; });
  hand.setShow(show);
  Performer performer(hand);
  performer.begin(show, {.kind = PieceKind::SetList, .list = list}, 1, Micros(0), clock->now());
  const MonoTime begun = clock->now();
  const auto passTo = [&](MonoTime time) {
    while (clock->now() - begun < time) {
      clock->pass(5ms);
      performer.tick(clock->now());
      player.advance();
      // The sounds of made-up clips are there at once, on a thread of their own.
      std::this_thread::yield();
    }
  };
  passTo(1s);
  ASSERT_TRUE(test::eventually([&] { return performer.tick(clock->now()), said == "play2 join3@2 "; }))
      << said;
  passTo(2'500ms);
  EXPECT_EQ(nameOfPiece(show, *performer.piece()), "3.wav");
  EXPECT_NEAR(static_cast<double>(player.position().count()), 500'000, 10'000);
  ASSERT_TRUE(test::eventually([&] {
    return performer.tick(clock->now()), said == "play2 join3@2 join4@5 ";
  })) << said;
  passTo(5'100ms);
  EXPECT_EQ(nameOfPiece(show, *performer.piece()), "4.wav");
  EXPECT_NEAR(static_cast<double>(player.position().count()), 100'000, 10'000);
  // What is skipped does not wait for the end.
  performer.back(clock->now());
  EXPECT_EQ(said, "play2 join3@2 join4@5 play3 ");
  passTo(6'000ms);
  EXPECT_EQ(nameOfPiece(show, *performer.piece()), "3.wav");
}

class Logs : public testing::Test {
 protected:
  NightEvent event(int i, const std::string& night = "2027-07-01") const {
    return {WallTime(milliseconds(1'814'400'000'000 + i)), night, "piece", "a " + std::to_string(i), {}};
  }
  test::TemporaryFolder folder_;
  std::filesystem::path file_ = folder_.path() / "deep" / "nights.sqlite";
};

TEST_F(Logs, HoldWhatWasAddedInOrderAndAddUp) {
  auto log = *NightLog::open(file_);
  for (int i = 0; i < 300; ++i) log->add(event(i));
  log->add(NightSum{"2027-07-01", "Fair", 60, 0.5, 2400, 1, 1, 41});
  log->add(NightSum{"2027-07-01", "Fair", 30, 0.25, 1200, 0, 0, 39});
  log->add(NightSum{"2027-07-02", "Fair", 1, 0, 40, 0, 0, -273});
  log.reset();
  NightReader reader(file_);
  const auto events = reader.events("2027-07-01");
  ASSERT_EQ(events.size(), 300u);
  for (int i = 0; i < 300; ++i) EXPECT_EQ(events[static_cast<std::size_t>(i)], event(i));
  const auto nights = reader.nights(10);
  ASSERT_EQ(nights.size(), 2u);
  EXPECT_EQ(nights[0], (NightSum{"2027-07-01", "Fair", 90, 0.75, 3600, 1, 1, 41}));
  EXPECT_EQ(reader.nights(1)[0].night, "2027-07-02");
}

TEST_F(Logs, KeepTwoYears) {
  auto log = *NightLog::open(file_);
  NightEvent old = event(0, "2024-01-01");
  old.at -= days(1'200);
  log->add(old);
  log->flush();
  EXPECT_EQ(NightReader(file_).events("2024-01-01").size(), 1u);
  log->add(event(1));
  log->flush();
  EXPECT_EQ(NightReader(file_).events("2024-01-01").size(), 0u);
  EXPECT_EQ(NightReader(file_).events("2027-07-01").size(), 1u);
}

/// Another program holds the file: what was added waits, and is written once it can be.
TEST_F(Logs, WhatCannotBeWrittenWaits) {
  auto log = *NightLog::open(file_);
  sqlite3* other = nullptr;
  ASSERT_EQ(::sqlite3_open(file_.c_str(), &other), SQLITE_OK);
  ASSERT_EQ(::sqlite3_exec(other, "BEGIN EXCLUSIVE", nullptr, nullptr, nullptr), SQLITE_OK);
  log->add(event(1));
  log->flush();
  EXPECT_NE(log->trouble(), "");
  log->add(event(2));
  ::sqlite3_exec(other, "COMMIT", nullptr, nullptr, nullptr);
  ::sqlite3_close(other);
  EXPECT_TRUE(test::eventually([&] { return NightReader(file_).events("2027-07-01").size() == 2; }));
  log->flush();
  EXPECT_EQ(log->trouble(), "");
  EXPECT_EQ(log->dropped(), 0u);
}

TEST_F(Logs, AFileThatIsNoneIsSaid) {
  std::filesystem::create_directories(file_.parent_path());
  std::ofstream(file_) << "this is no database, whatever its name says, and long enough to be looked at";
  const auto log = NightLog::open(file_);
  ASSERT_FALSE(log);
  EXPECT_NE(log.failure().text().find("log of nights"), std::string::npos) << log.failure().text();
}

}  // namespace
}  // namespace chispa::engine
