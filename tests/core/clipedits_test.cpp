// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/clipedits.h"

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/colour/lightness.h"
#include "core/edit/layerallocator.h"
#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"
#include "core/files/labelfile.h"
#include "core/files/showfile.h"
#include "core/files/showjson.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

class ClipEdits : public testing::Test {
 protected:
  ClipEdits() : show_(demo::carousel()), score_(show_.scores.front()->id) {
    changeItem(show_.scores, score_, [](Score& score) { score.clips.clear(); });
  }
  const Score& score() const { return *find(show_.scores, score_); }
  ZoneId zone(const char* name) const { return findNamed(show_.zones, name)->id; }
  ClipId add(const char* zoneName, const char* effect, double start_s, double length_s) {
    return addClip(show_, score_, zone(zoneName), effect, show_.palettes.front()->id, micros(start_s),
                   micros(length_s));
  }
  const Clip& clip(ClipId id) const { return *findClip(score(), id); }
  PixelFrame frameAt(double t_s) const {
    const auto compiled = compile(show_);
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(static_cast<std::size_t>(compiled->map->count()));
    renderer.render(*compiled->scoreOf(score_), micros(t_s), frame);
    return frame;
  }

  Show show_;
  ScoreId score_;
};

TEST_F(ClipEdits, ACutClipGoesOnAsIfNothingHadBeenCut) {
  const ClipId id = add("Canopy rim", "pour", 2, 6);
  const ClipId other = add("Booth sign", "comets", 2, 6);
  std::vector<PixelFrame> before;
  for (double t = 2.05; t < 8; t += 0.45) before.push_back(frameAt(t));
  const auto right = splitClips(show_, score_, {id, other}, Micros(4'300'000));
  EXPECT_EQ(right.size(), 2u);
  EXPECT_EQ(clip(id).end(), Micros(4'300'000));
  std::size_t i = 0;
  for (double t = 2.05; t < 8; t += 0.45) {
    const PixelFrame now = frameAt(t);
    for (std::size_t p = 0; p < now.size(); ++p)
      ASSERT_NEAR(now.r[p], before[i].r[p], 1e-3f) << t << " pixel " << p;
    ++i;
  }
}

TEST_F(ClipEdits, StretchedClipsShowTheSameSlower) {
  const ClipId id = add("Canopy rim", "glints", 1, 3);
  const PixelFrame before = frameAt(2.2);
  stretchClips(show_, score_, {id}, Micros(1'000'000), 2);
  EXPECT_EQ(clip(id).length, Micros(6'000'000));
  EXPECT_EQ(frameAt(3.4), before);
}

TEST_F(ClipEdits, SlippedClipsShowWhatCameLater) {
  const ClipId id = add("Canopy rim", "glints", 1, 6);
  const PixelFrame later = frameAt(3.5);
  shiftContent(show_, score_, {id}, Micros(1'500'000));
  EXPECT_EQ(frameAt(2), later);
}

TEST_F(ClipEdits, NeighboursThatOverlapPassIntoEachOther) {
  add("Canopy rim", "hold", 0, 4);
  changeClips(show_, score_, {add("Canopy rim", "black", 3, 4)}, [](Clip& c) { c.layer = 0; });
  const float full = frameAt(2).r[10];
  const float early = frameAt(3.25).r[10];
  const float late = frameAt(3.75).r[10];
  EXPECT_GT(full, early);
  EXPECT_GT(early, late);
  EXPECT_NEAR(frameAt(3.5).r[10], lightOfLightness(lightnessOf(full) / 2), 0.01f) << "half of it, to the eye";
  EXPECT_EQ(frameAt(4.5).r[10], 0);
}

TEST_F(ClipEdits, CutOutShowsOnlyWhereTheLayerBelowIsLit) {
  add("Canopy rim", "chase", 0, 4);
  const PixelFrame below = frameAt(1);
  changeClips(show_, score_, {add("Canopy rim", "hold", 0, 4)}, [](Clip& c) { c.blend = Blend::CutOut; });
  const PixelFrame cut = frameAt(1);
  for (std::size_t p = 0; p < 300; ++p)
    EXPECT_EQ(below.r[p] == 0 && below.g[p] == 0 && below.b[p] == 0,
              cut.r[p] == 0 && cut.g[p] == 0 && cut.b[p] == 0)
        << p;
}

