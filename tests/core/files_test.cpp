// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>
#include <random>

#include "carousel/carousel.h"
#include "temporary.h"
#include <fcntl.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>
#include <sys/file.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/check/problems.h"
#include "core/edit/planedits.h"
#include "core/files/journal.h"
#include "core/files/showfile.h"
#include "core/files/showjson.h"
#include "core/show/history.h"
#include "core/zone/pixelmap.h"

namespace chispa {
namespace {

std::vector<Problem> problemsOf(const Show& show) {
  return findProblems(show, [](const std::string&) { return true; });
}

TEST(ShowFile, SaveAndLoadGiveTheSameShow) {
  const test::TemporaryFolder folder;
  const Show show = demo::carousel();
  ASSERT_TRUE(saveShow(folder.path() / "a.chispa", show));
  const auto loaded = loadShow(folder.path() / "a.chispa");
  ASSERT_TRUE(loaded);
  EXPECT_EQ(*loaded, show);
  EXPECT_EQ(showText(*loaded), showText(show));
}

/// Effects have other names than when older shows were saved.
TEST(ShowFile, OldNamesOfEffectsAreReadAsTodays) {
  std::string text = showText(demo::carousel());
  const auto rename = [&](const std::string& today, const std::string& before) {
    const std::string from = "\"effect\": \"" + today + "\"", to = "\"effect\": \"" + before + "\"";
    std::size_t count = 0;
    for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; ++count)
      text.replace(at, from.size(), to);
    return count;
  };
  ASSERT_GT(rename("vanes", "pinwheel") + rename("unveil", "curtain") + rename("toss", "juggle"), 3u);
  const auto read = parseShow(text, "old.chispa");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, demo::carousel());
}

TEST(ShowFile, TheCommittedDemoIsWhatItsProgramMakes) {
  const auto committed = loadShow(std::string(CHISPA_SOURCE_DIR) + "/demo/carousel.chispa");
  ASSERT_TRUE(committed);
  EXPECT_EQ(showText(*committed), showText(demo::carousel()));
}

TEST(ShowFile, SavingLeavesNoHalfFileBehind) {
  const test::TemporaryFolder folder;
  ASSERT_TRUE(saveShow(folder.path() / "a.chispa", demo::carousel()));
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);
  EXPECT_FALSE(saveShow(folder.path() / "no" / "such" / "folder.chispa", Show{}));
}

TEST(ShowFile, EveryTruncationIsAFailureWithAPlace) {
  const std::string text = showText(demo::carousel());
  for (std::size_t length = 0; length < text.size() - 2; length += 997) {
    const auto read = parseShow(text.substr(0, length), "cut.chispa");
    ASSERT_FALSE(read) << length;
    EXPECT_EQ(read.failure().where, "cut.chispa");
    EXPECT_FALSE(read.failure().cure.text().empty());
  }
}

/// Bytes that lie: the loader answers with a show or a failure, never with a crash or an exception.
TEST(ShowFile, RandomDamageNeverCrashes) {
  const std::string text = showText(demo::carousel());
  std::mt19937 random(23);
  for (int round = 0; round < 300; ++round) {
    std::string damaged = text;
    for (int i = 0; i < 8; ++i)
      damaged[std::uniform_int_distribution<std::size_t>(0, damaged.size() - 1)(random)] =
          static_cast<char>(random() & 127);
    const auto read = parseShow(damaged, "x");
    if (read) {
      problemsOf(*read);
      mapPixels(*read);
    }
  }
}

TEST(ShowFile, ANewerFormatIsRefusedWithItsNumber) {
  const auto read = parseShow(R"({"format": "chispa-show", "version": 99})", "new.chispa");
  ASSERT_FALSE(read);
  EXPECT_NE(read.failure().what.text().find("99"), std::string::npos);
}

