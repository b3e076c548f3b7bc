// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>

#include "core/effect/dotdrawing.h"
#include "core/effect/dotfont.h"
#include "core/effect/effect.h"
#include "core/effect/textraster.h"
#include "core/media/media.h"

namespace chispa {
namespace {

ZoneCells cellsFor(const Shape& shape) {
  Show show;
  put(show.fixtures, Fixture{FixtureId{1}, "Thing", {}, {}, {{"s", shape, {}}}});
  const bool grid = std::holds_alternative<GridShape>(shape);
  return cellsOf(show, mapPixels(show), {ZoneId{2}, "Z", {{FixtureId{1}, std::nullopt, false}}, grid ? ZoneLayout::SideBySide : ZoneLayout::Strand, 1});
}

PaletteTable palette() { return PaletteTable({PaletteId{1}, "P", {{0, {255, 0, 0}}, {0.5, {255, 255, 255}}, {1, {0, 40, 255}}}}); }

/// Runs an effect with its own defaults, or with `values`, at an instant of a plain beat of two a second.
LightBuffer run(const Effect& effect, const ZoneCells& cells, double t_s, const ParamValues& values = {}, const MediaLibrary& media = {}, OtherLight other = {}) {
  const ParamPack params(effect.params, values);
  static const PaletteTable colours = palette();
  const auto prepared = effect.prepare ? effect.prepare(params, media) : nullptr;
  std::vector<float> plane(static_cast<std::size_t>(cells.count()));
  EffectInput in{cells, params, colours};
  const Axis axis = effect.hasAcross() ? params.axis(0) : Axis::Along;
  if (axis == Axis::Plane) planePlaces(cells, params.number(params.count() - 2), params.number(params.count() - 1), plane);
  in.place = axis == Axis::Plane ? std::span<const float>(plane) : cells.along(axis);
  in.prepared = prepared.get();
  in.other = other;
  in.seed = 5;
  in.t_s = t_s;
  in.length_s = 8;
  in.beats = t_s * 2;
  in.bars = t_s * 2 / 3;
  in.beatInBar = std::fmod(in.beats, 3);
  in.level = 0.6f;
  in.bands.fill(0.5f);
  LightBuffer out;
  out.resize(static_cast<std::size_t>(cells.count()));
  effect.render(in, out);
  return out;
}

/// What every effect is tried with: words that pass, a picture to show, another zone's light.
struct Trial {
  ParamValues values;
  MediaLibrary media;
  ZoneCells otherCells;
  LightBuffer otherLight;

