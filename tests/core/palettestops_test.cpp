// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/palettestops.h"

#include <random>

#include <gtest/gtest.h>

#include "core/preview/striplook.h"

namespace chispa {
namespace {

Palette three() {
  return {PaletteId{1}, "P", {{0, {255, 0, 0}}, {0.5, {0, 255, 0}}, {1, {0, 0, 255}}}};
}

bool isInOrder(const Palette& palette) {
  return std::is_sorted(palette.stops.begin(), palette.stops.end(),
                        [](const ColourStop& a, const ColourStop& b) { return a.at < b.at; });
}

TEST(PaletteStops, ANewStopChangesNothingThatIsSeen) {
  Palette palette = three();
  const Palette before = palette;
  EXPECT_EQ(addStop(palette, 0.25), 1u);
  ASSERT_EQ(palette.stops.size(), 4u);
  for (double u = 0; u <= 1; u += 0.05) {
    const Rgb a = colourAt(palette, u), b = colourAt(before, u);
    // The new stop is of one of 256 steps.
    EXPECT_NEAR(a.r, b.r, 0.012) << u;
    EXPECT_NEAR(a.g, b.g, 0.012) << u;
    EXPECT_NEAR(a.b, b.b, 0.012) << u;
  }
}

TEST(PaletteStops, TheFirstStopOfAnEmptyPaletteIsBlack) {
  Palette palette;
  EXPECT_EQ(addStop(palette, 7), 0u);
  EXPECT_EQ(palette.stops.front(), (ColourStop{1, {0, 0, 0}}));
}

TEST(PaletteStops, AStopMovesPastItsNeighbour) {
  Palette palette = three();
  EXPECT_EQ(moveStop(palette, 0, 0.75), 1u);
  EXPECT_EQ(palette.stops[1].colour, (Srgb8{255, 0, 0}));
  EXPECT_TRUE(isInOrder(palette));
  EXPECT_EQ(moveStop(palette, 1, -3), 0u) << "places are brought into 0 to 1";
  EXPECT_EQ(palette.stops[0].at, 0);
}

TEST(PaletteStops, AStopThatReachesItsNeighboursPlaceKeepsItsTurn) {
  Palette palette = three();
  EXPECT_EQ(moveStop(palette, 1, 1), 1u);
  EXPECT_EQ(palette.stops[1].colour, (Srgb8{0, 255, 0}));
  EXPECT_EQ(moveStop(palette, 1, 0), 1u);
}

TEST(PaletteStops, StayInOrderThroughAnyMoves) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> place(-0.2, 1.2);
  Palette palette = three();
  for (int i = 0; i < 2'000; ++i) {
    const std::size_t which = random() % palette.stops.size();
    const Srgb8 colour = palette.stops[which].colour;
    const std::size_t now = moveStop(palette, which, place(random));
    ASSERT_EQ(palette.stops[now].colour, colour);
    if (palette.stops.size() < 9 && i % 5 == 0) addStop(palette, place(random));
    if (i % 11 == 0) removeStop(palette, random() % palette.stops.size());
    ASSERT_TRUE(isInOrder(palette));
    ASSERT_FALSE(palette.stops.empty());
  }
}

TEST(PaletteStops, TheLastOneStays) {
  Palette palette{PaletteId{1}, "One", {{0.5, {9, 9, 9}}}};
  removeStop(palette, 0);
  EXPECT_EQ(palette.stops.size(), 1u);
}

TEST(PaletteStops, MirroredItIsTheSameFromBothEnds) {
  Palette palette = three();
  mirrorStops(palette);
  EXPECT_TRUE(isInOrder(palette));
  for (double u = 0; u <= 0.5; u += 0.1)
    EXPECT_EQ(toSrgb8(colourAt(palette, u)), toSrgb8(colourAt(palette, 1 - u))) << u;
}

TEST(PaletteStops, ReversedTwiceItIsAsItWas) {
  Palette palette = three();
  reverseStops(palette);
  EXPECT_EQ(palette.stops.front().colour, (Srgb8{0, 0, 255}));
  reverseStops(palette);
  EXPECT_EQ(palette, three());
}

TEST(PaletteStops, ClosedItEndsAsItBeginsAndOnlyOnce) {
  Palette palette = three();
  closeLoop(palette);
  ASSERT_EQ(palette.stops.size(), 4u);
  EXPECT_EQ(palette.stops.back(), (ColourStop{1, {255, 0, 0}}));
  EXPECT_DOUBLE_EQ(palette.stops[1].at, 0.375);
  closeLoop(palette);
  EXPECT_EQ(palette.stops.size(), 4u);
}

TEST(StripLook, APlainStripShowsWhatIsWantedInItsSteps) {
  const Rgb seen = shownBy(StripType{}, {0.5f, 0.25f, 1});
  EXPECT_NEAR(seen.r, 0.5, 1.0 / 255);
  EXPECT_NEAR(seen.g, 0.25, 1.0 / 255);
  EXPECT_FLOAT_EQ(seen.b, 1);
}

TEST(StripLook, WhatIsDarkerThanHalfAStepIsDark) {
  StripType strip;
  EXPECT_EQ(shownBy(strip, {0.0015f, 0.0015f, 0.0015f}), (Rgb{0, 0, 0}));
  strip.channelBits = 16;
  EXPECT_GT(shownBy(strip, {0.0015f, 0.0015f, 0.0015f}).r, 0.001f) << "sixteen bits go lower";
  strip.channelBits = 8;
  strip.response = {2.2};
  EXPECT_GT(shownBy(strip, {0.0015f, 0.0015f, 0.0015f}).r, 0.001f) << "so does a driver that bends";
}

TEST(StripLook, AWhiteChipByItselfShowsHowBrightAColourIs) {
  StripType strip;
  strip.order = "W";
  const Rgb seen = shownBy(strip, {1, 0.5f, 0.25f});
  EXPECT_NEAR(seen.r, 0.2126 + 0.5 * 0.7152 + 0.25 * 0.0722, 0.01);
  EXPECT_NEAR(seen.r, seen.b, 1e-3);
  EXPECT_NEAR(shownBy(strip, {1, 0, 0}).g, 0.2126, 0.01) << "red is dim, not dark";
}

TEST(StripLook, AMissingChipGivesNothing) {
  StripType strip;
  strip.order = "RG";
  EXPECT_EQ(shownBy(strip, {1, 1, 1}), (Rgb{1, 1, 0}));
}

TEST(StripLook, AWhitePointCostsLightAndKeepsTheHue) {
  StripType strip;
  strip.white = {1, 0.8f, 0.5f};
  const Rgb seen = shownBy(strip, {1, 1, 1});
  EXPECT_NEAR(seen.r, seen.g, 0.01);
  EXPECT_NEAR(seen.g, seen.b, 0.01);
  EXPECT_LT(seen.r, 0.9f);
}

}  // namespace
}  // namespace chispa
