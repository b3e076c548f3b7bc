// SPDX-License-Identifier: GPL-3.0-or-later
// What is played by hand: looks, bindings and desks are a value, and light is a function of it and the time.
#include <random>

#include <gtest/gtest.h>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/live/desksheet.h"
#include "core/live/livestep.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

constexpr Micros kFrame{25'000};
/// The light of half the lightness (L* 50 of CIE 1976).
constexpr double kHalfSeen = 0.18418651851244416;

/// A show of two lines of ten pixels, and someone who plays it.
class PlayedByHand : public testing::Test {
 protected:
  PlayedByHand() {
    left_ = zoneOf(addFixture(show_, LineShape{10, 0.1}, {}));
    right_ = zoneOf(addFixture(show_, LineShape{10, 0.1}, {5, 0, 0}));
    white_ = addPalette(show_, "White", {{0, {255, 255, 255}}, {1, {255, 255, 255}}});
  }

  ZoneId zoneOf(FixtureId fixture) {
    for (const auto& zone : show_.zones)
      if (zone->parts.front().fixture == fixture) return zone->id;
    return {};
  }
  LookId whiteLook(ZoneId zone, PadMode mode = PadMode::Toggle) {
    const LookId id = addLook(show_, "White", {zone}, "hold", white_);
    changeItem(show_.looks, id, [mode](Look& look) {
      look.mode = mode;
      look.fadeIn = look.fadeOut = Micros(0);
    });
    return id;
  }
  void change(LookId id, const std::function<void(Look&)>& edit) { changeItem(show_.looks, id, edit); }

  /// After the last edit.
  void begin() {
    compiled_ = compile(show_);
    renderer_.prepare(*compiled_);
    frame_.resize(static_cast<std::size_t>(compiled_->map->count()));
    desk_.assign(compiled_->live->deskUniverses.size(), {});
  }
  void send(LiveEvent event) { LiveStep(*compiled_->live, state_, now_, requests_).apply(event); }
  void press(LookId look) { send({LiveEvent::Kind::Press, look.value, 1}); }
  void release(LookId look) { send({LiveEvent::Kind::Release, look.value, 0}); }
  void control(int number, float value) {
    send(controlEvent({.kind = SourceKind::Control, .device = "Desk A", .channel = 1, .number = number},
                      value));
  }
  /// The light after `time` more.
  const PixelFrame& after(Micros time) {
    for (Micros gone{0}; gone < time; gone += kFrame) {
      now_.t += kFrame;
      now_.beat = seconds(now_.t) * 2;
      now_.bar = now_.beat / 4;
      LiveStep(*compiled_->live, state_, now_, requests_).advance(desk_);
    }
    frame_.clear();
    renderer_.renderLive(*compiled_, nullptr, Micros(0), state_, now_, desk_, frame_);
    return frame_;
  }
  float lightOf(std::size_t pixel) const { return frame_.r[pixel]; }

  Show show_;
  ZoneId left_;
  ZoneId right_;
  PaletteId white_;
  std::shared_ptr<const CompiledShow> compiled_;
  Renderer renderer_;
  PixelFrame frame_;
  LiveState state_;
  LiveInstant now_;
  LiveRequests requests_;
  std::vector<DeskValues> desk_;
};

/// A toggling pad lights with one press and ends with the next; only its own zone is lit.
TEST_F(PlayedByHand, ATogglingPadLightsItsZoneAndEndsIt) {
  const LookId look = whiteLook(left_);
  begin();
  press(look);
  release(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1);
  EXPECT_FLOAT_EQ(lightOf(10), 0);
  press(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0);
  EXPECT_TRUE(state_.plays.isEmpty());
}

/// A flashing pad is there at once, whatever its fade-in says, and fades out over its time when let go.
TEST_F(PlayedByHand, AFlashingPadIsThereAtOnceAndFadesOut) {
  const LookId look = whiteLook(left_, PadMode::Flash);
  change(look, [](Look& l) {
    l.fadeIn = Micros(5'000'000);
    l.fadeOut = Micros(2'000'000);
  });
  begin();
  press(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1);
  release(look);
  after(Micros(1'000'000));
  EXPECT_NEAR(lightOf(0), kHalfSeen, 1e-4);
  after(Micros(1'000'000));
  EXPECT_FLOAT_EQ(lightOf(0), 0);
}

TEST_F(PlayedByHand, AHeldPadEndsWhenItIsLetGo) {
  const LookId look = whiteLook(left_, PadMode::Hold);
  begin();
  press(look);
  after(Micros(3'000'000));
  EXPECT_FLOAT_EQ(lightOf(0), 1);
  release(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0);
}

TEST_F(PlayedByHand, OnlyThisEndsAllOthers) {
  const LookId first = whiteLook(left_);
  const LookId only = whiteLook(right_, PadMode::OnlyThis);
  begin();
  press(first);
  after(kFrame);
  press(only);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0);
  EXPECT_FLOAT_EQ(lightOf(10), 1);
}

