// SPDX-License-Identifier: GPL-3.0-or-later
// Set lists: the order in which pieces play.
#include <map>
#include <set>

#include <gtest/gtest.h>

#include "core/check/problems.h"
#include "core/edit/setlistedits.h"
#include "core/files/showjson.h"
#include "core/setlist/setlistwalk.h"

namespace chispa {
namespace {

class SetLists : public testing::Test {
 protected:
  SetLists() {
    for (const char* name : {"a", "b", "c"}) {
      Score score;
      score.id = show_.newId<ScoreId>();
      score.name = name;
      score.length = Micros((1 + static_cast<int>(show_.scores.size())) * 10'000'000);
      put(show_.scores, score);
    }
    Look look;
    look.id = show_.newId<LookId>();
    look.name = "l";
    put(show_.looks, look);
    list_ = addSetList(show_, "Evening");
  }
  void add(SetListId list, const char* what, void (*alter)(SetListItem&) = nullptr) {
    SetListItem line;
    if (const Score* score = findNamed(show_.scores, what)) line = lineOf(score->id);
    if (const Look* look = findNamed(show_.looks, what)) line = lineOf(look->id);
    if (const SetList* inner = findNamed(show_.setLists, what)) line = lineOf(inner->id);
    if (std::string(what) == "-") line = lineOfSilence(Micros(5'000'000));
    if (alter) alter(line);
    insertLines(show_, list, 1'000'000, {line});
  }
  void change(SetListId list, void (*how)(SetList&)) { changeItem(show_.setLists, list, how); }
  std::string nameOf(const Piece& piece) const {
    if (piece.kind == PieceKind::Silence) return "-";
    return piece.kind == PieceKind::Look ? find(show_.looks, piece.look)->name
                                         : find(show_.scores, piece.score)->name;
  }
  /// The first `most` pieces; "." for the end.
  std::string played(SetListWalk walk, int most = 12) const {
    std::string all;
    for (int i = 0; i < most; ++i) {
      if (!walk.now()) return all + ".";
      all += nameOf(*walk.now());
      walk.next();
    }
    return all;
  }
  SetListWalk walk(std::uint64_t seed = 1) const { return {shared(), list_, seed}; }
  std::shared_ptr<const Show> shared() const { return std::make_shared<const Show>(show_); }