TEST_F(ClipEdits, RippleDeletesTimeAndMovesTheRestUp) {
  const ClipId before = add("Canopy rim", "hold", 0, 3);
  const ClipId inside = add("Canopy rim", "hold", 4, 1);
  const ClipId across = add("Posts", "glints", 2, 6);
  const ClipId later = add("Canopy rim", "hold", 9, 2);
  const Micros length = score().length;
  rippleDelete(show_, score_, {Micros(4'000'000), Micros(2'000'000)});
  EXPECT_EQ(clip(before).end(), Micros(3'000'000));
  EXPECT_EQ(findClip(score(), inside), nullptr);
  EXPECT_EQ(clip(across).length, Micros(4'000'000));
  EXPECT_EQ(clip(later).start, Micros(7'000'000));
  EXPECT_EQ(score().length, length - Micros(2'000'000));
  rippleInsert(show_, score_, {Micros(6'500'000), Micros(2'000'000)});
  EXPECT_EQ(clip(later).start, Micros(9'000'000));
}

TEST_F(ClipEdits, EveryBeatIsFilledAndStavesTakeTurns) {
  const auto beats = instantsOf(score(), LaneKind::Beats);
  Clip pattern;
  pattern.effect = "bloom";
  Fill fill{{beats.begin() + 6, beats.begin() + 18}, beats[18], {}, 1};
  for (int n = 1; n <= 12; ++n) fill.zones.push_back(zone(("Post " + std::to_string(n)).c_str()));
  const auto made = fillInstants(show_, score_, pattern, fill);
  ASSERT_EQ(made.size(), 12u);
  for (std::size_t i = 0; i < made.size(); ++i) {
    EXPECT_EQ(clip(made[i]).start, beats[6 + i]);
    EXPECT_EQ(clip(made[i]).end(), beats[7 + i]);
    EXPECT_EQ(clip(made[i]).zone, fill.zones[i]);
  }
}

TEST_F(ClipEdits, ARepetitionFillsTheSectionAndIsCutAtItsEnd) {
  const ClipId id = add("Canopy rim", "comets", 0, 2);
  const auto copies = repeatUntil(show_, score_, {id}, Micros(7'000'000));
  ASSERT_EQ(copies.size(), 3u);
  EXPECT_EQ(clip(copies[2]).end(), Micros(7'000'000));
  EXPECT_EQ(clip(copies[2]).length, Micros(1'000'000));
}

TEST_F(ClipEdits, ABlockShowsWhatItsClipsShowedWhereverItStands) {
  const ClipId one = add("Canopy rim", "hold", 2, 1);
  const ClipId two = add("Canopy rim", "glints", 3, 2);
  const PixelFrame before = frameAt(3.5);
  const BlockId block = makeBlock(show_, score_, {one, two}, "Turn");
  ASSERT_EQ(score().clips.size(), 1u);
  const auto problems = [this] {
    return findProblems(show_, [](const std::string&) { return true; }).size();
  };
  EXPECT_EQ(problems(), 0u) << "a block is no unknown effect";
  const ClipId place = score().clips.front()->id;
  changeClips(show_, score_, {place}, [](Clip& c) { c.seed = 0; });
  EXPECT_EQ(frameAt(3.5), before);
  const ClipId again = placeBlock(show_, score_, block, zone("Path edge"), Micros(10'000'000));
  EXPECT_EQ(clip(again).length, Micros(3'000'000));
  EXPECT_NE(frameAt(10.5), frameAt(20)) << "it stands on another stave too";
  // A change of the block is a change wherever it stands.
  changeItem(show_.blocks, block, [](Block& b) { b.clips.clear(); });
  EXPECT_EQ(frameAt(10.5), frameAt(20));
  EXPECT_EQ(frameAt(3.5), frameAt(20));
  show_.blocks.clear();
  EXPECT_EQ(problems(), 2u) << "both places have lost it";
}

TEST_F(ClipEdits, ADissolvedBlockLeavesItsClips) {
  const ClipId one = add("Canopy rim", "hold", 2, 1);
  makeBlock(show_, score_, {one}, "Turn");
  const auto made = dissolveBlock(show_, score_, score().clips.front()->id);
  ASSERT_EQ(made.size(), 1u);
  EXPECT_EQ(clip(made[0]).start, Micros(2'000'000));
  EXPECT_EQ(clip(made[0]).zone, zone("Canopy rim"));
}

