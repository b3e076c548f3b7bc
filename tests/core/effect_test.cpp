// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <set>

#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/effect/dotdrawing.h"
#include "core/effect/dotfont.h"
#include "core/effect/screencapture.h"
#include "core/effect/textraster.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

using test::cellsFor;
using test::run;

/// What every effect is tried with: words that pass, a picture to show, another zone's light.
struct Trial {
  ParamValues values;
  MediaLibrary media;
  ZoneCells otherCells;
  LightBuffer otherLight;

  explicit Trial(const Effect& effect) {
    if (effect.key == "lettering") values["moves"] = std::string("pass");
    if (effect.key == "picture") {
      auto two = std::make_shared<Media>(
          Media{2, 2, 4, 2, {255, 0, 0, 255, 0,   255, 0, 255, 0, 0,  255, 255, 255, 255, 255, 255,
                             9,   9, 9, 255, 200, 200, 0, 255, 0, 90, 90,  255, 255, 255, 255, 255}});
      media.add("two.gif", two);
      values["file"] = std::string("two.gif");
    }
    if (effect.key == kRowsEffect) {
      auto rows = std::make_shared<Media>(
          Media{2, 1, 4, 2, {255, 0, 0, 255, 0, 255, 255, 255, 255, 255, 255, 255, 9, 9, 9, 255}});
      media.add(mediaName(kRowsEffect, "two.png"), rows);
      values["file"] = std::string("two.png");
    }
    if (effect.key == kScreenCapture) {
      auto live = std::make_shared<LivePicture>(2, 2);
      live->write(
          std::array<std::uint8_t, 16>{255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 200, 200, 0, 255}
              .data());
      media.addLive(screenPartOf({}), live);
    }
    otherCells = cellsFor(LineShape{7, 0.1});
    otherLight.resize(7);
    for (std::size_t i = 0; i < 7; ++i) otherLight.set(i, {static_cast<float>(i) / 7, 0.2f, 0.9f}, 1);
  }
  test::Tell tell() const {
    return [this](EffectInput& in) { in.other = {&otherCells, &otherLight}; };
  }
};

/// What does not move by itself: it stands still, or follows what does not move here.
bool standsStill(const Effect& effect) {
  for (const char* key :
       {"loudness", "skyline", "gauge", "shapes", "hold", "black", "echo", "spill", kScreenCapture})
    if (effect.key == key) return true;
  return false;
}

class EveryEffect : public testing::TestWithParam<int> {
 protected:
  const Effect& effect() const { return effects()[static_cast<std::size_t>(GetParam())]; }
};

TEST_P(EveryEffect, StaysWithinItsBoundsOnEveryShape) {
  for (const Shape& shape : {Shape(LineShape{60, 0.02}), Shape(GridShape{12, 9, 0.05, 0.05}),
                             Shape(ArcShape{40, 1, 0, 360}), Shape(LineShape{1, 1})}) {
    const ZoneCells cells = cellsFor(shape);
    for (double t = 0; t < 8; t += 0.37) {
      const Trial trial(effect());
      const LightBuffer light = run(effect(), cells, t, trial.values, trial.media, trial.tell());
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
  const auto at = [&](double t) { return run(effect(), cells, t, trial.values, trial.media, trial.tell()); };
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
  const auto at = [&](double t) { return run(effect(), cells, t, trial.values, trial.media, trial.tell()); };
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
    for (const float a : run(effect(), cells, t, trial.values, trial.media, trial.tell()).a)
      most = std::max(most, static_cast<double>(a));
  EXPECT_GT(most, 0.4);
}

TEST_P(EveryEffect, CoversAHundredThousandCells) {
  const ZoneCells cells = cellsFor(LineShape{100'000, 0.01});
  const Trial trial(effect());
  EXPECT_EQ(run(effect(), cells, 1.3, trial.values, trial.media, trial.tell()).size(), 100'000u);
}

TEST_P(EveryEffect, LightsARangeAsItLightsTheWhole) {
  if (!effect().isCellwise) GTEST_SKIP() << "it looks at the zone as a whole";
  const ZoneCells cells = cellsFor(GridShape{40, 13, 0.05, 0.05});
  const Trial trial(effect());
  const LightBuffer whole = run(effect(), cells, 2.7, trial.values, trial.media, trial.tell());
  const CellRange range{131, 302};
  const LightBuffer part = run(effect(), cells, 2.7, trial.values, trial.media, [&](EffectInput& in) {
    if (trial.tell()) trial.tell()(in);
    in.range = range;
  });
  for (std::size_t i = 0; i < range.count; ++i) {
    ASSERT_EQ(part.r[i], whole.r[range.first + i]) << i;
    ASSERT_EQ(part.b[i], whole.b[range.first + i]) << i;
    ASSERT_EQ(part.a[i], whole.a[range.first + i]) << i;
  }
}

TEST_P(EveryEffect, TakesItsLimitsWithoutHarm) {
  const ZoneCells cells = cellsFor(GridShape{7, 5, 0.05, 0.05});
  for (const bool isHigh : {false, true}) {
    Trial trial(effect());
    for (const ParamSpec& spec : effect().params)
      if (spec.kind == ParamKind::Number) trial.values[spec.key] = isHigh ? spec.high : spec.low;
    for (double t = 0; t < 8; t += 0.61) {
      const LightBuffer light = run(effect(), cells, t, trial.values, trial.media, trial.tell());
      for (std::size_t i = 0; i < light.size(); ++i)
        ASSERT_TRUE(std::isfinite(light.r[i]) && std::isfinite(light.a[i]) && light.a[i] >= 0 &&
                    light.a[i] <= 1.0001f)
            << t;
    }
  }
}

TEST_P(EveryEffect, HasAtLeastThreeParametersWithSoundDefaults) {
  // How a picture lies is said by the same parameters wherever one is shown; they are not an effect's own.
  static const std::set<std::string> kLay{"fit",     "turned",     "mirrored", "upside_down",
                                          "shift_x", "shift_y",    "cut_left", "cut_right",
                                          "cut_top", "cut_bottom", "surface",  "begins"};
  const auto own = std::count_if(effect().params.begin(), effect().params.end(), [](const ParamSpec& spec) {
    return !kLay.contains(spec.key) && spec.onlyIf.empty();
  });
  EXPECT_GE(effect().params.size(), 3u);
  // Those that count only where something else is chosen are not seen before.
  EXPECT_LE(own, effect().key == "lettering" ? 10 : 8);
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
  const ParamPack pack(ribbon.params, {{"repeats", 1e9},
                                       {"across", std::string("sideways")},
                                       {"passes", std::string("fast")},
                                       {"slant", std::nan("")}});
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
    EXPECT_NEAR(rimmed.mean(rimmed.letterSums, 0, 0, rimmed.columns, rimmed.rows),
                letters / static_cast<float>(rimmed.letters.size()), 1e-4f);
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
    for (const auto& frame : read.frames)
      EXPECT_EQ(frame.size(), static_cast<std::size_t>(read.columns * read.rows)) << text;
  }
  const DotDrawing larger = resized(drawing, 12, 14);
  EXPECT_EQ(larger.at(0, 4, 0), drawing.at(0, 4, 0));
  EXPECT_EQ(larger.at(1, 11, 13), DotDrawing::kClear);
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
