// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/mainwindow.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QMessageBox>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QTimer>
#include <QVBoxLayout>

#include "desk/bench/benchpage.h"
#include "desk/frame/inspector.h"
#include "desk/frame/phonehost.h"
#include "desk/frame/problemsdialog.h"
#include "desk/frame/pulsebar.h"
#include "desk/frame/shortcuts.h"
#include "desk/frame/startpage.h"
#include "desk/glow/glowview.h"
#include "desk/glow/glowwindow.h"
#include "desk/parts/icon.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "desk/run/runpage.h"
#include "desk/score/scorepage.h"
#include "desk/session/patience.h"
#include "desk/session/selectionlight.h"
#include "desk/wire/screenports.h"
#include "desk/wire/wirepage.h"

namespace chispa::desk {

MainWindow::MainWindow(Document& document, Selection& selection, Stage& stage)
    : session_{document, selection, stage},
      pages_(new QStackedWidget),
      spine_(new Spine),
      plan_(new PlanPage(session_)),
      wire_(new WirePage(session_)),
      bench_(new BenchPage(session_)),
      score_(new ScorePage(session_)),
      inputs_(new LiveInputs(session_, this)),
      night_(new NightDesk(session_, this)),
      phones_(new PhoneHost(session_, *bench_, *night_, this)),
      run_(new RunPage(session_, *inputs_, *night_)),
      inspector_(new Inspector(session_, plan_->view())),
      pulse_(new PulseBar(session_)),
      light_(new SelectionLight(session_, this)),
      start_(new StartPage(&plan_->view())) {
  setObjectName(QStringLiteral("mainWindow"));
  setAcceptDrops(true);
  setWindowIcon(icon("chispa"));
  resize(QSize(1280, 800).boundedTo(screen()->availableSize()));
  tell = [this](const QString& words) { QMessageBox::warning(this, tr("Chispa"), words); };
  for (QWidget* page : std::initializer_list<QWidget*>{plan_, wire_, bench_, score_, run_})
    pages_->addWidget(page);
  auto* middle = new QWidget;
  auto* column = new QVBoxLayout(middle);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  row->addWidget(spine_);
  columns_ = new QSplitter;
  columns_->setObjectName(QStringLiteral("columns"));
  columns_->setChildrenCollapsible(false);
  columns_->setHandleWidth(3);
  columns_->addWidget(pages_);
  columns_->addWidget(inspector_);
  columns_->setStretchFactor(0, 1);
  row->addWidget(columns_, 1);
  column->addLayout(row, 1);
  column->addWidget(pulse_);
  setCentralWidget(middle);
  makeMenus();
  document.mayLose = [this](const QString& edit, const Losses& losses) {
    return confirmLosses(edit, losses);
  };
  connect(wire_, &WirePage::failed, this, [this](const QString& words) { tell(words); });
  connect(plan_, &PlanPage::failed, this, [this](const QString& words) { tell(words); });
  connect(score_, &ScorePage::failed, this, [this](const QString& words) { tell(words); });
  connect(phones_, &PhoneHost::benchAsked, this, [this] { showWorkspace(Workspace::Bench); });
  connect(phones_, &PhoneHost::blackoutAsked, pulse_, &PulseBar::setBlackout);
  connect(inputs_, &LiveInputs::changed, this, [this] { pulse_->setNotice(inputs_->missingDevices()); });
  connect(run_, &RunPage::failed, this, [this](const QString& words) { tell(words); });
  connect(spine_, &Spine::chosen, this, &MainWindow::showWorkspace);
  connect(pulse_, &PulseBar::controllersAsked, this, [this] { showWorkspace(Workspace::Wire); });
  connect(pulse_, &PulseBar::powerAsked, this, [this] {
    showWorkspace(Workspace::Wire);
    session_.selection.clear();
  });
  screens_ = new ScreenPorts(session_, this);
  connect(wire_, &WirePage::pointingChosen, light_, &SelectionLight::setPointing);
  connect(pulse_, &PulseBar::problemAsked, this, &MainWindow::goTo);
  connect(pulse_, &PulseBar::allProblemsAsked, this, &MainWindow::showProblems);
  connect(pulse_, &PulseBar::problemsFound, this, [this] {
    if (problems_) problems_->list(pulse_->problems());
  });
  connectStart();
  connect(&document, &Document::stateChanged, this, [this] {
    updateTitle();
    updateActions();
  });
  document.runSlowly = [this](const SlowWork& work) { return runPatiently(this, work); };
  connect(&document, &Document::opened, this, [this] { session_.selection.clear(); });
  connect(&document, &Document::opened, this, &MainWindow::askForOutsideFiles, Qt::QueuedConnection);
  connect(&stage.outsideFiles(), &OutsideFiles::allowed, this, &MainWindow::updateActions);
  connect(&document, &Document::failed, this, [this](const QString& words) { tell(words); });
  connect(&stage, &Stage::scoreChanged, this,
          [this] { session_.selection.prune(session_.show(), session_.stage.score()); });
  // One undo takes one thing back: what is done to another thing, or in another field, is another step.
  connect(&selection, &Selection::changed, &document, &Document::seal);
  connect(qApp, &QApplication::focusChanged, &document, &Document::seal);
  qApp->installEventFilter(this);
  showWorkspace(Workspace::Plan);
  updateTitle();
  updateActions();
  updateStart();
}

MainWindow::~MainWindow() = default;

void MainWindow::connectStart() {
  connect(start_, &StartPage::newAsked, this, &MainWindow::startFrom);
  connect(start_, &StartPage::openAsked, this, [this](const QString& path) {
    if (path.isEmpty()) return openAsking();
    if (mayDiscard()) openFile(path);
  });
  connect(start_, &StartPage::demoAsked, this, &MainWindow::openDemo);
  connect(start_, &StartPage::benchAsked, this, [this] { showWorkspace(Workspace::Bench); });
  connect(&session_.document, &Document::opened, this, [this] {
    isStarted_ = false;
    updateStart();
  });
  connect(&session_.document, &Document::showChanged, this, &MainWindow::updateStart);
  // Who takes a tool to draw wants the plan.
  connect(&plan_->view(), &PlanView::toolChanged, this, [this] {
    isStarted_ |= plan_->view().tool() != PlanTool::Select;
    updateStart();
  });
}

void MainWindow::updateStart() {
  const Show& show = session_.show();
  const bool isEmpty = show.fixtures.empty() && show.scores.empty() && session_.document.path().empty() &&
                       !session_.document.canUndo();
  if (isEmpty && !isStarted_ && !start_->isVisibleTo(&plan_->view())) start_->refresh();
  start_->setVisible(isEmpty && !isStarted_);
  if (start_->isVisibleTo(&plan_->view())) start_->raise();
}

void MainWindow::startFrom(ShowTemplate kind) {
  if (!mayDiscard()) return;
  session_.document.start(kind);
  isStarted_ = true;
  updateStart();
  // What stands upright is seen from its front.
  const bool lies = kind == ShowTemplate::Empty || kind == ShowTemplate::Strip;
  plan_->view().setSide(lies ? PlanSide::Top : PlanSide::Front);
  plan_->view().setFocus();
  // Its numbers are what one changes first.
  if (const auto& fixtures = session_.show().fixtures; fixtures.size() == 1)
    session_.selection.select(FixtureIds{fixtures[0]->id});
}

void MainWindow::restoreLayout() {
  keepsLayout_ = true;
  const QSettings settings;
  restoreGeometry(settings.value(QStringLiteral("window")).toByteArray());
  columns_->restoreState(settings.value(QStringLiteral("columns")).toByteArray());
  const int kept = settings.value(QStringLiteral("workspace"), 0).toInt();
  showWorkspace(static_cast<Workspace>(std::clamp(kept, 0, pages_->count() - 1)));
}

void MainWindow::keepLayout() const {
  if (!keepsLayout_) return;
  QSettings settings;
  settings.setValue(QStringLiteral("window"), saveGeometry());
  settings.setValue(QStringLiteral("columns"), columns_->saveState());
  settings.setValue(QStringLiteral("workspace"), static_cast<int>(workspace()));
}

bool MainWindow::showsGlows() {
  return QSettings().value(QStringLiteral("showsGlow"), true).toBool();
}

void MainWindow::showGlows(bool on) {
  for (GlowView* glow : pages_->findChildren<GlowView*>()) glow->setVisible(on);
}

void MainWindow::toggleGlowWindow() {
  if (glowWindow_) return void(glowWindow_->close());
  glowWindow_ = std::make_unique<GlowWindow>(session_.stage);
  connect(glowWindow_.get(), &GlowWindow::closed, this, [this] {
    // It speaks of itself: it goes once it has finished.
    glowWindow_.release()->deleteLater();
    if (auto* action = findChild<QAction*>(QStringLiteral("glowWindow"))) action->setChecked(false);
  });
  glowWindow_->show();
}

void MainWindow::showProblems() {
  if (!problems_) {
    problems_ = new ProblemsDialog(this);
    problems_->setAttribute(Qt::WA_DeleteOnClose);
    connect(problems_, &ProblemsDialog::goToAsked, this, &MainWindow::goTo);
    connect(problems_, &ProblemsDialog::mendingAsked, this, [this](const Problem& problem) {
      session_.edit(tr("mend a problem"), [&](Show& show) { mend(show, problem); });
    });
  }
  problems_->list(pulse_->problems());
  problems_->show();
  problems_->raise();
}

void MainWindow::showEvent(QShowEvent* event) {
  QMainWindow::showEvent(event);
  if (event->spontaneous()) return;
  // The window manager has put its frame around it by the time it makes the window, or a question before it,
  // the active one; a timer alone could end while a show is still being opened, before that is heard of.
  constexpr int kFramed_ms = 150;
  const auto fitSoon = [this, chosen = size()] {
    QTimer::singleShot(kFramed_ms, this, [this, chosen] {
      // What somebody else made of it since is theirs.
      if (size() == chosen) fitScreen();
    });
  };
  connect(qApp, &QGuiApplication::focusWindowChanged, this, fitSoon, Qt::SingleShotConnection);
}

/// The pulse bar must be seen: with its frame the window is no larger than what the screen leaves free.
void MainWindow::fitScreen() {
  if (isMaximized() || isFullScreen()) return;
  const QRect free = screen()->availableGeometry();
  const QRect framed = frameGeometry();
  if (free.contains(framed)) return;
  const QSize around = framed.size() - size();
  resize(size().boundedTo(free.size() - around));
  move(std::clamp(framed.x(), free.x(), std::max(free.x(), free.right() + 1 - width() - around.width())),
       std::clamp(framed.y(), free.y(), std::max(free.y(), free.bottom() + 1 - height() - around.height())));
}

namespace {

/// Controls that Space presses, opens or types into.
bool takesSpace(const QWidget* focus) {
  return qobject_cast<const QAbstractButton*>(focus) || qobject_cast<const QComboBox*>(focus) ||
         qobject_cast<const QAbstractItemView*>(focus) || qobject_cast<const QAbstractSpinBox*>(focus) ||
         qobject_cast<const QLineEdit*>(focus);
}

}  // namespace

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  // A dialog keeps shortcuts from the window behind it; light and blackout must be at hand at all times.
  if (event->type() == QEvent::KeyPress && QApplication::activeModalWidget() && watched->isWindowType()) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    const char* name = key == Qt::Key_F9 ? "toggleLight" : key == Qt::Key_F10 ? "toggleBlackout" : nullptr;
    if (name) {
      findChild<QAction*>(QLatin1String(name))->trigger();
      return true;
    }
  }
  if (event->type() != QEvent::ShortcutOverride) return QMainWindow::eventFilter(watched, event);
  const auto* key = static_cast<QKeyEvent*>(event);
  if (key->key() == Qt::Key_Space && key->modifiers() == Qt::NoModifier &&
      takesSpace(qobject_cast<QWidget*>(watched))) {
    event->accept();
    return true;
  }
  return QMainWindow::eventFilter(watched, event);
}

