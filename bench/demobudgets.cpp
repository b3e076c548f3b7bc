// SPDX-License-Identifier: GPL-3.0-or-later
#include "demobudgets.h"

#include <algorithm>
#include <thread>

#include "machine.h"
#include "report.h"
#include <QCoreApplication>
#include <QProcess>
#include <QTemporaryDir>

#include "core/edit/planedits.h"
#include "core/files/showfile.h"
#include "core/music/analysis.h"
#include "core/preview/glow.h"
#include "core/render/renderer.h"
#include "desk/session/stage.h"

namespace chispa::bench {
namespace {

constexpr Micros kFrame{25'000};
const std::string kDemo = CHISPA_SOURCE_DIR "/demo/carousel.chispa";

struct Demo {
  Show show;
  MusicLibrary music;
  std::shared_ptr<const CompiledShow> compiled;
};

Demo loadDemo() {
  Demo demo;
  if (const auto read = loadShow(kDemo)) demo.show = *read;
  std::vector<Failure> failures;
  demo.music = loadMusic(demo.show, kDemo, failures);
  demo.compiled = compile(demo.show, demo.music);
  return demo;
}

void printRendering(const Demo& demo) {
  const CompiledShow& compiled = *demo.compiled;
  Renderer renderer;
  renderer.prepare(compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled.map->count()));
  std::vector<std::uint8_t> values(compiled.packer->bufferSize());
  const CompiledScore& score = compiled.scores.front();
  double worst = 0;
  const double whole = secondsOnce([&] {
    for (Micros t{0}; t < score.length; t += kFrame)
      worst = std::max(worst, secondsOnce([&] {
                         renderer.render(score, t, frame);
                         compiled.packer->pack(frame, ditherFrame(static_cast<std::uint64_t>(t / kFrame), 40),
                                               1, values);
                       }));
  });
  line("demo: all of its score, rendered and packed at 40 fps", "",
       format("%.0f x real time (worst frame %.1f ms)", seconds(score.length) / whole, worst * 1e3));
  const OrbitCamera camera = framing(compiled.map->positions, 1.6);
  std::vector<std::uint8_t> rgba(1280 * 800 * 4);
  GlowPainter painter;
  Micros t{0};
  const double glow = secondsOf([&] {
    renderer.render(score, t = (t + kFrame) % score.length, frame);
    painter.paint(*compiled.map, frame, camera, 1280, 800, rgba.data());
  });
  line("demo: glow at 1280 x 800, rendering included", ">= 30 fps", format("%.0f fps", 1 / glow));
}

void printLive(const Demo& demo) {
  engine::Player player({});
  player.setShow(demo.show, demo.compiled);
  const Score& score = *demo.show.scores.front();
  player.play(score.id, Micros(0), {Micros(0), score.length, true});
  player.switchLight(true);
  const double cpu = cpuSeconds();
  constexpr double kRun_s = 10;
  std::this_thread::sleep_for(std::chrono::duration<double>(kRun_s));
  const auto& stats = player.stats();
  line("demo: live to its four controllers", "<= 50 % of two cores",
       format("%.1f %% of two cores", (cpuSeconds() - cpu) / kRun_s / 2 * 100));
  line("demo: 99.9 % of frames begin within", "2 ms",
       format("%.2f ms (%llu frames, %llu skipped)", stats.lateness.percentile_ms(0.999),
              static_cast<unsigned long long>(stats.frames.load()),
              static_cast<unsigned long long>(stats.skipped.load())));
}

/// From an edit in the window to the end of the frame that has it.
void printEditing() {
  QTemporaryDir folder;
  desk::Document document((folder.path() + QStringLiteral("/state")).toStdString());
  desk::Stage stage(document, engine::makeSilence("bench"));
  if (!document.open(kDemo)) return;
  stage.settle();
  stage.play();
  stage.switchLight(true);
  std::vector<double> compiled_ms, leaving_ms;
  constexpr int kEdits = 40;
  for (int i = 0; i < kEdits; ++i) {
    const auto begun = std::chrono::steady_clock::now();
    const auto passed_ms = [&] {
      return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count();
    };
    bool isTaken = false;
    QObject context;
    QObject::connect(&stage, &desk::Stage::compiledChanged, &context, [&] { isTaken = true; });
    document.apply(QStringLiteral("colour"), [i](Show& show) {
      const PaletteId id = show.palettes.front()->id;
      changeItem(show.palettes, id,
                 [i](Palette& p) { p.stops.front().colour.r = static_cast<std::uint8_t>(i); });
    });
    while (!isTaken) QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 5);
    compiled_ms.push_back(passed_ms());
    // One frame may be under way with the old show.
    for (const auto from = stage.player().stats().frames.load();
         stage.player().stats().frames.load() < from + 1;)
      std::this_thread::sleep_for(std::chrono::microseconds(200));
    leaving_ms.push_back(passed_ms());
  }
  stage.switchLight(false);
  for (auto* list : {&compiled_ms, &leaving_ms}) std::sort(list->begin(), list->end());
  line("demo: from an edit until the output has the new show", "before the next frame (25 ms)",
       format("median %.1f ms, most %.1f", compiled_ms[kEdits / 2], compiled_ms.back()));
  line("demo: from an edit until a frame has left after it", "the next frame",
       format("median %.1f ms, most %.1f", leaving_ms[kEdits / 2], leaving_ms.back()));
}

void printStart() {
  QTemporaryDir folder;
  std::vector<double> starts;
  for (int i = 0; i < 3; ++i) {
    QProcess program;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("XDG_STATE_HOME"), folder.path());
    environment.insert(QStringLiteral("XDG_CONFIG_HOME"), folder.path());
    program.setProcessEnvironment(environment);
    starts.push_back(secondsOnce([&] {
      program.start(QCoreApplication::applicationDirPath() + QStringLiteral("/chispa"),
                    {QStringLiteral("--until-shown"), QString::fromStdString(kDemo)});
      program.waitForFinished();
    }));
  }
  std::sort(starts.begin(), starts.end());
  line("start of the program to a window with the demo", "<= 1.0 s", format("%.2f s", starts[1]));
}

}  // namespace

void printDemoBudgets() {
  const Demo demo = loadDemo();
  if (!demo.compiled || demo.compiled->scores.empty())
    return void(std::printf("the demo cannot be read: %s\n", kDemo.c_str()));
  printRendering(demo);
  printLive(demo);
  printEditing();
  printStart();
}

}  // namespace chispa::bench
