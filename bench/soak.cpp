// SPDX-License-Identifier: GPL-3.0-or-later
#include "soak.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <chrono>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <fstream>
#include <span>
#include <string>
#include <thread>
#include <vector>

#include "largeshow.h"
#include "machine.h"
#include <netinet/udp.h>
#include <pthread.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/render/compiled.h"
#include "engine/player.h"

namespace chispa::bench {
namespace {

using SteadyTime = std::chrono::steady_clock;

/// What the counting process has seen.
struct Count {
  std::uint64_t packets = 0;
  std::uint64_t gaps = 0;
  std::uint64_t universes = 0;
};

volatile std::sig_atomic_t ended = 0;

/// A process that takes E1.31 at 127.0.0.1 and counts packets and gaps in their sequences; its time is not
/// the player's.
class Counter {
 public:
  Counter() {
    constexpr int kBuffer = 64 << 20;
    if (::setsockopt(socket_.fd(), SOL_SOCKET, SO_RCVBUFFORCE, &kBuffer, sizeof kBuffer) != 0)
      ::setsockopt(socket_.fd(), SOL_SOCKET, SO_RCVBUF, &kBuffer, sizeof kBuffer);
    if (::pipe(pipe_.data()) != 0) std::abort();
    pid_ = ::fork();
    if (pid_ == 0) count();
  }

  int port() const { return socket_.port(); }
  Count finish() const {
    ::kill(pid_, SIGTERM);
    Count count;
    if (::read(pipe_[0], &count, sizeof count) != sizeof count) std::printf("the counter did not report\n");
    ::waitpid(pid_, nullptr, 0);
    return count;
  }

