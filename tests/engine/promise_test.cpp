// SPDX-License-Identifier: GPL-3.0-or-later
// What the output thread promises: it neither allocates nor frees nor locks, whatever plays; and a crash ends
// in the dark.
#include <csignal>

#include "carousel/carousel.h"
#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <poll.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "engine/darkexit.h"
#include "engine/forbidden.h"
#include "engine/player.h"
#include "link/e131.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// A socket of this machine that takes what is sent and says nothing.
class Ear {
 public:
  Ear() : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0)) {
    sockaddr_in own{};
    own.sin_family = AF_INET;
    own.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    socklen_t size = sizeof own;
    ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), size);
    ::getsockname(fd_, reinterpret_cast<sockaddr*>(&own), &size);
    port_ = ntohs(own.sin_port);
  }
  ~Ear() { ::close(fd_); }
  Ear(const Ear&) = delete;
  Ear& operator=(const Ear&) = delete;
  int port() const { return port_; }
  /// Values of the next E1.31 packet; nothing if none comes within `wait`.
  std::optional<std::vector<std::uint8_t>> next(std::chrono::milliseconds wait) const {
    pollfd waiting{fd_, POLLIN, 0};
    if (::poll(&waiting, 1, static_cast<int>(wait.count())) <= 0) return std::nullopt;
    std::array<std::uint8_t, 2048> buffer;
    const ssize_t count = ::recv(fd_, buffer.data(), buffer.size(), 0);
    const auto data =
        link::readE131Data(std::span(buffer).first(static_cast<std::size_t>(std::max<ssize_t>(0, count))));
    return data ? std::optional(std::vector<std::uint8_t>(data->values.begin(), data->values.end()))
                : std::vector<std::uint8_t>();
  }

 private:
  int fd_;
  int port_ = 0;
};

/// A line and a matrix on one controller, and a score with one clip of an effect on each.
Show showWith(const std::string& effect, int port, Protocol protocol = Protocol::E131) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{60, 0.05}, {});
  const FixtureId grid = addFixture(show, GridShape{16, 8, 0.05, 0.05}, {0, 1, 0});
  const ControllerId box = addController(show, 2);
  changeItem(show.controllers, box, [&](Controller& c) {
    c.host = "127.0.0.1";
    c.udpPort = port;
    c.protocol = protocol;
    c.sendsSync = protocol == Protocol::E131;
    c.delay_ms = 30;
  });
  hang(show, {line, 0, 60}, {box, 0, 0});
  hang(show, {grid, 0, 128}, {box, 1, 0});
  const PaletteId palette = show.newId<PaletteId>();
  put(show.palettes, Palette{palette, "P", {{0, {255, 255, 255}}, {1, {255, 80, 0}}}});
  const ScoreId score = addScore(show, "S", "", Micros(20'000'000));
  for (const auto& zone : std::vector(show.zones))
    addClip(show, score, zone->id, effect, palette, Micros(0), Micros(20'000'000));
  return show;
}

#if CHISPA_COUNTS_FORBIDDEN
TEST(Forbidden, IsCountedAtAll) {
  std::mutex mutex;
  const test::Forbidden watch;
  auto* memory = new std::vector<int>(100);
  mutex.lock();
  mutex.unlock();
  delete memory;
  EXPECT_GE(watch.allocations(), 4);
  EXPECT_GE(watch.locks(), 1);
}

class EveryEffect : public testing::TestWithParam<const Effect*> {};

TEST_P(EveryEffect, IsPlayedAndSentWithoutAllocatingOrLocking) {
  const Ear ear;
  for (const Protocol protocol : {Protocol::E131, Protocol::ArtNet, Protocol::Ddp}) {
    const Show show = showWith(GetParam()->key, ear.port(), protocol);
    Transport transport;
    Output output(transport);
    transport.set({show.scores[0]->id, Micros(0), 0s, true});
    std::vector<LineProblem> problems;
    output.load(makeProgram(show, compile(show), ProgramSetup{}, problems));
    ASSERT_TRUE(problems.empty());
    output.switchLight(true);
    int allocations = 0, locks = 0;
    {
      const test::Forbidden watch;
      for (int i = 0; i < 120; ++i) {
        output.step(i * 100ms);
        for (const MonoTime late : output.delays()) output.stepLate(late, i * 100ms + late);
      }
      output.switchLight(false);
      for (int i = 0; i < 5; ++i) output.step(13s + i * 25ms);
      allocations = watch.allocations();
      locks = watch.locks();
    }
    EXPECT_EQ(allocations, 0) << GetParam()->key;
    EXPECT_EQ(locks, 0) << GetParam()->key;
    EXPECT_TRUE(output.isDark());
  }
}

/// A show large enough for the helpers: their jobs are under the same promise.
TEST(Helpers, NeitherAllocateNorLock) {
  const Ear ear;
  Show show;
  const ControllerId box = addController(show, 2);
  changeItem(show.controllers, box, [&](Controller& c) {
    c.host = "127.0.0.1";
    c.udpPort = ear.port();
  });
  const PaletteId palette = show.newId<PaletteId>();
  put(show.palettes, Palette{palette, "P", {{0, {255, 255, 255}}, {1, {255, 80, 0}}}});
  constexpr int kPixels = 20'000;
  const FixtureId matrix = addFixture(show, GridShape{200, 100, 0.01, 0.01}, {});
  hang(show, {matrix, 0, kPixels}, {box, 0, 0});
  const ScoreId score = addScore(show, "S", "", Micros(20'000'000));
  for (const char* effect : {"ribbon", "comets", "glints", "storm"})
    addClip(show, score, show.zones[0]->id, effect, palette, Micros(0), Micros(20'000'000));
  Transport transport;
  Output output(transport);
  transport.set({score, Micros(0), 0s, true});
  std::vector<LineProblem> problems;
  output.load(makeProgram(show, compile(show), ProgramSetup{}, problems));
  output.switchLight(true);
  output.step(0ms);
  int allocations = 0, locks = 0;
  {
    const test::ForbiddenToAll watch;
    for (int i = 1; i < 200; ++i) output.step(i * 25ms);
    allocations = watch.allocations();
    locks = watch.locks();
  }
  EXPECT_EQ(allocations, 0);
  EXPECT_EQ(locks, 0);
  EXPECT_TRUE(ear.next(100ms)) << "or nothing was sent";
}

