// SPDX-License-Identifier: GPL-3.0-or-later
// A DMX line that is unplugged, handed over and ended, on a pseudo-terminal.
#include "temporary.h"
#include <fcntl.h>
#include <gtest/gtest.h>
#include <poll.h>
#include <stdlib.h>
#include <unistd.h>

#include "link/serialdmx.h"

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

/// An adapter that can be plugged in and out: a path that leads to the far end of a pseudo-terminal.
class Adapter {
 public:
  void plugIn() {
    unplug();
    master_ = ::posix_openpt(O_RDWR | O_NOCTTY | O_CLOEXEC | O_NONBLOCK);
    ::grantpt(master_);
    ::unlockpt(master_);
    std::filesystem::create_symlink(::ptsname(master_), path_);
  }
  void unplug() {
    if (master_ >= 0) ::close(master_);
    master_ = -1;
    std::filesystem::remove(path_);
  }
  ~Adapter() { unplug(); }
  std::string path() const { return path_.string(); }

  /// All that arrives within `time`.
  std::vector<std::uint8_t> hear(std::chrono::milliseconds time) const {
    std::vector<std::uint8_t> all;
    const auto until = std::chrono::steady_clock::now() + time;
    while (std::chrono::steady_clock::now() < until) {
      pollfd waiting{master_, POLLIN, 0};
      ::poll(&waiting, 1, 10);
      std::array<std::uint8_t, 4096> buffer;
      const ssize_t count = ::read(master_, buffer.data(), buffer.size());
      if (count > 0) all.insert(all.end(), buffer.begin(), buffer.begin() + count);
    }
    return all;
  }

 private:
  test::TemporaryFolder folder_;
  std::filesystem::path path_ = folder_.path() / "ttyDMX";
  int master_ = -1;
};

Controller boxAt(const std::string& path) {
  Controller box;
  box.id = ControllerId{1};
  box.protocol = Protocol::SerialDmx;
  box.host = path;
  return box;
}

std::unique_ptr<ControllerSender> opened(const Adapter& adapter) {
  auto sender = SerialDmxSender::open(boxAt(adapter.path()), {1});
  EXPECT_TRUE(sender) << (sender ? "" : sender.failure().text());
  return sender ? *std::move(sender) : nullptr;
}

std::ptrdiff_t countOf(const std::vector<std::uint8_t>& bytes, std::uint8_t value) {
  return std::count(bytes.begin(), bytes.end(), value);
}

const std::vector<std::uint8_t> kLit(512, 200), kDark(512, 0);

TEST(SerialLine, IsTakenUpAgainWhenItsAdapterIsBack) {
  Adapter adapter;
  adapter.plugIn();
  const auto sender = opened(adapter);
  sender->send(kLit, 0s);
  EXPECT_GT(countOf(adapter.hear(300ms), 200), 512);
  adapter.unplug();
  std::this_thread::sleep_for(200ms);
  EXPECT_NE(sender->counters().lastError, 0);
  adapter.plugIn();
  EXPECT_GT(countOf(adapter.hear(2500ms), 200), 512) << "without anybody's doing";
}

TEST(SerialLine, FallsSilentAfterAFewBlackPackets) {
  Adapter adapter;
  adapter.plugIn();
  const auto sender = opened(adapter);
  sender->send(kLit, 0s);
  adapter.hear(200ms);
  sender->send(kDark, 0s);
  sender->terminate(0s);
  const auto last = adapter.hear(400ms);
  EXPECT_GE(countOf(last, 0), 3 * 512) << "three packets, as any may be lost";
  EXPECT_TRUE(adapter.hear(200ms).empty());
}

/// Light on, off, an edit, on: the line that was replaced while it was dark says nothing any more.
TEST(SerialLine, AReplacedOneDoesNotSpeakIntoTheNewOnesWords) {
  Adapter adapter;
  adapter.plugIn();
  const auto before = opened(adapter);
  before->send(kLit, 0s);
  adapter.hear(150ms);
  before->standDown();
  const auto after = opened(adapter);
  after->send(kLit, 0s);
  adapter.hear(100ms);
  const auto heard = adapter.hear(400ms);
  EXPECT_GT(countOf(heard, 200), 512);
  // Start codes are zero; slots are not.
  EXPECT_LT(countOf(heard, 0), std::ssize(heard) / 400);
}

}  // namespace
}  // namespace chispa::link
