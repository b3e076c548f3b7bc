// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/markgroup.h"

#include <random>

#include <gtest/gtest.h>

#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"

namespace chispa {
namespace {

/// A score with beats every half second and some marks of its own.
class MarkGroup : public testing::Test {
 protected:
  MarkGroup() {
    score_ = addScore(show_, "S", "", Micros(20'000'000));
    makeGrid(show_, score_, Micros(0), Micros(500'000), 1, 4);
    for (const int at_ms : {1'100, 2'000, 2'100, 5'100}) ids_.push_back(add(at_ms));
  }
  MarkId add(int at_ms) {
    return addMark(show_, score_, LaneKind::Free, "Marks", std::chrono::milliseconds(at_ms), "m");
  }
  std::vector<int> times() const {
    std::vector<int> all;
    for (const MarkId id : ids_) {
      const Mark* mark = findMark(*find(show_.scores, score_), id).mark;
      all.push_back(mark ? static_cast<int>(mark->at.count() / 1000) : -1);
    }
    return all;
  }

  Show show_;
  ScoreId score_;
  std::vector<MarkId> ids_;
};

TEST_F(MarkGroup, IsMovedAsFarAsTheFirstCanGo) {
  moveMarks(show_, score_, ids_, Micros(400'000));
  EXPECT_EQ(times(), (std::vector{1'500, 2'400, 2'500, 5'500}));
  moveMarks(show_, score_, {ids_[0], ids_[3]}, Micros(-9'000'000));
  EXPECT_EQ(times(), (std::vector{0, 2'400, 2'500, 4'000}));
}

TEST_F(MarkGroup, IsSpreadStretchedAndPutOnBeats) {
  spreadMarks(show_, score_, ids_);
  EXPECT_EQ(times(), (std::vector{1'100, 2'433, 3'766, 5'100}));
  stretchMarks(show_, score_, ids_, 0.5);
  EXPECT_EQ(times(), (std::vector{1'100, 1'766, 2'433, 3'100}));
  quantiseMarks(show_, score_, ids_, LaneKind::Beats);
  EXPECT_EQ(times(), (std::vector{1'000, 2'000, 2'500, 3'000}));
  quantiseMarks(show_, score_, ids_, LaneKind::Bars);
  EXPECT_EQ(times(), (std::vector{0, 2'000, 2'000, 2'000}));
  deleteMarks(show_, score_, {ids_[1], ids_[2]});
  EXPECT_EQ(times(), (std::vector{0, -1, -1, 2'000}));
}

TEST_F(MarkGroup, LanesStayInOrderWhateverIsDone) {
  std::mt19937 random(17);
  for (int i = 0; i < 20; ++i) ids_.push_back(add(static_cast<int>(random() % 19'000)));
  for (int round = 0; round < 200; ++round) {
    std::vector<MarkId> some;
    for (const MarkId id : ids_)
      if (random() % 3 == 0) some.push_back(id);
    switch (random() % 4) {
      case 0:
        moveMarks(show_, score_, some, std::chrono::milliseconds(static_cast<int>(random() % 4'000) - 2'000));
        break;
      case 1:
        spreadMarks(show_, score_, some);
        break;
      case 2:
        stretchMarks(show_, score_, some, 0.2 + static_cast<double>(random() % 20) / 10);
        break;
      default:
        quantiseMarks(show_, score_, some, LaneKind::Beats);
    }
    const MarkLane* lane = laneOf(*find(show_.scores, score_), LaneKind::Free);
    ASSERT_EQ(lane->marks.size(), ids_.size());
    for (std::size_t i = 1; i < lane->marks.size(); ++i) ASSERT_LE(lane->marks[i - 1].at, lane->marks[i].at);
    ASSERT_GE(lane->marks.front().at, Micros(0));
  }
}

TEST_F(MarkGroup, IsTakenFromOneToAnother) {
  const Score& score = *find(show_.scores, score_);
  EXPECT_EQ(marksBetween(score, ids_[2], ids_[0]), (std::vector{ids_[0], ids_[1], ids_[2]}));
  EXPECT_TRUE(marksBetween(score, ids_[0], laneOf(score, LaneKind::Beats)->marks[3].id).empty());
}

TEST_F(MarkGroup, WithoutBeatsOrWithTooFewNothingHappens) {
  const Show before = show_;
  quantiseMarks(show_, score_, ids_, LaneKind::Sections);
  spreadMarks(show_, score_, {ids_[0], ids_[1]});
  stretchMarks(show_, score_, ids_, 0);
  moveMarks(show_, score_, {}, Micros(1'000'000));
  EXPECT_EQ(show_, before);
}

}  // namespace
}  // namespace chispa