 private:
  [[noreturn]] void count() const {
    std::signal(SIGTERM, [](int) { ended = 1; });
    Count count;
    std::vector<int> last(65'536, -1);
    // Packets of one sender come as one (UDP_GRO), so that reading costs less than sending.
    constexpr int kOn = 1;
    ::setsockopt(socket_.fd(), SOL_UDP, UDP_GRO, &kOn, sizeof kOn);
    constexpr std::size_t kAtOnce = 32;
    static std::array<std::array<std::uint8_t, 65'536>, kAtOnce> buffers;
    static std::array<std::array<char, 64>, kAtOnce> controls;
    std::array<iovec, kAtOnce> places{};
    std::array<mmsghdr, kAtOnce> messages{};
    const timeval wait{0, 50'000};
    ::setsockopt(socket_.fd(), SOL_SOCKET, SO_RCVTIMEO, &wait, sizeof wait);
    for (int quiet = 0; quiet < 10;) {
      for (std::size_t i = 0; i < kAtOnce; ++i) {
        places[i] = {buffers[i].data(), buffers[i].size()};
        messages[i].msg_hdr = {};
        messages[i].msg_hdr.msg_iov = &places[i];
        messages[i].msg_hdr.msg_iovlen = 1;
        messages[i].msg_hdr.msg_control = controls[i].data();
        messages[i].msg_hdr.msg_controllen = controls[i].size();
      }
      const int got = ::recvmmsg(socket_.fd(), messages.data(), kAtOnce, MSG_WAITFORONE, nullptr);
      // After the end what is still on its way is counted, too.
      quiet = got > 0 ? 0 : quiet + (ended ? 1 : 0);
      for (int i = 0; i < got; ++i) {
        const mmsghdr& message = messages[static_cast<std::size_t>(i)];
        const std::size_t size = segmentOf(message.msg_hdr, message.msg_len);
        for (std::size_t at = 0; at < message.msg_len; at += size)
          note(std::span(buffers[static_cast<std::size_t>(i)]).subspan(at), last, count);
      }
    }
    [[maybe_unused]] const auto written = ::write(pipe_[1], &count, sizeof count);
    ::_exit(0);
  }

  /// The length of each packet in a message.
  static std::size_t segmentOf(const msghdr& header, std::size_t length) {
    auto* own = const_cast<msghdr*>(&header);
    for (cmsghdr* words = CMSG_FIRSTHDR(own); words; words = CMSG_NXTHDR(own, words)) {
      if (words->cmsg_level != SOL_UDP || words->cmsg_type != UDP_GRO) continue;
      int size = 0;
      std::memcpy(&size, CMSG_DATA(words), sizeof size);
      return static_cast<std::size_t>(size);
    }
    return std::max<std::size_t>(1, length);
  }
  /// E1.31: its universe and its number. DDP has no universes: packets are counted.
  static void note(std::span<const std::uint8_t> packet, std::vector<int>& last, Count& count) {
    ++count.packets;
    if (packet[0] != 0) return;
    int& before = last[static_cast<std::size_t>(packet[113] << 8 | packet[114])];
    if (before < 0) ++count.universes;
    if (before >= 0 && packet[111] != ((before + 1) & 255)) ++count.gaps;
    before = packet[111];
  }

  LoopbackSocket socket_;
  pid_t pid_ = 0;
  std::array<int, 2> pipe_{};
};

double residentMegabytes() {
  std::ifstream in("/proc/self/statm");
  long all = 0, resident = 0;
  in >> all >> resident;
  return static_cast<double>(resident * ::sysconf(_SC_PAGESIZE)) / (1 << 20);
}

/// Seconds that the machine below took from both cores since it started; what it takes nobody here can use.
double stolenSeconds() {
  std::ifstream in("/proc/stat");
  std::string word;
  std::array<double, 8> ticks{};
  in >> word;
  for (double& one : ticks) in >> one;
  return ticks[7] / static_cast<double>(::sysconf(_SC_CLK_TCK));
}

/// The floor of lateness: a thread that does nothing but wake at the same instants, beside the player and as
/// urgent.
class IdleThread {
 public:
  IdleThread() : thread_([this] { run(); }) {}
  ~IdleThread() { finish(); }
  void finish() {
    stopping_ = true;
    if (thread_.joinable()) thread_.join();
  }
  const engine::LatenessHistogram& lateness() const { return lateness_; }
  /// Periods during which the machine did not let even this thread run: the same count as the player's
  /// skipped ones.
  std::uint64_t missed() const { return missed_; }

 private:
  void run() {
    const sched_param priority{.sched_priority = 10};
    pthread_setschedparam(pthread_self(), SCHED_FIFO, &priority);
    engine::SteadyClock clock;
    constexpr engine::MonoTime kPeriod = std::chrono::milliseconds(25);
    for (engine::MonoTime next = clock.now(); !stopping_; next += kPeriod) {
      clock.sleepUntil(next);
      const engine::MonoTime late = clock.now() - next;
      lateness_.add(late);
      missed_ += static_cast<std::uint64_t>(late / kPeriod);
      next += late / kPeriod * kPeriod;
    }
  }
  engine::LatenessHistogram lateness_;
  std::uint64_t missed_ = 0;
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

/// Packets a second of one thread that does nothing but send full frames to a counter of its own.
double sendingFloor() {
  const Counter counter;
  const Show show = largeShow(1000, 1, counter.port());
  const auto compiled = compile(show);
  AllSenders all(show, *compiled);
  const std::vector<std::uint8_t> values(compiled->packer->bufferSize(), 9);
  const auto begun = SteadyTime::now();
  int frames = 0;
  for (; SteadyTime::now() - begun < std::chrono::seconds(2); ++frames)
    all.send(values, SteadyTime::now().time_since_epoch());
  const double seconds = std::chrono::duration<double>(SteadyTime::now() - begun).count();
  counter.finish();
  return frames * 1000.0 / seconds;
}

}  // namespace

void printSoak(int seconds, int universes, Protocol protocol) {
  const double floor = sendingFloor();
  const Counter counter;
  const Show show = largeShow(universes, 3, counter.port(), protocol);
  double cpu = 0, startMemory = 0, endMemory = 0;
  std::uint64_t sent = 0, refused = 0, frames = 0, skipped = 0;
  std::array<double, 4> late{};
  std::array<double, 3> idleLate{}, leaving{};
  std::uint64_t idleMissed = 0;
  double stolen = 0;
  {
    engine::Player player({});
    player.setShow(show, compile(show));
    player.play(show.scores[0]->id, Micros(0), {Micros(0), show.scores[0]->length, true});
    player.switchLight(true);
    std::this_thread::sleep_for(std::chrono::seconds(3));
    startMemory = residentMegabytes();
    const double before = cpuSeconds();
    stolen = stolenSeconds();
    IdleThread idle;
    const auto begun = SteadyTime::now();
    std::this_thread::sleep_for(std::chrono::seconds(seconds));
    cpu =
        (cpuSeconds() - before) / std::chrono::duration<double>(SteadyTime::now() - begun).count() / 2 * 100;
    endMemory = residentMegabytes();
    stolen = (stolenSeconds() - stolen) / seconds / 2 * 100;
    idle.finish();
    idleLate = {idle.lateness().percentile_ms(0.99), idle.lateness().percentile_ms(0.999),
                idle.lateness().most_ms()};
    idleMissed = idle.missed();
    const auto& stats = player.stats();
    late = {stats.lateness.percentile_ms(0.5), stats.lateness.percentile_ms(0.99),
            stats.lateness.percentile_ms(0.999), stats.lateness.most_ms()};
    leaving = {stats.leaving.percentile_ms(0.5), stats.leaving.percentile_ms(0.99), stats.leaving.most_ms()};
    frames = stats.frames;
    skipped = stats.skipped;
    player.switchLight(false);
    std::this_thread::sleep_for(std::chrono::seconds(1));
    for (const auto& line : player.lines()) {
      sent += line.packets;
      refused += line.errors;
    }
  }
  const Count arrived = counter.finish();
  std::printf("%d universes, %d px, 3 layers, 40 fps, %s, for %d s\n", universes, universes * 170,
              protocol == Protocol::Ddp ? "DDP" : "E1.31", seconds);
  std::printf("frames                 %llu sent, %llu periods skipped\n",
              static_cast<unsigned long long>(frames), static_cast<unsigned long long>(skipped));
  std::printf("lateness               p50 %.2f, p99 %.2f, p99.9 %.2f, most %.2f ms\n", late[0], late[1],
              late[2], late[3]);
  std::printf("last packet left       p50 %.2f, p99 %.2f, most %.2f ms after the frame's instant\n",
              leaving[0], leaving[1], leaving[2]);
  std::printf("CPU                    %.1f %% of two cores\n", cpu);
  std::printf(
      "packets                %llu sent, %llu refused by the kernel, %llu arrived, %llu gaps in sequence, "
      "%llu universes\n",
      static_cast<unsigned long long>(sent), static_cast<unsigned long long>(refused),
      static_cast<unsigned long long>(arrived.packets), static_cast<unsigned long long>(arrived.gaps),
      static_cast<unsigned long long>(arrived.universes));
  std::printf("memory                 %.1f MB after 3 s, %.1f MB at the end\n", startMemory, endMemory);
  std::printf(
      "floor: idle thread     %llu periods missed, late p99 %.2f, p99.9 %.2f, most %.2f ms; the machine "
      "below took %.1f %% of both cores\n",
      static_cast<unsigned long long>(idleMissed), idleLate[0], idleLate[1], idleLate[2], stolen);
  std::printf("floor: sending alone   %.0f packets/s on one core; this run needed %.0f\n", floor,
              static_cast<double>(sent) / (seconds + 4));
}

}  // namespace chispa::bench
