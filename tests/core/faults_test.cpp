// SPDX-License-Identifier: GPL-3.0-or-later
// A disk that fails, and a process that is killed, at every single step of keeping a show.
// tests/faults/shim.c is what makes it so.
#include <csignal>
#include <cstdlib>
#include <random>
#include <sstream>
#include <thread>

#include "temporary.h"
#include <gtest/gtest.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/files/journal.h"
#include "core/files/showfile.h"

namespace chispa {
namespace {

struct Kept {
  /// What was said to be safe last, in the journal and in the file; −1 if nothing.
  int safe = -1;
  int saved = -1;
  bool ended = false;
  bool wasKilled = false;
  int status = 0;
};

/// Runs the keeper with a fault; a positive `killAfter_us` ends it with signal 9.
Kept runKeeper(const std::filesystem::path& folder, const std::string& fault, int killAfter_us = 0) {
  int ends[2];
  EXPECT_EQ(::pipe(ends), 0);
  const std::string keeper = CHISPA_BIN_DIR "/faults_keeper",
                    shim = "LD_PRELOAD=" CHISPA_BIN_DIR "/libfaults_shim.so", what = "CHISPA_FAULT=" + fault,
                    where = "CHISPA_FAULT_FOLDER=" + folder.string(), place = folder.string(),
                    pause = killAfter_us > 0 ? "2000" : "0";
  std::vector<char*> words = {const_cast<char*>(keeper.c_str()), const_cast<char*>(place.c_str()),
                              const_cast<char*>(pause.c_str()), nullptr};
  std::vector<char*> environment = {const_cast<char*>(shim.c_str()), const_cast<char*>(what.c_str()),
                                    const_cast<char*>(where.c_str()), nullptr};
  // Sanitizers want to be loaded first, and leaks of a process that is killed are none.
  const std::string sanitizer = "ASAN_OPTIONS=verify_asan_link_order=0:detect_leaks=0";
  if (fault.empty()) environment = {nullptr};
  environment.insert(environment.begin(), const_cast<char*>(sanitizer.c_str()));
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_adddup2(&actions, ends[1], STDOUT_FILENO);
  posix_spawn_file_actions_addclose(&actions, ends[0]);
  pid_t child = 0;
  EXPECT_EQ(::posix_spawn(&child, keeper.c_str(), &actions, nullptr, words.data(), environment.data()), 0);
  posix_spawn_file_actions_destroy(&actions);
  ::close(ends[1]);
  std::thread killer;
  if (killAfter_us > 0)
    killer = std::thread([child, killAfter_us] {
      ::usleep(static_cast<useconds_t>(killAfter_us));
      ::kill(child, SIGKILL);
    });
  std::string said;
  char buffer[4096];
  for (ssize_t got = ::read(ends[0], buffer, sizeof buffer); got > 0;
       got = ::read(ends[0], buffer, sizeof buffer))
    said.append(buffer, static_cast<std::size_t>(got));
  ::close(ends[0]);
  // The killer must not meet a process that has taken over the number: it is waited for first.
  if (killer.joinable()) killer.join();
  Kept kept;
  ::waitpid(child, &kept.status, 0);
  kept.wasKilled = WIFSIGNALED(kept.status) && WTERMSIG(kept.status) == SIGKILL;
  std::istringstream lines(said);
  std::string word;
  for (int number = 0; lines >> word >> number;) {
    if (word == "safe") kept.safe = number;
    if (word == "saved") kept.saved = number;
    if (word == "end") kept.ended = true;
  }
  return kept;
}

/// What a new start would find: in the file, and in what is offered back.
void expectNothingLost(const std::filesystem::path& folder, const Kept& kept, const std::string& where) {
  int inFile = -1;
  if (std::filesystem::exists(folder / "fair.chispa")) {
    const auto show = loadShow(folder / "fair.chispa");
    ASSERT_TRUE(show) << where << ": " << show.failure().text();
    inFile = static_cast<int>(show->fixtures.size());
  }
  EXPECT_GE(inFile, kept.saved) << where << ": a file that was saved is as it was saved, or newer";
  int best = inFile;
  const LeftJournals left = findLeftJournals(folder / "state");
  for (const LeftJournal& one : left.left) best = std::max(best, static_cast<int>(one.show.fixtures.size()));
  EXPECT_GE(best, std::max(kept.safe, kept.saved)) << where << ": what was said to be safe is there";
}

class Faults : public testing::TestWithParam<std::tuple<const char*, const char*>> {};

TEST_P(Faults, AtEveryStepLoseNothingThatWasSafe) {
  const auto [what, how] = GetParam();
  int happened = 0;
  for (int n = 1; n < 400; ++n) {
    const test::TemporaryFolder folder;
    const std::string fault = std::string(what) + ":" + std::to_string(n) + ":" + how;
    const Kept kept = runKeeper(folder.path(), fault);
    const bool kills = std::string(how) == "kill" || std::string(how) == "torn";
    ASSERT_TRUE(kept.wasKilled || (WIFEXITED(kept.status) && WEXITSTATUS(kept.status) == 0))
        << fault << ": it crashed";
    expectNothingLost(folder.path(), kept, fault);
    if (!kept.wasKilled && !kills) {
      EXPECT_EQ(kept.saved, 12) << fault << ": one failure is got over";
    }
    // Beyond the last step nothing goes wrong any more.
    const Kept plain = kills && !kept.wasKilled ? kept : Kept{};
    if (plain.ended) break;
    ++happened;
    if (!kills && n > 60) break;
  }
  EXPECT_GT(happened, 3);
}

INSTANTIATE_TEST_SUITE_P(Disk, Faults,
                         testing::Combine(testing::Values("write", "fsync", "rename", "open"),
                                          testing::Values("fail", "short", "kill", "torn")),
                         [](const auto& one) {
                           return std::string(std::get<0>(one.param)) + "_" + std::get<1>(one.param);
                         });

/// CHISPA_KILLS sets how many; `./run trust` asks for a thousand.
TEST(Kills, AtAnyMomentLoseNothingThatWasSafe) {
  const char* wanted = std::getenv("CHISPA_KILLS");
  const int kills = wanted ? std::atoi(wanted) : 25;
  std::mt19937 random(17);
  int killed = 0;
  for (int i = 0; i < kills; ++i) {
    const test::TemporaryFolder folder;
    const Kept kept = runKeeper(folder.path(), "", 500 + static_cast<int>(random() % 45'000));
    killed += kept.wasKilled;
    expectNothingLost(folder.path(), kept, "kill " + std::to_string(i));
    if (HasFailure()) break;
  }
  std::printf("%d of %d runs were killed before their end; nothing that was safe is missing\n", killed,
              kills);
  EXPECT_GT(killed, kills / 3);
}

}  // namespace
}  // namespace chispa
