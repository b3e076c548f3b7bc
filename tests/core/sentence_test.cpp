// SPDX-License-Identifier: GPL-3.0-or-later
// Sentences: their places are filled in any order and in any language.
#include "core/base/sentence.h"

#include <gtest/gtest.h>

namespace chispa {
namespace {

TEST(Sentence, PutsNamesAndNumbersIntoItsPlaces) {
  EXPECT_EQ(sentence("%1 gives %2 V.", std::string("Supply"), 5).text(), "Supply gives 5 V.");
  EXPECT_EQ(Sentence("Nothing feeds it.").text(), "Nothing feeds it.");
}

TEST(Sentence, AnotherLanguageMayTurnTheOrderRound) {
  EXPECT_EQ(sentence("%1 of %2", 3, 8).filled("de %2, %1"), "de 8, 3");
}

TEST(Sentence, WhatStandsInAPlaceIsNotFilledItself) {
  EXPECT_EQ(sentence("“%1” is gone.", std::string("%1")).text(), "“%1” is gone.");
  EXPECT_EQ(sentence("%1 and %2", std::string("a"), std::string("100%1")).text(), "a and 100%1");
  EXPECT_EQ(sentence("%1 % of %2 %", 5, 8).text(), "5 % of 8 %");
}

TEST(Sentence, MoreThanNinePlacesKeepApart) {
  EXPECT_EQ(sentence("%1 %2 %3 %4 %5 %6 %7 %8 %9 %10", 1, 2, 3, 4, 5, 6, 7, 8, 9, 10).text(),
            "1 2 3 4 5 6 7 8 9 10");
}

TEST(Sentence, ANameIsNoSentence) {
  EXPECT_EQ(Sentence(std::string("Sun")).id, "%1") << "no catalogue has it";
  EXPECT_EQ(Sentence(std::string("Sun")).text(), "Sun");
}

}  // namespace
}  // namespace chispa
