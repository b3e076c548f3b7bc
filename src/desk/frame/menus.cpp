// SPDX-License-Identifier: GPL-3.0-or-later
#include <set>

#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenuBar>
#include <QMessageBox>
#include <QPointer>
#include <QPushButton>
#include <QSettings>

#include "core/base/overloaded.h"
#include "core/edit/arrange.h"
#include "core/edit/bindingedits.h"
#include "core/edit/deletions.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/markgroup.h"
#include "core/edit/scoreedits.h"
#include "core/edit/setlistedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "desk/bench/benchpage.h"
#include "desk/frame/actionfinder.h"
#include "desk/frame/inspector.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/pulsebar.h"
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

namespace chispa::desk {
namespace {

/// Every action of a menu and of the menus in it; a menu that fills itself does so first.
void collectActions(QMenu* menu, const QString& path, QList<FoundAction>& found) {
  emit menu->aboutToShow();
  const QString here = path + plainName(menu->title()) + QStringLiteral(" ▸ ");
  for (QAction* action : menu->actions()) {
    if (action->menu())
      collectActions(action->menu(), here, found);
    else if (!action->isSeparator() && action->isEnabled())
      found.append({here + plainName(action->text()), action->toolTip(),
                    action->shortcut().toString(QKeySequence::NativeText), [action = QPointer(action)] {
                      if (action) action->trigger();
                    }});
  }
}

}  // namespace

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
    if (mayDiscard()) offerRecovery(journalFolder());
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

void MainWindow::makeEditMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Edit"));
  undo_ = addAction(menu, "undo", tr("&Undo"), QKeySequence::Undo, [this] { session_.document.undo(); });
  redo_ = addAction(menu, "redo", tr("&Redo"), QKeySequence(tr("Ctrl+Shift+Z")),
                    [this] { session_.document.redo(); });
  menu->addSeparator();
  addAction(menu, "delete", tr("&Delete"), QKeySequence::Delete, [this] { deleteSelected(); });
  addAction(menu, "duplicate", tr("D&uplicate"), QKeySequence(tr("Ctrl+D")), [this] { duplicateSelected(); });
  addAction(menu, "rename", tr("Re&name"), QKeySequence(tr("F2")), [this] { rename(); });
  menu->addSeparator();
  addAction(menu, "group", tr("&Group"), QKeySequence(tr("Ctrl+G")), [this] { groupSelected(true); });
  addAction(menu, "ungroup", tr("U&ngroup"), QKeySequence(tr("Ctrl+Shift+G")),
            [this] { groupSelected(false); });
  addAction(menu, "copyZones", tr("&Copy zones of the fixture"), QKeySequence(tr("Ctrl+Shift+C")),
            [this] { plan_->copyZones(); });
  addAction(menu, "pasteZones", tr("&Paste zones onto fixtures"), QKeySequence(tr("Ctrl+Shift+V")),
            [this] { plan_->pasteZones(); });
  QMenu* underlays = menu->addMenu(tr("Select an under&lay"));
  connect(underlays, &QMenu::aboutToShow, this, [this, underlays] {
    underlays->clear();
    for (const auto& underlay : session_.show().underlays)
      underlays->addAction(text(underlay->name), this, [this, id = underlay->id] {
        showWorkspace(Workspace::Plan);
        session_.selection.select(id);
      });
    if (underlays->isEmpty()) underlays->addAction(tr("There is none yet"))->setEnabled(false);
  });
  menu->addSeparator();
  addAction(menu, "selectAll", tr("Select &all"), QKeySequence::SelectAll, [this] { selectAll(); });
}

