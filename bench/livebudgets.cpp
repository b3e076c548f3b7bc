// SPDX-License-Identifier: GPL-3.0-or-later
#include "livebudgets.h"

#include <algorithm>
#include <csignal>
#include <thread>

#include "handmadedesk.h"
#include "largeshow.h"
#include "machine.h"
#include "report.h"
#include <arpa/inet.h>
#include <poll.h>
#include <sys/socket.h>
#include <sys/wait.h>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "engine/midihub.h"
#include "engine/player.h"
#include "link/e131.h"
#include "link/osc.h"

namespace chispa::bench {
namespace {

using namespace std::chrono_literals;
using Clock = std::chrono::steady_clock;

/// One strip on a controller that is this program, and a control that drives its first channel.
struct Chain {
  explicit Chain(const BindingSource& source) {
    const FixtureId strip = addFixture(show, LineShape{10, 0.1}, {});
    box = addController(show, 1);
    changeItem(show.controllers, box, [this](Controller& c) {
      c.host = "127.0.0.1";
      c.udpPort = ear.port();
    });
    hang(show, {strip, 0, 10}, {box, 0, 0});
    addBinding(show, source, {.kind = TargetKind::Channels, .controller = box, .universe = 1, .channel = 1});
    player.setShow(show, compile(show));
    player.switchLight(true);
    std::this_thread::sleep_for(300ms);
  }
  /// Milliseconds until a packet has `value` in its first channel.
  double until(std::uint8_t value) const {
    const auto begun = Clock::now();
    std::array<std::uint8_t, 2048> buffer;
    while (Clock::now() - begun < 1s) {
      pollfd waiting{ear.fd(), POLLIN, 0};
      if (::poll(&waiting, 1, 100) <= 0) continue;
      const ssize_t count = ::recv(ear.fd(), buffer.data(), buffer.size(), 0);
      const auto data =
          link::readE131Data(std::span(buffer).first(static_cast<std::size_t>(std::max<ssize_t>(0, count))));
      if (data && !data->values.empty() && data->values[0] == value)
        return std::chrono::duration<double, std::milli>(Clock::now() - begun).count();
    }
    return 1000;
  }

