// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/analyses.h"

#include "demowindow.h"

namespace chispa::desk {
namespace {

class Analyses : public testing::Test {
 protected:
  Analyses() { std::filesystem::copy_file(kWaltz.toStdString(), music_); }

  test::TemporaryFolder folder_;
  std::filesystem::path music_ = folder_.path() / "music.ogg";
};

TEST_F(Analyses, AFileIsAnalysedOnce) {
  const auto first = analysedOnce(music_);
  ASSERT_TRUE(first);
  bool wasRead = false;
  const auto again = analysedOnce(folder_.path() / "." / "music.ogg", [&](double) { return wasRead = true; });
  ASSERT_TRUE(again);
  EXPECT_EQ(*first, *again);
  EXPECT_FALSE(wasRead);
}

TEST_F(Analyses, AFileThatWasWrittenAnewIsAnalysedAnew) {
  const auto first = analysedOnce(music_);
  ASSERT_TRUE(first);
  std::filesystem::last_write_time(music_,
                                   std::filesystem::last_write_time(music_) + std::chrono::seconds(2));
  const auto again = analysedOnce(music_);
  ASSERT_TRUE(again);
  EXPECT_NE(*first, *again);
}

TEST_F(Analyses, WhatWasCancelledOrFailedIsTriedAgain) {
  EXPECT_FALSE(analysedOnce(music_, [](double) { return false; }));
  EXPECT_TRUE(analysedOnce(music_));
  EXPECT_FALSE(analysedOnce(folder_.path() / "absent.ogg"));
}

/// Analyses are kept by file, not by show.
class SameMusic : public DemoWindow {};

TEST_F(SameMusic, AShowThatIsOpenedAgainHasItsMusicAtOnce) {
  const auto before = stage_.audio();
  ASSERT_TRUE(before);
  ASSERT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
  settle();
  EXPECT_EQ(stage_.audio(), before);
}

}  // namespace
}  // namespace chispa::desk
