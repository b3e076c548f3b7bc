// SPDX-License-Identifier: GPL-3.0-or-later
// A disk that fails, and a process that is killed, at every single step of keeping a show.
// tests/faults/shim.c is what makes it so.
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <thread>

#include "temporary.h"
#include <fcntl.h>
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

/// A keeper that waits for orders: its runs are processes of their own, and begin at once.
class Keeper {
 public:
  explicit Keeper(bool hasFaults) {
    int orders[2], answers[2];
    EXPECT_EQ(::pipe2(orders, O_CLOEXEC), 0);
    EXPECT_EQ(::pipe2(answers, O_CLOEXEC), 0);
    const std::string program = CHISPA_BIN_DIR "/faults_keeper",
                      shim = "LD_PRELOAD=" CHISPA_BIN_DIR "/libfaults_shim.so",
                      // Sanitizers want to be loaded first, and leaks of a process that is killed are none.
        sanitizer = "ASAN_OPTIONS=verify_asan_link_order=0:detect_leaks=0";
    std::vector<char*> words = {const_cast<char*>(program.c_str()), nullptr};
    std::vector<char*> environment = {const_cast<char*>(sanitizer.c_str())};
    if (hasFaults) environment.push_back(const_cast<char*>(shim.c_str()));
    environment.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_adddup2(&actions, orders[0], STDIN_FILENO);
    posix_spawn_file_actions_adddup2(&actions, answers[1], STDOUT_FILENO);
    EXPECT_EQ(::posix_spawn(&process_, program.c_str(), &actions, nullptr, words.data(), environment.data()),
              0);
    posix_spawn_file_actions_destroy(&actions);
    ::close(orders[0]);
    ::close(answers[1]);
    orders_ = ::fdopen(orders[1], "w");
    answers_ = ::fdopen(answers[0], "r");
  }
  ~Keeper() {
    std::fclose(orders_);
    std::fclose(answers_);
    ::waitpid(process_, nullptr, 0);
  }
  Keeper(const Keeper&) = delete;
  Keeper& operator=(const Keeper&) = delete;

  /// One run with a fault; a positive `killAfter_us` ends it with signal 9.
  Kept run(const std::filesystem::path& folder, const std::string& fault, int killAfter_us = 0) {
    std::fprintf(orders_, "%s %d %s\n", folder.c_str(), killAfter_us > 0 ? 2000 : 0, fault.c_str());
    std::fflush(orders_);
    Kept kept;
    std::thread killer;
    bool isOver = false;
    char word[16];
    for (int number = 0; !isOver && std::fscanf(answers_, "%15s %d", word, &number) == 2;) {
      const std::string said = word;
      if (said == "pid" && killAfter_us > 0)
        killer = std::thread([number, killAfter_us] {
          ::usleep(static_cast<useconds_t>(killAfter_us));
          ::kill(number, SIGKILL);
        });
      if (said == "safe") kept.safe = number;
      if (said == "saved") kept.saved = number;
      if (said == "end") kept.ended = true;
      if (said == "over") {
        // The killer must not meet a process that has taken over the number.
        if (killer.joinable()) killer.join();
        std::fprintf(orders_, "\n");
        std::fflush(orders_);
      }
      if (said == "status") kept.status = number, isOver = true;
    }
    EXPECT_TRUE(isOver) << "the keeper is gone";
    if (killer.joinable()) killer.join();
    kept.wasKilled = WIFSIGNALED(kept.status) && WTERMSIG(kept.status) == SIGKILL;
    return kept;
  }

 private:
  pid_t process_ = 0;
  std::FILE* orders_ = nullptr;
  std::FILE* answers_ = nullptr;
};

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
  Keeper keeper(true);
  for (int n = 1; n < 400; ++n) {
    const test::TemporaryFolder folder;
    const std::string fault = std::string(what) + ":" + std::to_string(n) + ":" + how;
    const Kept kept = keeper.run(folder.path(), fault);
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
  Keeper keeper(false);
  for (int i = 0; i < kills; ++i) {
    const test::TemporaryFolder folder;
    const Kept kept = keeper.run(folder.path(), "", 500 + static_cast<int>(random() % 45'000));
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
