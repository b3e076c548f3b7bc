// SPDX-License-Identifier: GPL-3.0-or-later
// Chords and keys of made-up tones.
#include "core/music/chords.h"

#include <cmath>
#include <numbers>

#include <gtest/gtest.h>

#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"

namespace chispa {
namespace {

constexpr double kBeat_s = 0.5;

/// A triad a bar of four beats, each tone with some overtones, and its root in the bass.
AudioBuffer played(const std::vector<std::optional<Chord>>& bars) {
  AudioBuffer sound;
  const double bar_s = 4 * kBeat_s;
  sound.samples.resize(static_cast<std::size_t>(bar_s * AudioClip::kRate) * bars.size() *
                       AudioClip::kChannels);
  const auto add = [&](std::size_t bar, double pitch, double level) {
    const double hertz = 440 * std::exp2((pitch - 69) / 12);
    const auto first = static_cast<std::size_t>(bar_s * AudioClip::kRate) * bar;
    for (std::size_t i = 0; i < static_cast<std::size_t>(bar_s * AudioClip::kRate); ++i)
      for (int overtone = 1; overtone <= 4; ++overtone) {
        const double phase =
            2 * std::numbers::pi * hertz * overtone * static_cast<double>(i) / AudioClip::kRate;
        const auto value = static_cast<float>(level / overtone * std::sin(phase));
        for (std::size_t c = 0; c < AudioClip::kChannels; ++c)
          sound.samples[(first + i) * AudioClip::kChannels + c] += value;
      }
  };
  for (std::size_t bar = 0; bar < bars.size(); ++bar) {
    if (!bars[bar]) continue;
    for (const int tone : {0, bars[bar]->isMinor ? 3 : 4, 7}) add(bar, 60 + bars[bar]->root + tone, 0.06);
    add(bar, 36 + bars[bar]->root, 0.1);
  }
  return sound;
}

FoundHarmony heard(const std::vector<std::optional<Chord>>& chords) {
  std::vector<Micros> beats, bars;
  for (std::size_t i = 0; i < chords.size() * 4; ++i) {
    beats.push_back(micros(kBeat_s * static_cast<double>(i)));
    if (i % 4 == 0) bars.push_back(beats.back());
  }
  return findHarmony(chromagramOf(played(chords)), beats, bars);
}

std::string namesOf(const FoundHarmony& harmony) {
  std::string all;
  for (const FoundChord& one : harmony.chords)
    all += (all.empty() ? "" : " ") + (one.chord ? chordName(*one.chord) : std::string("–"));
  return all;
}

TEST(Chords, HaveTheirUsualNames) {
  EXPECT_EQ(chordName({0, false}), "C");
  EXPECT_EQ(chordName({9, true}), "Am");
  EXPECT_EQ(chordName({6, true}), "F♯m");
  EXPECT_EQ(pitchName(10), "B♭");
}

/// Each of the 24 triads is heard as itself, between others.
TEST(Chords, AreHeardOneByOne) {
  for (int root = 0; root < 12; ++root)
    for (const bool isMinor : {false, true}) {
      const Chord chord{root, isMinor}, other{(root + 5) % 12, false};
      const FoundHarmony found = heard({other, chord, other});
      EXPECT_EQ(namesOf(found), chordName(other) + " " + chordName(chord) + " " + chordName(other));
    }
}

TEST(Chords, ChangeWhereTheyAreHeardToChange) {
  const FoundHarmony found = heard(
      {Chord{0, false}, Chord{0, false}, Chord{9, true}, Chord{5, false}, Chord{7, false}, Chord{0, false}});
  EXPECT_EQ(namesOf(found), "C Am F G C");
  ASSERT_EQ(found.chords.size(), 5U);
  EXPECT_EQ(found.chords[1].at, micros(8 * kBeat_s));
  ASSERT_TRUE(found.key);
  EXPECT_EQ(chordName(*found.key), "C");
}

TEST(Chords, TellAMinorKey) {
  const FoundHarmony found = heard({Chord{9, true}, Chord{2, true}, Chord{4, true}, Chord{9, true},
                                    Chord{5, false}, Chord{4, true}, Chord{9, true}});
  ASSERT_TRUE(found.key);
  EXPECT_EQ(chordName(*found.key), "Am");
}

TEST(Chords, AreNoneWhereNothingSounds) {
  EXPECT_EQ(namesOf(heard({Chord{0, false}, std::nullopt, std::nullopt, Chord{0, false}})), "C – C");
  const FoundHarmony silent = heard({std::nullopt, std::nullopt});
  EXPECT_EQ(namesOf(silent), "–");
  EXPECT_FALSE(silent.key);
  EXPECT_TRUE(findHarmony({}, {}, {}).chords.empty());
}

/// They become marks with names, at the score's time, in one lane that is put anew each time.
TEST(Chords, StandInALane) {
  Show show;
  Score score;
  score.id = show.newId<ScoreId>();
  score.length = Micros(10'000'000);
  score.audioStart = Micros(500'000);
  put(show.scores, score);
  const FoundHarmony found{{{Micros(0), Chord{9, true}}, {Micros(2'000'000), std::nullopt}}, Chord{9, true}};
  putChords(show, score.id, found);
  putChords(show, score.id, found);
  const auto& lanes = show.scores.front()->lanes;
  ASSERT_EQ(lanes.size(), 1U);
  EXPECT_EQ(lanes.front().kind, LaneKind::Chords);
  ASSERT_EQ(lanes.front().marks.size(), 2U);
  EXPECT_EQ(lanes.front().marks[0].text, "Am");
  EXPECT_EQ(lanes.front().marks[0].at, Micros(500'000));
  EXPECT_EQ(lanes.front().marks[1].text, "–");
}

}  // namespace
}  // namespace chispa
