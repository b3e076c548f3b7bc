// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/pendingfile.h"

#include <fstream>

#include "temporary.h"
#include <fcntl.h>
#include <gtest/gtest.h>
#include <sys/stat.h>
#include <unistd.h>

#include "core/files/showfile.h"
#include "core/files/showlock.h"

namespace chispa {
namespace {

class Saved : public testing::Test {
 protected:
  std::string text(const std::filesystem::path& path) const { return readFile(path).value(); }
  static mode_t modeOf(const std::filesystem::path& path) {
    struct stat is {};
    ::stat(path.c_str(), &is);
    return is.st_mode & 07777;
  }
  std::ptrdiff_t filesIn() const {
    return std::distance(std::filesystem::directory_iterator(folder_.path()), {});
  }

  test::TemporaryFolder folder_;
  std::filesystem::path file_ = folder_.path() / "fair.chispa";
};

TEST_F(Saved, AFileKeepsItsMode) {
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  ASSERT_EQ(::chmod(file_.c_str(), 0640), 0);
  ASSERT_TRUE(writeFileAtomically(file_, "two"));
  EXPECT_EQ(modeOf(file_), 0640u);
  EXPECT_EQ(text(file_), "two");
}

TEST_F(Saved, ANewFileFollowsTheUmask) {
  const mode_t before = ::umask(027);
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  ::umask(before);
  EXPECT_EQ(modeOf(file_), 0640u);
}

TEST_F(Saved, ASymbolicLinkStaysOne) {
  std::filesystem::create_directory(folder_.path() / "shows");
  const auto real = folder_.path() / "shows" / "real.chispa";
  ASSERT_TRUE(writeFileAtomically(real, "one"));
  std::filesystem::create_symlink("shows/real.chispa", file_);
  ASSERT_TRUE(writeFileAtomically(file_, "two"));
  EXPECT_TRUE(std::filesystem::is_symlink(file_));
  EXPECT_EQ(text(real), "two");
  // A link to a file that is not there yet makes it.
  std::filesystem::remove(real);
  ASSERT_TRUE(writeFileAtomically(file_, "three"));
  EXPECT_EQ(text(real), "three");
  EXPECT_TRUE(std::filesystem::is_symlink(file_));
}

TEST_F(Saved, HardLinksStayOneFile) {
  ASSERT_TRUE(writeFileAtomically(file_, "a long text that is not short"));
  const auto other = folder_.path() / "other.chispa";
  std::filesystem::create_hard_link(file_, other);
  ASSERT_TRUE(writeFileAtomically(file_, "two"));
  EXPECT_EQ(text(other), "two");
  EXPECT_EQ(std::filesystem::hard_link_count(file_), 2u);
}

TEST_F(Saved, NothingStandsBesideItAfterwardsWhateverHappens) {
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  {
    auto pending = PendingFile::begin(file_);
    ASSERT_TRUE(pending);
    EXPECT_NE(pending->path(), file_);
    EXPECT_EQ(pending->path().extension(), ".chispa");
    std::ofstream(pending->path()) << "half";
  }
  EXPECT_EQ(text(file_), "one") << "it was not committed";
  EXPECT_EQ(filesIn(), 1);
}

TEST_F(Saved, TwoAtOnceDoNotMeet) {
  auto a = PendingFile::begin(file_), b = PendingFile::begin(file_);
  ASSERT_TRUE(a && b);
  EXPECT_NE(a->path(), b->path());
}

/// Somebody lays a link where a file beside would be made: nothing is written through it.
TEST_F(Saved, NoFixedNameCanBeFollowed) {
  const auto precious = folder_.path() / "precious";
  std::ofstream(precious) << "precious";
  std::filesystem::create_symlink(precious, folder_.path() / "fair.chispa.part");
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  EXPECT_EQ(text(precious), "precious");
}

TEST_F(Saved, WhatIsNoFileIsNotReplaced) {
  ASSERT_EQ(::mkfifo(file_.c_str(), 0600), 0);
  const Outcome written = writeFileAtomically(file_, "one");
  ASSERT_FALSE(written);
  EXPECT_NE(written.failure().what.text().find("something else"), std::string::npos);
  EXPECT_FALSE(readFile(file_)) << "and a pipe is not waited for";
}

TEST_F(Saved, AStampTellsWhetherSomebodyWroteTheFile) {
  EXPECT_FALSE(stampOf(file_));
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  const auto stamp = stampOf(file_);
  EXPECT_EQ(stampOf(file_), stamp);
  ASSERT_TRUE(writeFileAtomically(file_, "one"));
  EXPECT_NE(stampOf(file_), stamp);
}

TEST_F(Saved, ALockIsHeldByOneAtATime) {
  std::ofstream(file_) << "one";
  const auto state = folder_.path() / "state";
  {
    const auto mine = ShowLock::take(state, file_);
    ASSERT_TRUE(mine);
    EXPECT_FALSE(ShowLock::take(state, file_));
    std::filesystem::create_symlink(file_, folder_.path() / "link.chispa");
    EXPECT_FALSE(ShowLock::take(state, folder_.path() / "link.chispa")) << "whatever it is called";
    EXPECT_TRUE(ShowLock::take(state, folder_.path() / "other.chispa"));
  }
  EXPECT_TRUE(ShowLock::take(state, file_));
}

}  // namespace
}  // namespace chispa
