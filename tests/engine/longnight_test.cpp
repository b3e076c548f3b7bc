// SPDX-License-Identifier: GPL-3.0-or-later
// A night that is longer than a test may last: hours on a clock of its own, with what goes wrong in them.
#include <cstdlib>
#include <fstream>
#include <random>

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/render/compiled.h"
#include "engine/player.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

class NightClock final : public Clock {
 public:
  MonoTime now() const noexcept override { return now_; }
  void sleepUntil(MonoTime instant) noexcept override { now_ = std::max(now_, instant); }
  void pass(MonoTime time) { now_ += time; }

 private:
  MonoTime now_{1h};
};

/// A sound server that goes away and comes back.
class FickleSound final : public Sound {
 public:
  FickleSound(std::shared_ptr<NightClock> clock, std::shared_ptr<bool> isThere)
      : clock_(std::move(clock)), isThere_(std::move(isThere)) {}
  void play(std::shared_ptr<const AudioClip>, Micros from) override {
    from_ = from;
    begun_ = clock_->now();
  }
  void follow(std::shared_ptr<const AudioClip>, Micros) override {}
  void touch(std::shared_ptr<const AudioClip>, Micros) override {}
  void stop() override { begun_ = MonoTime(-1); }
  std::optional<Micros> heard() override {
    if (!*isThere_ || begun_ < MonoTime(0) || clock_->now() <= begun_) return std::nullopt;
    return from_ + std::chrono::duration_cast<Micros>(clock_->now() - begun_);
  }
  bool isLost() const override { return !*isThere_; }
  bool isSilent() const override { return !*isThere_; }
  bool reopen() override { return *isThere_; }
  std::string description() const override { return "a fickle one"; }

 private:
  std::shared_ptr<NightClock> clock_;
  std::shared_ptr<bool> isThere_;
  Micros from_{0};
  MonoTime begun_{-1};
};

double residentMegabytes() {
  std::ifstream in("/proc/self/statm");
  long pages = 0, resident = 0;
  in >> pages >> resident;
  return static_cast<double>(resident) * 4096 / 1e6;
}

/// CHISPA_HOURS sets how many; `./run trust` asks for eight.
TEST(LongNight, PlaysThroughEditsLostSoundAndClocksThatJump) {
  const char* wanted = std::getenv("CHISPA_HOURS");
  const double hours = wanted ? std::atof(wanted) : 0.1;
  const auto clock = std::make_shared<NightClock>();
  const auto soundIsThere = std::make_shared<bool>(true);
  Show show;
  const FixtureId line = addFixture(show, LineShape{150, 0.05}, {});
  const ControllerId box = addController(show, 1);
  // Port 9 of this machine: nobody listens.
  changeItem(show.controllers, box, [](Controller& c) {
    c.host = "127.0.0.1";
    c.udpPort = 9;
    c.sendsSync = true;
  });
  hang(show, {line, 0, 150}, {box, 0, 0});
  const PaletteId palette = show.newId<PaletteId>();
  put(show.palettes, Palette{palette, "P", {{0, {255, 120, 0}}, {1, {0, 0, 255}}}});
  const Micros length{180'000'000};
  const ScoreId score = addScore(show, "S", "", length);
  addClip(show, score, show.zones[0]->id, "comets", palette, Micros(0), length);
  Player::Options options;
  options.clock = clock;
  options.runsThreads = false;
  options.sound = std::make_unique<FickleSound>(clock, soundIsThere);
  Player player(std::move(options));
  player.setShow(show, compile(show));
  auto clip = std::make_shared<AudioBuffer>();
  clip->samples.resize(std::size_t{180} * AudioClip::kRate * AudioClip::kChannels);
  player.setSound(clip);
  player.switchLight(true);
  player.play(score, Micros(0), {Micros(0), length, true});
  std::mt19937 random(41);
  const auto frames = static_cast<std::int64_t>(hours * 3600 * 40);
  double early_mb = 0;
  std::uint64_t sentBefore = 0;
  for (std::int64_t frame = 0; frame < frames; ++frame) {
    clock->pass(25ms);
    // A computer that slept, or was held up.
    if (random() % 20'000 == 0) clock->pass(std::chrono::seconds(random() % 7200));
    if (random() % 3'000 == 0) *soundIsThere = !*soundIsThere;
    if (random() % 500 == 0) {
      changeItem(show.palettes, palette,
                 [&](Palette& p) { p.stops[0].colour.g = static_cast<std::uint8_t>(random()); });
      player.setShow(show, compile(show));
    }
    if (random() % 5'000 == 0) {
      player.switchLight(false);
      player.advance();
      player.switchLight(true);
    }
    player.advance();
    ASSERT_TRUE(player.isPlaying());
    ASSERT_GE(player.position(), Micros(0));
    // After a sleep the loop begins again with the next look of the follower.
    ASSERT_LT(player.position(), length + Micros(100'000)) << "frame " << frame;
    if (frame == frames / 4) early_mb = residentMegabytes();
    if (frame % 4'000 == 3'999) {
      const auto lines = player.lines();
      ASSERT_EQ(lines.size(), 1u);
      ASSERT_TRUE(lines[0].packets + lines[0].errors != sentBefore) << "light still leaves";
      sentBefore = lines[0].packets + lines[0].errors;
    }
  }
  EXPECT_LT(residentMegabytes(), early_mb + 20) << "memory does not grow with the hours";
  std::printf("%.1f hours, %lld frames\n", hours, static_cast<long long>(frames));
}

}  // namespace
}  // namespace chispa::engine
