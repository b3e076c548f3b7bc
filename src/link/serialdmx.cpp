// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/serialdmx.h"

#include <cerrno>
#include <cstring>

#include <asm/termbits.h>
#include <fcntl.h>
#include <sys/ioctl.h>
#include <unistd.h>

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

/// E1.11 §8.1 and table 6: transmitters hold the break for 92 µs at least and the mark for 12 µs.
constexpr std::chrono::microseconds kBreak = 120us;
constexpr std::chrono::microseconds kMark = 16us;
/// Start code and slots take 22.6 ms at 250 kbit/s.
constexpr std::chrono::milliseconds kPeriod = 25ms;

class TerminalLine final : public DmxLine {
 public:
  explicit TerminalLine(int fd) : fd_(fd) {}
  ~TerminalLine() override { ::close(fd_); }

  int sendBreak(std::chrono::microseconds low, std::chrono::microseconds high) override {
    if (::ioctl(fd_, TIOCSBRK) != 0) return errno;
    std::this_thread::sleep_for(low);
    if (::ioctl(fd_, TIOCCBRK) != 0) return errno;
    std::this_thread::sleep_for(high);
    return 0;
  }

  int write(std::span<const std::uint8_t> bytes) override {
    while (!bytes.empty()) {
      const ssize_t sent = ::write(fd_, bytes.data(), bytes.size());
      if (sent < 0 && errno == EINTR) continue;
      if (sent < 0) return errno;
      bytes = bytes.subspan(static_cast<std::size_t>(sent));
    }
    // Waits until the last bit has left: 1 is "drain" for this call.
    return ::ioctl(fd_, TCSBRK, 1) == 0 ? 0 : errno;
  }

 private:
  int fd_;
};

}  // namespace

Result<std::unique_ptr<DmxLine>> openDmxLine(const std::string& path) {
  const int fd = ::open(path.c_str(), O_RDWR | O_NOCTTY | O_CLOEXEC | O_NONBLOCK);
  if (fd < 0)
    return Failure{sentence("The DMX adapter cannot be opened (%1).", std::strerror(errno)), path,
                   "Plug it in, check its path, and that you belong to the group dialout."};
  auto line = std::make_unique<TerminalLine>(fd);
  termios2 settings{};
  if (::ioctl(fd, TCGETS2, &settings) != 0)
    return Failure{"This is no serial line.", path,
                   "Enter the path of the adapter, for example /dev/ttyUSB0."};
  settings.c_iflag = 0;
  settings.c_oflag = 0;
  settings.c_lflag = 0;
  settings.c_cflag = CS8 | CSTOPB | CLOCAL | CREAD | BOTHER;
  settings.c_ispeed = 250'000;
  settings.c_ospeed = 250'000;
  if (::ioctl(fd, TCSETS2, &settings) != 0)
    return Failure{sentence("The line cannot run at 250 kbit/s (%1).", std::strerror(errno)), path,
                   "Use an adapter that is made for DMX512."};
  // Opened without waiting for a carrier; written to with waiting.
  ::fcntl(fd, F_SETFL, 0);
  return std::unique_ptr<DmxLine>(std::move(line));
}

Result<std::unique_ptr<ControllerSender>> SerialDmxSender::open(const Controller& controller,
                                                                std::vector<int> universes) {
  if (universes.size() > 1)
    return Failure{"A DMX line holds 512 channels; what hangs on it needs more.", controller.name,
                   "Hang some of it on another controller."};
  auto line = openDmxLine(controller.host);
  if (!line) return line.failure();
  return std::unique_ptr<ControllerSender>(
      new SerialDmxSender(controller, std::move(universes), *std::move(line)));
}

SerialDmxSender::SerialDmxSender(const Controller& controller, std::vector<int> universes,
                                 std::unique_ptr<DmxLine> line)
    : ControllerSender(controller, std::move(universes)),
      path_(controller.host),
      line_(std::move(line)),
      thread_([this] { run(); }) {}

SerialDmxSender::~SerialDmxSender() {
  stopping_ = true;
  thread_.join();
}

void SerialDmxSender::send(std::span<const std::uint8_t> values, Instant, bool) noexcept {
  for (std::size_t i = 0; i < std::min(values.size(), kChannels); ++i)
    slots_[i].store(values[i], std::memory_order_relaxed);
  std::fill(which_.begin(), which_.end(), std::uint8_t{1});
  state_ = State::Sending;
}

void SerialDmxSender::terminate(Instant) noexcept {
  if (state_ != State::Silent) state_ = State::Ending;
}

void SerialDmxSender::endInDark(Instant now) noexcept {
  for (auto& slot : slots_) slot.store(0, std::memory_order_relaxed);
  terminate(now);
}

void SerialDmxSender::standDown() noexcept {
  state_ = State::Silent;
}

void SerialDmxSender::takeOver(ControllerSender& before, Instant now) noexcept {
  auto* same = dynamic_cast<SerialDmxSender*>(&before);
  // On the same line this one says what stands on it; another line goes dark.
  if (same && same->path_ == path_)
    same->standDown();
  else
    before.endInDark(now);
}

int SerialDmxSender::sendPacket(std::span<const std::uint8_t> packet) noexcept {
  constexpr std::chrono::seconds kTryEvery{1};
  const auto now = std::chrono::steady_clock::now();
  if (!line_ && now - triedAt_ >= kTryEvery) {
    triedAt_ = now;
    if (auto opened = openDmxLine(path_)) line_ = *std::move(opened);
  }
  if (!line_) return ENODEV;
  int error = line_->sendBreak(kBreak, kMark);
  if (error == 0) error = line_->write(packet);
  // Whatever is wrong with it, opening it anew is what can help.
  if (error != 0) line_.reset();
  return error;
}

void SerialDmxSender::run() noexcept {
  constexpr int kLastPackets = 3;
  std::array<std::uint8_t, kChannels + 1> packet{};
  auto next = std::chrono::steady_clock::now();
  int left = kLastPackets;
  // What was begun to be ended is ended, even if the sender goes meanwhile.
  while (!stopping_ || state_ == State::Ending) {
    std::this_thread::sleep_until(next);
    next += kPeriod;
    const State state = state_;
    if (state != State::Ending) left = kLastPackets;
    if (state == State::Silent) continue;
    for (std::size_t i = 0; i < kChannels; ++i) packet[i + 1] = slots_[i].load(std::memory_order_relaxed);
    const int error = sendPacket(packet);
    const auto now = std::chrono::duration_cast<Instant>(std::chrono::steady_clock::now().time_since_epoch());
    count(1, error == 0 ? packet.size() : 0, {error == 0 ? 1u : 0u, error}, now);
    State ending = State::Ending;
    if (state == State::Ending && (--left <= 0 || error != 0))
      state_.compare_exchange_strong(ending, State::Silent);
  }
  // What stays on the line stays lit: the last word is black.
  if (state_ == State::Silent) return;
  packet.fill(0);
  sendPacket(packet);
}

}  // namespace chispa::link
