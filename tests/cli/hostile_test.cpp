// SPDX-License-Identifier: GPL-3.0-or-later
// Files that were made to do harm: each ends within ten seconds and two gigabytes, with a word of what is
// wrong, where, and what to do, or as a show whose bad parts are kept aside.
#include <fstream>

#include "hostile/hostilefiles.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <sys/stat.h>

#include "cli/run.h"

namespace chispa {
namespace {

using test::Ran;

std::string commandFor(const std::string& name) {
  const auto ending = name.substr(name.rfind('.') + 1);
  if (ending == "chispa") return "check";
  if (ending == "chirec") return "play";
  if (ending == "ogg" || ending == "wav" || ending == "m3u8" || ending == "flac") return "music";
  return "palette";
}

class Hostile : public testing::TestWithParam<std::string> {};

TEST_P(Hostile, EndsWithAWordInTimeAndWithinMemory) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / GetParam();
  std::ofstream(path, std::ios::binary) << test::hostileFiles().at(GetParam())();
  const Ran ran = test::runBounded(commandFor(GetParam()) + " " + path.string());
  // 124 is what timeout says of what it had to end; above are signals.
  EXPECT_LT(ran.status, 2) << ran.status << ": " << ran.out.substr(0, 600);
  if (ran.status == 1 && commandFor(GetParam()) != "check") {
    EXPECT_NE(ran.out.find(GetParam()), std::string::npos) << "it says where: " << ran.out.substr(0, 600);
    EXPECT_GE(std::count(ran.out.begin(), ran.out.end(), '\n'), 2)
        << "and what to do: " << ran.out.substr(0, 600);
  }
}

INSTANTIATE_TEST_SUITE_P(Kinds, Hostile, testing::ValuesIn(test::namesOfHostileFiles()),
                         [](const auto& one) { return test::testNameOf(one.param); });

TEST(HostileFiles, AreOfAtLeastSixtyKinds) {
  EXPECT_GE(test::hostileFiles().size(), 60u);
}

TEST(HostileFiles, APipeIsNotWaitedFor) {
  const test::TemporaryFolder folder;
  for (const char* name : {"a.chispa", "a.ogg", "a.gpl", "a.chirec"}) {
    ASSERT_EQ(::mkfifo((folder.path() / name).c_str(), 0600), 0);
    EXPECT_EQ(test::runBounded(commandFor(name) + " " + (folder.path() / name).string()).status, 1) << name;
  }
}

}  // namespace
}  // namespace chispa
