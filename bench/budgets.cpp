// SPDX-License-Identifier: GPL-3.0-or-later
#include "budgets.h"

#include <cstring>
#include <functional>
#include <thread>

#include "largeshow.h"
#include "machine.h"
#include "report.h"
#include <sys/resource.h>

#include "core/edit/clipedits.h"
#include "core/edit/planedits.h"
#include "core/files/showjson.h"
#include "core/preview/glow.h"
#include "core/render/renderer.h"
#include "engine/player.h"

namespace chispa::bench {
namespace {

double peakMegabytes() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  return static_cast<double>(usage.ru_maxrss) / 1024;
}

void printChain(const Show& show) {
  const auto compiled = compile(show);
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled->map->count()));
  std::vector<std::uint8_t> values(compiled->packer->bufferSize());
  std::vector<std::uint8_t> copy(values.size());
  AllSenders all(show, *compiled);
  Micros t{0};
  engine::MonoTime now{0};
  const double copying = secondsOf([&] { std::memcpy(copy.data(), values.data(), values.size()); });
  const double sending = secondsOf([&] { all.send(values, now += std::chrono::milliseconds(25)); });
  const double rendering = secondsOf(
      [&] { renderer.render(compiled->scores[0], t = (t + Micros(25'000)) % Micros(60'000'000), frame); });
  std::uint64_t packed = 0;
  const double packing =
      secondsOf([&] { compiled->packer->pack(frame, ditherFrame(packed++, 40), 1, values); });
  const double whole = rendering + packing + sending;
  const double floor = copying + sending;
  line("one frame of 170,000 px: render + pack + send", "",
       format("%.2f + %.2f + %.2f ms", rendering * 1e3, packing * 1e3, sending * 1e3));
  line("the whole frame against its floor (copy + send)", "<= 3 x",
       format("%.2f x (floor %.2f ms)", whole / floor, floor * 1e3));
  line("sending alone", "floor: 256,000 packets/s", format("%.0f packets/s", 1000 / sending));
}

void printLive(const Show& show) {
  engine::Player player({});
  player.setShow(show, compile(show));
  player.play(show.scores[0]->id, Micros(0), {Micros(0), show.scores[0]->length, true});
  player.switchLight(true);
  std::this_thread::sleep_for(std::chrono::seconds(1));
  const double cpu = cpuSeconds();
  constexpr double kRun_s = 5;
  std::this_thread::sleep_for(std::chrono::duration<double>(kRun_s));
  const double share = (cpuSeconds() - cpu) / kRun_s / 2 * 100;
  const auto& stats = player.stats();
  line("live: 170,000 px, 1,000 universes, 40 fps, 3 layers", "<= 50 % of two cores",
       format("%.0f %% of two cores", share));
  line("live: 99.9 % of frames begin within", "2 ms",
       format("%.2f ms (most %.2f, %llu skipped)", stats.lateness.percentile_ms(0.999),
              stats.lateness.most_ms(), static_cast<unsigned long long>(stats.skipped.load())));
}

/// Each compiles what it changes, as the window does behind every step of a drag.
void printEdits(const Show& show) {
  const std::pair<const char*, std::function<void(Show&)>> edits[] = {
      {"compile it after a clip's number was changed",
       [](Show& next) {
         const Clip& first = *next.scores.front()->clips.front();
         changeClips(next, next.scores.front()->id, {first.id}, [](Clip& clip) {
           clip.params["passes"] = std::get<double>(clip.params["passes"]) + 0.01;
         });
       }},
      {"compile it after a port's brightness was changed",
       [](Show& next) {
         changeItem(next.controllers, next.controllers.front()->id, [](Controller& controller) {
           auto& brightness = controller.ports.front().settings.brightness;
           brightness = brightness.value_or(1) * 0.999;
         });
       }},
      {"compile it after one of its fixtures was moved", [](Show& next) {
         moveFixtures(next, {next.fixtures.front()->id}, {0.001, 0, 0});
       }}};
  for (const auto& [name, edit] : edits) {
    Show now = show;
    auto compiled = compile(now);
    const double taken = secondsOf([&] {
      edit(now);
      compiled = compile(now, {}, {}, compiled.get());
    });
    line(name, "asked <= 15 ms", format("%.1f ms", taken * 1e3));
  }
}

void printRest(const Show& show) {
  const double compiling = secondsOf([&] { compile(show); });
  line("compile a show of 170,000 px", "(no budget yet)", format("%.0f ms", compiling * 1e3));
  printEdits(show);
  const Show big = largeShow(588, 1);
  const std::string text = showText(big);
  const double opening = secondsOf([&] {
    const auto read = parseShow(text, "bench");
    compile(*read);
  });
  line("open a show of 100,000 px (read + compile)", "<= 1.5 s", format("%.3f s", opening));
  const auto compiled = compile(largeShow(118, 3));
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled->map->count()));
  Micros t{0};
  const double rendering = secondsOf(
      [&] { renderer.render(compiled->scores[0], t = (t + Micros(25'000)) % Micros(60'000'000), frame); });
  line("render 20,000 px at 40 fps without real time", ">= 60 x real time",
       format("%.0f x", 1 / (rendering * 40)));
  std::vector<std::uint8_t> rgba(1280 * 800 * 4);
  GlowPainter painter;
  for (const int universes : {118, 294}) {
    const auto glow = compile(largeShow(universes, 3));
    PixelFrame lit;
    lit.resize(static_cast<std::size_t>(glow->map->count()));
    Renderer one;
    one.prepare(*glow);
    one.render(glow->scores[0], Micros(1'000'000), lit);
    const OrbitCamera camera = framing(glow->map->positions, 1.6);
    const double painting =
        secondsOf([&] { painter.paint(*glow->map, lit, camera, 1280, 800, rgba.data()); });
    const std::string what = format("glow, %d px at 1280 x 800, one core", universes * 170);
    line(what.c_str(), universes > 200 ? ">= 30 fps" : "",
         format("%.0f fps (%.1f ms)", 1 / painting, painting * 1e3));
  }
  line("peak memory of this program", "(no budget yet)", format("%.0f MB", peakMegabytes()));
}

}  // namespace

void printBudgets() {
  // A socket that takes packets and throws them away, as a cable would; at a closed port each would cost an
  // ICMP message.
  const LoopbackSocket sink;
  const Show show = largeShow(1000, 3, sink.port());
  std::printf("\n| %-58s | %-34s | %s |\n|---|---|---|\n", "What", "Budget or floor", "Reached here");
  printChain(show);
  printLive(show);
  printRest(show);
}

}  // namespace chispa::bench
