// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/outsidefiles.h"

#include <fstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "core/effect/showmedia.h"
#include "core/media/media.h"
#include "core/show/look.h"

namespace chispa {
namespace {

using Names = std::vector<std::string>;

class OutsideNames : public testing::Test {
 protected:
  OutsideNames() { std::filesystem::create_directories(folder_.path() / "show" / "music"); }

  std::filesystem::path showFile() const { return folder_.path() / "show" / "carousel.chispa"; }
  bool isOutside(const std::string& name) const { return liesOutside(showFile(), name); }

  test::TemporaryFolder folder_;
};

TEST_F(OutsideNames, WhatLiesInTheFolderIsInside) {
  EXPECT_FALSE(isOutside("waltz.ogg"));
  EXPECT_FALSE(isOutside("music/waltz.ogg"));
  EXPECT_FALSE(isOutside("music/../waltz.ogg"));
  EXPECT_FALSE(isOutside((folder_.path() / "show" / "waltz.ogg").string()));
}

TEST_F(OutsideNames, WhatLeadsOutIsOutside) {
  EXPECT_TRUE(isOutside("/etc/passwd"));
  EXPECT_TRUE(isOutside("../waltz.ogg"));
  EXPECT_TRUE(isOutside("music/../../waltz.ogg"));
  // A folder whose name only begins alike is another.
  EXPECT_TRUE(isOutside((folder_.path() / "shows" / "waltz.ogg").string()));
}

TEST_F(OutsideNames, SymbolicLinksAreFollowed) {
  std::ofstream(folder_.path() / "secret.png") << "x";
  std::filesystem::create_symlink(folder_.path() / "secret.png", folder_.path() / "show" / "innocent.png");
  std::filesystem::create_directory_symlink(folder_.path(), folder_.path() / "show" / "way");
  EXPECT_TRUE(isOutside("innocent.png"));
  EXPECT_TRUE(isOutside("way/secret.png"));
  // A show that is opened by a link lies where it is said to lie.
  std::filesystem::create_directory_symlink(folder_.path() / "show", folder_.path() / "link");
  EXPECT_FALSE(liesOutside(folder_.path() / "link" / "carousel.chispa", "waltz.ogg"));
}

TEST_F(OutsideNames, OfAShowWithoutAFileNothingIsOutside) {
  EXPECT_FALSE(liesOutside({}, "/home/somebody/waltz.ogg"));
}

std::shared_ptr<const Clip> showing(ClipId id, const std::string& file) {
  auto clip = std::make_shared<Clip>();
  clip->id = id;
  clip->effect = "picture";
  clip->params["file"] = file;
  return clip;
}

TEST_F(OutsideNames, OfScoresClipsLooksAndUnderlaysAreFound) {
  Show show;
  Score score;
  score.id = show.newId<ScoreId>();
  score.audio = "/elsewhere/waltz.ogg";
  score.clips = {showing(show.newId<ClipId>(), "../clip.png"), showing(show.newId<ClipId>(), "inside.png")};
  put(show.scores, score);
  Look look;
  look.id = show.newId<LookId>();
  look.steps[0].layers = {showing(show.newId<ClipId>(), "/elsewhere/look.png")};
  put(show.looks, look);
  Underlay underlay;
  underlay.id = show.newId<UnderlayId>();
  underlay.file = "/elsewhere/photo.jpg";
  put(show.underlays, underlay);
  EXPECT_EQ(namesOutside(show, showFile()),
            (Names{"/elsewhere/waltz.ogg", "../clip.png", "/elsewhere/look.png", "/elsewhere/photo.jpg"}));
  // The pictures of looks are loaded as those of clips are.
  EXPECT_EQ(mediaNames(show), (Names{"../clip.png", "/elsewhere/look.png", "inside.png"}));
}

}  // namespace
}  // namespace chispa