void MainWindow::makeViewMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&View"));
  const QString names[] = {tr("&Plan"), tr("&Wire"), tr("&Bench"), tr("&Score"), tr("&Run")};
  for (int i = 0; i < 5; ++i)
    addAction(menu, QStringLiteral("view%1").arg(i + 1), names[i],
              QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1)),
              [this, i] { showWorkspace(static_cast<Workspace>(i)); });
  menu->addSeparator();
  addAction(menu, "showAll", tr("Show &all of it"), {}, [this] {
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
  addAction(menu, "toggleTheme", tr("&Light or dark"), QKeySequence(tr("Ctrl+Shift+L")), [this] {
    setDark(!theme().isDark);
    QSettings().setValue(QStringLiteral("dark"), theme().isDark);
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
  menu->addSeparator();
  addAction(menu, "menuAddController", tr("Add a &controller"), {}, [this] {
    ControllerId id;
    session_.edit(tr("add a controller"), [&](Show& show) { id = addController(show, 4); });
    session_.selection.select(id);
    showWorkspace(Workspace::Wire);
  });
}

void MainWindow::makeHelpMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Help"));
  addAction(menu, "findAction", tr("&Find an action…"), QKeySequence(tr("Ctrl+K")), [this] {
    auto* finder = new ActionFinder(everyAction(), this);
    finder->setAttribute(Qt::WA_DeleteOnClose);
    finder->move(mapToGlobal(QPoint(width() / 2 - finder->sizeHint().width() / 2, 60)));
    finder->show();
  });
  addAction(menu, "openDemo", tr("Open the &demo"), {}, [this] {
    if (!mayDiscard()) return;
    const QString beside = QCoreApplication::applicationDirPath();
    for (const QString& place : {beside + QStringLiteral("/../share/chispa/demo/carousel.chispa"),
                                 beside + QStringLiteral("/../../../demo/carousel.chispa")}) {
      if (!std::filesystem::exists(place.toStdString())) continue;
      openFile(place);
      return;
    }
    tell(
        tr("The demo was not found beside the program.\nInstall Chispa whole, or open demo/carousel.chispa "
           "from its source."));
  });
  addAction(menu, "about", tr("&About Chispa"), {}, [this] {
    QMessageBox::about(this, tr("About Chispa"),
                       tr("<b>Chispa 0.1</b><p>Plans, wires and programs light made of addressable LED "
                          "strip.<p>Free software under the GNU GPL, version 3 or later.<p>%1")
                           .arg(text(session_.stage.player().soundDescription())));
  });
}

QList<FoundAction> MainWindow::everyAction() {
  QList<FoundAction> found;
  for (const QAction* top : menuBar()->actions())
    if (top->menu()) collectActions(top->menu(), {}, found);
  const QString names[] = {tr("Plan"), tr("Wire"), tr("Bench"), tr("Score"), tr("Run")};
  for (int i = 0; i < pages_->count(); ++i) {
    QWidget* page = pages_->widget(i);
    for (QAbstractButton* button : page->findChildren<QAbstractButton*>()) {
      // What stands on a hidden page is found too; what its own page has hidden or switched off is not.
      const QString label = plainName(button->text().isEmpty() ? button->accessibleName() : button->text());
      if (label.isEmpty() || !button->isEnabledTo(page) || !button->isVisibleTo(page)) continue;
      found.append({names[i] + QStringLiteral(" ▸ ") + label, button->toolTip(),
                    button->shortcut().toString(QKeySequence::NativeText),
                    [this, i, button = QPointer(button)] {
                      showWorkspace(static_cast<Workspace>(i));
                      if (button) button->click();
                    }});
    }
    for (const QComboBox* box : page->findChildren<QComboBox*>()) {
      if (box->isEditable() || !box->isEnabledTo(page) || !box->isVisibleTo(page) ||
          box->accessibleName().isEmpty())
        continue;
      constexpr int kMostChoices = 24;
      for (int choice = 0; choice < std::min(box->count(), kMostChoices); ++choice)
        found.append({names[i] + QStringLiteral(" ▸ ") + box->accessibleName() + QStringLiteral(": ") +
                          box->itemText(choice),
                      box->toolTip(),
                      {},
                      [this, i, choice, box = QPointer(const_cast<QComboBox*>(box))] {
                        showWorkspace(static_cast<Workspace>(i));
                        if (!box) return;
                        box->setCurrentIndex(choice);
                        emit box->activated(choice);
                      }});
    }
  }
  return found;
}

/// Whether the workspace that is seen shows a thing of this kind as selected.
bool MainWindow::showsSelected() const {
  const Workspace seen = workspace();
  return std::visit(
      Overloaded{[&](const FixtureIds&) { return seen == Workspace::Plan; },
                 [&](ZoneId) { return seen == Workspace::Plan; },
                 [&](UnderlayId) { return seen == Workspace::Plan; },
                 [&](ControllerId) { return seen == Workspace::Wire; },
                 [&](BeadPlace) { return seen == Workspace::Wire; },
                 [&](const ClipIds&) { return seen == Workspace::Score; },
                 [&](const MarkIds&) { return seen == Workspace::Score; },
                 [&](ScoreId) { return seen == Workspace::Score; },
                 [&](PaletteId) { return seen == Workspace::Score; },
                 [&](LookId) { return seen == Workspace::Run; },
                 [&](LayerChoice) { return seen == Workspace::Run; },
                 [&](BindingId) { return seen == Workspace::Run; },
                 [&](DeskInputId) { return seen == Workspace::Run; },
                 [&](SetListId) { return seen == Workspace::Run; },
                 [&](LineChoice) { return seen == Workspace::Run; },
                 [&](RuleId) { return seen == Workspace::Run; }, [](const auto&) { return false; }},
      session_.selection.now());
}

void MainWindow::deleteSelected() {
  // In the inspector, Delete is for what has the focus there, such as a part in a list. A field of text takes
  // the key itself: with the focus in one, this was chosen by its name.
  const QWidget* focus = QApplication::focusWidget();
  const bool isText = qobject_cast<const QLineEdit*>(focus) || qobject_cast<const QAbstractSpinBox*>(focus);
  if (!showsSelected() || (focus && !isText && inspector_->isAncestorOf(focus))) return;
  const auto take = [this](const QString& name, const auto& id, const auto& edit) {
    session_.editWithCare(name, [&](Show& show) {
      Losses losses = lossesOfDeleting(show, id);
      edit(show, id);
      return losses;
    });
  };
  const Score* score = session_.stage.score();
  std::visit(
      Overloaded{
          [&](const FixtureIds& ids) { take(tr("delete fixtures"), ids, deleteFixtures); },
          [&](ZoneId id) { take(tr("delete a zone"), id, deleteZone); },
          [&](ControllerId id) { take(tr("delete a controller"), id, deleteController); },
          [&](ScoreId id) {
            take(tr("delete a score"), id, [](Show& show, ScoreId one) { remove(show.scores, one); });
          },
          [&](PaletteId id) {
            take(tr("delete a palette"), id, [](Show& show, PaletteId one) { remove(show.palettes, one); });
          },
          [&](LookId id) { take(tr("delete a look"), id, deleteLook); },
          [&](LayerChoice choice) {
            session_.edit(tr("delete a layer"),
                          [choice](Show& show) { deleteLayer(show, choice.look, choice.layer); });
          },
          [&](BindingId id) {
            session_.edit(tr("delete a binding"), [id](Show& show) { deleteBinding(show, id); });
          },
          [&](SetListId id) {
            take(tr("delete a set list"), id, [](Show& show, SetListId one) { deleteSetList(show, one); });
          },
          [&](LineChoice choice) {
            session_.edit(tr("delete a line of a set list"),
                          [choice](Show& show) { deleteLine(show, choice.list, choice.line); });
          },
          [&](RuleId id) { session_.edit(tr("delete a rule"), [id](Show& show) { deleteRule(show, id); }); },
          [&](DeskInputId id) {
            session_.edit(tr("stop listening to a desk"), [id](Show& show) { deleteDeskInput(show, id); });
          },
          [&](UnderlayId id) {
            session_.edit(tr("take an underlay away"), [id](Show& show) { remove(show.underlays, id); });
          },
          [&](const BeadPlace& place) {
            session_.edit(tr("take off a port"), [place](Show& show) {
              unhang(show, {place.controller, place.port, place.bead});
            });
          },
          [&](const MarkIds& ids) {
            session_.edit(tr("delete marks"), [&](Show& show) { deleteMarks(show, score->id, ids); });
          },
          [&](const ClipIds& ids) {
            session_.edit(tr("delete clips"),
                          [&ids, score](Show& show) { deleteClips(show, score->id, ids); });
          },
          [](const auto&) {}},
      Selected(session_.selection.now()));
  session_.selection.prune(session_.show(), session_.stage.score());
}

void MainWindow::groupSelected(bool together) {
  const FixtureIds ids = withGroups(session_.show(), session_.selection.fixtures());
  if (ids.empty()) return;
  std::set<std::string> taken;
  for (const auto& fixture : session_.show().fixtures) taken.insert(fixture->group);
  std::string name = tr("Group").toStdString();
  for (int n = 2; taken.contains(name); ++n) name = tr("Group %1").arg(n).toStdString();
  session_.edit(together ? tr("group") : tr("ungroup"),
                [&](Show& show) { groupFixtures(show, ids, together ? name : std::string()); });
}

void MainWindow::duplicateSelected() {
  if (const FixtureIds fixtures = session_.selection.fixtures(); !fixtures.empty()) {
    FixtureIds copies;
    session_.edit(tr("duplicate"), [&](Show& show) {
      copies = duplicateFixtures(show, fixtures, {0.25, -0.25, 0});
    });
    session_.selection.select(copies);
  } else if (const ClipIds clips = session_.selection.clips(); !clips.empty() && session_.stage.score()) {
    ClipIds copies;
    session_.edit(tr("duplicate clips"), [&, id = session_.stage.score()->id](Show& show) {
      copies = duplicateClips(show, id, clips);
    });
    session_.selection.select(copies);
  } else if (const auto* look = std::get_if<LookId>(&session_.selection.now())) {
    LookId copy;
    session_.edit(tr("duplicate a look"), [&, id = *look](Show& show) { copy = duplicateLook(show, id); });
    session_.selection.select(copy);
  }
}

void MainWindow::selectAll() {
  if (workspace() == Workspace::Score && session_.stage.score()) {
    ClipIds all;
    for (const auto& clip : session_.stage.score()->clips) all.push_back(clip->id);
    if (!all.empty()) session_.selection.select(all);
  } else {
    FixtureIds all;
    for (const auto& fixture : session_.show().fixtures) all.push_back(fixture->id);
    if (!all.empty()) session_.selection.select(all);
  }
}

void MainWindow::rename() {
  if (!session_.selection.fixtures().empty()) {
    showWorkspace(Workspace::Plan);
    return plan_->renameSelected();
  }
  // Everything else is renamed where its name stands in the inspector.
  for (const char* name :
       {"zoneName", "controllerName", "paletteName", "stripName", "scoreName", "markName", "showName"})
    if (auto* field = findChild<QLineEdit*>(QLatin1String(name)); field && field->isVisible()) {
      field->setFocus();
      field->selectAll();
    }
}

}  // namespace chispa::desk
