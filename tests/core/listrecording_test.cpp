// SPDX-License-Identifier: GPL-3.0-or-later
#include "boardshow.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/colour/lightness.h"
#include "core/edit/setlistedits.h"
#include "core/edit/wireedits.h"
#include "core/recording/framepacker.h"
#include "core/recording/listlight.h"
#include "core/recording/scorerecording.h"

namespace chispa {
namespace {

using test::BoardShow;

/// A score, a silence, a look and the score again, on a strip of six pixels.
class ListRecording : public testing::Test {
 protected:
  ListRecording() : made_(LineShape{6, 0.1}) {
    Clip ribbon = made_.clip("ribbon");
    ribbon.length = Micros(2'000'000);
    score_ = made_.addScoreOf({ribbon}, Micros(2'000'000));
    look_ = made_.addLookOf({made_.clip("hold")});
    changeItem(made_.show.looks, look_, [](Look& look) {
      look.fadeIn = Micros(400'000);
      look.fadeOut = Micros(800'000);
    });
    SetList list;
    list.id = made_.show.newId<SetListId>();
    list.name = "Evening";
    SetListItem score, silence, look;
    score.kind = PieceKind::Score;
    score.score = score_;
    silence.kind = PieceKind::Silence;
    silence.length = Micros(500'000);
    look.kind = PieceKind::Look;
    look.look = look_;
    look.length = Micros(1'000'000);
    list.items = {score, silence, look, score};
    list_ = list.id;
    put(made_.show.setLists, list);
    Controller controller;
    controller.id = made_.show.newId<ControllerId>();
    controller.name = "Box";
    controller.host = "127.0.0.9";
    controller.ports.emplace_back();
    controller.ports[0].run.push_back({made_.fixture, 0, 6});
    controller_ = controller.id;
    put(made_.show.controllers, controller);
  }

  /// Red of the first pixel of the list, and of the score alone.
  float listAt(ListLight& light, Micros t) {
    light.render(t, frame_);
    return frame_.r[0];
  }
  float scoreAt(const CompiledShow& compiled, Micros t) {
    Renderer renderer;
    renderer.prepare(compiled);
    PixelFrame frame;
    frame.resize(6);
    renderer.render(*compiled.scoreOf(score_), t, frame);
    return frame.r[0];
  }
  PixelFrame sized() const {
    PixelFrame frame;
    frame.resize(6);
    return frame;
  }

  BoardShow made_;
  ScoreId score_;
  LookId look_;
  SetListId list_;
  ControllerId controller_;
  PixelFrame frame_ = sized();
  test::TemporaryFolder folder_;
};

TEST_F(ListRecording, LightIsThatOfEachPieceInItsTurn) {
  const auto compiled = compile(made_.show);
  ListLight light(made_.show, *compiled, list_, 1);
  for (const int ms : {0, 700, 1999})
    EXPECT_EQ(listAt(light, Micros(ms * 1000)), scoreAt(*compiled, Micros(ms * 1000))) << ms;
  EXPECT_EQ(listAt(light, Micros(2'000'000)), 0) << "silence";
  EXPECT_EQ(listAt(light, Micros(2'499'000)), 0);
  // The look fades in, is lit, and fades out over what comes next.
  EXPECT_EQ(listAt(light, Micros(2'500'000)), 0);
  const float half = listAt(light, Micros(2'700'000));
  const float full = listAt(light, Micros(3'000'000));
  EXPECT_NEAR(half, lightOfLightness(lightnessOf(full) / 2), 0.01f);
  EXPECT_GT(full, 0.1f);
  const float over = listAt(light, Micros(3'900'000));
  const float alone = scoreAt(*compiled, Micros(400'000));
  EXPECT_NE(over, alone);
  EXPECT_EQ(listAt(light, Micros(4'400'000)), scoreAt(*compiled, Micros(900'000)));
  EXPECT_TRUE(light.render(Micros(5'499'000), frame_));
  EXPECT_FALSE(light.render(Micros(5'500'000), frame_));
  EXPECT_EQ(frame_.r[0], 0);
}

TEST_F(ListRecording, APieceFadesIntoTheNext) {
  changeItem(made_.show.setLists, list_, [](SetList& list) {
    list.items[0].fade = Micros(400'000);
    list.items[1].length = Micros(1'000'000);
  });
  const auto compiled = compile(made_.show);
  ListLight light(made_.show, *compiled, list_, 1);
  const float last = scoreAt(*compiled, Micros(1'999'999));
  EXPECT_NEAR(listAt(light, Micros(2'000'000)), last, 1e-4f);
  EXPECT_NEAR(listAt(light, Micros(2'100'000)), lightOfLightness(lightnessOf(last) * 0.75f), 1e-3f);
  EXPECT_EQ(listAt(light, Micros(2'400'000)), 0);
}

TEST_F(ListRecording, OneFileHoldsAllOfIt) {
  changeItem(made_.show.setLists, list_, [](SetList& list) { list.rounds = 2; });
  const auto compiled = compile(made_.show);
  EXPECT_EQ(recordedLength(made_.show, list_), Micros(11'000'000));
  const auto path = folder_.path() / "evening.chirec";
  const auto done = recordSetList(made_.show, *compiled, list_, 20, path, {});
  ASSERT_TRUE(done) << done.failure().text();
  auto reader = RecordingReader::open(path);
  ASSERT_TRUE(reader);
  EXPECT_EQ((*reader).head().name, "Evening");
  EXPECT_EQ((*reader).length(), Micros(10'950'000));
  RecordingReader read = std::move(*std::move(reader));
  ListLight light(made_.show, *compiled, list_, 1);
  FramePacker packer(*compiled, 20);
  for (int i = 0; i < 220; ++i) {
    const Micros t(i * 50'000);
    light.render(t, frame_);
    const auto& wanted = packer.pack(frame_);
    const auto got = read.at(t);
    ASSERT_TRUE(got);
    ASSERT_TRUE(std::equal(wanted.begin(), wanted.end(), (*got).begin(), (*got).end())) << i;
  }
  for (const std::string& one : differencesOf(read.head(), made_.show)) ADD_FAILURE() << one;
}

TEST_F(ListRecording, ARigThatHasChangedIsTold) {
  const auto compiled = compile(made_.show);
  const RecordingHead head = headOf(made_.show, "x");
  Show changed = made_.show;
  changeItem(changed.controllers, controller_, [](Controller& box) {
    box.host = "127.0.0.10";
    box.firstUniverse = 7;
  });
  const auto all = differencesOf(head, changed);
  ASSERT_EQ(all.size(), 4u);
  EXPECT_EQ(all[0], "universe 1 of “Box” is in the recording, and no longer in the show");
  EXPECT_EQ(all[1], "universe 7 of “Box” is in the show, and not in the recording");
  EXPECT_EQ(all[2], "“Box” is at 127.0.0.10 now; the recording is for 127.0.0.9");
  EXPECT_EQ(all[3], "“Lamp” hangs elsewhere now than when it was recorded");
}

TEST_F(ListRecording, WhatHasNoEndIsNotRecorded) {
  changeItem(made_.show.setLists, list_, [](SetList& list) { list.items[2].then = AfterPiece::Stay; });
  const auto done =
      recordSetList(made_.show, *compile(made_.show), list_, 20, folder_.path() / "x.chirec", {});
  ASSERT_FALSE(done);
  EXPECT_NE(done.failure().what.text().find("no end"), std::string::npos);
  EXPECT_FALSE(
      recordSetList(made_.show, *compile(made_.show), SetListId{999}, 20, folder_.path() / "y.chirec", {}));
}

}  // namespace
}  // namespace chispa
