// SPDX-License-Identifier: GPL-3.0-or-later
#include <random>

#include <gtest/gtest.h>

#include "core/files/svgfile.h"
#include "core/shape/polyline.h"

namespace chispa {
namespace {

SvgDrawing drawing(const std::string& content,
                   const std::string& head = R"(width="100mm" height="100mm" viewBox="0 0 100 100")") {
  auto read =
      parseSvg("<svg xmlns=\"http://www.w3.org/2000/svg\" " + head + ">" + content + "</svg>", "panel.svg");
  EXPECT_TRUE(read) << (read ? "" : read.failure().text());
  return read ? *read : SvgDrawing{};
}

std::string complaint(const std::string& content) {
  const auto read = parseSvg("<svg>" + content + "</svg>", "panel.svg");
  EXPECT_FALSE(read) << content;
  return read ? "" : read.failure().what.text();
}

void expectAt(Vec3 p, double x, double y) {
  EXPECT_NEAR(p.x, x, 1e-6);
  EXPECT_NEAR(p.y, y, 1e-6);
}

TEST(Svg, HolesAreReadInMetresWithYUp) {
  const auto holes =
      drawing(R"svg(<circle cx="10" cy="10" r="2.5"/><circle cx="50" cy="40" r="2.5"/>)svg").circles;
  ASSERT_EQ(holes.size(), 2u);
  EXPECT_NEAR(holes[0].radius_m, 0.0025, 1e-9);
  expectAt(holes[0].centre_m, 0.0025, 0.0325);
  expectAt(holes[1].centre_m, 0.0425, 0.0025);
}

TEST(Svg, UnitsComeFromTheDrawingOrFromTheMaker) {
  const std::string two = R"svg(<circle cx="0" cy="0" r="1"/><circle cx="96" cy="0" r="1"/>)svg";
  const auto apart = [](const SvgDrawing& d) { return d.circles[1].centre_m.x - d.circles[0].centre_m.x; };
  EXPECT_NEAR(apart(drawing(two, "")), 0.0254, 1e-9);
  EXPECT_NEAR(apart(drawing(two, R"(width="9.6cm" viewBox="0 0 192 10")")), 0.048, 1e-9);
  EXPECT_NEAR(apart(*parseSvg("<svg>" + two + "</svg>", "x", 0.001)), 0.096, 1e-9);
}

TEST(Svg, GroupsAndTransformsCompose) {
  const auto holes =
      drawing(
          R"svg(<g transform="translate(20,0) rotate(90)"><g transform="scale(2)"><circle id="a" cx="5" cy="0" r="1"/></g></g>
                               <circle id="b" cx="0" cy="0" r="2"/><circle id="c" transform="matrix(1 0 0 1 30 0) skewX(0)" cx="0" cy="0" r="2"/>)svg")
          .circles;
  ASSERT_EQ(holes.size(), 3u);
  const Vec3 a = holes[0].centre_m - holes[1].centre_m;
  expectAt(a, 0.020, -0.010);
  expectAt(holes[2].centre_m - holes[1].centre_m, 0.030, 0);
}

TEST(Svg, CirclesDrawnAsPathsAreHolesToo) {
  const auto d = drawing(R"svg(<path d="M 10 5 A 5 5 0 1 1 0 5 A 5 5 0 1 1 10 5 Z"/>
      <path d="M30,5 c0,2.761 -2.239,5 -5,5 s-5,-2.239 -5,-5 s2.239,-5 5,-5 s5,2.239 5,5 z"/><ellipse cx="50" cy="5" rx="5" ry="2"/>)svg");
  EXPECT_EQ(d.circles.size(), 2u);
  EXPECT_EQ(d.outlines.size(), 1u) << "an ellipse is no hole";
}

TEST(Svg, EveryPathCommandIsFollowed) {
  const auto d = drawing(
      R"svg(<path d="M0 0h10v10H0V0z m20,0 10,0 0,10 M50 0 L60 0 q5 0 5 5 t5 5 C 70 20 80 20 80 10 S 90 0 90 10 a 5 5 0 0110 0"/>
      <rect x="1" y="2" width="3" height="4"/><line x1="0" y1="0" x2="7" y2="0"/><polygon points="0,0 4,0 4,3"/>)svg");
  ASSERT_EQ(d.outlines.size(), 6u);
  EXPECT_NEAR(polylineLength_m(d.outlines[0].corners_m), 0.040, 1e-9);
  EXPECT_NEAR(polylineLength_m(d.outlines[1].corners_m), 0.020, 1e-9);
  expectAt(d.outlines[2].corners_m.back() - d.outlines[2].corners_m.front(), 0.050, -0.010);
  EXPECT_NEAR(polylineLength_m(d.outlines[3].corners_m), 0.014, 1e-9);
  EXPECT_NEAR(polylineLength_m(d.outlines[5].corners_m), 0.012, 1e-9);
  EXPECT_EQ(d.outlines[5].corners_m.front(), d.outlines[5].corners_m.back());
}

TEST(Svg, AnArcHasItsLength) {
  const auto d = drawing(R"svg(<path d="M 0 0 A 10 10 0 0 1 20 0"/><path d="M 0 0 A 1 1 0 0 1 20 0"/>)svg");
  for (const Outline& half : d.outlines)
    EXPECT_NEAR(polylineLength_m(half.corners_m), 0.01 * kPi, 1e-4) << "radii too small are grown";
}

TEST(Svg, HolesAreOrderedByNeighbourOrById) {
  const auto d = drawing(
      R"svg(<circle id="led10" cx="30" cy="0" r="1"/><circle id="led2" cx="0" cy="0" r="1"/><circle id="led1" cx="20" cy="0" r="1"/><circle id="led3" cx="10" cy="0" r="1"/>)svg");
  const auto xs = [](const std::vector<Vec3>& points) {
    std::vector<long> all;
    for (const Vec3& p : points) all.push_back(std::lround((p.x - 0.001) * 1000));
    return all;
  };
  EXPECT_EQ(xs(holesInOrder(d, HoleOrder::Nearest)), (std::vector<long>{0, 10, 20, 30}));
  EXPECT_EQ(xs(holesInOrder(d, HoleOrder::ById)), (std::vector<long>{20, 0, 10, 30}));
}

TEST(Svg, WhatIsWrongIsSaidWithItsPlace) {
  EXPECT_NE(complaint(R"svg(<path id="rim" d="M 0 0 L 10"/>)svg")
                .find("<path id=\"rim\">: at character 11 a number is missing"),
            std::string::npos);
  EXPECT_NE(complaint(R"svg(<path d="L 3 3"/>)svg").find("a move"), std::string::npos);
  EXPECT_NE(complaint(R"svg(<path d="M 0 0 X 3 3"/>)svg").find("X"), std::string::npos);
  EXPECT_NE(complaint(R"svg(<g transform="turn(3)"><circle r="1"/></g>)svg").find("no transform"),
            std::string::npos);
  EXPECT_NE(complaint(R"svg(<circle cx="1e300" r="1"/>)svg").find("number"), std::string::npos);
  EXPECT_NE(complaint("<text>hello</text>").find("neither"), std::string::npos);
  EXPECT_FALSE(parseSvg("<svg><circle", "x"));
  EXPECT_FALSE(parseSvg("", "x"));
  EXPECT_FALSE(parseSvg("<html/>", "x"));
  std::string deep;
  for (int i = 0; i < 5000; ++i) deep += "<g>";
  EXPECT_FALSE(parseSvg("<svg>" + deep + "</svg>", "x"));
}

/// Whatever is damaged, reading ends, and either says why or gives finite places.
TEST(Svg, RandomDamageIsSurvived) {
  const std::string good =
      R"svg(<svg width="10mm" viewBox="0 0 10 10"><g transform="rotate(30 1 2)"><path d="M0 0a5 5 0 01 5 5q1 2 3 4t5 5zC1 2 3 4 5 6"/><circle r="2"/></g></svg>)svg";
  std::mt19937 random(1);
  for (int round = 0; round < 3000; ++round) {
    std::string bad = good;
    for (int n = 1 + round % 4; n > 0; --n) bad[random() % bad.size()] = static_cast<char>(random() % 128);
    const auto read = parseSvg(bad, "x");
    if (!read) continue;
    for (const Outline& outline : read->outlines)
      for (const Vec3& p : outline.corners_m) ASSERT_TRUE(std::isfinite(p.x) && std::isfinite(p.y)) << bad;
  }
}

}  // namespace
}  // namespace chispa