  explicit Trial(const Effect& effect) {
    if (effect.key == "lettering") values["moves"] = std::string("pass");
    if (effect.key == "picture") {
      auto two = std::make_shared<Media>(Media{2, 2, 4, 2, {255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 255, 255, 255, 255, 9, 9, 9, 255, 200, 200, 0, 255, 0, 90, 90, 255, 255, 255, 255, 255}});
      media.add("two.gif", two);
      values["file"] = std::string("two.gif");
    }
    otherCells = cellsFor(LineShape{7, 0.1});
    otherLight.resize(7);
    for (std::size_t i = 0; i < 7; ++i) otherLight.set(i, {static_cast<float>(i) / 7, 0.2f, 0.9f}, 1);
  }
  OtherLight other() const { return {&otherCells, &otherLight}; }
};

/// What does not move by itself: it stands still, or follows what does not move here.
bool standsStill(const Effect& effect) {
  for (const char* key : {"loudness", "skyline", "gauge", "hold", "black", "echo"})
    if (effect.key == key) return true;
  return false;
}

class EveryEffect : public testing::TestWithParam<int> {
 protected:
  const Effect& effect() const { return effects()[static_cast<std::size_t>(GetParam())]; }
};

TEST_P(EveryEffect, StaysWithinItsBoundsOnEveryShape) {
  for (const Shape& shape : {Shape(LineShape{60, 0.02}), Shape(GridShape{12, 9, 0.05, 0.05}), Shape(ArcShape{40, 1, 0, 360}), Shape(LineShape{1, 1})}) {
    const ZoneCells cells = cellsFor(shape);
    for (double t = 0; t < 8; t += 0.37) {
      const Trial trial(effect());
      const LightBuffer light = run(effect(), cells, t, trial.values, trial.media, trial.other());
      for (std::size_t i = 0; i < light.size(); ++i) {
        ASSERT_TRUE(std::isfinite(light.r[i]) && light.a[i] >= 0 && light.a[i] <= 1.0001f) << t;
        // Premultiplied: no colour is brighter than its coverage lets it be.
        ASSERT_LE(std::max({light.r[i], light.g[i], light.b[i]}), light.a[i] + 1e-4f);
        ASSERT_GE(std::min({light.r[i], light.g[i], light.b[i]}), 0);
      }
    }
  }
}

TEST_P(EveryEffect, IsTheSameWheneverItIsAsked) {
  const ZoneCells cells = cellsFor(GridShape{8, 8, 0.05, 0.05});
  const Trial trial(effect());
  const auto at = [&](double t) { return run(effect(), cells, t, trial.values, trial.media, trial.other()); };
  for (const double t : {3.21, 0.0, 7.9}) {
    const LightBuffer first = at(t);
    at(t + 1.7);
    const LightBuffer second = at(t);
    EXPECT_EQ(first.r, second.r);
    EXPECT_EQ(first.a, second.a);
  }
}

TEST_P(EveryEffect, ShowsLightAndMovesOverTime) {
  const ZoneCells cells = cellsFor(GridShape{16, 12, 0.05, 0.05});
  const Trial trial(effect());
  const auto at = [&](double t) { return run(effect(), cells, t, trial.values, trial.media, trial.other()); };
  double most = 0;
  bool moves = false;
  const LightBuffer first = at(0.1);
  for (double t = 0.1; t < 8; t += 0.07) {
    const LightBuffer light = at(t);
    for (const float a : light.a) most = std::max(most, static_cast<double>(a));
    moves = moves || light.r != first.r;
  }
  EXPECT_GT(most, 0.5);
  EXPECT_NE(moves, standsStill(effect()));
}

TEST_P(EveryEffect, ShowsLightOnALineToo) {
  const ZoneCells cells = cellsFor(LineShape{90, 0.05});
  const Trial trial(effect());
  double most = 0;
  for (double t = 0.1; t < 8; t += 0.07)
    for (const float a : run(effect(), cells, t, trial.values, trial.media, trial.other()).a) most = std::max(most, static_cast<double>(a));
  EXPECT_GT(most, 0.4);
}

TEST_P(EveryEffect, CoversAHundredThousandCells) {
  const ZoneCells cells = cellsFor(LineShape{100'000, 0.01});
  const Trial trial(effect());
  EXPECT_EQ(run(effect(), cells, 1.3, trial.values, trial.media, trial.other()).size(), 100'000u);
}

TEST_P(EveryEffect, TakesItsLimitsWithoutHarm) {
  const ZoneCells cells = cellsFor(GridShape{7, 5, 0.05, 0.05});
  for (const bool isHigh : {false, true}) {
    Trial trial(effect());
    for (const ParamSpec& spec : effect().params)
      if (spec.kind == ParamKind::Number) trial.values[spec.key] = isHigh ? spec.high : spec.low;
    for (double t = 0; t < 8; t += 0.61) {
      const LightBuffer light = run(effect(), cells, t, trial.values, trial.media, trial.other());
      for (std::size_t i = 0; i < light.size(); ++i) ASSERT_TRUE(std::isfinite(light.r[i]) && std::isfinite(light.a[i]) && light.a[i] >= 0 && light.a[i] <= 1.0001f) << t;
    }
  }
}

TEST_P(EveryEffect, HasAtLeastThreeParametersWithSoundDefaults) {
  EXPECT_GE(effect().params.size(), 3u);
  // Of the nine at most, two count only where the light runs through a plane in space.
  EXPECT_LE(effect().params.size(), effect().key == "lettering" ? 9u : 8u);
  for (const ParamSpec& spec : effect().params) {
    if (const auto* number = std::get_if<double>(&spec.fallback)) {
      EXPECT_TRUE(*number >= spec.low && *number <= spec.high) << spec.key;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Registry, EveryEffect, testing::Range(0, static_cast<int>(effects().size())),
                         [](const auto& which) {
                           std::string name = effects()[static_cast<std::size_t>(which.param)].key;
                           std::erase(name, '-');
                           return name;
                         });

TEST(ParamPack, ClampsNumbersAndIgnoresWhatMakesNoSense) {
  const Effect& ribbon = *findEffect("ribbon");
  const ParamPack pack(ribbon.params, {{"repeats", 1e9}, {"across", std::string("sideways")}, {"passes", std::string("fast")}, {"slant", std::nan("")}});
  EXPECT_EQ(pack.number(1), 24);
  EXPECT_EQ(pack.axis(0), Axis::Along);
  EXPECT_EQ(pack.number(2), 0.5);
  EXPECT_EQ(pack.number(3), 0);
}

TEST(TextRaster, DrawsInDotsAndInFontsWithARim) {
  for (const char* font : {kDotFont, "Noto Sans"}) {
    const TextRaster plain = drawText("Hé", font, 0);
    ASSERT_GT(plain.columns, 0);
    EXPECT_EQ(plain.letters, plain.rim);
    const TextRaster rimmed = drawText("Hé", font, 0.15);
    EXPECT_GT(rimmed.columns, plain.columns);
    float letters = 0, rim = 0;
    for (std::size_t i = 0; i < rimmed.letters.size(); ++i) {
      EXPECT_GE(rimmed.rim[i], rimmed.letters[i]);
      letters += rimmed.letters[i];
      rim += rimmed.rim[i];
    }
    EXPECT_GT(letters, 10);
    EXPECT_GT(rim, letters);
    EXPECT_NEAR(rimmed.mean(rimmed.letterSums, 0, 0, rimmed.columns, rimmed.rows), letters / static_cast<float>(rimmed.letters.size()), 1e-4f);
  }
  EXPECT_EQ(drawText("", kDotFont, 0).columns, 0);
}

TEST(DotDrawing, ComesBackAsItWentAndTakesAnyText) {
  const DotDrawing drawing = parseDrawing(exampleDrawing());
  EXPECT_EQ(drawing.frames.size(), 2u);
  EXPECT_EQ(drawingText(drawing), exampleDrawing());
  for (const char* text : {"", "|", "x|", "99999x2|abc", "3x|", "2x2|0", "-4x-4|....", "2x2|zzzz|1"}) {
    const DotDrawing read = parseDrawing(text);
    ASSERT_FALSE(read.frames.empty());
    for (const auto& frame : read.frames) EXPECT_EQ(frame.size(), static_cast<std::size_t>(read.columns * read.rows)) << text;
  }
  const DotDrawing larger = resized(drawing, 12, 14);
  EXPECT_EQ(larger.at(0, 4, 0), drawing.at(0, 4, 0));
  EXPECT_EQ(larger.at(1, 11, 13), DotDrawing::kClear);
}

TEST(Strobe, NeverFlashesMoreThanThreeTimesASecond) {
  const ZoneCells cells = cellsFor(LineShape{4, 0.1});
  for (const bool onBeat : {false, true}) {
    int flashes = 0;
    bool wasLit = false;
    for (double t = 0; t < 8; t += 0.004) {
      const bool isLit = run(*findEffect("strobe"), cells, t, {{"rate", 3.0}, {"sync", onBeat}}).a[0] > 0;
      flashes += isLit && !wasLit ? 1 : 0;
      wasLit = isLit;
    }
    EXPECT_GT(flashes, 8);
    EXPECT_LE(flashes, 24 + 1);
  }
}

TEST(HueWheel, ComesRoundAfterItsTurn) {
  const ZoneCells cells = cellsFor(LineShape{50, 0.02});
  const LightBuffer now = run(*findEffect("hue-wheel"), cells, 0.3, {{"turns", 1.0}});
  const LightBuffer later = run(*findEffect("hue-wheel"), cells, 0.3 + 1.5, {{"turns", 1.0}});
  for (std::size_t i = 0; i < now.size(); ++i) EXPECT_NEAR(now.g[i], later.g[i], 0.01f);
}

TEST(Curtain, IsDrawnFromItsSideInAnyDirectionOfSpace) {
  const ZoneCells cells = cellsFor(GridShape{20, 20, 0.05, 0.05});
  for (const double turn : {0.0, 180.0}) {
    const LightBuffer light = run(*findEffect("curtain"), cells, 4, {{"across", std::string("plane")}, {"turn", turn}, {"tilt", 0.0}, {"edge", 0.001}});
    int lit = 0, leftLit = 0;
    for (std::size_t i = 0; i < light.size(); ++i) {
      lit += light.a[i] > 0.5f ? 1 : 0;
      leftLit += light.a[i] > 0.5f && cells.column[i] < 10 ? 1 : 0;
    }
    EXPECT_NEAR(lit, 200, 21);
    EXPECT_NEAR(leftLit, turn == 0 ? 200 : 0, 21);
  }
}

TEST(Chase, MovesByOneLampAStep) {
  const ZoneCells cells = cellsFor(LineShape{16, 0.1});
  const LightBuffer now = run(*findEffect("chase"), cells, 0.1, {{"period", 4.0}, {"steps", 1.0}});
  const LightBuffer next = run(*findEffect("chase"), cells, 0.6, {{"period", 4.0}, {"steps", 1.0}});
  EXPECT_EQ(std::count(now.a.begin(), now.a.end(), 1.f), 4);
  for (std::size_t i = 0; i + 1 < 16; ++i) EXPECT_EQ(now.a[i], next.a[i + 1]) << i;
}

TEST(Ribbon, TravelsOneRepeatInABar) {
  const ZoneCells cells = cellsFor(LineShape{50, 0.02});
  const ParamValues one = {{"passes", 1.0}};
  const LightBuffer now = run(*findEffect("ribbon"), cells, 0.25, one);
  const LightBuffer barLater = run(*findEffect("ribbon"), cells, 0.25 + 1.5, one);
  for (std::size_t i = 0; i < now.size(); ++i) EXPECT_NEAR(now.r[i], barLater.r[i], 0.02);
}

TEST(Comets, AHeadIsBrightAheadAndDarkBehindItsTail) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.02});
  const LightBuffer light = run(*findEffect("comets"), cells, 0.75, {{"heads", 1.0}, {"passes", 1.0}, {"tail", 0.3}});
  // Half a bar on, the head is at the middle; the tail reaches back 30 cells, and ahead is dark.
  EXPECT_GT(light.a[48], 0.8f);
  EXPECT_GT(light.a[48], light.a[35]);
  EXPECT_EQ(light.a[60], 0);
  EXPECT_EQ(light.a[10], 0);
}

TEST(Bloom, IsBrightestOnTheBeatAndFades) {
  const ZoneCells cells = cellsFor(LineShape{4, 0.1});
  const auto at = [&](double t) { return run(*findEffect("bloom"), cells, t).a[1]; };
  EXPECT_GT(at(0.0), 0.95f);
  EXPECT_GT(at(0.0), at(0.2));
  EXPECT_GT(at(0.5), at(0.45));
  EXPECT_GT(at(0.0), at(0.5)) << "the first beat of a bar is accented";
}

TEST(Pour, FillsFromStartToEnd) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.01});
  const auto filled = [&](double t) {
    const LightBuffer light = run(*findEffect("pour"), cells, t, {{"edge", 0.001}});
    return std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0.5f; });
  };
  EXPECT_EQ(filled(0), 0);
  EXPECT_NEAR(static_cast<double>(filled(4)), 50, 1);
  EXPECT_NEAR(static_cast<double>(filled(7.99)), 100, 1);
}

TEST(Loudness, StandsAsHighAsItIsLoud) {
  const ZoneCells cells = cellsFor(GridShape{4, 20, 0.05, 0.05, Corner::BottomLeft, GridRuns::AlongRows, false});
  const LightBuffer light = run(*findEffect("loudness"), cells, 1, {{"shows", std::string("level")}, {"gain", 1.0}, {"edge", 0.001}});
  const auto lit = std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0.5f; });
  EXPECT_EQ(lit, 12 * 4) << "level 0.6 of 20 rows on 4 columns";
}

TEST(DotFont, DrawsLettersUpright) {
  EXPECT_TRUE(dotfont::isLit('L', 0, 6));
  EXPECT_TRUE(dotfont::isLit('L', 4, 0));
  EXPECT_FALSE(dotfont::isLit('L', 4, 6));
  EXPECT_TRUE(dotfont::isLit('l', 0, 6)) << "small letters are drawn as capitals";
  EXPECT_FALSE(dotfont::isLit('\x07', 2, 2));
}

}  // namespace
}  // namespace chispa
