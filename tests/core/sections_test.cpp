// SPDX-License-Identifier: GPL-3.0-or-later
// Sections of made-up music: what is played again is known again.
#include "core/music/sections.h"

#include <cmath>
#include <numbers>

#include <gtest/gtest.h>

namespace chispa {
namespace {

constexpr double kPlayedBar_s = 1.6;

/// Eight bars a letter: each letter has chords and a loudness of its own.
struct PlayedPiece {
  AudioBuffer clip;
  std::vector<Micros> bars;
};

PlayedPiece playPiece(const std::string& letters, int barsEach = 8) {
  // Semitones above A for the four bars of each letter's round, and how loud it is.
  const std::map<char, std::pair<std::vector<int>, double>> music = {
      {'A', {{0, 5, 7, 0}, 0.1}}, {'B', {{3, 8, 10, 3}, 0.4}}, {'C', {{1, 6, 11, 4}, 0.02}}};
  PlayedPiece piece;
  const auto total = letters.size() * static_cast<std::size_t>(barsEach);
  piece.clip.samples.assign(
      static_cast<std::size_t>(kPlayedBar_s * static_cast<double>(total) * AudioClip::kRate) * 2, 0.f);
  for (std::size_t bar = 0; bar < total; ++bar) {
    piece.bars.push_back(micros(kPlayedBar_s * static_cast<double>(bar)));
    const auto& [roots, loud] = music.at(letters[bar / static_cast<std::size_t>(barsEach)]);
    const double root_hz = 220 * std::pow(2, roots[bar % 4] / 12.0);
    const auto first = static_cast<std::size_t>(framesOf(piece.bars.back()));
    const auto length = static_cast<std::size_t>(kPlayedBar_s * AudioClip::kRate);
    for (std::size_t i = 0; i < length && (first + i) * 2 + 1 < piece.clip.samples.size(); ++i) {
      const double t = static_cast<double>(i) / AudioClip::kRate;
      double sound = 0;
      for (const double ratio : {0.5, 1.0, 1.26, 1.498})
        sound += std::sin(2 * std::numbers::pi * root_hz * ratio * t);
      // Four strokes a bar.
      sound *= 0.25 * loud * std::exp(-6 * std::fmod(t, kPlayedBar_s / 4));
      piece.clip.samples[(first + i) * 2] = piece.clip.samples[(first + i) * 2 + 1] =
          static_cast<float>(sound);
    }
  }
  return piece;
}

std::vector<FoundSection> sectionsOf(const PlayedPiece& piece) {
  return findSections(analyseSpectrum(piece.clip), chromagramOf(piece.clip), piece.bars);
}

std::string lettersOf(const std::vector<FoundSection>& sections) {
  std::string letters;
  for (const FoundSection& section : sections) letters += static_cast<char>('A' + section.letter);
  return letters;
}

TEST(Sections, WhatIsPlayedAgainHasItsLetterAgain) {
  for (const char* letters : {"ABAB", "ABACB", "AABA"}) {
    const PlayedPiece piece = playPiece(letters);
    const auto found = sectionsOf(piece);
    std::string wanted = letters;
    // Two of a kind in a row may be one.
    if (wanted == "AABA" && found.size() == 3) wanted = "ABA";
    EXPECT_EQ(lettersOf(found), wanted);
    for (const FoundSection& section : found) {
      const double bars = seconds(section.at) / kPlayedBar_s;
      EXPECT_NEAR(std::fmod(bars + 0.5, 8), 0.5, 1.01) << "begins at bar " << bars;
    }
  }
}

TEST(Sections, AreNamedByTheirLoudnessWhereThatIsPlain) {
  const auto found = sectionsOf(playPiece("ABAC"));
  ASSERT_EQ(lettersOf(found), "ABAC");
  EXPECT_EQ(found[1].mood, SectionMood::Full);
  EXPECT_EQ(found[3].mood, SectionMood::End);
}

TEST(Sections, OfNothingAreNone) {
  EXPECT_TRUE(findSections({}, {}, {}).empty());
  const PlayedPiece piece = playPiece("A", 1);
  EXPECT_EQ(sectionsOf(piece).size(), 1u);
}

TEST(BarCurves, FollowTheLoudness) {
  const PlayedPiece piece = playPiece("AB", 4);
  const BarCurves curves = barCurves(analyseSpectrum(piece.clip), piece.bars);
  ASSERT_EQ(curves.level.size(), piece.bars.size() - 1);
  EXPECT_GT(curves.level[5], curves.level[2]);
  EXPECT_LE(*std::max_element(curves.level.begin(), curves.level.end()), 1.f);
  EXPECT_EQ(curves.density.size(), curves.level.size());
}

TEST(Chromagram, TellsPitchClassesApart) {
  const PlayedPiece piece = playPiece("A", 4);
  const Chromagram chroma = chromagramOf(piece.clip);
  // In the first bar A, C sharp and E sound.
  const Chroma& first = chroma.middle[8];
  for (const std::size_t loud : {9u, 1u, 4u})
    for (const std::size_t quiet : {0u, 3u, 6u, 8u})
      EXPECT_GT(first[loud], first[quiet]) << loud << " " << quiet;
  EXPECT_GT(harmonicChange(chroma.middle, kPlayedBar_s, 0.6),
            harmonicChange(chroma.middle, kPlayedBar_s / 2, 0.6) + 0.1f);
}

}  // namespace
}  // namespace chispa
