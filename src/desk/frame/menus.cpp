// SPDX-License-Identifier: GPL-3.0-or-later
// The menus File, View and Show.
#include <QApplication>
#include <QFileDialog>
#include <QMenuBar>
#include <QSettings>

#include "core/edit/wireedits.h"
#include "desk/bench/benchpage.h"
#include "desk/frame/inspector.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/preferences.h"
#include "desk/frame/pulsebar.h"
#include "desk/glow/glowview.h"
#include "desk/glow/glowwindow.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"
#include "desk/session/selectionlight.h"
#include "desk/takeaway/boarddialog.h"
#include "desk/takeaway/installationbook.h"
#include "desk/takeaway/memorydialog.h"
#include "desk/wire/wirepage.h"
#include "link/userfolders.h"

namespace chispa::desk {

void MainWindow::makeMenus() {
  makeFileMenu();
  makeEditMenu();
  makeViewMenu();
  makeShowMenu();
  makeComposeMenu();
  makeLiveMenu();
  makeNightMenu();
  makeHelpMenu();
}

void MainWindow::makeFileMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&File"));
  addAction(menu, "newShow", tr("&New show"), QKeySequence::New, [this] { newShow(); });
  addAction(menu, "openShow", tr("&Open…"), QKeySequence::Open, [this] { openAsking(); });
  recent_ = menu->addMenu(tr("Open &recent"));
  fillRecent();
  menu->addSeparator();
  addAction(menu, "saveShow", tr("&Save"), QKeySequence::Save, [this] { save(); });
  addAction(menu, "saveShowAs", tr("Save &as…"), QKeySequence(tr("Ctrl+Shift+S")), [this] { saveAs(); });
  menu->addSeparator();
  addAction(menu, "recoverWork", tr("Recover &unsaved work…"), {}, [this] {
    if (mayDiscard()) offerRecovery(link::stateFolder());
  });
  outside_ = addAction(menu, "outsideFiles", tr("Files outside the &folder…"), {}, [this] {
    isUnattended_ = false;
    askForOutsideFiles();
  });
  outside_->setToolTip(
      tr("Files that the show names outside its own folder, and that nobody has allowed it to read yet"));
  menu->addSeparator();
  addAction(menu, "importPoints", tr("&Import points…"), {}, [this] {
    showWorkspace(Workspace::Plan);
    plan_->importPoints();
  });
  addAction(menu, "importSvg", tr("Import &holes or lines of a drawing…"), {}, [this] {
    showWorkspace(Workspace::Plan);
    plan_->importSvg();
  });
  addAction(menu, "addLettering", tr("Strip along &letters…"), {}, [this] {
    showWorkspace(Workspace::Plan);
    plan_->addLettering();
  });
  addAction(menu, "addUnderlay", tr("Lay a &picture beneath the plan…"), {}, [this] {
    showWorkspace(Workspace::Plan);
    plan_->addUnderlay();
  });
  addAction(menu, "exportPlan", tr("Export the plan for the &wall…"), {}, [this] { plan_->exportPlan(); });
  addAction(menu, "exportSheet", tr("Export the &address sheet…"), {}, [this] { wire_->exportSheet(); });
  addAction(menu, "exportBooklet", tr("Export the wiring &booklet…"), {}, [this] { wire_->exportBooklet(); });
  addAction(menu, "exportPoints", tr("&Export the selected pixels' places…"), {},
            [this] { plan_->exportPoints(); });
  QMenu* takeAway = menu->addMenu(tr("&Take away"));
  addAction(takeAway, "takeToBoard", tr("For a &board…"), {}, [this] {
    auto* dialog = new BoardDialog(session_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->show();
  });
  addAction(takeAway, "takeToController", tr("Into a &controller…"), {}, [this] {
    auto* dialog = new MemoryDialog(session_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->show();
  });
  addAction(takeAway, "takeBook", tr("The whole installation as a b&ook…"), {}, [this] { writeBook(); });
  menu->addSeparator();
  addAction(menu, "quit", tr("&Quit"), QKeySequence::Quit, [this] { close(); });
}

void MainWindow::writeBook(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("The whole installation"), tr("installation.pdf"),
                                        tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  constexpr QSize kCover(1'800, 1'012);
  QApplication::setOverrideCursor(Qt::WaitCursor);
  const bool isWritten = writeInstallationBook(session_.show(), coverPicture(session_.show(), kCover), {},
                                               QDate::currentDate(), path);
  QApplication::restoreOverrideCursor();
  if (!isWritten)
    tell(tr("The book could not be written.\n%1\nCheck that the folder exists and has room.").arg(path));
}

void MainWindow::makeViewMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&View"));
  const QString names[] = {tr("&Plan"), tr("&Wire"), tr("&Bench"), tr("&Score"), tr("&Run")};
  for (int i = 0; i < 5; ++i)
    addAction(menu, QStringLiteral("view%1").arg(i + 1), names[i],
              QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1)),
              [this, i] { showWorkspace(static_cast<Workspace>(i)); });
  menu->addSeparator();
  addAction(menu, "showAll", tr("Zoom to &fit"), {}, [this] {
    workspace() == Workspace::Score ? score_->timeline().zoomToAll() : plan_->view().frameAll();
  });
  QAction* spectrum =
      addAction(menu, "showSpectrum", tr("&Spectrum of the music"), QKeySequence(tr("Ctrl+Shift+M")), [this] {
        showWorkspace(Workspace::Score);
        score_->timeline().showSpectrum(!score_->timeline().showsSpectrum());
      });
  spectrum->setCheckable(true);
  QAction* asStrips = addAction(menu, "showAsStrips", tr("Light as the s&trips show it"), {},
                                [this] { session_.stage.setShowsAsStrips(!session_.stage.showsAsStrips()); });
  asStrips->setToolTip(
      tr("Draws the light with the strips' own chips, white, response and steps, and within the power "
         "budget, in place of as it is meant"));
  asStrips->setCheckable(true);
  asStrips->setChecked(session_.stage.showsAsStrips());
  QMenu* finders = menu->addMenu(tr("Bench: &finders"));
  for (int i = 0; i < kFinderKinds; ++i)
    addAction(finders, QStringLiteral("finder%1").arg(i), finderTitle(static_cast<FinderKind>(i)), {},
              [this, i] {
                showWorkspace(Workspace::Bench);
                bench_->beginFinder(static_cast<FinderKind>(i));
              });
  addAction(finders, "finderCamera", tr("Positions by camera"), {}, [this] {
    showWorkspace(Workspace::Bench);
    bench_->beginCamera();
  });
  QMenu* glow = menu->addMenu(tr("&Glow"));
  QAction* here = addAction(glow, "showGlow", tr("In the &workspaces"), {}, [this] {
    QSettings().setValue(QStringLiteral("showsGlow"), !showsGlows());
    showGlows(showsGlows());
  });
  here->setToolTip(tr("Shows or hides the glow in Plan, Score and Run"));
  here->setCheckable(true);
  here->setChecked(showsGlows());
  showGlows(showsGlows());
  QAction* own = addAction(glow, "glowWindow", tr("In a window of its &own"),
                           QKeySequence(tr("Ctrl+Shift+W")), [this] { toggleGlowWindow(); });
  own->setToolTip(tr("For a second screen; a double click in it fills the screen"));
  own->setCheckable(true);
  addAction(menu, "showProblems", tr("Pro&blems…"), QKeySequence(tr("Ctrl+Shift+P")),
            [this] { showProblems(); });
  addAction(menu, "toggleTheme", tr("&Light or dark"), QKeySequence(tr("Ctrl+Shift+L")), [this] {
    chooseTheme(theme().isDark ? ThemeChoice::Light : ThemeChoice::Dark);
    setDark(isDarkChosen());
  });
}

