// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/midifile.h"

#include <fstream>
#include <random>

#include "temporary.h"
#include <gtest/gtest.h>

#include "core/files/showfile.h"

namespace chispa {
namespace {

/// A score of bars of three whose tempo rises, with words, notes and strokes.
Score fullScore() {
  Score score;
  score.length = Micros(20'000'000);
  MarkLane beats{LaneId{1}, "Beats", LaneKind::Beats, {}}, bars{LaneId{2}, "Bars", LaneKind::Bars, {}};
  Micros at{0};
  for (int i = 0; i < 30; ++i, at += Micros(600'000 - 5'000 * i)) {
    beats.marks.push_back({MarkId{}, at, {}, {}});
    if (i % 3 == 0) bars.marks.push_back({MarkId{}, at, {}, {}});
  }
  score.lanes = {
      beats,
      bars,
      {LaneId{3},
       "Words",
       LaneKind::Words,
       {{MarkId{}, Micros(1'000'000), "round", {}}, {MarkId{}, Micros(2'345'678), "and round", {}}}},
      {LaneId{4},
       "Notes",
       LaneKind::Notes,
       {{MarkId{}, Micros(500'000), "A4", Micros(700'000)},
        {MarkId{}, Micros(3'000'000), "C#5", Micros(200'000)}}},
      {LaneId{5}, "Low", LaneKind::LowOnsets, {{MarkId{}, Micros(4'000'000), {}, {}}}},
      {LaneId{6},
       "Sections",
       LaneKind::Sections,
       {{MarkId{}, Micros(0), "Gate", {}}, {MarkId{}, Micros(6'000'000), "Turn", {}}}}};
  return score;
}

class MidiFile : public testing::Test {
 protected:
  test::TemporaryFolder folder_;
  std::filesystem::path path_ = folder_.path() / "waltz.mid";
};

TEST_F(MidiFile, MarksComeBackAsTheyWent) {
  const Score score = fullScore();
  ASSERT_TRUE(writeMidi(path_, score));
  const auto read = readMidi(path_);
  ASSERT_TRUE(read) << read.failure().text();
  const auto near = [](Micros a, Micros b) { return std::abs((a - b).count()) < 1'500; };
  ASSERT_GE(read->beats.size(), 16u);
  for (std::size_t i = 0; i < 16; ++i) EXPECT_TRUE(near(read->beats[i].at, score.lanes[0].marks[i].at)) << i;
  for (std::size_t i = 0; i < 5; ++i) EXPECT_TRUE(near(read->bars[i].at, score.lanes[1].marks[i].at)) << i;
  ASSERT_EQ(read->words.size(), 2u);
  EXPECT_EQ(read->words[1].text, "and round");
  EXPECT_TRUE(near(read->words[1].at, Micros(2'345'678)));
  ASSERT_EQ(read->markers.size(), 2u);
  EXPECT_EQ(read->markers[1].text, "Turn");
  ASSERT_EQ(read->notes.size(), 3u);
  EXPECT_EQ(read->notes[0].text, "A4");
  EXPECT_TRUE(near(read->notes[0].length, Micros(700'000)));
  EXPECT_EQ(read->notes[2].text, noteName(36));
}

TEST_F(MidiFile, ReadsAFileMadeByHand) {
  // Format 0, 96 pulses a quarter: 120 to the minute in 3/4, then after a bar 60 to the minute; the note A3
  // for a quarter.
  const std::string bytes(
      "MThd\0\0\0\6\0\0\0\1\0\x60MTrk\0\0\0\x28"
      "\0\xff\x58\4\3\2\x18\x08"
      "\0\xff\x51\3\x07\xa1\x20"
      "\0\x90\x39\x40"
      "\x60\x80\x39\x40"
      "\x81\x40\xff\x51\3\x0f\x42\x40"
      "\x60\xff\x06\1X"
      "\0\xff\x2f\0",
      62);
  std::ofstream(path_, std::ios::binary) << bytes;
  const auto read = readMidi(path_);
  ASSERT_TRUE(read) << read.failure().text();
  ASSERT_GE(read->beats.size(), 4u);
  EXPECT_EQ(read->beats[2].at, Micros(1'000'000));
  EXPECT_EQ(read->bars[1].at, Micros(1'500'000));
  ASSERT_EQ(read->notes.size(), 1u);
  EXPECT_EQ(read->notes[0].text, "A3");
  EXPECT_EQ(read->notes[0].length, Micros(500'000));
  ASSERT_EQ(read->markers.size(), 1u);
  EXPECT_EQ(read->markers[0].at, Micros(2'500'000)) << "a quarter of the slower tempo";
}

TEST_F(MidiFile, DamageIsSaidAndNeverCrashes) {
  ASSERT_TRUE(writeMidi(path_, fullScore()));
  const std::string whole = *readFile(path_);
  std::mt19937 random(7);
  for (int round = 0; round < 3000; ++round) {
    std::string hurt = whole.substr(0, round % 3 == 0 ? random() % whole.size() : whole.size());
    for (int i = 0; i < 4 && !hurt.empty(); ++i) hurt[random() % hurt.size()] = static_cast<char>(random());
    std::ofstream(path_, std::ios::binary | std::ios::trunc) << hurt;
    if (const auto read = readMidi(path_); !read) {
      EXPECT_FALSE(read.failure().what.text().empty());
    }
  }
  std::ofstream(path_, std::ios::trunc) << "a letter";
  EXPECT_FALSE(readMidi(path_));
  EXPECT_FALSE(readMidi(folder_.path() / "nowhere.mid"));
  EXPECT_FALSE(writeMidi(folder_.path() / "no" / "folder.mid", fullScore()));
}

}  // namespace
}  // namespace chispa
