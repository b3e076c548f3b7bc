// SPDX-License-Identifier: GPL-3.0-or-later
// What is played by hand, through the player: from the queue to the bytes that leave, and back into the
// score.
#include <gtest/gtest.h>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/playededits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "engine/handclock.h"
#include "engine/midihub.h"
#include "engine/player.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// A strip on a controller that nobody answers for, a score with a comet, and a player on a clock of its own.
class LivePlayer : public testing::Test {
 protected:
  LivePlayer() {
    Player::Options options;
    options.clock = clock_;
    options.runsThreads = false;
    player_ = std::make_unique<Player>(std::move(options));
    const FixtureId strip = addFixture(show_, LineShape{40, 0.05}, {});
    zone_ = show_.zones.front()->id;
    palette_ = addPalette(show_, "Fair", {{0, {255, 40, 80}}, {0.5, {250, 220, 90}}, {1, {60, 130, 255}}});
    score_ = addScore(show_, "S", "", Micros(60'000'000));
    addClip(show_, score_, zone_, "swell", palette_, Micros(0), Micros(60'000'000));
    const ControllerId box = addController(show_, 1);
    changeItem(show_.controllers, box, [](Controller& c) {
      c.host = "127.0.0.31";
      // Dithering goes by the frames that were sent, not by what is played.
      c.dithers = false;
    });
    hang(show_, {strip, 0, 40}, {box, 0, 0});
  }
  LookId look(const std::string& effect, Micros fadeIn, Micros fadeOut) {
    const LookId id = addLook(show_, effect, {zone_}, effect, palette_);
    changeItem(show_.looks, id, [&](Look& look) {
      look.fadeIn = fadeIn;
      look.fadeOut = fadeOut;
    });
    return id;
  }
  void load() { player_->setShow(show_, compile(show_)); }
  void pass(MonoTime time) {
    for (MonoTime gone{0}; gone < time; gone += 25ms) {
      clock_->pass(25ms);
      player_->advance();
      keep();
    }
  }
  /// Plays `score_` from its beginning and returns the bytes of each frame until `end`.
  std::vector<std::vector<std::uint8_t>> played(MonoTime end, const std::function<void(int frame)>& byHand) {
    std::vector<std::vector<std::uint8_t>> frames;
    player_->play(score_, Micros(0), {Micros(0), Micros(60'000'000), false});
    for (int frame = 0; frame * 25ms < end; ++frame) {
      byHand(frame);
      player_->advance();
      keep();
      frames.push_back(player_->latestValues());
      clock_->pass(25ms);
    }
    player_->pause();
    return frames;
  }
  void press(LookId look, bool down = true) {
    player_->live(LiveSource::Window,
                  {down ? LiveEvent::Kind::Press : LiveEvent::Kind::Release, look.value, 1});
  }
  void keep() {
    while (const auto note = player_->output().live().takeNote()) notes_.push_back(*note);
  }

  std::shared_ptr<HandClock> clock_ = std::make_shared<HandClock>();
  std::unique_ptr<Player> player_;
  Show show_;
  ZoneId zone_;
  PaletteId palette_;
  ScoreId score_;
  std::vector<LiveNote> notes_;
};

TEST_F(LivePlayer, APadIsOnTheLedsInTheNextFrame) {
  const LookId white = look("hold", Micros(0), Micros(0));
  load();
  player_->switchLight(true);
  pass(100ms);
  const auto before = player_->latestValues();
  press(white);
  pass(25ms);
  EXPECT_NE(player_->latestValues(), before);
  EXPECT_TRUE(player_->output().live().snapshot().state.isLit(white));
}

