// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <set>

#include "boardshow.h"
#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/effect/effect.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

using test::cellsFor;
using test::run;

/// A picture whose red says the column and whose green says the row, from the upper left.
std::shared_ptr<const Media> numbered(int columns, int rows) {
  auto media = std::make_shared<Media>(Media{columns, rows, 0, 1, {}});
  for (int y = 0; y < rows; ++y)
    for (int x = 0; x < columns; ++x)
      media->rgba.insert(media->rgba.end(),
                         {static_cast<std::uint8_t>(x * 8), static_cast<std::uint8_t>(y * 8), 0, 255});
  return media;
}

float lightOf(int number) {
  return linearFromSrgb(static_cast<float>(number * 8) / 255);
}

/// What of an 8 × 8 picture is shown on a matrix of 8 × 8: at each place from the upper left the column and
/// the row of the dot; −1 for none.
class PictureLays : public testing::Test {
 protected:
  PictureLays() { library_.add("numbers", numbered(8, 8)); }

  std::pair<int, int> dotAt(int column, int rowFromTop, ParamValues values) {
    values["file"] = std::string("numbers");
    if (!values.contains("fit")) values["fit"] = std::string("stretch");
    const ZoneCells cells = cellsFor(GridShape{8, 8, 0.1, 0.1});
    const LightBuffer light = run(*findEffect("picture"), cells, 0, values, library_);
    const std::size_t cell = cells.cellAt(column, 7 - rowFromTop);
    if (light.a[cell] == 0) return {-1, -1};
    const auto number = [](float value) {
      for (int n = 0; n < 32; ++n)
        if (std::abs(lightOf(n) - value) < 1e-4f) return n;
      return -2;
    };
    return {number(light.r[cell]), number(light.g[cell])};
  }

  MediaLibrary library_;
};

TEST_F(PictureLays, IsMirroredTurnedAndTurnedUpsideDown) {
  for (int x = 0; x < 8; ++x)
    for (int y = 0; y < 8; ++y) {
      EXPECT_EQ(dotAt(x, y, {}), std::pair(x, y));
      EXPECT_EQ(dotAt(x, y, {{"mirrored", true}}), std::pair(7 - x, y));
      EXPECT_EQ(dotAt(x, y, {{"upside_down", true}}), std::pair(x, 7 - y));
      // A quarter to the left: what was on the right is on top.
      EXPECT_EQ(dotAt(x, y, {{"turned", 90.0}}), std::pair(7 - y, x));
      EXPECT_EQ(dotAt(x, y, {{"turned", 180.0}}), std::pair(7 - x, 7 - y));
      EXPECT_EQ(dotAt(x, y, {{"turned", -90.0}}), std::pair(y, 7 - x));
    }
}

TEST_F(PictureLays, IsMovedAndCut) {
  EXPECT_EQ(dotAt(4, 2, {{"shift_x", 0.5}}), std::pair(0, 2));
  EXPECT_EQ(dotAt(3, 2, {{"shift_x", 0.5}}), std::pair(-1, -1));
  EXPECT_EQ(dotAt(3, 0, {{"shift_y", -0.25}}), std::pair(-1, -1));
  EXPECT_EQ(dotAt(3, 2, {{"shift_y", -0.25}}), std::pair(3, 0));
  // The left half cut off: the right half fills the zone.
  EXPECT_EQ(dotAt(0, 0, {{"cut_left", 0.5}}), std::pair(4, 0));
  EXPECT_EQ(dotAt(7, 7, {{"cut_left", 0.5}}), std::pair(7, 7));
  EXPECT_EQ(dotAt(0, 7, {{"cut_top", 0.25}, {"cut_bottom", 0.25}}), std::pair(0, 5));
  // Nothing is left: a hundredth of it is.
  EXPECT_NE(dotAt(0, 0, {{"cut_left", 0.95}, {"cut_right", 0.95}}).first, -2);
}

