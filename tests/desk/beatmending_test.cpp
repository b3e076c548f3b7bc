// SPDX-License-Identifier: GPL-3.0-or-later
// Beats are put right by keys, by a tapped bar and from a list, as a maker does it.
#include "desk/score/beatmending.h"

#include "scorewindow.h"
#include <QListWidget>

#include "core/edit/markedits.h"
#include "core/files/showfile.h"
#include "desk/frame/mainwindow.h"
#include "desk/score/readingsdialog.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

class BeatMendingTest : public ScoreWindowTest {
 protected:
  BeatMendingTest() {
    timeline().setFocus();
    EXPECT_TRUE(eventually([this] { return stage_.audio() != nullptr; }));
    settle();
  }
  BeatMarks marks() const { return beatMarksOf(score()); }
  void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
    QTest::keyClick(&timeline(), key, modifiers);
    QCoreApplication::processEvents();
  }
  /// How many beats lie before and behind an instant.
  std::pair<std::ptrdiff_t, std::ptrdiff_t> split(Micros at) const {
    const auto beats = marks().beats;
    const auto middle = std::lower_bound(beats.begin(), beats.end(), at - Micros(2'000));
    return {middle - beats.begin(), beats.end() - middle};
  }
};

TEST_F(BeatMendingTest, OneKeyCountsAnotherWayFromThePlayheadOn) {
  const Show before = show();
  const BeatMarks found = marks();
  const Micros here = found.beats[30];
  stage_.seek(here + Micros(50'000));
  key(Qt::Key_2);
  EXPECT_EQ(split(here).first, 30);
  EXPECT_NEAR(static_cast<double>(split(here).second), 2.0 * static_cast<double>(found.beats.size() - 30), 2);
  key(Qt::Key_1);
  EXPECT_EQ(marks().beats.size(), found.beats.size()) << "half of twice as many";
  key(Qt::Key_4);
  // A bar begins at the beat here, and every four beats behind it.
  const auto bars = marks().bars;
  const auto bar = std::lower_bound(bars.begin(), bars.end(), here - Micros(2'000));
  ASSERT_GE(bars.end() - bar, 2);
  EXPECT_LE(std::chrono::abs(*bar - here), Micros(2'000)) << seconds(*bar) << " " << seconds(here);
  EXPECT_EQ(split(*bar).second - split(*std::next(bar)).second, 4);
  key(Qt::Key_5);
  EXPECT_NE(marks().beats[31], found.beats[31]);
  EXPECT_EQ(marks().beats[29], found.beats[29]);
  for (int n = 0; n < 4; ++n) trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(BeatMendingTest, ChordsStandInALaneAndTheKeyIsTold) {
  const Show before = show();
  told_.clear();
  trigger("findChords");
  ASSERT_FALSE(told_.isEmpty());
  EXPECT_TRUE(told_.back().contains(QStringLiteral("C major"))) << told_.back().toStdString();
  const auto& lanes = score().lanes;
  const auto lane = std::find_if(lanes.begin(), lanes.end(),
                                 [](const MarkLane& one) { return one.kind == LaneKind::Chords; });
  ASSERT_NE(lane, lanes.end());
  EXPECT_GT(lane->marks.size(), 20U);
  EXPECT_TRUE(std::any_of(lane->marks.begin(), lane->marks.end(),
                          [](const Mark& mark) { return mark.text == "Am"; }));
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(BeatMendingTest, ATappedBarSettlesTheRest) {
  const BeatMarks found = marks();
  // Wrong on purpose, all through the piece.
  document_.apply("spoil",
                  [&](Show& show) { countBeats(show, score().id, BeatLevel::HalfBeatLater, Micros(0)); });
  key(Qt::Key_T, Qt::ShiftModifier);
  EXPECT_NE(marks(), found) << "without taps it only says what to do";
  for (int beat = 0; beat < 4; ++beat) {
    stage_.seek(found.bars[12] + (found.bars[13] - found.bars[12]) * beat / 3);
    key(Qt::Key_T);
  }
  key(Qt::Key_T, Qt::ShiftModifier);
  std::size_t same = 0;
  for (const Micros beat : marks().beats)
    same += std::any_of(found.beats.begin(), found.beats.end(),
                        [&](Micros other) { return std::chrono::abs(other - beat) < Micros(60'000); });
  EXPECT_GT(same, marks().beats.size() * 9 / 10);
  EXPECT_NEAR(static_cast<double>(marks().beats.size()), static_cast<double>(found.beats.size()), 6);
}

TEST_F(BeatMendingTest, ReadingsAreTriedAndTakenOrLeft) {
  const Show before = show();
  const auto inDialog = [this](const std::function<void(QWidget&, QListWidget&)>& act) {
    answering<ReadingsDialog>(
        [&](ReadingsDialog& dialog) {
          act(dialog, *dialog.findChild<QListWidget*>(QStringLiteral("readings")));
        },
        [this] { trigger("chooseReading"); });
  };
  inDialog([&](QWidget& dialog, QListWidget& list) {
    EXPECT_GT(list.count(), 3);
    QTest::keyClick(&list, Qt::Key_Down);
    EXPECT_FALSE(show() == before) << "it is in the score at once";
    EXPECT_TRUE(stage_.hearsBeats());
    QTest::keyClick(&list, Qt::Key_Down);
    QTest::keyClick(&dialog, Qt::Key_Escape);
  });
  EXPECT_EQ(show(), before);
  EXPECT_FALSE(stage_.hearsBeats());
  inDialog([&](QWidget& dialog, QListWidget& list) {
    QTest::keyClick(&list, Qt::Key_Down);
    QTest::keyClick(&list, Qt::Key_Down);
    QTest::keyClick(&dialog, Qt::Key_Return);
  });
  EXPECT_FALSE(show() == before);
  trigger("undo");
  EXPECT_EQ(show(), before) << "all that was tried is one step";
}

TEST_F(BeatMendingTest, ASectionsLightGoesToItsLikes) {
  const Score& was = score();
  const MarkLane* lane = laneOf(was, LaneKind::Sections);
  ASSERT_GE(lane->marks.size(), 4u);
  // The demo's sections have names of their own: two are made alike.
  document_.apply("name", [&](Show& show) {
    changeItem(show.scores, was.id, [](Score& score) {
      for (MarkLane& changed : score.lanes)
        if (changed.kind == LaneKind::Sections)
          changed.marks[1].text = "Round 1", changed.marks[3].text = "Round 2";
    });
  });
  const Show before = show();
  stage_.seek(lane->marks[1].at + Micros(100'000));
  trigger("copySectionLight");
  EXPECT_FALSE(show() == before);
  trigger("undo");
  EXPECT_EQ(show(), before);
}

}  // namespace
}  // namespace chispa::desk