void MainWindow::makeShowMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Show"));
  addAction(menu, "toggleLight", tr("Switch &light on or off"), QKeySequence(tr("F9")),
            [this] { session_.stage.switchLight(!session_.stage.isLit()); });
  addAction(menu, "toggleBlackout", tr("&Blackout"), QKeySequence(tr("F10")),
            [this] { pulse_->setBlackout(!pulse_->isBlackout()); });
  menu->addSeparator();
  QAction* locate = addAction(menu, "locate", tr("&Locate: the selection blinks"), QKeySequence(tr("Ctrl+L")),
                              [this] { light_->setLocating(!light_->isLocating()); });
  QAction* isolate =
      addAction(menu, "isolate", tr("&Isolate: only the selection plays"), QKeySequence(tr("Ctrl+I")),
                [this] { light_->setIsolating(!light_->isIsolating()); });
  for (QAction* one : {locate, isolate}) one->setCheckable(true);
  connect(light_, &SelectionLight::changed, this, [this, locate, isolate] {
    locate->setChecked(light_->isLocating());
    isolate->setChecked(light_->isIsolating());
  });
  menu->addSeparator();
  QAction* play = addAction(menu, "togglePlay", tr("&Play or pause"), QKeySequence(Qt::Key_Space),
                            [this] { session_.stage.togglePlaying(); });
  play->setShortcutContext(Qt::WindowShortcut);
  addAction(menu, "toStart", tr("To the &start"), {}, [this] { session_.stage.seek(Micros(0)); });
  addAction(menu, "menuNewScore", tr("&New score from music…"), {}, [this] {
    showWorkspace(Workspace::Score);
    score_->newScore();
  });
  addAction(menu, "newSilentScore", tr("New s&ilent score…"), {}, [this] {
    showWorkspace(Workspace::Score);
    score_->newSilentScore();
  })->setToolTip(tr("A score without music, with bars and beats at a tempo that you choose"));
  menu->addSeparator();
  addAction(menu, "menuAddController", tr("Add a &controller"), {}, [this] {
    ControllerId id;
    session_.edit(tr("add a controller"), [&](Show& show) { id = addController(show, 4); });
    session_.selection.select(id);
    showWorkspace(Workspace::Wire);
  });
}

}  // namespace chispa::desk