TEST_F(ClipEdits, EffectsAndPalettesAreSwappedInASection) {
  add("Canopy rim", "hold", 0, 1);
  add("Canopy rim", "hold", 50, 1);
  EXPECT_EQ(replaceEffect(show_, score_, {Micros(0), Micros(10'000'000)}, "hold", "ribbon"), 1);
  EXPECT_EQ(replacePalette(show_, score_, {Micros(0), score().length}, show_.palettes[0]->id,
                           show_.palettes[1]->id),
            2);
}

TEST_F(ClipEdits, ChanceVariesNumbersWithinTheirRanges) {
  const ClipId id = add("Canopy rim", "comets", 0, 1);
  randomise(show_, score_, {id}, 0.5, 7);
  const Effect& comets = *findEffect("comets");
  EXPECT_FALSE(clip(id).params.empty());
  for (const auto& [key, value] : clip(id).params) {
    const ParamSpec& spec = comets.params[*paramIndex(comets, key)];
    EXPECT_GE(std::get<double>(value), spec.low);
    EXPECT_LE(std::get<double>(value), spec.high);
  }
}

TEST_F(ClipEdits, MotionsMoveParametersAndStrength) {
  const ClipId id = add("Canopy rim", "gauge", 0, 10);
  changeClips(show_, score_, {id}, [](Clip& c) {
    c.params["across"] = std::string("along");
    c.motions["value"] = {Driver::Curve, 0, 1, {{0, 0}, {1, 1}}, 0, {}};
  });
  const auto lit = [&](double t) {
    const PixelFrame frame = frameAt(t);
    return std::count_if(frame.r.begin(), frame.r.begin() + 300, [](float v) { return v > 0.001f; });
  };
  EXPECT_LT(lit(2), lit(5));
  EXPECT_LT(lit(5), lit(9));
  changeClips(show_, score_, {id}, [](Clip& c) {
    c.motions[kStrengthKey] = {Driver::Curve, 0, 1, {{0, 1}, {1, 0}}, 0, {}};
  });
  EXPECT_GT(frameAt(1).r[2], frameAt(9).r[2]);
}

TEST_F(ClipEdits, WhatRunsThroughRowsRunsAlongALine) {
  const ClipId id = add("Canopy rim", "gauge", 0, 10);
  changeClips(show_, score_, {id}, [](Clip& c) {
    c.params = {{"across", std::string("rows")}, {"value", 0.5}, {"edge", 0.001}};
  });
  const PixelFrame frame = frameAt(1);
  EXPECT_NEAR(static_cast<double>(
                  std::count_if(frame.r.begin(), frame.r.begin() + 300, [](float v) { return v > 0; })),
              150, 2);
}

TEST_F(ClipEdits, AnEchoShowsAnotherZoneLaterAndMirrored) {
  add("Canopy rim", "comets", 0, 10);
  const ClipId id = add("Path edge", "echo", 0, 10);
  changeClips(show_, score_, {id}, [this](Clip& c) {
    c.params = {
        {"source", static_cast<double>(zone("Canopy rim").value)}, {"delay", 0.5}, {"mirrored", true}};
  });
  const PixelMap map = mapPixels(show_);
  const auto rim = cellsOf(show_, map, *findNamed(show_.zones, "Canopy rim"));
  const auto edge = cellsOf(show_, map, *findNamed(show_.zones, "Path edge"));
  const PixelFrame then = frameAt(4.5);
  const PixelFrame now = frameAt(5);
  ASSERT_EQ(rim.count(), edge.count());
  for (int i = 0; i < rim.count(); ++i)
    EXPECT_NEAR(now.r[edge.pixelsOf(i)[0]], then.r[rim.pixelsOf(rim.count() - 1 - i)[0]], 1e-6f) << i;
}

