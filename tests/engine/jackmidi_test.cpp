// SPDX-License-Identifier: GPL-3.0-or-later
// Real MIDI: RtMidi's own output through the ports of a JACK server that the test starts, into the player.

#include "jack.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/edit/bindingedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "engine/midihub.h"
#include "engine/player.h"
#include "node/node.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

using test::eventually;

/// Three faders that were learnt and copied along drive red, green and blue of a strip; a pad flashes and
/// fades out; the lamp of the pad is told. All of it through JACK and a simulated controller.
TEST(JackMidi, ThreeFadersDriveRedGreenAndBlueOfAStrip) {
#ifdef __SANITIZE_THREAD__
  GTEST_SKIP() << "JACK's own library is not built for the thread sanitizer";
#endif
  const test::Jack jack;
  if (!jack.runs()) GTEST_SKIP() << "no JACK server can be started here";
  const std::string address = test::loopbackAddress(10);
  node::Node node({"Box", 1, address, {}, {}});
  std::string why;
  ASSERT_TRUE(node.start(why)) << why;
  node.setSettings({{1, "e131", {{10, "RGB", 0, 1, 1}}}});
  Show show;
  StripType rgb;
  rgb.id = show.newId<StripTypeId>();
  rgb.order = "RGB";
  rgb.response = {1};
  put(show.stripTypes, rgb);
  const FixtureId strip = addFixture(show, LineShape{10, 0.1}, {});
  const ControllerId box = addController(show, 1);
  changeItem(show.controllers, box, [&](Controller& c) { c.host = address; });
  hang(show, {strip, 0, 10}, {box, 0, 0});
  const auto shown = [&node](int pixel) -> std::string {
    return node.state()["ports"][0]["shows"][static_cast<std::size_t>(pixel)];
  };

  test::JackSurface surface;
  Player player(Player::Options{});
  std::mutex mutex;
  std::vector<link::ControlHeard> heard;
  MidiHub hub(
      link::systemMidi(), [&](const LiveEvent& event) { player.live(LiveSource::Midi, event); },
      [&](const link::ControlHeard& control) {
        const std::scoped_lock lock(mutex);
        heard.push_back(control);
      });
  ASSERT_TRUE(eventually([&] {
    hub.refresh();
    return !hub.devices().empty();
  })) << (hub.troubles().empty() ? "no trouble is told" : hub.troubles().front());
  // Learnt: what moves first is the control.
  BindingSource learnt;
  ASSERT_TRUE(eventually([&] {
    surface.control(20, 1);
    const std::scoped_lock lock(mutex);
    if (!heard.empty()) learnt = heard.front().source;
    return !heard.empty();
  }));
  const BindingId red = addBinding(show, learnt,
                                   {.kind = TargetKind::Channels,
                                    .controller = box,
                                    .universe = 1,
                                    .channel = 1,
                                    .count = 10,
                                    .every = 3});
  ASSERT_EQ(copyAlong(show, red, {.count = 2}).size(), 2u);
  player.setShow(show, compile(show));
  player.switchLight(true);
  // Said again and again, as by a hand that moves: a busy machine's JACK leaves periods out, and what was in
  // them is gone.
  EXPECT_TRUE(eventually([&] {
    surface.control(20, 127);
    surface.control(21, 64);
    surface.control(22, 0);
    return shown(0) == "#ff8100" && shown(9) == "#ff8100";
  })) << shown(0)
      << shown(9);
  EXPECT_TRUE(eventually([&] {
    surface.control(20, 0);
    return shown(0) == "#008100";
  })) << shown(0);
}

/// A recorder's time code, through JACK: the score plays with it from where it is, and stands when it stops.
TEST(JackMidi, AScoreFollowsTimeCode) {
#ifdef __SANITIZE_THREAD__
  GTEST_SKIP() << "JACK's own library is not built for the thread sanitizer";
#endif
  const test::Jack jack;
  if (!jack.runs()) GTEST_SKIP() << "no JACK server can be started here";
  Show show;
  addFixture(show, LineShape{10, 0.1}, {});
  constexpr Micros kLength{60'000'000};
  const ScoreId score = addScore(show, "Song", {}, kLength);
  addBinding(show, {.kind = SourceKind::TimeCode}, {.kind = TargetKind::Follow});
  test::JackSurface recorder;
  Player player(Player::Options{});
  std::mutex mutex;
  std::optional<BindingSource> learnt;
  MidiHub hub(
      link::systemMidi(), [&](const LiveEvent& event) { player.live(LiveSource::Midi, event); },
      [&](const link::ControlHeard& control) {
        const std::scoped_lock lock(mutex);
        learnt = control.source;
      });
  ASSERT_TRUE(eventually([&] {
    hub.refresh();
    return !hub.devices().empty();
  }));
  player.setShow(show, compile(show));
  player.seek(score, Micros(0));
  const auto follow = [&] {
    while (const auto request = player.output().live().takeRequest()) {
      const CodeStep step = player.codeStep(*request, kLength);
      if (step.kind == CodeStep::Kind::Play) player.play(score, step.at, {Micros(0), kLength});
      if (step.kind == CodeStep::Kind::Pause) player.pause();
      if (step.kind == CodeStep::Kind::Seek) player.seek(score, step.at);
    }
    return player.isPlaying();
  };
  std::thread tape([&] { recorder.runTimeCode(20, 100); });
  const bool plays = eventually(follow);
  const Micros begun = player.position();
  tape.join();
  EXPECT_TRUE(plays);
  EXPECT_GE(begun, Micros(20'000'000));
  EXPECT_LT(begun, Micros(24'000'000));
  EXPECT_TRUE(eventually([&] { return !follow(); })) << "it goes on although the tape stands";
  const std::scoped_lock lock(mutex);
  ASSERT_TRUE(learnt);
  EXPECT_EQ(learnt->kind, SourceKind::TimeCode);
}

}  // namespace
}  // namespace chispa::engine
