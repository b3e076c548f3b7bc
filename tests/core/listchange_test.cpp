// SPDX-License-Identifier: GPL-3.0-or-later
// Where two lists of shared things differ, and what follows from it for edits of one clip among many.
#include "core/base/listchange.h"

#include <random>

#include <gtest/gtest.h>

#include "core/rules/invariants.h"
#include "core/show/history.h"

namespace chispa {
namespace {

TEST(ListChange, IsTheRangeThatDiffers) {
  const std::vector<int> before{1, 2, 3, 4, 5, 6};
  const auto range = [&](const std::vector<int>& after) {
    const ListChange change = changeBetween(before, after);
    return std::vector<std::size_t>{change.first, change.endBefore, change.endAfter};
  };
  EXPECT_EQ(range(before), (std::vector<std::size_t>{6, 6, 6}));
  EXPECT_EQ(range({1, 2, 9, 4, 5, 6}), (std::vector<std::size_t>{2, 3, 3}));
  EXPECT_EQ(range({1, 2, 3, 3, 4, 5, 6}), (std::vector<std::size_t>{3, 3, 4}));
  EXPECT_EQ(range({2, 3, 4, 5, 6}), (std::vector<std::size_t>{0, 1, 0}));
  EXPECT_EQ(range({}), (std::vector<std::size_t>{0, 6, 0}));
}

/// However lists are edited, what is said to be alike is alike, and it is all of it at both ends.
TEST(ListChange, HoldsForEditsByChance) {
  std::mt19937 random(3);
  for (int round = 0; round < 500; ++round) {
    std::vector<int> before(random() % 20);
    for (int& value : before) value = static_cast<int>(random() % 4);
    std::vector<int> after = before;
    for (int edits = static_cast<int>(random() % 3); edits > 0; --edits) {
      const auto at = after.begin() + static_cast<std::ptrdiff_t>(random() % (after.size() + 1));
      if (random() % 2 == 0 || at == after.end())
        after.insert(at, static_cast<int>(random() % 4));
      else
        after.erase(at);
    }
    const auto [first, endBefore, endAfter] = changeBetween(before, after);
    ASSERT_LE(first, endBefore);
    ASSERT_LE(first, endAfter);
    EXPECT_TRUE(
        std::equal(before.begin(), before.begin() + static_cast<std::ptrdiff_t>(first), after.begin()));
    EXPECT_TRUE(std::equal(before.begin() + static_cast<std::ptrdiff_t>(endBefore), before.end(),
                           after.begin() + static_cast<std::ptrdiff_t>(endAfter), after.end()));
    if (endBefore > first && endAfter > first) {
      EXPECT_NE(before[endBefore - 1], after[endAfter - 1]);
    }
  }
}

Show withClips(int count) {
  Show show;
  Score score;
  score.id = show.newId<ScoreId>();
  for (int i = 0; i < count; ++i) {
    Clip clip;
    clip.id = show.newId<ClipId>();
    clip.effect = "ribbon";
    clip.start = Micros(i * 1'000);
    clip.length = Micros(1'000);
    score.clips.push_back(std::make_shared<const Clip>(clip));
  }
  put(show.scores, score);
  return show;
}

/// The show with another clip in the place of the `i`th.
Show withClip(const Show& before, std::size_t i, Clip clip) {
  Show show = before;
  Score score = *before.scores.front();
  score.clips[i] = std::make_shared<const Clip>(std::move(clip));
  put(show.scores, score);
  return show;
}

/// One clip among many is found to be wrong by itself, and with an id that another has, wherever that stands.
TEST(EditedClip, IsFoundToBeWrongAmongMany) {
  const Show before = withClips(60);
  const auto& clips = before.scores.front()->clips;
  EXPECT_FALSE(brokenInvariant(before));
  for (const std::size_t i : {0U, 1U, 30U, 58U, 59U}) {
    Clip good = *clips[i];
    good.start = Micros(500);
    EXPECT_FALSE(brokenInvariant(withClip(before, i, good), &before)) << i;
    Clip endless = *clips[i];
    endless.start = Micros(-1);
    EXPECT_TRUE(brokenInvariant(withClip(before, i, endless), &before)) << i;
    for (const std::size_t other : {0U, 29U, 59U}) {
      if (other == i) continue;
      Clip twin = *clips[i];
      twin.id = clips[other]->id;
      EXPECT_TRUE(brokenInvariant(withClip(before, i, twin), &before)) << i << " as " << other;
    }
  }
}

TEST(EditedClip, IsAllThatWasChanged) {
  const Show before = withClips(60);
  Clip moved = *before.scores.front()->clips[20];
  moved.start = Micros(1);
  const auto changed = changedThings(before, withClip(before, 20, moved));
  ASSERT_EQ(changed.size(), 1U);
  EXPECT_EQ(changed.front() & 0xffff'ffff, moved.id.value);
}

}  // namespace
}  // namespace chispa