TEST_F(ClipEdits, EverythingNewIsKeptInTheFile) {
  const ClipId id = add("Canopy rim", "hold", 0, 4);
  changeClips(show_, score_, {id}, [](Clip& c) {
    c.contentOffset = Micros(-250'000);
    c.speed = 1.5;
    c.whole = Micros(9'000'000);
    c.fadeShape = FadeShape::Late;
    c.blend = Blend::CutOut;
    c.motions["level"] = {Driver::Band, 0.1, 0.9, {}, 3, {}};
    c.motions[kStrengthKey] = {Driver::Curve, 0, 1, {{0, 0.5}, {1, 1}}, 0, {}};
  });
  makeBlock(show_, score_, {add("Posts", "hold", 5, 1)}, "B");
  put(show_.ownEffects,
      OwnEffect{show_.newId<OwnEffectId>(), "Mine", "formula", {{"formula", std::string("x")}}});
  changeItem(show_.scores, score_, [](Score& s) {
    s.audioStart = Micros(-125'000);
    s.framesPerSecond = 25;
    s.lanes.front().marks.front().length = Micros(5);
  });
  const auto read = parseShow(showText(show_), "test");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, show_);
}

TEST(LayerAllocator, FindsTheLowestFreeLayer) {
  LayerAllocator book{Score{}};
  const ZoneId zone{1};
  EXPECT_EQ(book.take(zone, Micros(0), Micros(100), 0), 0);
  EXPECT_EQ(book.take(zone, Micros(50), Micros(60), 0), 1);
  EXPECT_EQ(book.take(zone, Micros(70), Micros(80), 0), 1);
  EXPECT_EQ(book.take(zone, Micros(100), Micros(110), 0), 0);
  EXPECT_EQ(book.take(zone, Micros(75), Micros(105), 0), 2);
}

class MarkEdits : public ClipEdits {};

TEST_F(MarkEdits, GridsTapsAndDownBeats) {
  makeGrid(show_, score_, Micros(1'000'000), Micros(3'000'000), 4, 4);
  auto beats = instantsOf(score(), LaneKind::Beats);
  EXPECT_EQ(beats.front(), Micros(0));
  EXPECT_EQ(beats[1] - beats[0], Micros(500'000));
  EXPECT_EQ(instantsOf(score(), LaneKind::Bars).front(), Micros(1'000'000));
  EXPECT_EQ(beatsPerBar(score()), 4);
  tapBeat(show_, score_, Micros(1'060'000));
  EXPECT_EQ(instantsOf(score(), LaneKind::Beats)[2], Micros(1'060'000));
  EXPECT_EQ(instantsOf(score(), LaneKind::Bars).front(), Micros(1'060'000)) << "the bar goes with its beat";
  setDownBeat(show_, score_, Micros(1'480'000), 3);
  EXPECT_EQ(instantsOf(score(), LaneKind::Bars).front(), Micros(0));
  const auto count = instantsOf(score(), LaneKind::Beats).size();
  countBeats(show_, score_, BeatLevel::Twice, Micros(0));
  EXPECT_EQ(instantsOf(score(), LaneKind::Beats).size(), 2 * count - 1);
  countBeats(show_, score_, BeatLevel::Half, Micros(0));
  EXPECT_EQ(instantsOf(score(), LaneKind::Beats).size(), count);
  shiftMarks(show_, score_, LaneKind::Beats, Micros(-10'000));
  EXPECT_EQ(instantsOf(score(), LaneKind::Beats).size(), count - 1);
}

TEST(Labels, EachFormatIsReadAndWritten) {
  const auto track = parseLabels("0.5\t1.25\tlan\n1.25\t2\ttern\n", LabelFormat::LabelTrack, "x");
  ASSERT_TRUE(track);
  EXPECT_EQ((*track)[1].text, "tern");
  EXPECT_EQ((*track)[0].length, Micros(750'000));
  MarkLane lane{LaneId{1}, "Words", LaneKind::Words, *track};
  for (const LabelFormat format : {LabelFormat::LabelTrack, LabelFormat::WebVtt}) {
    const auto back = parseLabels(labelText(lane, format, Micros(9'000'000)), format, "x");
    ASSERT_TRUE(back);
    EXPECT_EQ(*back, *track);
  }
  const auto lrc = parseLabels("[ar:nobody]\n[00:12.50][01:02.00]round\n", LabelFormat::Lrc, "x");
  ASSERT_TRUE(lrc);
  ASSERT_EQ(lrc->size(), 2u);
  EXPECT_EQ((*lrc)[1].at, Micros(62'000'000));
}

TEST(Labels, NonsenseIsNamedByItsLine) {
  const auto bad = parseLabels("0\t1\tone\nhello\n", LabelFormat::LabelTrack, "words.txt");
  ASSERT_FALSE(bad);
  EXPECT_NE(bad.failure().what.text().find("Line 2"), std::string::npos);
  EXPECT_FALSE(parseLabels("", LabelFormat::WebVtt, "x"));
  EXPECT_FALSE(parseLabels("5\t1\tends before it begins", LabelFormat::LabelTrack, "x"));
}

}  // namespace
}  // namespace chispa