TEST(ShowFile, AnUnreadablePartIsKeptWhereItStood) {
  const std::string text = R"({"format": "chispa-show", "version": 1, "fixtures": [
    {"id": 1, "name": "A", "segments": [{"name": "s", "shape": {"kind": "line", "count": 5, "pitch_m": 0.1}}]},
    {"id": 2, "name": "Knot", "segments": [{"name": "s", "shape": {"kind": "trefoil", "turns": 3}}]},
    {"id": 3, "name": "C", "segments": [{"name": "s", "shape": {"kind": "line", "count": 7, "pitch_m": 0.1}}]}],
    "tide_table": {"dusk": true}})";
  const auto read = parseShow(text, "x");
  ASSERT_TRUE(read);
  EXPECT_EQ(read->fixtures.size(), 2u);
  EXPECT_EQ(read->unread.size(), 2u);
  EXPECT_FALSE(problemsOf(*read).empty());
  const auto again = nlohmann::ordered_json::parse(showText(*read));
  EXPECT_EQ(again["fixtures"][1]["segments"][0]["shape"]["turns"], 3);
  EXPECT_EQ(again["tide_table"]["dusk"], true);
  EXPECT_GT(read->nextId, 3u) << "new things never take an id of the file";
}

TEST(ShowFile, AnUnknownEffectIsAProblemAndIsKept) {
  Show show = demo::carousel();
  changeItem(show.scores, show.scores[0]->id, [](Score& score) {
    Clip clip = *score.clips.front();
    clip.effect = "from-the-future";
    clip.params["sparkle"] = 3.0;
    put(score.clips, clip);
  });
  const auto read = parseShow(showText(show), "x");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, show);
  const auto problems = problemsOf(*read);
  ASSERT_EQ(problems.size(), 1u);
  EXPECT_NE(problems[0].what.text().find("from-the-future"), std::string::npos);
}

TEST(Problems, TheDemoHasNone) {
  EXPECT_TRUE(problemsOf(demo::carousel()).empty());
}

TEST(Problems, AMissingAudioFileIsNamed) {
  const auto problems = findProblems(demo::carousel(), [](const std::string&) { return false; });
  ASSERT_EQ(problems.size(), 1u);
  EXPECT_NE(problems[0].what.text().find("slow-round.ogg"), std::string::npos);
}

TEST(Problems, TwoControllersOnOneUniverseAtOneAddressAreAnError) {
  Show show = demo::carousel();
  changeItem(show.controllers, show.controllers[2]->id, [](Controller& c) {
    c.host = "127.0.0.11";
    c.firstUniverse = 2;
  });
  const auto problems = problemsOf(show);
  ASSERT_FALSE(problems.empty());
  EXPECT_EQ(problems[0].severity, Severity::Error);
}

TEST(Problems, UniverseNumbersOfTheProtocolAreKept) {
  Show show = demo::carousel();
  changeItem(show.controllers, show.controllers[0]->id, [](Controller& c) { c.firstUniverse = 0; });
  EXPECT_EQ(problemsOf(show)[0].severity, Severity::Error) << "E1.31 begins at 1";
  changeItem(show.controllers, show.controllers[0]->id, [](Controller& c) { c.protocol = Protocol::ArtNet; });
  EXPECT_TRUE(problemsOf(show).empty()) << "Art-Net begins at 0";
}

TEST(History, UndoAndRedoGiveTheSameValues) {
  History history(demo::carousel());
  std::vector<Show> values = {history.now()};
  for (int i = 0; i < 5; ++i) {
    history.apply("add", [i](Show& show) { addFixture(show, LineShape{10 + i, 0.1}, {}); });
    values.push_back(history.now());
  }
  for (int i = 5; i > 0; --i) {
    EXPECT_EQ(history.now(), values[static_cast<std::size_t>(i)]);
    history.undo();
  }
  EXPECT_EQ(history.now(), values[0]);
  EXPECT_FALSE(history.canUndo());
  for (int i = 0; i < 5; ++i) history.redo();
  EXPECT_EQ(history.now(), values[5]);
}

TEST(History, ADragIsOneStep) {
  History history(demo::carousel());
  const Show before = history.now();
  const FixtureId id = before.fixtures[0]->id;
  for (int i = 0; i < 20; ++i)
    history.apply(
        "move",
        [id](Show& show) {
          moveFixtures(show, {id}, {0.1, 0, 0});
        },
        "drag");
  history.seal();
  history.apply(
      "move",
      [id](Show& show) {
        moveFixtures(show, {id}, {0.1, 0, 0});
      },
      "drag");
  history.undo();
  history.undo();
  EXPECT_EQ(history.now(), before);
}

