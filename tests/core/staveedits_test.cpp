// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/staveedits.h"

#include <random>

#include <gtest/gtest.h>

#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"

namespace chispa {
namespace {

class Staves : public testing::Test {
 protected:
  Staves() {
    const FixtureId line = addFixture(show_, LineShape{4, 0.1}, {});
    show_.zones.clear();
    for (const char* name : {"A", "B", "C", "D", "E", "F"}) zones_.push_back(addZone(show_, name, {line}));
    score_ = addScore(show_, "S", "", Micros(4'000'000));
  }
  const Score& score() const { return *find(show_.scores, score_); }
  ZoneId z(char letter) const { return zones_.at(static_cast<std::size_t>(letter - 'A')); }
  /// The staves as letters, folders in brackets.
  std::string picture() const {
    std::string drawn, open;
    for (const ZoneId zone : score().staves) {
      const StaveFolder* folder = folderOf(score(), zone);
      const std::string name = folder ? folder->name : "";
      if (name != open && !open.empty()) drawn += ")";
      if (name != open && !name.empty()) drawn += name + "(";
      open = name;
      drawn += find(show_.zones, zone)->name;
    }
    return open.empty() ? drawn : drawn + ")";
  }

  Show show_;
  std::vector<ZoneId> zones_;
  ScoreId score_;
};

TEST_F(Staves, AreMovedBeforeAnother) {
  placeStave(show_, score_, z('E'), z('B'));
  EXPECT_EQ(picture(), "AEBCDF");
  placeStave(show_, score_, z('A'));
  EXPECT_EQ(picture(), "EBCDFA");
  placeStave(show_, score_, z('C'), z('C'));
  EXPECT_EQ(picture(), "EBCDFA") << "before itself is where it stands";
}

TEST_F(Staves, AreTakenAwayWithTheirClipsAndComeBackEmpty) {
  addClip(show_, score_, z('B'), "hold", {}, Micros(0), Micros(1'000'000));
  addClip(show_, score_, z('C'), "hold", {}, Micros(0), Micros(1'000'000));
  removeStave(show_, score_, z('B'));
  EXPECT_EQ(picture(), "ACDEF");
  ASSERT_EQ(score().clips.size(), 1u);
  EXPECT_EQ(score().clips[0]->zone, z('C'));
  placeStave(show_, score_, z('B'), z('A'));
  EXPECT_EQ(picture(), "BACDEF");
}

TEST_F(Staves, OfAZoneThatIsNotThereAreNotMade) {
  placeStave(show_, score_, ZoneId{9'999});
  EXPECT_EQ(picture(), "ABCDEF");
}

TEST_F(Staves, OfAFolderStandTogether) {
  putInFolder(show_, score_, {z('B'), z('E')}, "X");
  EXPECT_EQ(picture(), "AX(BE)CDF");
  putInFolder(show_, score_, {z('A')}, "X");
  EXPECT_EQ(picture(), "X(ABE)CDF");
}

TEST_F(Staves, JoinTheFolderTheyAreDroppedInto) {
  putInFolder(show_, score_, {z('B'), z('C')}, "X");
  placeStave(show_, score_, z('F'), z('C'));
  EXPECT_EQ(picture(), "AX(BFC)DE");
  placeStave(show_, score_, z('B'), z('D'));
  EXPECT_EQ(picture(), "AX(FC)BDE") << "and leave the one they are dragged from";
}

TEST_F(Staves, PassTheEdgeOfAFolderStepByStep) {
  putInFolder(show_, score_, {z('B'), z('C')}, "X");
  const auto up = [this] { moveStave(show_, score_, z('D'), true); };
  up();
  EXPECT_EQ(picture(), "AX(BCD)EF");
  up();
  EXPECT_EQ(picture(), "AX(BDC)EF");
  up();
  EXPECT_EQ(picture(), "AX(DBC)EF");
  up();
  EXPECT_EQ(picture(), "ADX(BC)EF");
  up();
  EXPECT_EQ(picture(), "DAX(BC)EF");
  up();
  EXPECT_EQ(picture(), "DAX(BC)EF") << "there is nothing above the first";
}

TEST_F(Staves, WaysUpAndDownAreTheSame) {
  putInFolder(show_, score_, {z('C'), z('D')}, "X");
  std::vector<std::string> way;
  for (int i = 0; i < 8; ++i) {
    way.push_back(picture());
    moveStave(show_, score_, z('A'), false);
  }
  EXPECT_EQ(picture(), "BX(CD)EFA");
  for (auto at = way.rbegin(); at != way.rend(); ++at) {
    while (picture() != *at) {
      const std::string before = picture();
      moveStave(show_, score_, z('A'), true);
      ASSERT_NE(picture(), before) << "stuck before " << *at;
    }
  }
}

TEST_F(Staves, LeaveTheirFolderBelowIt) {
  putInFolder(show_, score_, {z('B'), z('C'), z('D')}, "X");
  takeOutOfFolder(show_, score_, z('C'));
  EXPECT_EQ(picture(), "AX(BD)CEF");
  takeOutOfFolder(show_, score_, z('D'));
  takeOutOfFolder(show_, score_, z('B'));
  EXPECT_TRUE(score().folders.empty()) << "an empty folder goes";
}

TEST_F(Staves, FoldersHaveNamesOfTheirOwn) {
  putInFolder(show_, score_, {z('A')}, "X");
  putInFolder(show_, score_, {z('B')}, freeFolderName(score(), "X"));
  EXPECT_EQ(picture(), "X(A)X 2(B)CDEF");
  renameFolder(show_, score_, "X 2", "X");
  EXPECT_EQ(picture(), "X(A)X 2(B)CDEF") << "X is taken";
  renameFolder(show_, score_, "X", "Roof");
  EXPECT_EQ(score().folders[0].name, "Roof");
}

// Whatever is done, every stave is there once, and those of a folder stand together.
TEST_F(Staves, StayWholeThroughAnyEdits) {
  std::mt19937 random(7);
  for (int i = 0; i < 3'000; ++i) {
    const ZoneId one = zones_[random() % zones_.size()], other = zones_[random() % zones_.size()];
    switch (random() % 6) {
      case 0:
        placeStave(show_, score_, one, other);
        break;
      case 1:
        moveStave(show_, score_, one, random() % 2 == 0);
        break;
      case 2:
        putInFolder(show_, score_, {one, other}, random() % 2 == 0 ? "X" : "Y");
        break;
      case 3:
        takeOutOfFolder(show_, score_, one);
        break;
      case 4:
        removeStave(show_, score_, one);
        break;
      default:
        placeStave(show_, score_, one);
        break;
    }
    std::vector<ZoneId> sorted = score().staves;
    std::sort(sorted.begin(), sorted.end(), [](ZoneId a, ZoneId b) { return a.value < b.value; });
    ASSERT_EQ(std::adjacent_find(sorted.begin(), sorted.end()), sorted.end());
    for (const StaveFolder& folder : score().folders) {
      ASSERT_FALSE(folder.zones.empty());
      const auto first = std::find(score().staves.begin(), score().staves.end(), folder.zones.front());
      ASSERT_TRUE(std::equal(folder.zones.begin(), folder.zones.end(), first)) << picture();
    }
  }
}

}  // namespace
}  // namespace chispa
