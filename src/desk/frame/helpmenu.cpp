// SPDX-License-Identifier: GPL-3.0-or-later
// The Help menu, and everything that can be found by its name.
#include <QAbstractButton>
#include <QActionGroup>
#include <QComboBox>
#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QMenuBar>
#include <QMessageBox>
#include <QPointer>
#include <QStackedWidget>

#include "core/effect/effect.h"
#include "desk/frame/actionfinder.h"
#include "desk/frame/guidewindow.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/shortcuts.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/scorepage.h"

namespace chispa::desk {
namespace {

/// Things of one kind by their names; to run one selects it.
template <class List, class Show>
void collectThings(const List& things, const QString& kind, Show show, QList<FoundAction>& found) {
  for (const auto& thing : things)
    found.append(
        {kind + QStringLiteral(" ▸ ") + text(thing->name), {}, {}, [show, id = thing->id] { show(id); }, {}});
}

}  // namespace

void MainWindow::makeHelpMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Help"));
  addAction(menu, "findAction", tr("&Find an action…"), QKeySequence(tr("Ctrl+K")), [this] {
    auto* finder = new ActionFinder(everyAction(), this);
    finder->setAttribute(Qt::WA_DeleteOnClose);
    finder->move(mapToGlobal(QPoint(width() / 2 - finder->sizeHint().width() / 2, 60)));
    finder->show();
  });
  addAction(menu, "showShortcuts", tr("&Shortcuts…"), QKeySequence(tr("Ctrl+F1")), [this] {
    auto* sheet = new ShortcutSheet(*menuBar(), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->show();
  });
  addAction(menu, "openGuide", tr("&Guide"), QKeySequence::HelpContents, [this] {
    openGuide();
  })->setToolTip(tr("Opens the guide at the page of this workspace"));
  addAction(menu, "openDemo", tr("Open the &demo"), {}, [this] { openDemo(); });
  addAction(menu, "about", tr("&About Chispa"), {}, [this] {
    QMessageBox::about(this, tr("About Chispa"),
                       tr("<b>Chispa 0.1</b><p>Plans, wires and programs light made of addressable LED "
                          "strip.<p>Free software under the GNU GPL, version 3 or later.<p>%1")
                           .arg(text(session_.stage.player().soundDescription())));
  });
}

/// The first of the places, beside the installed program or in its source, where `file` is; empty if none has
/// it.
QString MainWindow::sharedFile(const QString& file) {
  const QString beside = QCoreApplication::applicationDirPath();
  for (const QString& place :
       {beside + QStringLiteral("/../share/chispa/") + file, beside + QStringLiteral("/../../../") + file})
    if (QFileInfo::exists(place)) return QDir::cleanPath(place);
  return {};
}

void MainWindow::openDemo() {
  if (!mayDiscard()) return;
  const QString demo = sharedFile(QStringLiteral("demo/carousel.chispa"));
  if (!demo.isEmpty()) return void(openFile(demo));
  tell(
      tr("The demo was not found beside the program.\nInstall Chispa whole, or open demo/carousel.chispa "
         "from its source."));
}

void MainWindow::openGuide() {
  const QString guide = sharedFile(QStringLiteral("docs/guide.md"));
  if (guide.isEmpty())
    return tell(
        tr("The guide was not found beside the program.\nInstall Chispa whole, or open docs/guide.md in "
           "its source."));
  auto* window = new GuideWindow(guide, this);
  window->setAttribute(Qt::WA_DeleteOnClose);
  static const QStringList headings{QStringLiteral("Plan"), QStringLiteral("Wire"), QStringLiteral("Bench"),
                                    QStringLiteral("Score"), QStringLiteral("Play it live")};
  window->show();
  window->goTo(headings[static_cast<int>(workspace())]);
}

QList<FoundAction> MainWindow::everyAction() {
  QList<FoundAction> found;
  eachAction(*menuBar(), [&](QAction& action, const QString& path) {
    // What is composed with can be found anywhere: Score comes to the front first.
    const bool isOfScore = action.actionGroup() == composing_;
    found.append({path + plainName(action.text()), action.toolTip(),
                  action.shortcut().toString(QKeySequence::NativeText),
                  [this, isOfScore, action = QPointer(&action)] {
                    if (isOfScore) showWorkspace(Workspace::Score);
                    if (action) action->trigger();
                  },
                  action.isEnabled() || (isOfScore && !composing_->isEnabled()) ? QString()
                                                                                : tr("cannot be done now")});
  });
  const QString names[] = {tr("Plan"), tr("Wire"), tr("Bench"), tr("Score"), tr("Run")};
  for (int i = 0; i < pages_->count(); ++i) {
    QWidget* page = pages_->widget(i);
    for (QAbstractButton* button : page->findChildren<QAbstractButton*>()) {
      // What stands on a hidden page is found too; what its own page has hidden or switched off is not.
      const QString label = plainName(button->text().isEmpty() ? button->accessibleName() : button->text());
      if (label.isEmpty() || !button->isEnabledTo(page) || !button->isVisibleTo(page)) continue;
      found.append({names[i] + QStringLiteral(" ▸ ") + label,
                    button->toolTip(),
                    button->shortcut().toString(QKeySequence::NativeText),
                    [this, i, button = QPointer(button)] {
                      showWorkspace(static_cast<Workspace>(i));
                      if (button) button->click();
                    },
                    {}});
    }
    for (const QComboBox* box : page->findChildren<QComboBox*>()) {
      if (box->isEditable() || !box->isEnabledTo(page) || !box->isVisibleTo(page) ||
          box->accessibleName().isEmpty())
        continue;
      constexpr int kMaxChoices = 24;
      for (int choice = 0; choice < std::min(box->count(), kMaxChoices); ++choice)
        found.append({names[i] + QStringLiteral(" ▸ ") + box->accessibleName() + QStringLiteral(": ") +
                          box->itemText(choice),
                      box->toolTip(),
                      {},
                      [this, i, choice, box = QPointer(const_cast<QComboBox*>(box))] {
                        showWorkspace(static_cast<Workspace>(i));
                        if (!box) return;
                        box->setCurrentIndex(choice);
                        emit box->activated(choice);
                      },
                      {}});
    }
  }
  addThings(found);
  return found;
}

/// What the show is made of, and the effects of the shelf.
void MainWindow::addThings(QList<FoundAction>& found) {
  const Show& show = session_.show();
  const auto shower = [this](Workspace workspace) {
    return [this, workspace](auto id) {
      session_.selection.select(id);
      showWorkspace(workspace);
    };
  };
  collectThings(
      show.fixtures, tr("Fixture"), [this](FixtureId id) { goTo(id); }, found);
  collectThings(
      show.zones, tr("Zone"), [this](ZoneId id) { goTo(id); }, found);
  collectThings(show.controllers, tr("Controller"), shower(Workspace::Wire), found);
  collectThings(
      show.scores, tr("Score"), [this](ScoreId id) { goTo(id); }, found);
  collectThings(show.palettes, tr("Palette"), shower(Workspace::Score), found);
  collectThings(show.looks, tr("Look"), shower(Workspace::Run), found);
  collectThings(show.setLists, tr("Set list"), shower(Workspace::Run), found);
  for (const Effect& effect : effects())
    found.append({tr("Effect") + QStringLiteral(" ▸ ") + said(effect.name),
                  said(effect.summary),
                  {},
                  [this, key = text(effect.key)] {
                    showWorkspace(Workspace::Score);
                    score_->chooseEffect(key);
                  },
                  {}});
}

}  // namespace chispa::desk