  Show show_;
  SetListId list_;
};

TEST_F(SetLists, PlayInOrderWithRepeatsAndRounds) {
  add(list_, "a");
  add(list_, "-");
  add(list_, "b", [](SetListItem& line) { line.repeats = 2; });
  EXPECT_EQ(played(walk()), "a-bb.");
  change(list_, [](SetList& list) { list.rounds = 2; });
  EXPECT_EQ(played(walk()), "a-bba-bb.");
  change(list_, [](SetList& list) { list.rounds = 0; });
  EXPECT_EQ(played(walk()), "a-bba-bba-bb");
}

TEST_F(SetLists, ListsStandInListsButNotInThemselves) {
  const SetListId inner = addSetList(show_, "Inner");
  add(inner, "b");
  add(inner, "c");
  change(inner, [](SetList& list) { list.rounds = 2; });
  add(list_, "a");
  add(list_, "Inner", [](SetListItem& line) { line.repeats = 2; });
  add(list_, "l");
  EXPECT_EQ(played(walk()), "abcbcbcbcl.");
  EXPECT_EQ(*roundLength(show_, list_), Micros((10 + 4 * 50 + 60) * 1'000'000));
  add(inner, "Evening");
  EXPECT_EQ(played(walk()), "abcbcbcbcl.") << "what stands in itself is left out";
  EXPECT_FALSE(roundLength(show_, list_));
  const auto problems = findProblems(show_, [](const std::string&) { return true; });
  EXPECT_EQ(std::count_if(
                problems.begin(), problems.end(),
                [](const Problem& p) { return p.what.text().find("stands in itself") != std::string::npos; }),
            2);
}

TEST_F(SetLists, WhatFollowsAPieceIsWhatItsLineSays) {
  add(list_, "a", [](SetListItem& line) { line.then = AfterPiece::Stay; });
  add(list_, "b", [](SetListItem& line) { line.then = AfterPiece::Stop; });
  add(list_, "c");
  SetListWalk own = walk();
  EXPECT_FALSE(own.now()->length) << "it stays until someone goes on";
  own.skip();
  EXPECT_EQ(nameOf(*own.now()), "b");
  own.next();
  EXPECT_FALSE(own.now());
  change(list_, [](SetList& list) { list.rounds = 0; });
  own = walk();
  own.skip();
  own.next();
  EXPECT_FALSE(own.now()) << "a list that would go on for ever ends there too";
}

TEST_F(SetLists, ARandomOneIsNeverTheOneJustPlayed) {
  for (const char* name : {"a", "b", "c", "l"})
    add(list_, name, [](SetListItem& line) { line.then = AfterPiece::Random; });
  std::map<std::string, int> counts;
  SetListWalk own = walk(7);
  std::string before;
  for (int i = 0; i < 4'000; ++i) {
    const std::string now = nameOf(*own.now());
    EXPECT_NE(now, before);
    ++counts[before = now];
    own.next();
  }
  for (const auto& [name, count] : counts) EXPECT_NEAR(count, 1'000, 150) << name;
}

TEST_F(SetLists, AShuffledListPlaysAllOfItselfInEachRound) {
  for (const char* name : {"a", "b", "c", "l"}) add(list_, name);
  change(list_, [](SetList& list) {
    list.isShuffled = true;
    list.rounds = 0;
  });
  std::set<std::string> orders;
  SetListWalk own = walk(3);
  for (int round = 0; round < 100; ++round) {
    std::string order;
    for (int i = 0; i < 4; ++i, own.next()) order += nameOf(*own.now());
    orders.insert(order);
    std::sort(order.begin(), order.end());
    EXPECT_EQ(order, "abcl");
  }
  EXPECT_GT(orders.size(), 15u);
  EXPECT_EQ(played(walk(3)), played(walk(3))) << "the same seed, the same order";
}

TEST_F(SetLists, SkipBackJumpAndAfterThisOne) {
  for (const char* name : {"a", "b", "c", "l"}) add(list_, name);
  SetListWalk own = walk();
  own.skip();
  own.skip();
  EXPECT_EQ(nameOf(*own.now()), "c");
  own.back();
  EXPECT_EQ(nameOf(*own.now()), "b");
  own.jump(3);
  EXPECT_EQ(nameOf(*own.now()), "l");
  own.jump(0);
  own.playNext(3);
  EXPECT_EQ(nameOf(*own.coming()), "l");
  EXPECT_EQ(played(own), "albcl.");
  own.back();
  own.back();
  own.back();
  own.back();
  own.back();
  EXPECT_EQ(nameOf(*own.now()), "a") << "before the first there is nothing";
}

TEST_F(SetLists, ThePlaceAfterATimeIsThatOfPlayingAlong) {
  for (const char* name : {"a", "b", "-", "c"}) add(list_, name);
  change(list_, [](SetList& list) {
    list.rounds = 0;
    list.isShuffled = true;
  });
  SetListWalk along = walk(9);
  Micros begun{0};
  for (Micros at{0}; at < Micros(600'000'000); at += Micros(777'777)) {
    while (at - begun >= *along.now()->length) {
      begun += *along.now()->length;
      along.next();
    }
    const auto place = SetListWalk::at(shared(), list_, 9, at);
    ASSERT_EQ(place.walk.now(), along.now());
    ASSERT_EQ(place.played, at - begun);
  }
}

TEST_F(SetLists, EmptyListsAndThoseOfNothingEnd) {
  EXPECT_FALSE(walk().now());
  change(list_, [](SetList& list) { list.rounds = 0; });
  add(list_, "a");
  remove(show_.scores, find(show_.setLists, list_)->items[0].score);
  EXPECT_FALSE(walk().now());
  EXPECT_FALSE(SetListWalk(shared(), SetListId{9999}, 1).now());
}

TEST_F(SetLists, LinesAreMovedAndDeleted) {
  for (const char* name : {"a", "b", "c", "l"}) add(list_, name);
  moveLine(show_, list_, 0, 3);
  EXPECT_EQ(played(walk()), "bcal.");
  moveLine(show_, list_, 3, 0);
  EXPECT_EQ(played(walk()), "lbca.");
  deleteLine(show_, list_, 1);
  deleteLine(show_, list_, 99);
  EXPECT_EQ(played(walk()), "lca.");
}

TEST_F(SetLists, AreWrittenAndReadBack) {
  add(list_, "a", [](SetListItem& line) {
    line.repeats = 3;
    line.fade = Micros(1'500'000);
    line.then = AfterPiece::Random;
  });
  add(list_, "l");
  show_.almanac = {"Somewhere", 41.25, 2.5, "Europe/Madrid", findNamed(show_.looks, "l")->id};
  const RuleId rule = addRule(show_, "Winter");
  changeItem(show_.rules, rule, [](Rule& r) {
    r.days = {96, "11-28", "01-06", {}, {"12-25"}};
    r.from = {NightTimeKind::Sunset, -20};
    r.until = {NightTimeKind::Sunrise, 0};
    r.priority = 4;
  });
  const auto again = parseShow(showText(show_), "a test");
  ASSERT_TRUE(again);
  EXPECT_TRUE(*again == show_) << showText(*again);
}

TEST_F(SetLists, DaysThatAreNoneAreLeftUnread) {
  addRule(show_, "Winter");
  std::string text = showText(show_);
  const auto at = text.find("\"from\"", text.find("\"rules\""));
  text.insert(at, "\"days\": {\"first\": \"02-30\"}, ");
  const auto read = parseShow(text, "a test");
  ASSERT_TRUE(read);
  EXPECT_TRUE(read->rules.empty());
  ASSERT_EQ(read->unread.size(), 1u);
  EXPECT_NE(read->unread[0].reason.find("no day of the calendar"), std::string::npos)
      << read->unread[0].reason;
}

}  // namespace
}  // namespace chispa
