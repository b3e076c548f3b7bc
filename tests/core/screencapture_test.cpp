// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/screencapture.h"

#include <thread>

#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/edit/clipedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/effect/showmedia.h"

namespace chispa {
namespace {

using test::cellsFor;
using test::run;

const ParamValues kPart = [] {
  ParamValues values;
  setScreenPart(values, {1, 100, 50, 4, 2});
  values["fit"] = std::string("stretch");
  return values;
}();

/// Eight dots, one of them red.
std::shared_ptr<LivePicture> picture(std::size_t red) {
  auto made = std::make_shared<LivePicture>(4, 2);
  std::vector<std::uint8_t> dots;
  for (std::size_t i = 0; i < 8; ++i)
    dots.insert(dots.end(), {static_cast<std::uint8_t>(i == red ? 255 : 0), 0, 0, 255});
  made->write(dots.data());
  return made;
}

TEST(ScreenCapture, ItsPartOfTheScreenGoesThroughItsParameters) {
  EXPECT_EQ(screenPartOf(kPart), (ScreenPart{1, 100, 50, 4, 2}));
  EXPECT_EQ(screenPartOf({}), (ScreenPart{0, 0, 0, 640, 360}));
}

TEST(ScreenCapture, ShowsTheDotThatLiesOnEachCell) {
  const ZoneCells cells = cellsFor(GridShape{4, 2, 0.1, 0.1});
  for (std::size_t dot = 0; dot < 8; ++dot) {
    MediaLibrary media;
    media.addLive({1, 100, 50, 4, 2}, picture(dot));
    const LightBuffer light = run(*findEffect(kScreenCapture), cells, 1, kPart, media);
    int lit = -1;
    for (std::size_t i = 0; i < 8; ++i)
      if (light.r[i] > 0.5f) {
        EXPECT_EQ(lit, -1) << "one cell only";
        lit = static_cast<int>(i);
      }
    ASSERT_GE(lit, 0);
    // Rows of the screen go down, y goes up.
    EXPECT_EQ(cells.y[static_cast<std::size_t>(lit)] < 0, dot >= 4);
    EXPECT_EQ(cells.x[static_cast<std::size_t>(lit)] < 0, dot % 4 < 2);
  }
}

TEST(ScreenCapture, WhatIsWrittenIsSeenInTheNextFrameWithoutACompilation) {
  const ZoneCells cells = cellsFor(GridShape{4, 2, 0.1, 0.1});
  const auto live = picture(0);
  MediaLibrary media;
  media.addLive({1, 100, 50, 4, 2}, live);
  const LightBuffer before = run(*findEffect(kScreenCapture), cells, 1, kPart, media);
  const std::vector<std::uint8_t> white(32, 255);
  live->write(white.data());
  const LightBuffer after = run(*findEffect(kScreenCapture), cells, 1, kPart, media);
  EXPECT_LT(*std::min_element(before.r.begin(), before.r.end()), 0.1f);
  EXPECT_GT(*std::min_element(after.g.begin(), after.g.end()), 0.99f);
}

TEST(ScreenCapture, IsClearWhereNobodyWatchesTheScreen) {
  const LightBuffer light = run(*findEffect(kScreenCapture), cellsFor(GridShape{4, 2, 0.1, 0.1}), 1, kPart);
  EXPECT_EQ(*std::max_element(light.a.begin(), light.a.end()), 0);
}

TEST(ScreenCapture, ThePartsOfAShowAreThoseOfItsClips) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{4, 0.1}, {});
  const ZoneId zone = addZone(show, "Z", {line});
  const PaletteId palette = addPalette(show, "P", {{0, {255, 255, 255}}});
  const ScoreId score = addScore(show, "S", "", Micros(4'000'000));
  for (int i = 0; i < 2; ++i) {
    const ClipId clip = addClip(show, score, zone, kScreenCapture, palette, Micros(0), Micros(1'000'000));
    changeClip(show, score, clip, [](Clip& c) { c.params = kPart; });
  }
  addClip(show, score, zone, "bloom", palette, Micros(0), Micros(1'000'000));
  EXPECT_EQ(screenParts(show), (std::vector<ScreenPart>{{1, 100, 50, 4, 2}}));
}

// Run under the thread sanitiser this shows that reader and writer need no lock.
TEST(LivePicture, IsReadWhileItIsWritten) {
  LivePicture live(64, 64);
  const std::vector<std::uint8_t> dark(64 * 64 * 4, 10), light(64 * 64 * 4, 200);
  std::thread writer([&] {
    for (int i = 0; i < 200; ++i) live.write((i % 2 == 0 ? light : dark).data());
  });
  for (int i = 0; i < 200; ++i)
    for (int x = 0; x < 64; ++x) {
      const auto dot = live.dot(x, i % 64);
      ASSERT_TRUE(dot[0] == 0 || dot[0] == 10 || dot[0] == 200);
      ASSERT_EQ(dot[0], dot[3]) << "a dot is whole";
    }
  writer.join();
}

}  // namespace
}  // namespace chispa