TEST(History, TheLateEndOfAnEditBelongsToItsStep) {
  History history(demo::carousel());
  const Show before = history.now();
  FixtureId id;
  history.apply("add", [&](Show& show) { id = addFixture(show, LineShape{10, 0.1}, {}); });
  history.seal();
  history.complete("add", [&](Show& show) { moveFixtures(show, {id}, {1, 0, 0}); });
  const Show whole = history.now();
  history.undo();
  EXPECT_EQ(history.now(), before);
  history.redo();
  EXPECT_EQ(history.now(), whole);
  // Another edit came between: the end is a step of its own.
  history.apply("rename", [](Show& show) { show.name = "Other"; });
  history.complete("add", [&](Show& show) { moveFixtures(show, {id}, {1, 0, 0}); });
  history.undo();
  EXPECT_EQ(history.now().name, "Other");
}

TEST(History, AnEditThatChangesNothingIsNoStep) {
  History history(demo::carousel());
  EXPECT_FALSE(history.apply("nothing", [](Show&) {}));
  EXPECT_FALSE(history.canUndo());
}

TEST(Journal, GivesBackEveryAppendedChange) {
  const test::TemporaryFolder folder;
  Show show = demo::carousel();
  auto journal = Journal::begin(folder.path(), "/shows/a.chispa", show);
  ASSERT_TRUE(journal);
  addFixture(show, LineShape{10, 0.1}, {});
  ASSERT_TRUE((*journal)->append(show));
  moveFixtures(show, {show.fixtures[0]->id}, {1, 2, 3});
  ASSERT_TRUE((*journal)->append(show));
  EXPECT_TRUE(findLeftJournals(folder.path()).left.empty()) << "its owner lives";
  // A copy has no owner, as after a crash.
  std::filesystem::copy((*journal)->file(), folder.path() / "left.jsonl");
  const auto left = findLeftJournals(folder.path()).left;
  ASSERT_EQ(left.size(), 1u);
  EXPECT_EQ(left[0].showPath, "/shows/a.chispa");
  EXPECT_EQ(left[0].changes, 2);
  EXPECT_EQ(left[0].show, show);
}

TEST(Journal, ALineCutOffByTheCrashIsPassedOver) {
  const test::TemporaryFolder folder;
  Show show = demo::carousel();
  auto journal = Journal::begin(folder.path(), "", show);
  ASSERT_TRUE(journal);
  addFixture(show, LineShape{10, 0.1}, {});
  ASSERT_TRUE((*journal)->append(show));
  std::filesystem::copy((*journal)->file(), folder.path() / "left.jsonl");
  std::ofstream(folder.path() / "left.jsonl", std::ios::app) << R"([{"op":"replace","pa)";
  const auto left = findLeftJournals(folder.path()).left;
  ASSERT_EQ(left.size(), 1u);
  EXPECT_EQ(left[0].show, show);
}

TEST(Journal, ACleanEndLeavesNothing) {
  const test::TemporaryFolder folder;
  { ASSERT_TRUE(Journal::begin(folder.path(), "", Show{})); }
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

/// A process that edits and is killed with signal 9: nothing that it had appended is lost.
TEST(Journal, SurvivesSignal9) {
  const test::TemporaryFolder folder;
  const pid_t child = ::fork();
  if (child == 0) {
    Show show = demo::carousel();
    auto journal = Journal::begin(folder.path(), "", show);
    for (int i = 0; i < 7; ++i) {
      addFixture(show, LineShape{10 + i, 0.1}, {});
      if (!(*journal)->append(show)) ::_exit(1);
    }
    ::kill(::getpid(), SIGKILL);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  ASSERT_TRUE(WIFSIGNALED(status));
  const auto left = findLeftJournals(folder.path()).left;
  ASSERT_EQ(left.size(), 1u);
  EXPECT_EQ(left[0].changes, 7);
  EXPECT_EQ(left[0].show.fixtures.size(), demo::carousel().fixtures.size() + 7);
}

}  // namespace
}  // namespace chispa
