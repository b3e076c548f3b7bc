// SPDX-License-Identifier: GPL-3.0-or-later
#include <random>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/colour/lightness.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/render/blend.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

LightBuffer one(float r, float a) {
  LightBuffer light;
  light.resize(1);
  light.set(0, {r, 0, 0}, a);
  return light;
}

float blended(Blend blend, float base, float top, float coverage, float strength = 1) {
  LightBuffer light = one(base, 1);
  blendOnto(light, one(top, coverage), 1, blend, strength);
  return light.r[0];
}

TEST(Blend, FollowsTheCompositingFormulas) {
  EXPECT_FLOAT_EQ(blended(Blend::Normal, 0.8f, 0.2f, 1), 0.2f);
  EXPECT_FLOAT_EQ(blended(Blend::Normal, 0.8f, 0.2f, 0.5f), 0.5f);
  EXPECT_FLOAT_EQ(blended(Blend::Add, 0.8f, 0.5f, 1), 1.0f);
  EXPECT_FLOAT_EQ(blended(Blend::Lighten, 0.8f, 0.5f, 1), 0.8f);
  EXPECT_FLOAT_EQ(blended(Blend::Multiply, 0.8f, 0.5f, 1), 0.4f);
  EXPECT_FLOAT_EQ(blended(Blend::Multiply, 0.8f, 0.5f, 0), 0.8f);
  EXPECT_FLOAT_EQ(blended(Blend::Screen, 0.5f, 0.5f, 1), 0.75f);
  EXPECT_FLOAT_EQ(blended(Blend::Mask, 0.8f, 0.25f, 1), 0.2f);
  EXPECT_FLOAT_EQ(blended(Blend::Normal, 0.8f, 0.2f, 1, 0), 0.8f);
}

class CarouselLight : public testing::Test {
 protected:
  CarouselLight() {
    renderer_.prepare(*compiled_);
    for (PixelFrame* frame : {&a_, &b_}) frame->resize(static_cast<std::size_t>(compiled_->map->count()));
  }

  Show show_ = demo::carousel();
  std::shared_ptr<const CompiledShow> compiled_ = compile(show_);
  const CompiledScore& score_ = compiled_->scores.front();
  Renderer renderer_;
  PixelFrame a_;
  PixelFrame b_;
};