TEST_F(PictureLays, ADotACellIsNotStretched) {
  library_.add("numbers", numbered(4, 2));
  for (int x = 0; x < 8; ++x)
    for (int y = 0; y < 8; ++y) {
      const bool isOn = x >= 2 && x < 6 && y >= 3 && y < 5;
      EXPECT_EQ(dotAt(x, y, {{"fit", std::string("dots")}}),
                isOn ? std::pair(x - 2, y - 3) : std::pair(-1, -1))
          << x << " " << y;
    }
}

/// A tower of 48 strings of 8, seen from outside.
ZoneCells tower() {
  ConeShape shape;
  shape.strings = 48;
  shape.perString = 8;
  shape.bottomRadius_m = shape.topRadius_m = 1;
  shape.height_m = 1;
  shape.start_deg = 0;
  shape.sweep_deg = 360;
  return cellsFor(shape);
}

TEST(RoundPictures, GoRoundATowerOnce) {
  const ZoneCells cells = tower();
  MediaLibrary library;
  library.add("band", numbered(24, 4));
  const LightBuffer light = run(*findEffect("picture"), cells, 0,
                                {{"file", std::string("band")},
                                 {"fit", std::string("stretch")},
                                 {"surface", std::string("round")},
                                 {"begins", 90.0}},
                                library);
  std::set<int> shown;
  for (std::size_t i = 0; i < static_cast<std::size_t>(cells.count()); ++i) {
    // The middle of the picture lies at 90°; eastward, which is backwards from there, lies its left half.
    const double turn = cells.frame.angle_deg(cells.position_m[i]) / 360 - 0.25;
    const double u = turn + 0.5 - std::floor(turn + 0.5);
    const int column = static_cast<int>(std::floor(u * 24 + 1e-6));
    EXPECT_NEAR(light.r[i], lightOf(std::min(23, column)), 0.02f) << i << " " << u;
    shown.insert(column);
    const double v = 1 - (cells.position_m[i].z * 7 + 0.5) / 8;
    EXPECT_NEAR(light.g[i], lightOf(static_cast<int>(v * 4)), 0.02f) << i;
  }
  EXPECT_EQ(shown.size(), 24u);
}

TEST(RoundPictures, RingsAreReadFromAbove) {
  RingsShape rings;
  rings.counts = {24, 32, 40, 48, 56};
  rings.innerRadius_m = 0.3;
  rings.outerRadius_m = 0.7;
  const ZoneCells cells = cellsFor(rings);
  MediaLibrary library;
  library.add("band", numbered(8, 5));
  const LightBuffer light =
      run(*findEffect("picture"), cells, 0,
          {{"file", std::string("band")}, {"fit", std::string("stretch")}, {"surface", std::string("round")}},
          library);
  for (std::size_t i = 0; i < static_cast<std::size_t>(cells.count()); ++i) {
    const double out = (cells.frame.radius_m(cells.position_m[i]) - 0.3) / 0.1;
    EXPECT_NEAR(light.g[i], lightOf(4 - static_cast<int>(std::lround(out))), 0.02f) << "the top lies outside";
  }
}

/// Degrees at which the words' light has its middle.
double middleOfLight(const ZoneCells& cells, const LightBuffer& light) {
  double x = 0, y = 0;
  for (std::size_t i = 0; i < static_cast<std::size_t>(cells.count()); ++i) {
    const double angle = radians(cells.frame.angle_deg(cells.position_m[i]));
    x += static_cast<double>(light.a[i]) * std::cos(angle);
    y += static_cast<double>(light.a[i]) * std::sin(angle);
  }
  return std::atan2(y, x) * 180 / 3.14159265358979;
}

TEST(RoundWords, StandWhereTheyBeginAndGoRound) {
  const ZoneCells cells = tower();
  const auto words = [&](double begins, double t_s, ParamValues more) {
    more["text"] = std::string("HI");
    more["surface"] = std::string("round");
    more["begins"] = begins;
    return run(*findEffect("lettering"), cells, t_s, more);
  };
  for (const double begins : {0.0, 90.0, -120.0}) {
    const LightBuffer light = words(begins, 0, {});
    EXPECT_NEAR(std::remainder(middleOfLight(cells, light) - begins, 360), 0, 15) << begins;
    double lit = 0;
    for (const float a : light.a) lit += static_cast<double>(a);
    EXPECT_GT(lit, 10);
    EXPECT_LT(lit, 120) << "two letters do not fill the tower";
  }
  // They pass by, all the way round.
  std::set<int> quarters;
  for (int i = 0; i < 40; ++i) {
    const LightBuffer light = words(0, 0.15 * i, {{"moves", std::string("pass")}, {"passes", 0.5}});
    quarters.insert(static_cast<int>(std::floor(middleOfLight(cells, light) / 90)));
  }
  EXPECT_EQ(quarters.size(), 4u);
}

