// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include <gtest/gtest.h>

#include "core/finders/matrixfinder.h"
#include "core/finders/stripfinders.h"

namespace chispa {
namespace {

/// Answers rightly until the truth is known; returns how many answers that took.
template <class Truth, class Seen>
std::size_t search(Elimination<Truth>& finder, const Truth& truth, Seen seen) {
  while (!finder.isDecided()) {
    const auto question = finder.next();
    if (!question) break;
    finder.answer(*question, seen(truth, *question));
  }
  EXPECT_TRUE(finder.isDecided());
  EXPECT_EQ(finder.left().front(), truth);
  return finder.answers();
}

/// Goes on with the checks, rightly; the finder must not change its mind, and must end.
template <class Truth, class Seen>
void check(Elimination<Truth>& finder, const Truth& truth, Seen seen) {
  for (int checks = 0; checks < 50; ++checks) {
    const auto question = finder.next();
    if (!question) return;
    finder.answer(*question, seen(truth, *question));
    ASSERT_TRUE(finder.isDecided());
    ASSERT_EQ(finder.left().front(), truth);
  }
  FAIL() << "it does not end";
}

const std::string kColours = "RGBW";
int orderSeen(const std::string& order, int channel) {
  if (channel >= static_cast<int>(order.size())) return kSecondPixel;
  return static_cast<int>(kColours.find(order[static_cast<std::size_t>(channel)]));
}

TEST(ColourOrderFinder, DecidesEveryOrderInThreeAnswers) {
  for (const bool withWhite : {false, true})
    for (std::string letters : {std::string("BGR"), std::string("BGRW")}) {
      if (letters.size() == 4 && !withWhite) continue;
      std::sort(letters.begin(), letters.end());
      do {
        auto finder = colourOrderFinder(withWhite);
        EXPECT_LE(search(finder, letters, orderSeen), 3u) << letters;
        check(finder, letters, orderSeen);
      } while (std::next_permutation(letters.begin(), letters.end()));
    }
}

TEST(ColourOrderFinder, OneWrongAnswerIsNoticedOnAnRgbStrip) {
  std::string order = "BGR";
  do
    for (int lie = 0; lie < 3; ++lie)
      for (int wrong = 0; wrong < 3; ++wrong) {
        auto finder = colourOrderFinder(false);
        int asked = 0;
        bool lied = false;
        while (const auto question = finder.next()) {
          const int right = orderSeen(order, *question);
          const bool lies = asked++ == lie && wrong != right;
          lied = lied || lies;
          finder.answer(*question, lies ? wrong : right);
        }
        EXPECT_TRUE(lied ? finder.isContradicted() : finder.isDecided())
            << order << ' ' << lie << ' ' << wrong;
      }
  while (std::next_permutation(order.begin(), order.end(), std::greater<>()));
}

TEST(ColourOrderFinder, AnAnswerIsTakenBack) {
  auto finder = colourOrderFinder(false);
  const int first = *finder.next();
  finder.answer(first, 0);
  finder.answer(*finder.next(), 0);
  EXPECT_TRUE(finder.isContradicted()) << "two channels cannot both be red";
  finder.takeBack();
  EXPECT_EQ(finder.left().size(), 2u);
}

TEST(DirectionFinder, TellsBothEndsAndChecksWithTheOther) {
  const auto seen = [](bool isFar, int question) { return isFar == (question == 0) ? 1 : 0; };
  for (const bool isFar : {false, true}) {
    auto finder = directionFinder();
    EXPECT_EQ(search(finder, isFar, seen), 1u);
    EXPECT_EQ(*finder.next(), 1);
    finder.answer(1, 1 - seen(isFar, 1));
    EXPECT_TRUE(finder.isContradicted()) << "both ends cannot be the near one";
  }
}

TEST(SkippedFinder, TellsEveryNumber) {
  for (int skipped = 0; skipped <= 20; ++skipped) {
    auto finder = skippedFinder(20);
    EXPECT_EQ(search(finder, skipped, [](int s, int pixel) { return s + pixel; }), 1u);
  }
}

TEST(CountFinder, FindsEveryCountInTenAnswersAndChecksIt) {
  constexpr int kMax = 1000;
  const auto seen = [](int count, int question) {
    return question < kMax ? (question < count ? 1 : 0) : std::clamp(count - (question - kMax), 0, 2);
  };
  for (int count = 0; count <= kMax; count += count < 6 || count > 990 ? 1 : 123) {
    auto finder = countFinder(kMax);
    EXPECT_LE(search(finder, count, seen), 10u) << count;
    check(finder, count, seen);
  }
}

TEST(CountFinder, OneWrongAnswerIsNoticed) {
  constexpr int kMax = 40;
  const auto seen = [](int count, int question) {
    return question < kMax ? (question < count ? 1 : 0) : std::clamp(count - (question - kMax), 0, 2);
  };
  for (int count = 0; count <= kMax; ++count)
    for (int lie = 0; lie < 6; ++lie) {
      auto finder = countFinder(kMax);
      for (int asked = 0; const auto question = finder.next(); ++asked) {
        const int right = seen(count, *question);
        finder.answer(*question, asked == lie ? 1 - std::min(right, 1) : right);
      }
      const bool isRight = finder.isDecided() && finder.left().front() == count;
      EXPECT_TRUE(isRight || finder.isContradicted()) << count << " with answer " << lie << " wrong";
    }
}

TEST(GroupingFinder, TellsHowManyLightTogether) {
  for (int grouping = 1; grouping <= 20; ++grouping) {
    auto finder = groupingFinder(20);
    EXPECT_EQ(search(finder, grouping, [](int g, int value) { return 1000 * g * value + g; }), 1u);
  }
}

TEST(MatrixFinder, FindsEveryWiringInFivePictures) {
  for (const int pixels : {16, 64, 96, 240, 256, 384, 768}) {
    std::vector<MatrixPicture> pictures;
    const auto all = matrixFinder(pixels, pictures).left();
    ASSERT_FALSE(all.empty());
    for (const MatrixWiring& truth : all) {
      auto finder = matrixFinder(pixels, pictures);
      const auto seen = [&](const MatrixWiring& wiring, int question) {
        const MatrixPicture& picture = pictures[static_cast<std::size_t>(question)];
        if (picture.kind == MatrixPicture::Kind::Head)
          return 2 * static_cast<int>(wiring.start) + (wiring.runs == GridRuns::AlongColumns ? 1 : 0);
        if (picture.kind == MatrixPicture::Kind::Return) return wiring.isSerpentine ? 1 : 0;
        const int begun = (picture.pixels + wiring.line() - 1) / wiring.line();
        return begun >= 6 ? 12 : 2 * begun + (picture.pixels % wiring.line() == 0 ? 1 : 0);
      };
      EXPECT_LE(search(finder, truth, seen), 5u) << truth.columns << " x " << truth.rows;
    }
  }
}

}  // namespace
}  // namespace chispa
