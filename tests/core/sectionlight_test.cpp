// SPDX-License-Identifier: GPL-3.0-or-later
// One section's light on all that are like it.
#include "core/edit/sectionlight.h"

#include <cmath>

#include <gtest/gtest.h>

#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"

namespace chispa {
namespace {

constexpr double kBar_s = 2;

class SectionLightTest : public testing::Test {
 protected:
  /// Sections by name, and how many bars each has.
  void sections(const std::vector<std::pair<std::string, int>>& list) {
    score_ = addScore(show_, "S", "", Micros(0));
    std::vector<Micros> beats, bars;
    std::vector<Mark> marks;
    int bar = 0;
    for (const auto& [name, length] : list) {
      marks.push_back({{}, micros(bar * kBar_s), name, Micros(0)});
      bar += length;
    }
    for (int beat = 0; beat <= 4 * bar; ++beat) beats.push_back(micros(beat * kBar_s / 4));
    for (int n = 0; n <= bar; ++n) bars.push_back(micros(n * kBar_s));
    putReading(show_, score_, {beats, bars});
    putMarks(show_, score_, LaneKind::Sections, "Sections", marks);
    changeItem(show_.scores, score_, [&](Score& score) { score.length = micros(bar * kBar_s); });
  }
  void clip(double from_bar, double bars, const std::string& effect) {
    addClip(show_, score_, ZoneId{7}, effect, {}, micros(from_bar * kBar_s), micros(bars * kBar_s));
  }
  /// All clips as "effect from–to" in bars, in order of time.
  std::vector<std::string> clips() const {
    std::vector<std::pair<double, std::string>> found;
    for (const auto& clip : find(show_.scores, score_)->clips) {
      char words[80];
      std::snprintf(words, sizeof words, "%s %.1f-%.1f", clip->effect.c_str(), seconds(clip->start) / kBar_s,
                    seconds(clip->end()) / kBar_s);
      found.push_back({seconds(clip->start), words});
    }
    std::sort(found.begin(), found.end());
    std::vector<std::string> out;
    for (auto& [at, words] : found) out.push_back(words);
    return out;
  }
  Show show_;
  ScoreId score_;
};

using Words = std::vector<std::string>;

TEST_F(SectionLightTest, GoesToAllThatAreAlikeAndToNoOther) {
  sections({{"A quiet", 4}, {"B full", 4}, {"A", 4}, {"B", 4}});
  clip(0, 1, "comets");
  clip(5, 1, "chase");
  copySectionLight(show_, score_, micros(0.5));
  EXPECT_EQ(clips(), (Words{"comets 0.0-1.0", "chase 5.0-6.0", "comets 8.0-9.0"}));
}

TEST_F(SectionLightTest, TakesThePlaceOfWhatIsThere) {
  sections({{"A", 4}, {"A", 4}, {"B", 4}});
  clip(1, 2, "comets");
  // It reaches into the section that is filled, and beyond it.
  clip(3, 6, "chase");
  copySectionLight(show_, score_, micros(0));
  EXPECT_EQ(clips(),
            (Words{"comets 1.0-3.0", "chase 3.0-4.0", "comets 5.0-7.0", "chase 7.0-8.0", "chase 8.0-9.0"}))
      << "its own part of the long clip goes along";
}

TEST_F(SectionLightTest, BeginsAnewInALongerOneAndEndsInAShorterOne) {
  sections({{"A", 2}, {"A", 5}, {"A", 1}});
  clip(0, 1, "comets");
  clip(1, 1, "chase");
  copySectionLight(show_, score_, micros(0));
  EXPECT_EQ(clips(), (Words{"comets 0.0-1.0", "chase 1.0-2.0", "comets 2.0-3.0", "chase 3.0-4.0",
                            "comets 4.0-5.0", "chase 5.0-6.0", "comets 6.0-7.0", "comets 7.0-8.0"}));
}

TEST_F(SectionLightTest, WhatLiesOverAllOfItLiesOverAllOfThem) {
  sections({{"Verse 1", 2}, {"Chorus", 2}, {"Verse 2", 6}});
  clip(0, 2, "swell");
  copySectionLight(show_, score_, micros(1));
  EXPECT_EQ(clips(), (Words{"swell 0.0-2.0", "swell 4.0-10.0"}));
}

/// A score of other tempo and length takes a whole score's light, bar by bar.
TEST_F(SectionLightTest, AnotherScoreTakesTheLightOfAll) {
  sections({{"A", 4}});
  changeItem(show_.scores, score_, [](Score& s) {
    s.staves = {ZoneId{7}};
    s.folders = {{"Roof", {ZoneId{7}}, true}};
  });
  clip(0, 4, "glow");
  clip(1, 2, "comets");
  const ScoreId model = score_;
  // Three beats of half a second a bar: 1.5 s.
  score_ = addSilentScore(show_, "Quick", 120, 3, 6);
  clip(2, 1, "chase");
  const Show before = show_;
  EXPECT_EQ(takeLightOf(show_, score_, model).size(), 3u);
  const Score& quick = *find(show_.scores, score_);
  EXPECT_EQ(quick.staves, std::vector<ZoneId>{ZoneId{7}});
  ASSERT_EQ(quick.folders.size(), 1u);
  EXPECT_TRUE(quick.folders[0].isFolded);
  std::vector<std::string> bars;
  for (const auto& clip : quick.clips)
    bars.push_back(clip->effect + " " + std::to_string(std::lround(seconds(clip->start) / 1.5)) + "-" +
                   std::to_string(std::lround(seconds(clip->end()) / 1.5)));
  std::sort(bars.begin(), bars.end());
  EXPECT_EQ(bars, (Words{"comets 1-3", "comets 5-6", "glow 0-6"})) << "what was there is gone";
  EXPECT_EQ(*find(show_.scores, model), *find(before.scores, model));
}

TEST_F(SectionLightTest, WhatAScoreHasForItselfIsNotTaken) {
  sections({{"A", 2}});
  const ScoreId model = score_;
  Zone zone;
  zone.id = ZoneId{7};
  zone.score = model;
  put(show_.zones, zone);
  clip(0, 1, "comets");
  score_ = addSilentScore(show_, "Other", 120, 4, 2);
  EXPECT_TRUE(takeLightOf(show_, score_, model).empty());
  EXPECT_TRUE(takeLightOf(show_, score_, score_).empty()) << "nor its own";
}

TEST_F(SectionLightTest, WithoutOthersNothingChanges) {
  sections({{"A", 4}, {"B", 4}});
  clip(0, 1, "comets");
  const Show before = show_;
  EXPECT_TRUE(copySectionLight(show_, score_, micros(0)).empty());
  EXPECT_EQ(show_, before);
}

TEST(SectionNames, AreLettersAndMoods) {
  EXPECT_EQ(sectionName({Micros(0), 0, SectionMood::None}), "A");
  EXPECT_EQ(sectionName({Micros(0), 1, SectionMood::Full}), "B full");
  EXPECT_EQ(sectionName({Micros(0), 26, SectionMood::None}), "AA");
  EXPECT_TRUE(areAlike("A", "A end"));
  EXPECT_TRUE(areAlike("Verse 1", "Verse 12"));
  EXPECT_FALSE(areAlike("A", "B"));
  EXPECT_FALSE(areAlike("", ""));
  EXPECT_FALSE(areAlike("Round one", "Round two"));
}

}  // namespace
}  // namespace chispa
