// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstring>

#include "budgets.h"
#include "carousel/carousel.h"
#include "demobudgets.h"
#include "eyebudgets.h"
#include "largeshow.h"
#include "livebudgets.h"
#include "soak.h"
#include "windowbudgets.h"
#include <QApplication>
#include <benchmark/benchmark.h>

#include "core/preview/glow.h"
#include "core/render/renderer.h"
#include "desk/parts/theme.h"

namespace chispa::bench {
namespace {

/// Everything that a frame of `universes` universes needs.
struct Chain {
  explicit Chain(int universes, int layers = 3)
      : show(largeShow(universes, layers)), compiled(compile(show)) {
    renderer.prepare(*compiled);
    frame.resize(static_cast<std::size_t>(compiled->map->count()));
    values.resize(compiled->packer->bufferSize());
  }

  Show show;
  std::shared_ptr<const CompiledShow> compiled;
  Renderer renderer;
  PixelFrame frame;
  std::vector<std::uint8_t> values;
};

void copyBytes(benchmark::State& state) {
  std::vector<std::uint8_t> from(static_cast<std::size_t>(state.range(0)) * kUniverseChannels, 7);
  std::vector<std::uint8_t> to(from.size());
  for (auto _ : state) {
    std::memcpy(to.data(), from.data(), from.size());
    benchmark::DoNotOptimize(to.data());
  }
}
BENCHMARK(copyBytes)->Arg(1000)->Unit(benchmark::kMillisecond);

void renderFrame(benchmark::State& state) {
  Chain chain(static_cast<int>(state.range(0)));
  Micros t{0};
  for (auto _ : state) chain.renderer.render(chain.compiled->scores[0], t += Micros(25'000), chain.frame);
}
BENCHMARK(renderFrame)->Arg(1000)->Unit(benchmark::kMillisecond);

void packFrame(benchmark::State& state) {
  Chain chain(static_cast<int>(state.range(0)));
  chain.renderer.render(chain.compiled->scores[0], Micros(1'000'000), chain.frame);
  std::uint64_t packed = 0;
  for (auto _ : state) chain.compiled->packer->pack(chain.frame, ditherFrame(packed++, 40), 1, chain.values);
}
BENCHMARK(packFrame)->Arg(1000)->Unit(benchmark::kMillisecond);

void compileShow(benchmark::State& state) {
  const Show show = largeShow(static_cast<int>(state.range(0)), 3);
  for (auto _ : state) benchmark::DoNotOptimize(compile(show));
}
BENCHMARK(compileShow)->Arg(1000)->Unit(benchmark::kMillisecond);

void renderCarousel(benchmark::State& state) {
  const auto compiled = compile(demo::carousel());
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled->map->count()));
  Micros t{0};
  for (auto _ : state)
    renderer.render(compiled->scores[0], t = (t + Micros(25'000)) % compiled->scores[0].length, frame);
}
BENCHMARK(renderCarousel)->Unit(benchmark::kMicrosecond);

void paintGlow(benchmark::State& state) {
  Chain chain(static_cast<int>(state.range(0)) / 170);
  chain.renderer.render(chain.compiled->scores[0], Micros(1'000'000), chain.frame);
  const OrbitCamera camera = framing(chain.compiled->map->positions, 1.6);
  std::vector<std::uint8_t> rgba(1280 * 800 * 4);
  GlowPainter painter;
  for (auto _ : state) painter.paint(*chain.compiled->map, chain.frame, camera, 1280, 800, rgba.data());
}
BENCHMARK(paintGlow)->Arg(20'000)->Arg(50'000)->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace chispa::bench

int main(int argc, char** argv) {
  // Measured without a screen, as everything here is.
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  chispa::desk::applyTheme(app, true);
  // "window" alone measures the window only.
  if (argc == 2 && std::string_view(argv[1]) == "window") {
    chispa::bench::printWindowBudgets();
    return 0;
  }
  // "demo" alone measures the carousel.
  if (argc == 2 && std::string_view(argv[1]) == "demo") {
    chispa::bench::printDemoBudgets();
    return 0;
  }
  // "live" measures from a hand to a packet.
  if (argc == 2 && std::string_view(argv[1]) == "live") {
    chispa::bench::printLiveBudgets();
    return 0;
  }
  // "eye" looks at simulated LEDs.
  if (argc == 2 && std::string_view(argv[1]) == "eye") return chispa::bench::eyeAccuracy();
  // "soak SECONDS" plays for long and counts what arrives; "soak million [SECONDS]" a million pixels, by
  // E1.31 and by DDP.
  if (argc >= 3 && std::string_view(argv[1]) == "soak") {
    if (std::string_view(argv[2]) != "million") {
      chispa::bench::printSoak(std::max(1, std::atoi(argv[2])));
      return 0;
    }
    constexpr int kMillion = 5'884;
    const int seconds = argc > 3 ? std::max(1, std::atoi(argv[3])) : 20;
    chispa::bench::printSoak(seconds, kMillion);
    chispa::bench::printSoak(seconds, kMillion, chispa::Protocol::Ddp);
    return 0;
  }
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  chispa::bench::printBudgets();
  chispa::bench::printLiveBudgets();
  chispa::bench::printDemoBudgets();
  chispa::bench::printWindowBudgets();
  return 0;
}