/// The latest lies on top: a dark look over a white one leaves dark, and white comes back when it ends.
TEST_F(PlayedByHand, TheLatestLiesOnTop) {
  const LookId white = whiteLook(left_);
  const LookId dark = addLook(show_, "Dark", {left_}, "black", {});
  change(dark, [](Look& l) { l.fadeIn = l.fadeOut = Micros(0); });
  begin();
  press(white);
  press(dark);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0);
  press(dark);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1);
}

/// Steps hold, fade into each other, come round the stated number of times, and hand over to another look.
TEST_F(PlayedByHand, StepsHoldFadeAndHandOver) {
  const LookId next = whiteLook(right_);
  const LookId look = whiteLook(left_);
  addStep(show_, look, 0);
  change(look, [&](Look& l) {
    l.steps[0].hold = l.steps[1].hold = Micros(1'000'000);
    l.steps[1].fade = Micros(1'000'000);
    auto dark = *l.steps[1].layers[0];
    dark.strength = 0;
    l.steps[1].layers[0] = std::make_shared<const Clip>(dark);
    l.rounds = 2;
    l.end = LookEnd::GoOn;
    l.next = next;
  });
  begin();
  press(look);
  after(Micros(500'000));
  EXPECT_FLOAT_EQ(lightOf(0), 1);
  after(Micros(1'000'000));
  EXPECT_NEAR(lightOf(0), kHalfSeen, 0.01) << "half-way into the dark step";
  after(Micros(1'000'000));
  EXPECT_FLOAT_EQ(lightOf(0), 0);
  after(Micros(1'000'000));
  EXPECT_FLOAT_EQ(lightOf(0), 1) << "the second round";
  after(Micros(2'600'000));
  EXPECT_FLOAT_EQ(lightOf(0), 0);
  EXPECT_FLOAT_EQ(lightOf(10), 1) << "the look that follows";
}

/// A fader moves a zone's level through its range, its response and its easing.
TEST_F(PlayedByHand, AFaderMovesTheLevelOfAZone) {
  const LookId look = whiteLook(left_);
  const BindingId id = addBinding(show_, {.kind = SourceKind::Control, .device = "Desk A", .number = 7},
                                  {.kind = TargetKind::ZoneLevel, .zone = left_});
  begin();
  press(look);
  control(7, 0.25f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.25f);

  changeItem(show_.bindings, id, [](Binding& b) {
    b.low = 1;
    b.high = 0.5;
    b.easeIn = Micros(1'000'000);
    b.response = BindingResponse::Drawn;
    b.points = {{0, 0}, {0.5, 1}, {1, 1}};
  });
  begin();
  control(7, 0);
  after(Micros(500'000));
  EXPECT_NEAR(lightOf(0), 0.625, 1e-3) << "half-way from 0.25 to 1";
  after(Micros(500'000));
  EXPECT_NEAR(lightOf(0), 1, 1e-4);
  control(7, 0.5f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.5f);
}

TEST_F(PlayedByHand, ABindingOfAnotherDeviceIsNotDriven) {
  const LookId look = whiteLook(left_);
  addBinding(show_, {.kind = SourceKind::Control, .device = "Other", .number = 7},
             {.kind = TargetKind::ZoneLevel, .zone = left_});
  begin();
  press(look);
  control(7, 0);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1);
}

/// A fader that takes over does nothing until it passes the value that is there.
TEST_F(PlayedByHand, AFaderTakesOverOnlyWhenItPassesTheValue) {
  const LookId look = whiteLook(left_);
  const BindingId id = addBinding(show_, {.kind = SourceKind::Control, .number = 7},
                                  {.kind = TargetKind::ZoneLevel, .zone = left_});
  changeItem(show_.bindings, id, [](Binding& b) { b.takesOver = true; });
  begin();
  press(look);
  send({LiveEvent::Kind::ZoneLevel, left_.value, 0.5f});
  control(7, 0.1f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.5f);
  control(7, 0.4f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.5f);
  control(7, 0.6f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.6f);
  send({LiveEvent::Kind::ZoneLevel, left_.value, 0.1f});
  control(7, 0.62f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.1f) << "the screen has moved it: it is to be passed anew";
}

/// A note on a look with easing of its own: on at once, out in two seconds.
TEST_F(PlayedByHand, AButtonMayEaseOutALook) {
  const LookId look = whiteLook(left_);
  const BindingId id =
      addBinding(show_, {.kind = SourceKind::Note, .number = 36},
                 {.kind = TargetKind::Look, .look = look, .hasMode = true, .mode = PadMode::Hold});
  changeItem(show_.bindings, id, [](Binding& b) { b.easeOut = Micros(2'000'000); });
  begin();
  const BindingSource pad{.kind = SourceKind::Note, .device = "Pads", .channel = 10, .number = 36};
  send(controlEvent(pad, 0.8f));
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1);
  send(controlEvent(pad, 0));
  after(Micros(1'000'000));
  EXPECT_NEAR(lightOf(0), kHalfSeen, 1e-3);
}

/// Of two looks that change places at one instant neither falls into the dark: what the one takes the other
/// gives, whether it is even to the eye or in light.
TEST_F(PlayedByHand, ALookThatTakesAnothersPlaceLeavesNoGap) {
  for (const Evenness evenness : {Evenness::ToTheEye, Evenness::InLight}) {
    show_.light.fades = evenness;
    state_ = {};
    const LookId one = whiteLook(left_, PadMode::OnlyThis);
    const LookId other = whiteLook(left_, PadMode::OnlyThis);
    for (const LookId look : {one, other})
      change(look, [](Look& l) { l.fadeIn = l.fadeOut = Micros(1'000'000); });
    begin();
    press(one);
    after(Micros(2'000'000));
    press(other);
    for (int i = 0; i < 40; ++i) {
      after(kFrame);
      EXPECT_GT(lightOf(0), 0.74) << i;
    }
    after(kFrame);
    EXPECT_FLOAT_EQ(lightOf(0), 1);
  }
}

/// What drives the number of an effect drives its light.
TEST_F(PlayedByHand, AFaderMovesTheStrengthOfALooksLayers) {
  const LookId look = whiteLook(left_);
  addBinding(show_, {.kind = SourceKind::Control, .number = 1},
             {.kind = TargetKind::Parameter, .look = look, .parameter = kStrengthKey});
  begin();
  press(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1) << "a control that was never moved changes nothing";
  control(1, 0.5f);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 0.5f);
}

/// The palette of a look turns under a fader: half way round the first colour is where the middle was.
TEST_F(PlayedByHand, AFaderTurnsThePaletteOfALook) {
  const PaletteId blue = addPalette(show_, "Red to blue", {{0, {255, 0, 0}}, {1, {0, 0, 255}}});
  const LookId look = addLook(show_, "Still", {left_}, "hold", blue);
  change(look, [](Look& l) { l.fadeIn = Micros(0); });
  addBinding(show_, {.kind = SourceKind::Control, .number = 1},
             {.kind = TargetKind::Parameter, .look = look, .parameter = kPalettePlaceKey});
  begin();
  press(look);
  after(kFrame);
  const auto colour = [this] { return std::pair(frame_.r[0], frame_.b[0]); };
  const auto still = colour();
  const PaletteTable table(*find(show_.palettes, blue));
  // Where in the palette Hold takes its colour, as it comes from the shelf.
  constexpr float kHoldsAt = 0.7f;
  for (const float turn : {0.25f, 0.5f, 0.75f}) {
    control(1, turn);
    after(kFrame);
    EXPECT_NE(colour(), still) << turn;
    const Rgb wanted = TurnedPalette(table, static_cast<double>(turn)).clamped(kHoldsAt);
    EXPECT_FLOAT_EQ(frame_.r[0], wanted.r) << turn;
    EXPECT_FLOAT_EQ(frame_.b[0], wanted.b) << turn;
  }
}

TEST_F(PlayedByHand, SpeedRunsALookFasterWithoutAJump) {
  const LookId look = addLook(show_, "Run", {left_}, "comets", white_);
  change(look, [](Look& l) { l.fadeIn = Micros(0); });
  addBinding(show_, {.kind = SourceKind::Control, .number = 1}, {.kind = TargetKind::Speed, .look = look});
  begin();
  press(look);
  after(Micros(2'000'000));
  const double before = state_.plays[0].elapsedAt(now_.t);
  control(1, 0.5f);
  EXPECT_DOUBLE_EQ(state_.plays[0].elapsedAt(now_.t), before);
  after(Micros(1'000'000));
  EXPECT_NEAR(state_.plays[0].elapsedAt(now_.t), before + 2, 1e-9);
}

TEST_F(PlayedByHand, TapsMakeTheTempo) {
  begin();
  for (int i = 0; i < 5; ++i) {
    send({LiveEvent::Kind::Tap});
    after(Micros(400'000));
  }
  EXPECT_NEAR(state_.tempo.beat_s, 0.4, 1e-9);
}

TEST_F(PlayedByHand, ResetLetsGoOfEverything) {
  const LookId look = whiteLook(left_, PadMode::Hold);
  begin();
  press(look);
  send({LiveEvent::Kind::ZoneLevel, right_.value, 0});
  send({LiveEvent::Kind::Reset});
  after(kFrame);
  EXPECT_TRUE(state_.plays.isEmpty());
  EXPECT_FLOAT_EQ(state_.zoneLevel(right_, now_.t), 1);
}

/// Requests that are not light reach whoever holds the player, once a press.
TEST_F(PlayedByHand, APressOfPlayAsksOnce) {
  addBinding(show_, {.kind = SourceKind::Control, .number = 20}, {.kind = TargetKind::Play});
  begin();
  for (const float value : {0.2f, 0.6f, 1.f, 0.4f}) control(20, value);
  ASSERT_EQ(requests_.size(), 1u);
  EXPECT_EQ(requests_[0].kind, LiveRequest::Kind::Play);
}

/// A desk multiplies, replaces, adds or wins by height; when it stops, the show comes back.
TEST_F(PlayedByHand, ADeskMultipliesTheShowAndLetsGo) {
  const LookId look = whiteLook(left_);
  DeskInput input;
  input.zone = left_;
  input.universe = 90;
  input.channel = 4;
  input.cells = 2;
  input.use = DeskUse::Multiplies;
  input.lossFade = Micros(1'000'000);
  const DeskInputId id = addDeskInput(show_, input);
  begin();
  ASSERT_EQ(desk_.size(), 1u);
  press(look);
  after(kFrame);
  EXPECT_FLOAT_EQ(lightOf(0), 1) << "a desk that was never heard changes nothing";
  desk_[0].isHeard = true;
  desk_[0].values[3] = 51;
  desk_[0].values[6] = 255;
  after(kFrame);
  EXPECT_FLOAT_EQ(frame_.r[0], 0.2f);
  EXPECT_FLOAT_EQ(frame_.g[0], 0);
  EXPECT_FLOAT_EQ(frame_.r[4], 0.2f);
  EXPECT_FLOAT_EQ(frame_.r[5], 1) << "the second of its two cells";
  desk_[0].isLost = true;
  desk_[0].lostAt = now_.t;
  after(Micros(500'000));
  EXPECT_NEAR(lightOf(0), 0.6, 0.01);
  after(Micros(500'000));
  EXPECT_FLOAT_EQ(lightOf(0), 1);

  for (const auto& [use, red] :
       {std::pair{DeskUse::Replaces, 0.2f}, {DeskUse::Adds, 1.f}, {DeskUse::Higher, 1.f}}) {
    changeItem(show_.deskInputs, id, [use = use](DeskInput& d) { d.use = use; });
    const auto kept = desk_;
    begin();
    desk_ = kept;
    desk_[0].isLost = false;
    after(kFrame);
    EXPECT_FLOAT_EQ(frame_.r[0], red);
  }
}

TEST_F(PlayedByHand, ADesksSixteenBitsAndItsOrderAreRead) {
  DeskInput input;
  input.zone = left_;
  input.format = "GRB";
  input.bits = 16;
  addDeskInput(show_, input);
  begin();
  desk_[0].isHeard = true;
  desk_[0].values = {};
  desk_[0].values[2] = 0x80;  // red, coarse
  desk_[0].values[3] = 0x00;
  after(kFrame);
  EXPECT_NEAR(frame_.r[0], 0x8000 / 65535.0, 1e-6);
  EXPECT_FLOAT_EQ(frame_.g[0], 0);
}

/// A cell of a desk stays whole: what does not fit into a universe begins the next.
TEST(DeskAddresses, KeepCellsWhole) {
  DeskInput input;
  input.channel = 509;
  input.cells = 3;
  const auto all = deskAddresses(input, 30);
  ASSERT_EQ(all.size(), 3u);
  EXPECT_EQ(all[0].universe, 1);
  EXPECT_EQ(all[0].channel, 509);
  EXPECT_EQ(all[1].universe, 2);
  EXPECT_EQ(all[1].channel, 1);
  EXPECT_EQ(all[2].channel, 4);
}

/// The same events at the same times give the same light and the same state, whatever the renderer did
/// before.
TEST_F(PlayedByHand, TheSameLogGivesTheSameLight) {
  std::vector<LookId> looks = {whiteLook(left_), whiteLook(right_, PadMode::Flash)};
  looks.push_back(addLook(show_, "Comets", {left_, right_}, "comets", white_));
  looks.push_back(addLook(show_, "Fireflies", {right_, left_}, "fireflies", white_));
  addBinding(show_, {.kind = SourceKind::Control, .number = 1},
             {.kind = TargetKind::LookLevel, .look = looks[2]});
  addBinding(show_, {.kind = SourceKind::Control, .number = 2},
             {.kind = TargetKind::Speed, .look = looks[3]});
  begin();
  const auto play = [&] {
    std::mt19937 chance(7);
    state_ = {};
    now_ = {};
    std::vector<PixelFrame> frames;
    for (int i = 0; i < 400; ++i) {
      const LookId look = looks[chance() % looks.size()];
      switch (chance() % 6) {
        case 0:
          press(look);
          break;
        case 1:
          release(look);
          break;
        case 2:
          control(1 + static_cast<int>(chance() % 2), static_cast<float>(chance() % 128) / 127.f);
          break;
        default:
          break;
      }
      frames.push_back(after(kFrame));
    }
    return frames;
  };
  const auto first = play();
  const LiveState state = state_;
  Renderer other;
  other.prepare(*compiled_);
  std::swap(renderer_, other);
  EXPECT_TRUE(play() == first);
  EXPECT_TRUE(state == state_);
}

/// Any flood of presses, more than fit, leaves the newest lit and never more than there is room for.
TEST_F(PlayedByHand, MoreLooksThanFitLeaveTheNewest) {
  std::vector<LookId> looks;
  for (int i = 0; i < 40; ++i) looks.push_back(whiteLook(left_));
  begin();
  for (const LookId look : looks) press(look);
  after(kFrame);
  EXPECT_EQ(state_.plays.size(), LiveState::kMaxPlays);
  EXPECT_TRUE(state_.isLit(looks.back()));
  EXPECT_FALSE(state_.isLit(looks.front()));
}

/// An evening of learning and deleting leaves no binding without room.
TEST_F(PlayedByHand, BindingsThatAreGoneMakeRoom) {
  const LookId look = whiteLook(left_);
  begin();
  press(look);
  for (int i = 0; i < 600; ++i) {
    show_.bindings.clear();
    addBinding(show_, {.kind = SourceKind::Control, .number = 7},
               {.kind = TargetKind::ZoneLevel, .zone = left_});
    begin();
    control(7, i % 2 ? 0.5f : 0.25f);
    after(kFrame);
    ASSERT_FLOAT_EQ(lightOf(0), i % 2 ? 0.5f : 0.25f) << i;
  }
}

}  // namespace
}  // namespace chispa
