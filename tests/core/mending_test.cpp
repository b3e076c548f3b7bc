// SPDX-License-Identifier: GPL-3.0-or-later
// Problems that one thing mends are gone when it is done, and nothing else changes.
#include <algorithm>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/edit/planedits.h"

namespace chispa {
namespace {

std::vector<Problem> problemsOf(const Show& show) {
  return findProblems(show, [](const std::string&) { return true; });
}

/// Damages the demo as a file written by hand might be, and mends it.
class Mended : public testing::Test {
 protected:
  void mendAll(Mending kind) {
    const auto count = [&] {
      const auto all = problemsOf(show_);
      return std::count_if(all.begin(), all.end(), [&](const Problem& p) { return p.mending == kind; });
    };
    EXPECT_GT(count(), 0) << "nothing to mend";
    // One after the other: each finds the show as the one before left it.
    for (int i = 0; i < 100 && count() > 0; ++i) {
      const auto all = problemsOf(show_);
      mend(show_, *std::find_if(all.begin(), all.end(), [&](const Problem& p) { return p.mending == kind; }));
    }
    EXPECT_EQ(count(), 0);
  }

  const Show demo_ = demo::carousel();
  Show show_ = demo_;
};

TEST_F(Mended, AZoneLosesThePartsThatAreGone) {
  Zone zone = *show_.zones.front();
  const std::size_t parts = zone.parts.size();
  ZonePart gone = zone.parts.front();
  gone.fixture = FixtureId{999'999};
  zone.parts.push_back(gone);
  put(show_.zones, zone);
  mendAll(Mending::TakeGoneParts);
  EXPECT_EQ(show_.zones.front()->parts.size(), parts);
  EXPECT_EQ(show_, demo_);
}

TEST_F(Mended, APortLosesBeadsWhoseFixtureIsGone) {
  Controller box = *show_.controllers.front();
  Bead gone = box.ports.front().run.front();
  gone.fixture = FixtureId{999'999};
  box.ports.front().run.push_back(gone);
  put(show_.controllers, box);
  mendAll(Mending::TakeGoneBeads);
  EXPECT_EQ(show_, demo_);
}

TEST_F(Mended, ABeadEndsWithItsFixture) {
  const auto reachesItsEnd = [&](const Bead& bead) {
    return bead.first + bead.count == pixelCount(*find(show_.fixtures, bead.fixture));
  };
  Controller box = *show_.controllers.front();
  Bead* last = nullptr;
  for (Port& port : box.ports)
    for (Bead& bead : port.run)
      if (reachesItsEnd(bead)) last = &bead;
  ASSERT_TRUE(last);
  last->count += 7;
  put(show_.controllers, box);
  mendAll(Mending::ShortenBeads);
  EXPECT_EQ(show_, demo_);
}

TEST_F(Mended, AClipOfABlockThatIsGoneIsDeleted) {
  Score score = *show_.scores.front();
  Clip clip = *score.clips.front();
  clip.id = ClipId{999'998};
  clip.block = BlockId{999'999};
  score.clips.push_back(std::make_shared<const Clip>(clip));
  put(show_.scores, score);
  mendAll(Mending::DeleteClip);
  EXPECT_EQ(show_, demo_);
}

TEST_F(Mended, WhatHasManyCuresIsLeftAlone) {
  for (const Problem& problem : problemsOf(show_)) {
    if (problem.mending != Mending::None) continue;
    Show before = show_;
    mend(show_, problem);
    EXPECT_EQ(show_, before);
  }
}

}  // namespace
}  // namespace chispa
