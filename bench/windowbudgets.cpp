// SPDX-License-Identifier: GPL-3.0-or-later
#include "windowbudgets.h"

#include "largeshow.h"
#include "report.h"
#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>
#include <QtTest>

#include "core/edit/scoreedits.h"
#include "core/effect/effect.h"
#include "core/files/showfile.h"
#include "desk/frame/mainwindow.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"

namespace chispa::bench {
namespace {

/// Counts how often a widget is painted.
struct PaintCounter : QObject {
  bool eventFilter(QObject*, QEvent* event) override {
    if (event->type() == QEvent::Paint) ++count;
    return false;
  }
  int count = 0;
};

/// Moves the mouse from place to place with the left button down; seconds from picture to picture.
double dragSeconds(QWidget& on, QPoint from, QPoint to, int moves) {
  PaintCounter paints;
  on.installEventFilter(&paints);
  QTest::mousePress(&on, Qt::LeftButton, {}, from);
  const double all = secondsOnce([&] {
    for (int i = 1; i <= moves; ++i) {
      QTest::mouseMove(&on, from + (to - from) * i / moves);
      QCoreApplication::processEvents();
    }
  });
  on.removeEventFilter(&paints);
  QTest::mouseRelease(&on, Qt::LeftButton, {}, to);
  return all / paints.count;
}

/// A score of `clips` clips on `staves` staves.
Show manyClips(int staves, int clips) {
  Show show = manyPieces(staves, 1, 30);
  const PaletteId palette = addPalette(show, "P", {{0, {20, 0, 60}}, {1, {255, 220, 160}}});
  Score score;
  score.id = show.newId<ScoreId>();
  score.name = "Many";
  score.length = Micros(600'000'000);
  for (const auto& zone : show.zones) score.staves.push_back(zone->id);
  const std::vector<Effect>& all = effects();
  for (int i = 0; i < clips; ++i) {
    Clip clip;
    clip.id = show.newId<ClipId>();
    clip.zone = score.staves[static_cast<std::size_t>(i % staves)];
    clip.effect = all[static_cast<std::size_t>(i) % 20].key;
    clip.palette = palette;
    clip.start = Micros(600'000'000LL / (clips / staves) * (i / staves));
    clip.length = Micros(600'000'000LL / (clips / staves));
    score.clips.push_back(std::make_shared<const Clip>(clip));
  }
  put(show.scores, score);
  return show;
}

void printScoreBudgets(desk::MainWindow& window, desk::Document& document, desk::Stage& stage) {
  document.apply(QStringLiteral("many"), [](Show& show) { show = manyClips(300, 20'000); });
  window.showWorkspace(desk::Workspace::Score);
  stage.settle();
  desk::TimelineView& timeline = window.scorePage().timeline();
  line("window: picture of a score of 20,000 clips, all of it", "fluid (<= 33 ms)",
       format("%.1f ms", secondsOf([&] { timeline.viewport()->grab(); }) * 1e3));
  timeline.zoomBy(8);
  line("window: the same, an eighth of it", "fluid (<= 33 ms)",
       format("%.1f ms", secondsOf([&] { timeline.viewport()->grab(); }) * 1e3));
  const Clip& clip = *document.show().scores.front()->clips.front();
  timeline.reveal(clip.id);
  const QPoint at = timeline.clipBox(clip.id).center().toPoint();
  const double dragging = dragSeconds(*timeline.viewport(), at, at + QPoint(80, 0), 30);
  line("window: drag one of 20,000 clips", ">= 30 fps", format("%.0f fps", 1 / dragging));
}

}  // namespace

void printWindowBudgets() {
  QTemporaryDir folder;
  QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, folder.path());
  desk::Document document((folder.path() + QStringLiteral("/state")).toStdString());
  desk::Selection selection;
  desk::Stage stage(document, engine::makeSilence("bench"));
  desk::MainWindow window(document, selection, stage);
  window.resize(1280, 800);
  window.show();
  desk::PlanView& plan = window.planPage().view();
  const std::string path = (folder.path() + QStringLiteral("/large.chispa")).toStdString();
  if (!saveShow(path, manyPieces(1000, 2, 50))) return;
  const double opening = secondsOnce([&] {
    window.openFile(QString::fromStdString(path));
    QCoreApplication::processEvents();
    plan.repaint();
  });
  line("window: open 100,000 px in 2,000 segments, first picture", "<= 1.5 s", format("%.2f s", opening));
  stage.settle();
  QCoreApplication::processEvents();
  const FixtureId one = document.show().fixtures[500]->id;
  selection.select(desk::FixtureIds{one});
  const QPoint at = plan.toScreen(positions(*document.show().fixtures[500]).front()).toPoint();
  const double dragging = dragSeconds(plan, at, at + QPoint(60, 40), 60);
  line("window: drag one of 1,000 fixtures among them", ">= 30 fps", format("%.0f fps", 1 / dragging));
  desk::FixtureIds all;
  for (const auto& fixture : document.show().fixtures) all.push_back(fixture->id);
  selection.select(all);
  const double moving = dragSeconds(plan, at, at + QPoint(60, 40), 20);
  line("window: drag all 1,000 at once", "(no budget)", format("%.0f fps", 1 / moving));
  selection.clear();
  plan.setTool(desk::PlanTool::Brush);
  const double painting = dragSeconds(plan, {60, 60}, {600, 400}, 60);
  line("window: brush over 100,000 px, from move to picture", "immediate (<= 33 ms)",
       format("%.1f ms", painting * 1e3));
  printScoreBudgets(window, document, stage);
}

}  // namespace chispa::bench
