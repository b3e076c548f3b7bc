// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/difference.h"

#include <gtest/gtest.h>

namespace chispa {
namespace {

struct Pair {
  CieLab one;
  CieLab other;
  double difference;
};

// From the test data of Sharma, Wu, Dalal: The CIEDE2000 Color-Difference Formula (2005), table 1.
constexpr Pair kPairs[] = {
    {{50, 2.6772, -79.7751}, {50, 0, -82.7485}, 2.0425},
    {{50, 3.1571, -77.2803}, {50, 0, -82.7485}, 2.8615},
    {{50, 2.8361, -74.0200}, {50, 0, -82.7485}, 3.4412},
    {{50, -1.3802, -84.2814}, {50, 0, -82.7485}, 1.0000},
    {{50, -1.1848, -84.8006}, {50, 0, -82.7485}, 1.0000},
    {{50, -0.9009, -85.5211}, {50, 0, -82.7485}, 1.0000},
    {{50, 0, 0}, {50, -1, 2}, 2.3669},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0009}, 7.1792},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0011}, 7.2195},
    {{50, -0.0010, 2.4900}, {50, 0.0009, -2.4900}, 4.8045},
    {{50, 2.5, 0}, {50, 0, -2.5}, 4.3065},
    {{50, 2.5, 0}, {73, 25, -18}, 27.1492},
    {{50, 2.5, 0}, {61, -5, 29}, 22.8977},
    {{50, 2.5, 0}, {56, -27, -3}, 31.9030},
    {{50, 2.5, 0}, {58, 24, 15}, 19.4535},
    {{60.2574, -34.0099, 36.2677}, {60.4626, -34.1751, 39.4387}, 1.2644},
    {{63.0109, -31.0961, -5.8663}, {62.8187, -29.7946, -4.0864}, 1.2630},
    {{22.7233, 20.0904, -46.6940}, {23.0331, 14.9730, -42.5619}, 2.0373},
    {{6.7747, -0.2908, -2.4247}, {5.8714, -0.0985, -2.2286}, 0.6377},
    {{2.0776, 0.0795, -1.1350}, {0.9033, -0.0636, -0.5514}, 0.9082},
};

TEST(Difference, IsThatOfThePaper) {
  for (const Pair& pair : kPairs) {
    EXPECT_NEAR(deltaE2000(pair.one, pair.other), pair.difference, 1e-4);
    EXPECT_NEAR(deltaE2000(pair.other, pair.one), pair.difference, 1e-4);
  }
}

TEST(Difference, OfColoursBeginsAtTheWhiteOfScreens) {
  const CieLab white = toCieLab({1, 1, 1});
  EXPECT_NEAR(white.lightness, 100, 1e-3);
  EXPECT_NEAR(white.a, 0, 0.02);
  EXPECT_NEAR(white.b, 0, 0.02);
  EXPECT_EQ(deltaE2000(toCieLab({}), toCieLab({})), 0);
  EXPECT_GT(deltaE2000(toCieLab({1, 0, 0}), toCieLab({0, 1, 0})), 50);
}

}  // namespace
}  // namespace chispa
