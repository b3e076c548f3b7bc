// SPDX-License-Identifier: GPL-3.0-or-later
// The Edit menu, and what it does to whatever is selected.
#include <array>
#include <set>

#include <QAbstractSpinBox>
#include <QActionGroup>
#include <QApplication>
#include <QLineEdit>
#include <QMenuBar>

#include "core/base/overloaded.h"
#include "core/edit/arrange.h"
#include "core/edit/bindingedits.h"
#include "core/edit/deletions.h"
#include "core/edit/deskedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/markgroup.h"
#include "core/edit/scoreedits.h"
#include "core/edit/setlistedits.h"
#include "core/edit/transfer.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "desk/frame/historydialog.h"
#include "desk/frame/inspector.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/preferences.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/plan/planpage.h"
#include "desk/score/composing.h"
#include "desk/score/scorepage.h"
#include "desk/session/parcelboard.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
void MainWindow::makeEditMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Edit"));
  undo_ = addAction(menu, "undo", tr("&Undo"), QKeySequence::Undo, [this] { session_.document.undo(); });
  redo_ = addAction(menu, "redo", tr("&Redo"), QKeySequence(tr("Ctrl+Shift+Z")),
                    [this] { session_.document.redo(); });
  addAction(menu, "showHistory", tr("&History…"), QKeySequence(tr("Ctrl+Shift+H")), [this] {
    showHistory();
  })->setToolTip(tr("What was done, step by step, to go back to any of it"));
  menu->addSeparator();
  // In Score these keys are for clips (Compose).
  carrying_ = new QActionGroup(this);
  carrying_->setExclusionPolicy(QActionGroup::ExclusionPolicy::None);
  for (QAction* one :
       {addAction(menu, "cutThings", tr("Cu&t"), QKeySequence::Cut,
                  [this] {
                    if (copySelected()) deleteSelected();
                  }),
        addAction(menu, "copyThings", tr("&Copy"), QKeySequence::Copy, [this] { copySelected(); }),
        addAction(menu, "pasteThings", tr("&Paste"), QKeySequence::Paste, [this] { pasteClipboard(); })})
    carrying_->addAction(one);
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
  menu->addSeparator();
  addAction(menu, "preferences", tr("Pre&ferences…"), QKeySequence(tr("Ctrl+,")),
            [this] { showPreferences(); });
}

/// Whether the workspace that is seen shows a thing of this kind as selected.
bool MainWindow::showsSelected() const {
  const Workspace seen = workspace();
  return std::visit(Overloaded{[&](const FixtureIds&) { return seen == Workspace::Plan; },
                               [&](ZoneId) { return seen == Workspace::Plan; },
                               [&](const ZoneIds&) { return seen == Workspace::Plan; },
                               [&](UnderlayId) { return seen == Workspace::Plan; },
                               [&](ControllerId) { return seen == Workspace::Wire; },
                               [&](const ControllerIds&) { return seen == Workspace::Wire; },
                               [&](const BeadPlace&) { return seen == Workspace::Wire; },
                               [&](const BeadPlaces&) { return seen == Workspace::Wire; },
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
                               [&](RuleId) { return seen == Workspace::Run; },
                               [](const auto&) { return false; }},
                    session_.selection.now());
}

namespace {

/// Deletes what others of the show may stand on, with a word of what goes with it. False if it is none such.
bool deleteWithCare(const Session& session, const Selected& selected) {
  const auto takeAll = [&session](const QString& name, const auto& ids, const auto& edit) {
    session.editWithCare(name, [&](Show& show) {
      Losses losses;
      for (const auto& id : ids) {
        const Losses more = lossesOfDeleting(show, id);
        losses.insert(losses.end(), more.begin(), more.end());
        edit(show, id);
      }
      return losses;
    });
    return true;
  };
  const auto take = [&](const QString& name, const auto& id, const auto& edit) {
    return takeAll(name, std::array{id}, edit);
  };
  return std::visit(
      Overloaded{
          [&](const FixtureIds& ids) { return take(MainWindow::tr("delete fixtures"), ids, deleteFixtures); },
          [&](ZoneId id) { return take(MainWindow::tr("delete a zone"), id, deleteZone); },
          [&](const ZoneIds& ids) { return takeAll(MainWindow::tr("delete zones"), ids, deleteZone); },
          [&](ControllerId id) { return take(MainWindow::tr("delete a controller"), id, deleteController); },
          [&](const ControllerIds& ids) {
            return takeAll(MainWindow::tr("delete controllers"), ids, deleteController);
          },
          [&](ScoreId id) {
            return take(MainWindow::tr("delete a score"), id,
                        [](Show& show, ScoreId one) { remove(show.scores, one); });
          },
          [&](PaletteId id) {
            return take(MainWindow::tr("delete a palette"), id,
                        [](Show& show, PaletteId one) { remove(show.palettes, one); });
          },
          [&](LookId id) { return take(MainWindow::tr("delete a look"), id, deleteLook); },
          [&](SetListId id) {
            return take(MainWindow::tr("delete a set list"), id,
                        [](Show& show, SetListId one) { deleteSetList(show, one); });
          },
          [](const auto&) { return false; }},
      selected);
}

/// Deletes what nothing else stands on.
void deletePlainly(const Session& session, const Selected& selected) {
  const Score* score = session.stage.score();
  std::visit(
      Overloaded{[&](LayerChoice choice) {
                   session.edit(MainWindow::tr("delete a layer"),
                                [choice](Show& show) { deleteLayer(show, choice.look, choice.layer); });
                 },
                 [&](BindingId id) {
                   session.edit(MainWindow::tr("delete a binding"),
                                [id](Show& show) { deleteBinding(show, id); });
                 },
                 [&](LineChoice choice) {
                   session.edit(MainWindow::tr("delete a line of a set list"),
                                [choice](Show& show) { deleteLine(show, choice.list, choice.line); });
                 },
                 [&](RuleId id) {
                   session.edit(MainWindow::tr("delete a rule"), [id](Show& show) { deleteRule(show, id); });
                 },
                 [&](DeskInputId id) {
                   session.edit(MainWindow::tr("stop listening to a desk"),
                                [id](Show& show) { deleteDeskInput(show, id); });
                 },
                 [&](UnderlayId id) {
                   session.edit(MainWindow::tr("remove an underlay"),
                                [id](Show& show) { remove(show.underlays, id); });
                 },
                 [&](const BeadPlace& place) {
                   session.edit(MainWindow::tr("remove from a port"),
                                [place](Show& show) { unhang(show, chainPlace(place)); });
                 },
                 [&](const BeadPlaces& places) {
                   session.edit(MainWindow::tr("remove from a port"),
                                [&places](Show& show) { unhang(show, chainPlaces(places)); });
                 },
                 [&](const MarkIds& ids) {
                   session.edit(MainWindow::tr("delete marks"),
                                [&](Show& show) { deleteMarks(show, score->id, ids); });
                 },
                 [&](const ClipIds& ids) {
                   session.edit(MainWindow::tr("delete clips"),
                                [&ids, score](Show& show) { deleteClips(show, score->id, ids); });
                 },
                 [](const auto&) {}},
      selected);
}

}  // namespace