  LoopbackSocket ear;
  Show show;
  ControllerId box;
  engine::Player player{engine::Player::Options{}};
};

/// The 99th percentile of `tries` ways from `move(value)` to the packet.
template <class Move>
std::string latency(const Chain& chain, Move move) {
  constexpr int kTries = 200;
  std::vector<double> all;
  for (int i = 0; i < kTries; ++i) {
    const auto value = static_cast<std::uint8_t>(i % 2 ? 255 : 0);
    // At any instant between two frames.
    std::this_thread::sleep_for(std::chrono::microseconds(31'000 + 997 * (i % 25)));
    move(i % 2 ? 127 : 0);
    all.push_back(chain.until(value));
  }
  std::sort(all.begin(), all.end());
  return format("%.1f ms (median %.1f)", all[all.size() * 99 / 100], all[all.size() / 2]);
}

constexpr int kDeskPort = 15'999;

void printLatencies() {
  {
    Chain chain({.kind = SourceKind::Control, .number = 1});
    const auto device = std::make_shared<link::SimulatedMidi>();
    engine::MidiHub hub(
        device, [&](const LiveEvent& event) { chain.player.live(engine::LiveSource::Midi, event); },
        [](const link::ControlHeard&) {});
    hub.refresh();
    line("MIDI message in, changed packet out, 99th percentile", "one frame + 2 ms = 27 ms",
         latency(chain, [&](int value) {
           const std::uint8_t message[] = {0xb0, 1, static_cast<std::uint8_t>(value)};
           device->send(message);
         }));
  }
  {
    Chain chain({.kind = SourceKind::Osc, .address = "/fader/1"});
    auto server = link::OscServer::open("127.0.0.1", 0, [&](const link::OscHeard& heard) {
      chain.player.live(engine::LiveSource::Osc,
                        controlEvent({.kind = SourceKind::Osc, .address = heard.address}, heard.value));
    });
    const int fd = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0);
    sockaddr_in there{};
    there.sin_family = AF_INET;
    there.sin_port = htons(static_cast<std::uint16_t>((*server)->port()));
    there.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    line("OSC packet in, changed packet out, 99th percentile", "27 ms", latency(chain, [&](int value) {
           const std::uint8_t message[] = {
               '/', 'f', 'a', 'd', 'e', 'r', '/', '1', 0, 0,
               0,   0,   ',', 'i', 0,   0,   0,   0,   0, static_cast<std::uint8_t>(value > 0 ? 1 : 0)};
           ::sendto(fd, message, sizeof message, 0, reinterpret_cast<sockaddr*>(&there), sizeof there);
         }));
    ::close(fd);
  }
  {
    Chain chain({.kind = SourceKind::Desk, .number = 1, .universe = 90});
    (void)chain.player.listenToDesks(engine::DeskListener::Options{"127.0.0.1", kDeskPort, kDeskPort + 1});
    test::HandmadeDesk desk;
    line("packet of a desk in, changed packet out, 99th percentile", "27 ms", latency(chain, [&](int value) {
           desk.sendE131("127.0.0.1", kDeskPort, 90, {static_cast<std::uint8_t>(value > 0 ? 255 : 0)});
         }));
  }
}

/// A show of 20,000 px that plays, and what it costs on top to hear 64 universes and a hundred bindings: each
/// universe lights all of it, or its own part.
void printCosts(bool isParted) {
  const LoopbackSocket sink;
  Show show = largeShow(118, 1, sink.port());
  std::vector<ZoneId> zones(64, show.zones.front()->id);
  if (isParted) zones = divideZone(show, show.zones.front()->id, {.by = Division::Parts, .n = 64});
  const auto share = [&](const std::function<void(engine::Player&)>& meanwhile) {
    engine::Player player(engine::Player::Options{});
    player.setShow(show, compile(show));
    player.switchLight(true);
    meanwhile(player);
    std::this_thread::sleep_for(500ms);
    const double before = cpuSeconds();
    std::this_thread::sleep_for(4s);
    const double percent = (cpuSeconds() - before) / 4 * 100;
    return std::pair(percent, player.stats().skipped.load());
  };
  const double plain = share([](engine::Player&) {}).first;
  for (int i = 0; i < 100; ++i)
    addBinding(show, {.kind = SourceKind::Control, .number = i % 128},
               {.kind = TargetKind::ZoneLevel, .zone = zones[static_cast<std::size_t>(i) % zones.size()]});
  for (int i = 0; i < 64; ++i)
    addDeskInput(show, {.zone = zones[static_cast<std::size_t>(i)],
                        .universe = 1000 + i,
                        .channel = 1,
                        .cells = 1,
                        .use = DeskUse::Multiplies});
  // A desk that sends 64 universes 40 times a second, in a process of its own.
  const pid_t desk = ::fork();
  if (desk == 0) {
    test::HandmadeDesk sender;
    const std::vector<std::uint8_t> values(512, 200);
    for (;;) {
      for (int i = 0; i < 64; ++i) sender.sendE131("127.0.0.1", kDeskPort, 1000 + i, values);
      std::this_thread::sleep_for(25ms);
    }
  }
  std::size_t heard = 0;
  const auto [busy, skipped] = share([&](engine::Player& player) {
    (void)player.listenToDesks(engine::DeskListener::Options{"127.0.0.1", kDeskPort, kDeskPort + 1});
    for (int i = 0; i < 100; ++i)
      player.live(engine::LiveSource::Midi, controlEvent({.kind = SourceKind::Control, .number = i}, 0.9f));
    std::this_thread::sleep_for(1s);
    heard = player.heardFromDesks().size();
  });
  ::kill(desk, SIGKILL);
  ::waitpid(desk, nullptr, 0);
  line("universes heard meanwhile", "64", std::to_string(heard));
  line(isParted ? "100 bindings, 64 universes, each on its part, on top"
                : "100 bindings, 64 universes, each on all 20,000 px, on top",
       "<= 10 % of one core",
       format("%.1f %% (from %.1f to %.1f %%, %llu skipped)", busy - plain, plain, busy,
              static_cast<unsigned long long>(skipped)));
}

void printLooks() {
  const LoopbackSocket sink;
  Show show = largeShow(118, 1, sink.port());
  std::vector<LookId> looks;
  const char* const effects[] = {"comets", "swell", "glints", "ribbon", "hold", "weave"};
  std::vector<ZoneId> zones;
  for (const auto& zone : show.zones) zones.push_back(zone->id);
  for (int i = 0; i < 12; ++i)
    looks.push_back(addLook(show, "Look", zones, effects[i % 6],
                            show.palettes.empty() ? PaletteId{} : show.palettes[0]->id));
  engine::Player player(engine::Player::Options{});
  player.setShow(show, compile(show));
  player.switchLight(true);
  for (const LookId look : looks)
    player.live(engine::LiveSource::Window, {LiveEvent::Kind::Light, look.value, 1});
  std::this_thread::sleep_for(1s);
  const double before = cpuSeconds();
  const auto skipped = player.stats().skipped.load();
  std::this_thread::sleep_for(4s);
  line("twelve looks over 20,000 px at 40 fps", "no frame skipped",
       format("%.0f %% of one core, %llu skipped", (cpuSeconds() - before) / 4 * 100,
              static_cast<unsigned long long>(player.stats().skipped.load() - skipped)));
}

}  // namespace

void printLiveBudgets() {
  printLatencies();
  printCosts(true);
  printCosts(false);
  printLooks();
}

}  // namespace chispa::bench
