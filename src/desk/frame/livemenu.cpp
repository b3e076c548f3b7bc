// SPDX-License-Identifier: GPL-3.0-or-later
#include <QMenuBar>

#include "core/edit/lookedits.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/phonedialog.h"
#include "desk/run/atoncebar.h"
#include "desk/run/livepanel.h"
#include "desk/run/runpage.h"
#include "desk/run/surfacewindow.h"

namespace chispa::desk {

void MainWindow::makeLiveMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Live"));
  const auto inRun = [this](auto run) {
    return [this, run] {
      showWorkspace(Workspace::Run);
      run();
    };
  };
  addAction(menu, "newLook", tr("&New look"), QKeySequence(tr("Ctrl+Alt+N")),
            inRun([this] { run_->addLook(); }));
  addAction(menu, "keepLook", tr("&Keep what is lit as a look"), QKeySequence(tr("Ctrl+Alt+K")),
            inRun([this] { run_->keepWhatIsLit(); }));
  addAction(menu, "lookOfClip", tr("A look of the selected &clip"), {}, [this] {
    const Score* score = session_.stage.score();
    const ClipIds clips = session_.selection.clips();
    const Clip* clip = score && !clips.empty() ? findClip(*score, clips.front()) : nullptr;
    if (!clip) return tell(tr("Select a clip in Score first."));
    LookId made;
    session_.edit(tr("a look of a clip"), [&, one = *clip](Show& show) {
      const Effect* effect = findEffect(one.effect);
      made = keepLook(show, effect ? effect->name : tr("Look").toStdString(), one);
    });
    showWorkspace(Workspace::Run);
    session_.selection.select(made);
  });
  addAction(menu, "keepAtOnce", tr("Keep the light that was chosen &at once"), {},
            inRun([this] { run_->atOnce().keep(); }));
  addAction(menu, "screenColours", tr("Colours &from the screen…"), {},
            inRun([this] { run_->atOnce().takeColours(); }));
  menu->addSeparator();
  addAction(menu, "learnControl", tr("&Learn a control"), QKeySequence(tr("Ctrl+Alt+L")),
            inRun([this] { run_->live().learn(true); }));
  addAction(menu, "copyAlongMenu", tr("Copy a binding &along…"), {},
            inRun([this] { run_->live().copyAlong(); }));
  addAction(menu, "showSurface", tr("A &surface of pads and faders"), {}, [this] {
    inputs_->setMidi(true);
    auto* surface = new SurfaceWindow(inputs_->surface(), this);
    surface->setAttribute(Qt::WA_DeleteOnClose);
    surface->show();
  });
  menu->addSeparator();
  addAction(menu, "listenZone", tr("The selected &zone listens to a desk"), {},
            inRun([this] { run_->live().listenToDesk(); }));
  addAction(menu, "listenCollapsed", tr("Every fixture listens to a desk as &one cell"), {},
            inRun([this] { run_->live().collapseAndListen(); }));
  addAction(menu, "exportDeskSheet", tr("Export the &desk sheet…"), {},
            inRun([this] { run_->live().exportDeskSheet(); }));
  menu->addSeparator();
  addAction(menu, "phonePage", tr("&Phone page…"), {}, [this] {
    auto* dialog = new PhoneDialog(*phones_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->show();
  });
  addAction(menu, "recordLive", tr("&Record into the score, or end it"), QKeySequence(tr("Ctrl+Alt+E")),
            inRun([this] { run_->record(!session_.stage.isKeeping()); }));
  addAction(menu, "tapTempo", tr("&Tap the tempo"), QKeySequence(tr("Ctrl+Alt+T")), [this] {
    session_.stage.play({LiveEvent::Kind::Tap, 0, 0});
  });
  addAction(menu, "resetLive", tr("Rese&t: let go of everything"), QKeySequence(tr("Ctrl+Alt+0")),
            [this] { run_->reset(); });
}

}  // namespace chispa::desk