/// Scrub = play = export: a frame does not depend on which frames were computed before it, nor by which
/// renderer.
TEST_F(CarouselLight, FramesAtRandomTimesEqualThoseOfSequentialPlay) {
  constexpr Micros kPeriod{25'000};
  std::vector<PixelFrame> played;
  std::vector<std::vector<std::uint8_t>> bytes;
  const auto frames = static_cast<int>(score_.length / kPeriod);
  std::vector<std::uint8_t> buffer(compiled_->packer->bufferSize(), 0);
  for (int i = 0; i < frames; i += 3) {
    renderer_.render(score_, kPeriod * i, a_);
    compiled_->packer->pack(a_, ditherFrame(static_cast<std::uint64_t>(i), 40), 1, buffer);
    played.push_back(a_);
    bytes.push_back(buffer);
  }
  std::mt19937 random(11);
  Renderer other;
  const auto again = compile(show_);
  other.prepare(*again);
  for (int i = 0; i < 300; ++i) {
    const auto pick = std::uniform_int_distribution<std::size_t>(0, played.size() - 1)(random);
    const Micros t = kPeriod * static_cast<int>(pick * 3);
    other.render(again->scores.front(), t, b_);
    ASSERT_EQ(played[pick], b_) << "at " << seconds(t);
    again->packer->pack(b_, ditherFrame(pick * 3, 40), 1, buffer);
    ASSERT_EQ(bytes[pick], buffer) << "at " << seconds(t);
  }
}

TEST_F(CarouselLight, IsDarkBeforeTheStartAndBehindTheEnd) {
  for (const Micros t : {Micros(-1), score_.length, score_.length + Micros(1'000'000)}) {
    renderer_.render(score_, t, a_);
    EXPECT_EQ(*std::max_element(a_.r.begin(), a_.r.end()), 0) << t.count();
  }
}

TEST_F(CarouselLight, EveryPixelIsLitAtSomeTime) {
  std::vector<float> most(a_.size(), 0);
  for (Micros t{0}; t < score_.length; t += Micros(100'000)) {
    renderer_.render(score_, t, a_);
    for (std::size_t i = 0; i < most.size(); ++i) most[i] = std::max({most[i], a_.r[i], a_.g[i], a_.b[i]});
  }
  EXPECT_GT(*std::min_element(most.begin(), most.end()), 0.05f);
}

TEST_F(CarouselLight, HasManyEffectsOnManyZones) {
  const Score& score = *show_.scores.front();
  EXPECT_GE(score.clips.size(), 40u);
  std::set<std::string> used;
  std::set<std::uint32_t> zones;
  for (const auto& clip : score.clips) {
    used.insert(clip->effect);
    zones.insert(clip->zone.value);
  }
  EXPECT_GE(used.size(), 24u);
  EXPECT_GE(zones.size(), 20u);
}

TEST(Renderer, FadesAreEvenToTheEyeUnlessToldOtherwise) {
  CompiledClip clip;
  clip.length = Micros(4'000'000);
  clip.fadeIn = Micros(2'000'000);
  for (int i = 0; i <= 80; ++i)
    EXPECT_NEAR(lightnessOf(fadeAt(clip, Micros(25'000 * i))), static_cast<float>(i) / 80, 1e-4f);
  clip.fades = Evenness::InLight;
  for (int i = 0; i <= 80; ++i)
    EXPECT_NEAR(fadeAt(clip, Micros(25'000 * i)), static_cast<float>(i) / 80, 1e-5f);
}

TEST(Renderer, FadesScaleTheClip) {
  CompiledClip clip;
  clip.fades = Evenness::InLight;
  clip.start = Micros(1'000'000);
  clip.length = Micros(4'000'000);
  clip.fadeIn = Micros(1'000'000);
  clip.fadeOut = Micros(2'000'000);
  EXPECT_FLOAT_EQ(fadeAt(clip, Micros(1'000'000)), 0);
  EXPECT_FLOAT_EQ(fadeAt(clip, Micros(1'500'000)), 0.5f);
  EXPECT_FLOAT_EQ(fadeAt(clip, Micros(2'500'000)), 1);
  EXPECT_FLOAT_EQ(fadeAt(clip, Micros(4'000'000)), 0.5f);
}

TEST(Renderer, AStaveFurtherUpLiesOverThoseBelow) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{4, 0.1}, {});
  const ZoneId upper = show.zones.front()->id;
  const ZoneId lower = addZone(show, "Lower", {line});
  const PaletteId red = addPalette(show, "Red", {{0, {255, 0, 0}}});
  const PaletteId blue = addPalette(show, "Blue", {{0, {0, 0, 255}}});
  const ScoreId score = addScore(show, "S", "", Micros(4'000'000));
  addClip(show, score, upper, "ribbon", red, Micros(0), Micros(2'000'000));
  addClip(show, score, lower, "ribbon", blue, Micros(0), Micros(4'000'000));
  const auto compiled = compile(show);
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(4);
  renderer.render(compiled->scores.front(), Micros(1'000'000), frame);
  EXPECT_FLOAT_EQ(frame.r[2], 1);
  EXPECT_FLOAT_EQ(frame.b[2], 0);
  renderer.render(compiled->scores.front(), Micros(3'000'000), frame);
  EXPECT_FLOAT_EQ(frame.b[2], 1) << "when the upper clip has ended, the lower one shows";
}

TEST(Renderer, AZoneLitInTilesIsTheZoneLitAsAWhole) {
  Show show;
  constexpr int kPixels = 9'999;
  addFixture(show, LineShape{kPixels, 0.01}, {});
  const ZoneId zone = show.zones.front()->id;
  const PaletteId fire =
      addPalette(show, "Fire", {{0, {40, 0, 0}}, {0.5, {255, 90, 0}}, {1, {255, 255, 180}}});
  const ScoreId score = addScore(show, "S", "", Micros(4'000'000));
  for (const char* effect : {"ribbon", "comets", "glints", "clouds"})
    addClip(show, score, zone, effect, fire, Micros(0), Micros(4'000'000));
  ASSERT_TRUE(findEffect("ribbon")->isCellwise) << "or nothing is cut into tiles";
  const auto compiled = compile(show);
  Renderer tiles, whole;
  tiles.prepare(*compiled);
  whole.prepare(static_cast<std::size_t>(compiled->map->count()));
  PixelFrame frame;
  frame.resize(kPixels);
  const CompiledScore& made = compiled->scores.front();
  for (const Micros t : {Micros(0), Micros(700'000), Micros(3'999'000)}) {
    tiles.render(made, t, frame);
    whole.renderClips(made, made.staves.front().clips(), *made.staves.front().cells, t);
    for (std::size_t i = 0; i < kPixels; ++i)
      ASSERT_EQ(frame.r[i], std::min(1.f, whole.zoneLight().r[i])) << i;
  }
}

TEST(Renderer, AnUnknownEffectStaysDark) {
  Show show;
  addFixture(show, LineShape{4, 0.1}, {});
  const ScoreId score = addScore(show, "S", "", Micros(4'000'000));
  addClip(show, score, show.zones.front()->id, "from-the-future", {}, Micros(0), Micros(4'000'000));
  const auto compiled = compile(show);
  EXPECT_TRUE(compiled->scores.front().staves.front().clips().empty());
}

}  // namespace
}  // namespace chispa