TEST(TurnedPalettes, JoinTheirEndToTheirBeginning) {
  const PaletteTable table({PaletteId{1}, "P", {{0, {255, 0, 0}}, {0.5, {0, 255, 0}}, {1, {0, 0, 255}}}});
  const TurnedPalette plain(table), still(table, 0.0), quarter(table, 0.25), whole(table, 3.0);
  for (const float u : {-1.f, 0.f, 0.2f, 0.5f, 0.8f, 0.99f}) {
    EXPECT_EQ(plain.clamped(u), table.clamped(u));
    EXPECT_EQ(still.clamped(u), table.wrapped(std::max(0.f, u)));
    EXPECT_EQ(whole.clamped(u), still.clamped(u));
    EXPECT_EQ(quarter.clamped(u), table.wrapped(std::max(0.f, u) + 0.25f));
    EXPECT_EQ(quarter.wrapped(u), table.wrapped(u + 0.25f));
  }
  // Many at once are as one by one, over the border of a block.
  std::vector<float> places(600), strengths(600, 0.5f), r(600), g(600), b(600);
  for (std::size_t i = 0; i < places.size(); ++i) places[i] = static_cast<float>(i) / 500;
  quarter.clamped(places.data(), strengths.data(), places.size(), r.data(), g.data(), b.data());
  for (std::size_t i = 0; i < places.size(); ++i) {
    EXPECT_EQ(r[i], quarter.clamped(places[i]).r * 0.5f);
    EXPECT_EQ(b[i], quarter.clamped(places[i]).b * 0.5f);
  }
}

TEST(TurnedPalettes, TurnOnAStripAndComeRoundWithTheBar) {
  test::BoardShow made(LineShape{60, 0.1});
  Clip ribbon = made.clip("ribbon", {{"speed", 0.0}, {"passes", 0.0}});
  ribbon.palette = made.palette;
  const auto lightAt = [&](double shift, double turns, Micros t) {
    Clip clip = ribbon;
    clip.paletteShift = shift;
    clip.paletteTurns = turns;
    test::BoardShow own = made;
    const ScoreId id = own.addScoreOf({clip}, Micros(8'000'000));
    const auto compiled = compile(own.show);
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(60);
    renderer.render(*compiled->scoreOf(id), t, frame);
    return frame;
  };
  // A curve over the clip turns it as a fixed turn would.
  const auto movedAt = [&](Micros t) {
    Clip clip = ribbon;
    clip.motions[kPalettePlaceKey] = {Driver::Curve, 0, 1, {{0, 0}, {1, 1}}, 0, {}};
    test::BoardShow own = made;
    const ScoreId id = own.addScoreOf({clip}, Micros(8'000'000));
    const auto compiled = compile(own.show);
    const Micros length = own.show.scores.back()->clips.front()->length;
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(60);
    renderer.render(*compiled->scoreOf(id), t, frame);
    return std::pair(frame, static_cast<double>(t.count()) / static_cast<double>(length.count()));
  };
  const auto [moved, turn] = movedAt(Micros(1'000'000));
  EXPECT_EQ(moved, lightAt(turn, 0, Micros(1'000'000)));
  const PixelFrame start = lightAt(1, 0, Micros(0));
  EXPECT_EQ(lightAt(1, 0, Micros(0)), lightAt(2, 0, Micros(0)));
  EXPECT_NE(lightAt(0.3, 0, Micros(0)), start);
  EXPECT_EQ(lightAt(1, 4, Micros(0)), start);
  EXPECT_NE(lightAt(1, 4, Micros(130'000)), start);
}

}  // namespace
}  // namespace chispa
