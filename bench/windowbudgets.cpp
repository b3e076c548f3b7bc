// SPDX-License-Identifier: GPL-3.0-or-later
#include "windowbudgets.h"

#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>
#include <QtTest>
#include <chrono>
#include <cstdio>

#include "core/files/showfile.h"
#include "desk/frame/mainwindow.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "largeshow.h"

namespace chispa::bench {
namespace {

double secondsOf(const std::function<void()>& call) {
  const auto begun = std::chrono::steady_clock::now();
  call();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

void line(const char* what, const char* budget, const QString& reached) { std::printf("| %-58s | %-34s | %s |\n", what, budget, qPrintable(reached)); }

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
  const double all = secondsOf([&] {
    for (int i = 1; i <= moves; ++i) {
      QTest::mouseMove(&on, from + (to - from) * i / moves);
      QCoreApplication::processEvents();
    }
  });
  on.removeEventFilter(&paints);
  QTest::mouseRelease(&on, Qt::LeftButton, {}, to);
  return all / paints.count;
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
  const double opening = secondsOf([&] {
    window.openFile(QString::fromStdString(path));
    QCoreApplication::processEvents();
    plan.repaint();
  });
  line("window: open 100,000 px in 2,000 segments, first picture", "<= 1.5 s", QStringLiteral("%1 s").arg(opening, 0, 'f', 2));
  stage.settle();
  QCoreApplication::processEvents();
  const FixtureId one = document.show().fixtures[500]->id;
  selection.select(desk::FixtureIds{one});
  const QPoint at = plan.toScreen(positions(*document.show().fixtures[500]).front()).toPoint();
  const double dragging = dragSeconds(plan, at, at + QPoint(60, 40), 60);
  line("window: drag one of 1,000 fixtures among them", ">= 30 fps", QStringLiteral("%1 fps").arg(1 / dragging, 0, 'f', 0));
  desk::FixtureIds all;
  for (const auto& fixture : document.show().fixtures) all.push_back(fixture->id);
  selection.select(all);
  const double moving = dragSeconds(plan, at, at + QPoint(60, 40), 20);
  line("window: drag all 1,000 at once", "(no budget)", QStringLiteral("%1 fps").arg(1 / moving, 0, 'f', 0));
  selection.clear();
  plan.setTool(desk::PlanTool::Brush);
  const double painting = dragSeconds(plan, {60, 60}, {600, 400}, 60);
  line("window: brush over 100,000 px, from move to picture", "immediate (<= 33 ms)", QStringLiteral("%1 ms").arg(painting * 1e3, 0, 'f', 1));
}

}  // namespace chispa::bench