/// What was played live and recorded into the score gives the same bytes, frame by frame: fades, a look that
/// lies on another, steps, and a look that was still lit at the end.
TEST_F(LivePlayer, WhatWasPlayedAndRecordedPlaysTheSameBytes) {
  const LookId comets = look("comets", Micros(500'000), Micros(800'000));
  const LookId glints = look("glints", Micros(0), Micros(300'000));
  const LookId steps = look("hold", Micros(200'000), Micros(200'000));
  addStep(show_, steps, 0);
  changeItem(show_.looks, steps, [](Look& l) {
    l.steps[0].hold = l.steps[1].hold = Micros(600'000);
    l.steps[1].fade = Micros(200'000);
    Clip other = *l.steps[1].layers[0];
    other.params["place"] = 0.1;
    l.steps[1].layers[0] = std::make_shared<const Clip>(other);
  });
  load();
  player_->switchLight(true);
  const auto live = played(9s, [&](int frame) {
    if (frame == 20 || frame == 150) press(comets);
    if (frame == 60 || frame == 100) press(glints);
    if (frame == 180 || frame == 300) press(steps);
    if (frame == 320) press(comets);
  });
  ASSERT_FALSE(notes_.empty());
  const auto clips = writePlayed(show_, score_, notes_, Micros(9'000'000));
  EXPECT_GE(clips.size(), 5u);
  // Nothing is lit by hand any more.
  player_->live(LiveSource::Window, {LiveEvent::Kind::Reset});
  pass(2s);
  load();
  const auto again = played(9s, [](int) {});
  ASSERT_EQ(again.size(), live.size());
  for (std::size_t i = 0; i < live.size(); ++i) ASSERT_EQ(again[i], live[i]) << "frame " << i;
}

/// A look that was played beside a moving score stays in step with it when the score jumps.
TEST_F(LivePlayer, ALookGoesOnWhenTheScoreJumps) {
  const LookId comets = look("comets", Micros(0), Micros(0));
  load();
  player_->switchLight(true);
  player_->play(score_, Micros(0), {Micros(0), Micros(60'000'000), false});
  press(comets);
  pass(2s);
  const auto before = player_->output().live().snapshot();
  player_->seek(score_, Micros(40'000'000));
  pass(25ms);
  const auto after = player_->output().live().snapshot();
  const LookPlay& was = before.state.plays[0];
  const LookPlay& is = after.state.plays[0];
  EXPECT_NEAR(is.elapsedAt(after.now.t) - was.elapsedAt(before.now.t), 0.025, 0.001);
  EXPECT_NEAR(is.beatsAt(after.now) - was.beatsAt(before.now), 0.05, 0.06);
}

/// A fader of a MIDI device that ships with Chispa drives every third channel as it leaves.
TEST_F(LivePlayer, AFaderDrivesTheRedsAlone) {
  const ControllerId box = show_.controllers.front()->id;
  addBinding(show_, {.kind = SourceKind::Control, .number = 1},
             {.kind = TargetKind::Channels,
              .controller = box,
              .universe = 1,
              .channel = 1,
              .count = 40,
              .every = 3});
  load();
  player_->switchLight(true);
  const auto device = std::make_shared<link::SimulatedMidi>();
  MidiHub hub(
      device, [&](const LiveEvent& event) { player_->live(LiveSource::Midi, event); },
      [](const link::ControlHeard&) {});
  hub.refresh();
  ASSERT_EQ(hub.devices().size(), 1u);
  const std::uint8_t half[] = {0xb0, 1, 64};
  device->send(half);
  pass(25ms);
  const auto& values = player_->latestValues();
  for (int i = 0; i < 40; ++i) EXPECT_EQ(values[static_cast<std::size_t>(3 * i)], 129) << i;

  // Unplugged it is missing; plugged in again it goes on.
  device->plug(false);
  hub.refresh();
  EXPECT_TRUE(hub.devices().empty());
  device->plug(true);
  hub.refresh();
  const std::uint8_t full[] = {0xb0, 1, 127};
  device->send(full);
  pass(25ms);
  EXPECT_EQ(player_->latestValues()[0], 255);
}

/// What plays shines on the button that plays it.
TEST_F(LivePlayer, AButtonShinesWhileItsLookIsLit) {
  const LookId white = look("hold", Micros(0), Micros(0));
  const BindingId id = addBinding(show_, {.kind = SourceKind::Note, .channel = 1, .number = 36},
                                  {.kind = TargetKind::Look, .look = white});
  changeItem(show_.bindings, id, [](Binding& b) { b.lamp = {true, 0, 10, 127}; });
  load();
  const auto device = std::make_shared<link::SimulatedMidi>();
  std::vector<int> lamps;
  device->lamps = [&](std::span<const std::uint8_t> message) { lamps.push_back(message[2]); };
  MidiHub hub(
      device, [&](const LiveEvent& event) { player_->live(LiveSource::Midi, event); },
      [](const link::ControlHeard&) {});
  hub.refresh();
  hub.light(show_, player_->output().live().snapshot().state);
  const std::uint8_t down[] = {0x90, 36, 100};
  device->send(down);
  pass(25ms);
  hub.light(show_, player_->output().live().snapshot().state);
  hub.light(show_, player_->output().live().snapshot().state);
  EXPECT_EQ(lamps, (std::vector{10, 127})) << "only changes are sent";
  hub.refresh();
  hub.light(show_, player_->output().live().snapshot().state);
  EXPECT_EQ(lamps, (std::vector{10, 127, 127})) << "what got lost is told again";
}

/// A bound button asks for play; the player's owner hears of it once.
TEST_F(LivePlayer, RequestsReachTheOwner) {
  addBinding(show_, {.kind = SourceKind::Note, .number = 40}, {.kind = TargetKind::Play});
  load();
  player_->live(LiveSource::Midi, controlEvent({.kind = SourceKind::Note, .number = 40}, 1));
  pass(25ms);
  const auto request = player_->output().live().takeRequest();
  ASSERT_TRUE(request);
  EXPECT_EQ(request->kind, LiveRequest::Kind::Play);
  EXPECT_FALSE(player_->output().live().takeRequest());
}

/// The master follows a fader, eased, and the window's own slider moves it again.
TEST_F(LivePlayer, TheMasterFollowsAFader) {
  const BindingId id =
      addBinding(show_, {.kind = SourceKind::Control, .number = 9}, {.kind = TargetKind::Master});
  changeItem(show_.bindings, id, [](Binding& b) { b.easeOut = Micros(1'000'000); });
  load();
  player_->live(LiveSource::Midi, controlEvent({.kind = SourceKind::Control, .number = 9}, 0));
  pass(525ms);
  EXPECT_NEAR(player_->master(), 0.5, 0.03);
  pass(1s);
  EXPECT_FLOAT_EQ(player_->master(), 0);
  player_->output().setMaster(0.8f);
  pass(100ms);
  EXPECT_FLOAT_EQ(player_->master(), 0.8f);
}

/// A flood of events is bounded: what finds no room is dropped and counted, and light goes on.
TEST_F(LivePlayer, AFloodOfEventsIsCounted) {
  const LookId white = look("hold", Micros(0), Micros(0));
  load();
  player_->switchLight(true);
  for (int i = 0; i < 100'000; ++i)
    player_->live(LiveSource::Osc, controlEvent({.kind = SourceKind::Osc, .address = "/x"}, 1));
  EXPECT_GT(player_->output().live().dropped(), 90'000u);
  press(white);
  pass(25ms);
  EXPECT_TRUE(player_->output().live().snapshot().state.isLit(white));
}

}  // namespace
}  // namespace chispa::engine
