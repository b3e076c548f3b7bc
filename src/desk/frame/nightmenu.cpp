// SPDX-License-Identifier: GPL-3.0-or-later
#include <QMenuBar>

#include "desk/frame/mainwindow.h"
#include "desk/run/eveningwindow.h"
#include "desk/run/nightlogview.h"
#include "desk/run/nightstrip.h"
#include "desk/run/runpage.h"
#include "desk/run/setlistlines.h"
#include "desk/run/setlistpanel.h"

namespace chispa::desk {

void MainWindow::makeNightMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Night"));
  const auto inRun = [this](auto run) {
    return [this, run] {
      showWorkspace(Workspace::Run);
      run();
    };
  };
  addAction(menu, "newSetList", tr("New &set list"), QKeySequence(tr("Ctrl+Alt+S")),
            inRun([this] { run_->setLists().addList(); }));
  addAction(menu, "lookToSetList", tr("Selected &look into the set list"), {}, inRun([this] {
              const auto* look = std::get_if<LookId>(&session_.selection.now());
              look ? run_->setLists().addLook(*look) : tell(tr("Select a look in Run first."));
            }));
  addAction(menu, "playSetList", tr("&Play or stop the set list"), QKeySequence(tr("Ctrl+Alt+P")),
            inRun([this] { run_->setLists().start(); }));
  addAction(menu, "skipPiece", tr("&On to the next piece"), QKeySequence(tr("Ctrl+Alt+PgDown")),
            [this] { night_->skip(); });
  addAction(menu, "backPiece", tr("&Back"), QKeySequence(tr("Ctrl+Alt+PgUp")), [this] { night_->back(); });
  addAction(menu, "trySetList", tr("&Try the set list at 10 × speed"), {},
            inRun([this] { run_->setLists().tryFast(); }));
  menu->addSeparator();
  addAction(menu, "newRule", tr("New &rule of the almanac"), QKeySequence(tr("Ctrl+Alt+U")),
            inRun([this] { run_->nights().addRule(); }));
  addAction(menu, "askNight", tr("As&k the almanac…"), {}, inRun([this] { run_->nights().ask(); }));
  addAction(menu, "almanacPlace", tr("Place of the &installation"), {},
            inRun([this] { session_.selection.select(AlmanacChoice{}); }));
  QAction* watch = addAction(menu, "watchNights", tr("&Watch the almanac"), QKeySequence(tr("Ctrl+Alt+W")),
                             inRun([this] { run_->nights().setWatching(!night_->isWatching()); }));
  watch->setCheckable(true);
  connect(night_, &NightDesk::changed, watch, [this, watch] { watch->setChecked(night_->isWatching()); });
  addAction(menu, "holdNight", tr("&Hold the light off tonight"), {},
            [this] { night_->hold(!night_->watch().isHeld()); });
  menu->addSeparator();
  addAction(menu, "evening", tr("The &evening, full screen"), QKeySequence(tr("F11")), [this] {
    auto* evening = findChild<EveningWindow*>();
    if (!evening) evening = new EveningWindow(session_, *night_, this);
    evening->showFullScreen();
    evening->activateWindow();
  });
  addAction(menu, "nightLog", tr("The lo&g of nights…"), {}, [this] {
    auto* view = new NightLogView(session_, this);
    view->show();
  });
}

}  // namespace chispa::desk