void MainWindow::deleteSelected() {
  // In the inspector, Delete is for what has the focus there, such as a part in a list. A field of text takes
  // the key itself: with the focus in one, this was chosen by its name.
  const QWidget* focus = QApplication::focusWidget();
  const bool isText = qobject_cast<const QLineEdit*>(focus) || qobject_cast<const QAbstractSpinBox*>(focus);
  if (!showsSelected() || (focus && !isText && inspector_->isAncestorOf(focus))) return;
  // A copy: edits change what is selected.
  const Selected selected = session_.selection.now();
  if (!deleteWithCare(session_, selected)) deletePlainly(session_, selected);
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
  // Everything else is renamed where its name stands in the inspector: the first field of that kind.
  for (auto* field : inspector_->findChildren<QLineEdit*>())
    if (field->isVisible() && field->objectName().endsWith(QStringLiteral("Name"))) {
      inspector_->ensureWidgetVisible(field);
      field->setFocus(Qt::ShortcutFocusReason);
      return field->selectAll();
    }
}

/// What is selected onto the clipboard, for here or another window; false if it is nothing that can be
/// copied.
bool MainWindow::copySelected() {
  const Show& show = session_.show();
  const Show parcel = std::visit(Overloaded{[&](const FixtureIds& ids) { return parcelOf(show, ids); },
                                            [&](PaletteId id) { return parcelOf(show, id); },
                                            [&](LookId id) { return parcelOf(show, id); },
                                            [&](ZoneId id) { return parcelOf(show, ZoneIds{id}); },
                                            [&](const ZoneIds& ids) { return parcelOf(show, ids); },
                                            [&](const ClipIds& ids) {
                                              const Score* score = session_.stage.score();
                                              return score ? parcelOf(show, score->id, ids) : Show{};
                                            },
                                            [](const auto&) { return Show{}; }},
                                 session_.selection.now());
  if (parcel.fixtures.empty() && parcel.palettes.empty() && parcel.looks.empty() && parcel.zones.empty() &&
      parcel.scores.empty())
    return false;
  putOnClipboard(parcel);
  return true;
}

void MainWindow::pasteClipboard() {
  const auto held = parcelOnClipboard();
  if (!held)
    return tell(
        tr("Nothing of a show was copied yet.\nSelect fixtures, zones, clips, a palette or a look, and copy "
           "them first."));
  const Result<Show>& parcel = *held;
  if (!parcel) return tell(said(parcel.failure()));
  if (!parcel->scores.empty()) {
    showWorkspace(Workspace::Score);
    return score_->composing().pasteParcel(*parcel);
  }
  Unpacked done;
  session_.edit(tr("paste"), [&](Show& show) { done = unpack(show, *parcel); });
  if (!done.fixtures.empty()) session_.selection.select(done.fixtures);
  if (!done.palettes.empty()) session_.selection.select(done.palettes.back());
  if (!done.looks.empty()) session_.selection.select(done.looks.back());
  if (!done.zones.empty()) session_.selection.select(done.zones);
  if (done.withoutZone > 0)
    tell(counted(done.withoutZone, tr("One layer was left out: this show has no zone of that name."),
                 tr("%1 layers were left out: this show has no zones of those names.")));
  if (done.withoutFixture > 0)
    tell(counted(done.withoutFixture,
                 tr("One part of a zone was left out: this show has no such fixture with as many pixels."),
                 tr("%1 parts of zones were left out: this show has no such fixtures with as many pixels.")));
}

void MainWindow::showHistory() {
  auto* dialog = new HistoryDialog(session_.document, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->show();
}

void MainWindow::showPreferences() {
  auto* dialog = new Preferences(this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  connect(dialog, &Preferences::themeChosen, this, [this] { setDark(isDarkChosen()); });
  connect(dialog, &Preferences::soundDeviceChosen, this,
          [this](const QString& name) { session_.stage.player().setSoundDevice(name.toStdString()); });
  connect(dialog, &Preferences::actionAsked, this, [this](const QString& name) {
    if (auto* action = findChild<QAction*>(name)) return action->trigger();
    showWorkspace(Workspace::Wire);
    if (auto* button = findChild<QAbstractButton*>(name)) button->click();
  });
  dialog->show();
}

}  // namespace chispa::desk
