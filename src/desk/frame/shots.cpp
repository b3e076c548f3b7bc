// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/shots.h"

#include <cmath>
#include <iostream>
#include <tuple>

#include <QComboBox>
#include <QCoreApplication>
#include <QDir>
#include <QDoubleSpinBox>
#include <QElapsedTimer>
#include <QFile>
#include <QImage>
#include <QKeyEvent>
#include <QListWidget>
#include <QPainter>
#include <QPixmap>
#include <QPushButton>
#include <QScrollBar>
#include <QSpinBox>
#include <QTemporaryDir>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/frame/photographer.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpage.h"
#include "desk/plan/plansheet.h"
#include "desk/plan/planview.h"
#include "desk/score/clippictures.h"
#include "desk/score/drawingeditor.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"
#include "desk/session/nightdesk.h"
#include "desk/wire/booklet.h"
#include "desk/wire/wirepage.h"

namespace chispa::desk {

void Photographer::settle() {
  QElapsedTimer timer;
  timer.start();
  constexpr int kLeast_ms = 500;
  session_.stage.settle();
  while (timer.elapsed() < kLeast_ms || !window_.scorePage().pictures().isIdle())
    QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
}

void Photographer::take(const QString& name) {
  settle();
  keep(window_.grab().toImage(), name);
}

void Photographer::keep(const QImage& picture, const QString& name) {
  const QString path = QDir(folder_).filePath(name + QStringLiteral(".png"));
  if (picture.save(path)) return;
  std::cerr << path.toStdString() << ": the picture cannot be written. Check the folder.\n";
  good_ = false;
}

namespace {

/// One piece of every shape, for the guide; taken back afterwards.
void takeShapes(MainWindow& window, const Session& session, Photographer& photo) {
  PlanView& plan = window.planPage().view();
  session.edit(QStringLiteral("shapes"), [](Show& show) {
    FixtureIds all;
    for (const auto& fixture : show.fixtures) all.push_back(fixture->id);
    deleteFixtures(show, all);
    GridShape grid{16, 6, 0.05, 0.05, Corner::TopLeft, GridRuns::AlongRows, true};
    grid.missing = 6;
    grid.holes = {{2, 6}, {2, 7}, {3, 6}, {3, 7}};
    const PathShape corners{60, {{0, 0, 0}, {0.4, 0.6, 0}, {0.8, 0, 0}, {1.2, 0.6, 0}}, false};
    PathShape smooth = corners;
    smooth.smooth = true;
    std::vector<Vec3> holes;
    for (int i = 0; i < 30; ++i)
      holes.push_back(
          {0.5 + 0.1 * std::sqrt(i) * std::cos(i * 2.4), 0.4 + 0.1 * std::sqrt(i) * std::sin(i * 2.4), 0});
    const std::tuple<const char*, Shape, Vec3> pieces[] = {
        {"Line", LineShape{40, 0.03}, {0, 0, 0}},
        {"Path", corners, {1.8, -0.3, 0}},
        {"Path, smooth", smooth, {3.6, -0.3, 0}},
        {"Points", PointsShape{holes}, {5.4, -0.5, 0}},
        {"Ring", ArcShape{50, 0.5, 90, 360}, {0.5, -1.6, 0}},
        {"Arc", ArcShape{40, 0.6, 200, -140}, {2.3, -1.8, 0}},
        {"Rings", RingsShape{{10, 20, 30}, 0.15, 0.5, 90, true, false}, {4.1, -1.6, 0}},
        {"Spiral", SpiralShape{120, 3, 0.1, 0.55, 0}, {5.9, -1.6, 0}},
        {"Matrix with holes", grid, {0.5, -3.1, 0}},
        {"Cone", ConeShape{16, 14, 0.6, 0.12, 1, 0, 360, StringWay::Serpentine}, {2.4, -3.1, 0}},
        {"Spokes", SpokesShape{12, 12, 0.1, 0.6, 0, 360, StringWay::Forth}, {4.1, -3.1, 0}},
        {"Helix", SpiralShape{120, 5, 0.35, 0.35, 1}, {5.9, -3.1, 0}}};
    for (const auto& [name, shape, at] : pieces) {
      const FixtureId id = addFixture(show, shape, at);
      changeItem(show.fixtures, id, [name = name](Fixture& fixture) { fixture.name = name; });
    }
  });
  session.selection.clear();
  window.planPage().addLettering(LetteringWish{QStringLiteral("FAIR"), QStringLiteral("Noto Sans"), 0.7});
  const FixtureId letters = session.selection.fixtures().front();
  session.edit(QStringLiteral("letters"), [&](Show& show) { moveFixtures(show, {letters}, {7.4, -0.6, 0}); });
  session.selection.clear();
  plan.frameAll();
  photo.take(QStringLiteral("shapes"));
  for (int i = 0; i < 3; ++i) session.document.undo();
  plan.frameAll();
}

/// A drawing's holes over a picture beneath the plan; taken back afterwards.
void takeImports(MainWindow& window, const Session& session, Photographer& photo) {
  PlanView& plan = window.planPage().view();
  const Show before = session.show();
  const QTemporaryDir folder;
  const QString picture = folder.filePath(QStringLiteral("yard.png"));
  QImage yard(900, 620, QImage::Format_RGB32);
  QPainter painter(&yard);
  paintPlanSheet(painter, yard.size(), before, plan.projection());
  painter.end();
  yard.save(picture);
  const QString drawing = folder.filePath(QStringLiteral("ticket panel.svg"));
  QFile file(drawing);
  if (file.open(QIODevice::WriteOnly)) {
    QByteArray svg = "<svg width='1800mm' viewBox='0 0 180 120'><path d='M5 5H175V115H5Z'/>";
    for (int i = 0; i < 64; ++i)
      svg += QStringLiteral("<circle id='led%1' cx='%2' cy='%3' r='2'/>")
                 .arg(i + 1)
                 .arg(90 + 6.4 * std::sqrt(i) * std::cos(i * 2.4))
                 .arg(60 + 6.4 * std::sqrt(i) * std::sin(i * 2.4))
                 .toUtf8();
    file.write(svg + "</svg>");
    file.close();
  }
  session.edit(QStringLiteral("bare"), [](Show& show) {
    FixtureIds all;
    for (const auto& fixture : show.fixtures) all.push_back(fixture->id);
    deleteFixtures(show, all);
  });
  window.planPage().importSvg(drawing, SvgImport{false, HoleOrder::Nearest, 0});
  window.planPage().importSvg(drawing, SvgImport{true, HoleOrder::Nearest, 0});
  const FixtureIds holes = session.selection.fixtures();
  window.planPage().addUnderlay(picture);
  session.selection.select(holes);
  plan.frameAll();
  photo.take(QStringLiteral("plan-imports"));
  session.edit(QStringLiteral("back"), [&](Show& show) { show = before; });
  plan.frameAll();
}

/// Zones on the plan: painted, unrolled, around the rim; and the free view.
void takePlan(MainWindow& window, const Session& session, Photographer& photo) {
  // A copy: the document moves when it is edited.
  const Show show = session.show();
  PlanView& plan = window.planPage().view();
  session.selection.select(firstIdWhere<ZoneId>(show.zones, "Rim mirrored"));
  plan.setTool(PlanTool::Lasso);
  photo.take(QStringLiteral("plan-zone"));
  plan.setTool(PlanTool::Select);
  session.selection.select(firstIdWhere<ZoneId>(show.zones, "Column diagonal"));
  plan.setSide(PlanSide::Unrolled);
  plan.setTool(PlanTool::Brush);
  photo.take(QStringLiteral("plan-painting"));
  plan.setTool(PlanTool::Select);
  plan.setSide(PlanSide::Top);
}

/// A finder at its question, and the camera's review of the canopy, which needs the demo's nodes.
void takeBench(MainWindow& window, ControllerId rim, Photographer& photo) {
  BenchPage& bench = window.benchPage();
  bench.choosePort({rim, 1});
  bench.beginFinder(FinderKind::ColourOrder);
  photo.take(QStringLiteral("bench-finder"));
  bench.choose({BenchTarget::Kind::Controller, rim, 0, 0});
  bench.beginCamera();
  CameraPage& camera = bench.camera();
  camera.findChild<QDoubleSpinBox*>(QStringLiteral("cameraElevation"))->setValue(42);
  camera.findChild<QSpinBox*>(QStringLiteral("cameraRounds"))->setValue(1);
  camera.findChild<QComboBox*>(QStringLiteral("cameraSeverity"))->setCurrentIndex(1);
  camera.findChild<QDoubleSpinBox*>(QStringLiteral("cameraLevel"))->setValue(20);
  camera.findChild<QPushButton*>(QStringLiteral("captureLeds"))->click();
  QElapsedTimer waited;
  waited.start();
  constexpr int kMaxWait_ms = 60'000;
  while (camera.step() != CameraPage::Step::Review && waited.elapsed() < kMaxWait_ms)
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
  photo.take(QStringLiteral("bench-camera"));
  QKeyEvent escape(QEvent::KeyPress, Qt::Key_Escape, Qt::NoModifier);
  QCoreApplication::sendEvent(&camera, &escape);
}

void takeWire(MainWindow& window, const Session& session, const Show& show, ControllerId rim,
              Photographer& photo) {
  window.showWorkspace(Workspace::Wire);
  session.selection.select(BeadPlace{rim, 1, 0});
  photo.take(QStringLiteral("wire"));
  QImage page(1050, 1485, QImage::Format_RGB32);
  page.fill(Qt::white);
  QPainter painter(&page);
  painter.scale(0.5, 0.5);
  bool isFirst = true;
  // The picture is of the first page: what follows it is drawn nowhere.
  paintBooklet(painter, show, [&] {
    if (std::exchange(isFirst, false)) painter.setClipRect(QRect());
  });
  painter.end();
  photo.keep(page, QStringLiteral("wiring-booklet"));
}

/// The shelf's pictures of all effects on one sheet, for the guide.
void takeEffects(MainWindow& window, Photographer& photo) {
  auto* shelf = window.findChild<QListWidget*>(QStringLiteral("effectShelf"));
  constexpr int kAcross = 5;
  constexpr QSize kPicture(190, 74);
  constexpr int kGap = 12;
  const int line = shelf->fontMetrics().height() + 8;
  const int rows = (shelf->count() + kAcross - 1) / kAcross;
  QImage sheet(kAcross * (kPicture.width() + kGap) + kGap, rows * (kPicture.height() + line + kGap) + kGap,
               QImage::Format_RGB32);
  sheet.fill(theme().window);
  QPainter painter(&sheet);
  painter.setFont(shelf->font());
  painter.setPen(theme().text);
  for (int i = 0; i < shelf->count(); ++i) {
    const QPoint at(kGap + i % kAcross * (kPicture.width() + kGap),
                    kGap + i / kAcross * (kPicture.height() + line + kGap));
    painter.drawImage(QRect(at, kPicture), shelf->item(i)->icon().pixmap(shelf->iconSize()).toImage());
    painter.drawText(QRect(at + QPoint(0, kPicture.height()), QSize(kPicture.width(), line)),
                     Qt::AlignVCenter, shelf->item(i)->text());
  }
  painter.end();
  photo.keep(sheet, QStringLiteral("../effects"));
}

void takeDrawing(const Palette& palette, Photographer& photo) {
  DrawingEditor editor(palette, text(exampleDrawing()), [](const QString&) {});
  editor.show();
  QCoreApplication::processEvents();
  photo.keep(editor.grab().toImage(), QStringLiteral("drawing-editor"));
}

void takeScore(MainWindow& window, const Session& session, const Show& show, Photographer& photo) {
  constexpr Micros kFirstRound{11'450'000};
  constexpr Micros kFormula{62'700'000};
  const auto chooseClip = [&](const std::string& effect, Micros at) {
    const Score* score = session.stage.score();
    for (const auto& clip : score ? score->clips : decltype(Score::clips){})
      if (clip->effect == effect && clip->start <= at && clip->end() > at)
        return session.selection.select(ClipIds{clip->id});
  };
  session.stage.seek(kFirstRound);
  window.showWorkspace(Workspace::Score);
  chooseClip("comets", kFirstRound);
  photo.take(QStringLiteral("score"));
  takeEffects(window, photo);
  session.stage.seek(kFormula);
  window.setDark(false);
  chooseClip("formula", kFormula);
  window.scorePage().timeline().verticalScrollBar()->setValue(300);
  photo.take(QStringLiteral("score-formula"));
  window.setDark(true);
  takeDrawing(*chispa::find(show.palettes, firstIdWhere<PaletteId>(show.palettes, "Ember")), photo);
}

}  // namespace

bool drawShots(MainWindow& window, const Session& session, const QString& folder) {
  QDir().mkpath(folder);
  Photographer photo(window, session, folder);
  window.resize(1280, 800);
  window.show();
  // A copy: the document moves when it is edited.
  const Show show = session.show();
  // A walk of everything but the last round's middle: the canopy, ribs and column are all lit there.
  constexpr Micros kLastRound{54'300'000};
  photo.settle();
  window.setDark(true);
  session.stage.seek(kLastRound);
  window.showWorkspace(Workspace::Plan);
  session.selection.select(FixtureIds{firstIdWhere<FixtureId>(show.fixtures, "Post 3")});
  photo.take(QStringLiteral("plan"));
  takePlan(window, session, photo);
  takeShapes(window, session, photo);
  takeImports(window, session, photo);
  takeScore(window, session, show, photo);
  const ControllerId rim = firstIdWhere<ControllerId>(show.controllers, "Rim box");
  takeWire(window, session, show, rim, photo);
  window.showWorkspace(Workspace::Bench);
  session.selection.clear();
  session.stage.switchLight(true);
  window.benchPage().choosePort({firstIdWhere<ControllerId>(show.controllers, "Post box"), 0});
  window.benchPage().setSending(true);
  photo.take(QStringLiteral("bench"));
  window.benchPage().setSending(false);
  takeBench(window, rim, photo);
  session.stage.switchLight(false);
  session.stage.seek(kLastRound);
  window.showWorkspace(Workspace::Run);
  session.stage.light(firstIdWhere<LookId>(show.looks, "Lantern count"));
  takeNights(window, session, photo);
  takeBoard(session, photo);
  takeMemory(session, photo);
  window.night().play(firstIdWhere<SetListId>(show.setLists, "Fair evening"));
  constexpr std::size_t kFullFair = 5;
  window.night().jump(kFullFair);
  session.stage.play(controlEvent({.kind = SourceKind::Control, .channel = 1, .number = 3}, 0.7f));
  session.selection.select(firstIdWhere<RuleId>(show.rules, "Fair"));
  photo.take(QStringLiteral("run"));
  return photo.good();
}

}  // namespace chispa::desk