/// Pads, faders, steps, desks: what is played by hand costs the output thread no memory and no lock either.
TEST(PlayedByHand, NeitherAllocatesNorLocks) {
  const Ear ear;
  Show show = showWith("hold", ear.port());
  const ZoneId zone = show.zones[1]->id;
  std::vector<LookId> looks;
  for (const Effect& effect : effects()) looks.push_back(addLook(show, effect.name, {zone}, effect.key, {}));
  for (const LookId look : looks) addStep(show, look, 0);
  for (int i = 0; i < 100; ++i)
    addBinding(show, {.kind = SourceKind::Control, .number = i},
               i % 3 == 0   ? BindingTarget{.kind = TargetKind::ZoneLevel, .zone = zone}
               : i % 3 == 1 ? BindingTarget{.kind = TargetKind::Parameter,
                                            .look = looks[static_cast<std::size_t>(i) % looks.size()],
                                            .parameter = kStrengthKey}
                            : BindingTarget{.kind = TargetKind::Channels,
                                            .controller = show.controllers[0]->id,
                                            .count = 20,
                                            .every = 3});
  addDeskInput(show, {.zone = zone, .universe = 90, .cells = 0, .use = DeskUse::Multiplies});
  Transport transport;
  Output output(transport);
  std::vector<LineProblem> problems;
  DeskBoxes desks;
  ProgramSetup setup;
  setup.desks = &desks;
  output.load(makeProgram(show, compile(show), setup, problems));
  output.switchLight(true);
  for (auto& [universe, box] : desks) {
    box->box.filling().isHeard = true;
    box->box.publish();
  }
  // And something is listened to.
  HeardNow& heard = output.live().heardBox()->filling();
  heard.isOn = true;
  heard.music.beat_s = 0.5;
  heard.music.now = micros(HeardMusic::kWindow_s);
  heard.music.features.onsets[2] = {micros(11)};
  output.live().heardBox()->publish();
  std::vector<LiveEvent> events;
  for (int i = 0; i < 100; ++i)
    events.push_back(controlEvent({.kind = SourceKind::Control, .number = i}, 0.5f));
  int allocations = 0, locks = 0;
  {
    const test::Forbidden watch;
    for (int i = 0; i < 400; ++i) {
      const LookId look = looks[static_cast<std::size_t>(i) % looks.size()];
      output.live().push(LiveSource::Window, {LiveEvent::Kind::Press, look.value, 1});
      for (const LiveEvent& event : events) output.live().push(LiveSource::Midi, event);
      output.step(i * 25ms);
    }
    allocations = watch.allocations();
    locks = watch.locks();
  }
  EXPECT_EQ(allocations, 0);
  EXPECT_EQ(locks, 0);
  EXPECT_GT(output.live().snapshot().state.plays.size(), 10u);
}

std::vector<const Effect*> all() {
  std::vector<const Effect*> pointers;
  for (const Effect& effect : effects()) pointers.push_back(&effect);
  return pointers;
}

INSTANTIATE_TEST_SUITE_P(Registry, EveryEffect, testing::ValuesIn(all()), [](const auto& one) {
  std::string name = one.param->key;
  std::erase(name, '-');
  return name;
});
#endif

/// A child process plays, and its main thread dies by the signal. What it sent last is black.
class Crash : public testing::TestWithParam<int> {};

TEST_P(Crash, EndsInTheDark) {
  const Ear ear;
  const Show show = showWith("hold", ear.port());
  const pid_t child = ::fork();
  if (child == 0) {
    Player player({});
    player.setShow(show, compile(show));
    player.play(show.scores[0]->id, Micros(0), {Micros(0), Micros(20'000'000), true});
    player.switchLight(true);
    const DarkExit darkExit(player.output());
    // Frames are counted without light too: on a slow machine dozens have gone by already.
    const auto dark = player.stats().frames.load();
    while (player.stats().frames < dark + 12) std::this_thread::sleep_for(5ms);
    ::raise(GetParam());
    ::_exit(0);
  }
  std::vector<std::uint8_t> last;
  bool wasLit = false;
  while (const auto values = ear.next(wasLit ? 600ms : 5000ms)) {
    if (values->empty()) continue;
    last = *values;
    wasLit = wasLit || *std::max_element(last.begin(), last.end()) > 0;
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  EXPECT_TRUE(WIFSIGNALED(status) && WTERMSIG(status) == GetParam())
      << "the signal does what it would have done";
  EXPECT_TRUE(wasLit);
  ASSERT_FALSE(last.empty());
  EXPECT_EQ(*std::max_element(last.begin(), last.end()), 0);
}

INSTANTIATE_TEST_SUITE_P(Signals, Crash, testing::Values(SIGSEGV, SIGABRT, SIGFPE),
                         [](const auto& one) { return std::string(::sigabbrev_np(one.param)); });

}  // namespace
}  // namespace chispa::engine