QAction* MainWindow::addAction(QMenu* menu, const QString& name, const QString& label,
                               const QKeySequence& keys, std::function<void()> run) {
  auto* action = menu->addAction(label);
  action->setObjectName(name);
  action->setShortcut(keys);
  applyChosenKeys(*action);
  connect(action, &QAction::triggered, this, std::move(run));
  return action;
}

Workspace MainWindow::workspace() const {
  return static_cast<Workspace>(pages_->currentIndex());
}

void MainWindow::showWorkspace(Workspace workspace) {
  pages_->setCurrentIndex(static_cast<int>(workspace));
  spine_->show(workspace);
  // The Bench has its finders where the inspector is; nothing is edited there.
  inspector_->setVisible(workspace != Workspace::Bench);
  composing_->setEnabled(workspace == Workspace::Score);
  carrying_->setEnabled(workspace != Workspace::Score);
  pages_->currentWidget()->setFocus();
}

void MainWindow::setDark(bool dark) {
  applyTheme(*qApp, dark);
  spine_->refreshIcons();
  score_->refreshIcons();
  plan_->refreshTheme();
  pulse_->refreshColours();
}

void MainWindow::goTo(const ProblemPlace& place) {
  if (const auto* fixture = std::get_if<FixtureId>(&place)) {
    session_.selection.select(FixtureIds{*fixture});
    showWorkspace(Workspace::Plan);
  } else if (const auto* zone = std::get_if<ZoneId>(&place)) {
    session_.selection.select(*zone);
    showWorkspace(Workspace::Plan);
  } else if (const auto* controller = std::get_if<ControllerId>(&place)) {
    session_.selection.select(*controller);
    showWorkspace(Workspace::Wire);
  } else if (const auto* port = std::get_if<PortPlace>(&place)) {
    session_.selection.select(PortChoice{port->controller, port->port});
    showWorkspace(Workspace::Wire);
  } else if (const auto* score = std::get_if<ScoreId>(&place)) {
    session_.stage.openScore(*score);
    showWorkspace(Workspace::Score);
  } else if (const auto* look = std::get_if<LookId>(&place)) {
    session_.selection.select(*look);
    showWorkspace(Workspace::Run);
  } else if (const auto* binding = std::get_if<BindingId>(&place)) {
    session_.selection.select(*binding);
    showWorkspace(Workspace::Run);
  } else if (const auto* input = std::get_if<DeskInputId>(&place)) {
    session_.selection.select(*input);
    showWorkspace(Workspace::Run);
  } else if (const auto* list = std::get_if<SetListId>(&place)) {
    session_.selection.select(*list);
    showWorkspace(Workspace::Run);
  } else if (const auto* rule = std::get_if<RuleId>(&place)) {
    session_.selection.select(*rule);
    showWorkspace(Workspace::Run);
  } else if (const auto* clip = std::get_if<ClipPlace>(&place)) {
    session_.stage.openScore(clip->score);
    session_.selection.select(ClipIds{clip->clip});
    showWorkspace(Workspace::Score);
  }
}

void MainWindow::updateTitle() {
  setWindowTitle(tr("%1 — %2").arg(session_.document.title(),
                                   session_.document.isModified() ? tr("not saved") : tr("saved")));
}

void MainWindow::updateActions() {
  outside_->setEnabled(!session_.stage.outsideFiles().waiting().isEmpty());
  undo_->setEnabled(session_.document.canUndo());
  redo_->setEnabled(session_.document.canRedo());
  undo_->setText(session_.document.canUndo() ? tr("&Undo %1").arg(session_.document.undoName())
                                             : tr("&Undo"));
  redo_->setText(session_.document.canRedo() ? tr("&Redo %1").arg(session_.document.redoName())
                                             : tr("&Redo"));
}

}  // namespace chispa::desk
