// SPDX-License-Identifier: GPL-3.0-or-later
// Beats and bars of made-up pieces whose beats are known.
#include "core/music/beats.h"

#include "madeupmusic.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

using test::Recipe;

struct BeatAccuracy {
  double beats;
  double bars;
};

FoundBeats beatsOf(const AudioClip& clip) {
  return findBeats(hearBeats(analyseSpectrum(clip), chromagramOf(clip)));
}

BeatAccuracy listen(const Recipe& recipe) {
  const test::MadeUpMusic music = test::Composer(recipe).compose();
  const FoundBeats found = beatsOf(music.clip);
  std::size_t right = 0;
  for (const double bar : music.bars_s)
    for (const Micros at : found.bars)
      if (std::abs(seconds(at) - bar) <= 0.07) {
        ++right;
        break;
      }
  return {test::fMeasure(found.beats, music.beats_s),
          static_cast<double>(right) / static_cast<double>(music.bars_s.size())};
}

std::string wordsOf(const Recipe& recipe) {
  return std::to_string(recipe.tempo_bpm(0)) + " to " + std::to_string(recipe.tempo_bpm(1)) + " bpm, seed " +
         std::to_string(recipe.seed);
}

/// Each kind of piece with several seeds; the means count, and none may fail badly.
void expectAll(std::vector<Recipe> recipes, double beats, double bars) {
  double beatSum = 0;
  double barSum = 0;
  for (const Recipe& recipe : recipes) {
    const BeatAccuracy score = listen(recipe);
    EXPECT_GE(score.beats, beats) << wordsOf(recipe);
    std::printf("%s: beats %.3f, bars %.3f\n", wordsOf(recipe).c_str(), score.beats, score.bars);
    beatSum += score.beats;
    barSum += score.bars;
  }
  const auto count = static_cast<double>(recipes.size());
  EXPECT_GE(beatSum / count, beats);
  EXPECT_GE(barSum / count, bars);
}

/// The same piece at several speeds, with `seed` and the following ones, or all with one.
std::vector<Recipe> at(std::initializer_list<double> speeds_bpm, Recipe piece, bool withOneSeed = true) {
  std::vector<Recipe> recipes;
  for (const double bpm : speeds_bpm) {
    piece.tempo_bpm = [bpm](double) { return bpm; };
    recipes.push_back(piece);
    if (!withOneSeed) ++piece.seed;
  }
  return recipes;
}

TEST(Beats, OfSteadyPieces) {
  expectAll(at({60, 72, 88, 104, 120, 138, 156, 180}, {.seed = 1}, false), 0.95, 0.9);
}

TEST(Beats, OfSwingingPieces) {
  expectAll(at({76, 112, 148}, {.offbeat = 0.66, .offbeats = 0.9, .seed = 20}), 0.95, 0.9);
}

TEST(Beats, OfWaltzes) {
  expectAll(at({84, 120, 168}, {.beatsPerBar = 3, .offbeats = 0.2, .seed = 30}), 0.95, 0.9);
}

TEST(Beats, OfNoisySyncopatedPieces) {
  expectAll(at({92, 124, 150}, {.missing = 0.25, .offbeats = 0.9, .noise = 0.05, .seed = 40}), 0.95, 0.9);
}

TEST(Beats, WhereTheTempoChanges) {
  std::vector<Recipe> recipes;
  for (const auto& [from, to] :
       {std::pair(60.0, 90.0), std::pair(100.0, 150.0), std::pair(180.0, 110.0), std::pair(60.0, 180.0)}) {
    Recipe recipe;
    recipe.length_s = 60;
    recipe.tempo_bpm = [from = from, to = to](double u) { return from + (to - from) * u; };
    recipe.seed = 50;
    recipes.push_back(recipe);
  }
  expectAll(recipes, 0.85, 0.8);
}

TEST(Beats, AcrossARest) {
  expectAll(at({90, 128}, {.rest = 8, .seed = 60}), 0.9, 0.85);
}

TEST(Beats, OfSilenceAreNone) {
  AudioBuffer clip;
  clip.samples.assign(AudioClip::kRate * 10 * 2, 0.f);
  EXPECT_TRUE(beatsOf(clip).beats.empty());
}

}  // namespace
}  // namespace chispa
