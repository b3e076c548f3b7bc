// SPDX-License-Identifier: GPL-3.0-or-later
// Setting controllers up from the command line: compared, written, read back, put back.
#include <chrono>
#include <csignal>
#include <thread>

#include "temporary.h"
#include <gtest/gtest.h>

#include "cli/run.h"
#include "core/edit/planedits.h"
#include "core/files/showfile.h"

namespace chispa {
namespace {

using test::Ran;
using test::runProgram;

/// The demo with one controller, which a node in a process of its own stands for.
class Pushing : public testing::Test {
 protected:
  Pushing() {
    Show show = *loadShow(test::kDemo);
    const auto all = show.controllers;
    for (const auto& controller : all)
      if (controller->name != "Rim box") remove(show.controllers, controller->id);
    // Of this process: the node's own number would give another.
    const std::string address = test::loopbackAddress(12);
    changeItem(show.controllers, show.controllers.front()->id, [&](Controller& c) { c.host = address; });
    EXPECT_TRUE(saveShow(file(), show));
    pid_ = ::fork();
    if (pid_ == 0) {
      ::setenv("QT_QPA_PLATFORM", "offscreen", 1);
      const std::string node = std::string(CHISPA_BIN_DIR) + "/chispa-node";
      ::execl(node.c_str(), node.c_str(), "--name", "Stand-in", "--listen", address.c_str(), "--http", "8090",
              "--ports", "8", nullptr);
      ::_exit(127);
    }
  }
  ~Pushing() override {
    ::kill(pid_, SIGTERM);
    ::waitpid(pid_, nullptr, 0);
  }
  std::filesystem::path file() const { return folder_.path() / "one.chispa"; }
  /// What is kept of controllers is the test's own.
  Ran push(const std::string& words = {}) const {
    return runProgram("chispa-cli", "push '" + file().string() + "' --wait 20 " + words,
                      "XDG_STATE_HOME=" + folder_.path().string());
  }

  test::TemporaryFolder folder_;
  pid_t pid_ = 0;
};

TEST_F(Pushing, ShowsWritesReadsBackAndPutsBack) {
  const Ran before = push("--dry-run");
  ASSERT_EQ(before.status, 0) << before.out;
  EXPECT_NE(before.out.find("Rim box, "), std::string::npos) << before.out;
  const Ran again = push("--dry-run");
  EXPECT_EQ(again.out, before.out) << "to look changes nothing";
  EXPECT_EQ(push("--restore").status, 1) << "nothing is kept yet";

  const Ran written = push();
  ASSERT_EQ(written.status, 0) << written.out;
  EXPECT_NE(written.out.find("set up and read back"), std::string::npos) << written.out;
  EXPECT_EQ(push("--dry-run").out, "Rim box: nothing differs\n") << "it has all that is wanted";

  const Ran restored = push("--restore");
  ASSERT_EQ(restored.status, 0) << restored.out;
  EXPECT_EQ(push("--dry-run").out, before.out) << "it is as it was";
}

TEST_F(Pushing, SaysThatThereIsNoSuchController) {
  const Ran ran = push("--controller Nobody");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.out.find("There is no such controller"), std::string::npos) << ran.out;
}

TEST(PushingToNobody, SaysWhoDoesNotAnswer) {
  const test::TemporaryFolder folder;
  Show show = *loadShow(test::kDemo);
  changeItem(show.controllers, show.controllers.front()->id,
             [](Controller& c) { c.host = test::loopbackAddress(11); });
  ASSERT_TRUE(saveShow(folder.path() / "deaf.chispa", show));
  const Ran ran = runProgram(
      "chispa-cli", "push '" + (folder.path() / "deaf.chispa").string() + "' --wait 0 --controller 'Rim box'",
      "XDG_STATE_HOME=" + folder.path().string());
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.out.find(test::loopbackAddress(11)), std::string::npos) << ran.out;
}

}  // namespace
}  // namespace chispa
