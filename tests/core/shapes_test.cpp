// SPDX-License-Identifier: GPL-3.0-or-later
// Shapes on a matrix: their areas are those of geometry, wherever they stand and however they are turned.
#include <cmath>
#include <numeric>

#include "effecttrial.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

using test::cellsFor;

constexpr int kColumns = 60;
constexpr int kRows = 40;

LightBuffer shown(const ParamValues& values, const ZoneCells& cells) {
  const Effect* effect = findEffect("shapes");
  return test::run(*effect, cells, 0, values);
}

/// Lit cells, parts of cells counted as such.
double areaOf(const ParamValues& values) {
  const LightBuffer light = shown(values, cellsFor(GridShape{kColumns, kRows, 0.05, 0.05}));
  return std::accumulate(light.a.begin(), light.a.end(), 0.0,
                         [](double sum, float a) { return sum + static_cast<double>(a); });
}

ParamValues shape(const char* kind, double wide, double high, double line = 0) {
  return {{"shape", std::string(kind)}, {"wide", wide}, {"high", high}, {"line", line}};
}

TEST(Shapes, HaveTheAreasOfGeometry) {
  // Half extents in cells.
  constexpr double kX = 0.5 * kColumns / 2, kY = 0.6 * kRows / 2;
  const std::pair<const char*, double> areas[] = {
      {"rectangle", 4 * kX * kY},
      {"ellipse", kPi * kX * kY},
      {"triangle", 2 * kX * kY},
      {"pentagon", 2.5 * std::sin(2 * kPi / 5) * kX * kY},
      {"hexagon", 3 * std::sin(kPi / 3) * kX * kY},
      {"octagon", 4 * std::sin(kPi / 4) * kX * kY},
      {"star", 10 * 0.5 * 0.382 * std::sin(kPi / 5) * kX * kY},
  };
  for (const auto& [kind, area] : areas)
    for (const double turned : {0.0, 30.0, -100.0}) {
      ParamValues values = shape(kind, 0.5, 0.6);
      values["turned"] = turned;
      EXPECT_NEAR(areaOf(values), area, 0.02 * area + 1.5) << kind << " turned " << turned;
    }
}

TEST(Shapes, ALineIsAsLongAndAsThickAsItSays) {
  // Half of the width long, a tenth of the height thick, with round ends.
  constexpr double kThick = 0.1 * kRows;
  const double area = 0.5 * kColumns * kThick + kPi * kThick * kThick / 4;
  EXPECT_NEAR(areaOf(shape("line", 0.5, 0, 0.1)), area, 0.03 * area);
}

TEST(Shapes, AnOutlineIsABandAboutTheEdge) {
  constexpr double kThick = 0.1 * kRows;
  constexpr double kX = 0.5 * kColumns, kY = 0.6 * kRows;
  // The outer corners are round.
  const double area = 2 * (kX + kY) * kThick - 4 * kThick * kThick / 4 + kPi * kThick * kThick / 4;
  EXPECT_NEAR(areaOf(shape("rectangle", 0.5, 0.6, 0.1)), area, 0.04 * area);
}

/// What moves a little changes the light a little: no steps.
TEST(Shapes, MoveWithoutSteps) {
  const ZoneCells cells = cellsFor(GridShape{kColumns, kRows, 0.05, 0.05});
  for (const char* kind : {"point", "line", "rectangle", "ellipse", "star"}) {
    ParamValues values = shape(kind, 0.3, 0.3);
    LightBuffer last = shown(values, cells);
    for (int i = 1; i <= 60; ++i) {
      // A tenth of a cell.
      values["x"] = 0.5 + i * 0.1 / kColumns;
      const LightBuffer light = shown(values, cells);
      for (std::size_t k = 0; k < light.a.size(); ++k)
        ASSERT_LE(std::abs(light.a[k] - last.a[k]), 0.16f) << kind;
      last = light;
    }
  }
}

TEST(Shapes, StandWhereTheyAreTold) {
  const ZoneCells cells = cellsFor(GridShape{kColumns, kRows, 0.05, 0.05});
  ParamValues values = shape("ellipse", 0.2, 0.2);
  values["x"] = 0.25;
  values["y"] = 0.75;
  const LightBuffer light = shown(values, cells);
  double sum = 0, x = 0, y = 0;
  for (std::size_t i = 0; i < light.a.size(); ++i) {
    const auto a = static_cast<double>(light.a[i]);
    sum += a;
    x += a * static_cast<double>(cells.column[i]);
    y += a * static_cast<double>(cells.row[i]);
  }
  EXPECT_NEAR((x / sum + 0.5) / kColumns, 0.25, 0.01);
  EXPECT_NEAR((y / sum + 0.5) / kRows, 0.75, 0.01);
}

}  // namespace
}  // namespace chispa
