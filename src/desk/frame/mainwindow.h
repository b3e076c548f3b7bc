// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QMainWindow>
#include <QPointer>

#include "core/check/problems.h"
#include "core/edit/templates.h"
#include "desk/frame/actionfinder.h"
#include "desk/frame/spine.h"
#include "desk/session/session.h"

class QActionGroup;
class QLabel;
class QSplitter;
class QStackedWidget;

namespace chispa::desk {

class BenchPage;
class GlowWindow;
class Inspector;
class LiveInputs;
class NightDesk;
class PhoneHost;
class ProblemsDialog;
class PlanPage;
class PulseBar;
class ScreenPorts;
class SelectionLight;
class StartPage;
class RunPage;
class ScorePage;
class WirePage;

/// The window: menus, spine, workspaces, inspector and pulse bar. It builds and connects; the rules of the
/// job are in core.
class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  MainWindow(Document& document, Selection& selection, Stage& stage);
  ~MainWindow() override;

  void showWorkspace(Workspace workspace);
  Workspace workspace() const;
  PlanPage& planPage() { return *plan_; }
  WirePage& wirePage() { return *wire_; }
  BenchPage& benchPage() { return *bench_; }
  ScorePage& scorePage() { return *score_; }
  RunPage& runPage() { return *run_; }
  LiveInputs& inputs() { return *inputs_; }
  PhoneHost& phones() { return *phones_; }
  NightDesk& night() { return *night_; }

  /// Writes the book of the whole installation; asks for a file if `path` is empty.
  void writeBook(QString path = {});
  /// Opens a show; says what is wrong if it cannot. Nothing is asked about unsaved changes.
  bool openFile(const QString& path);
  /// Offers what crashed programs left behind.
  void offerRecovery(const std::filesystem::path& journals);
  /// Says in the pulse bar that there is something to recover; it is offered from the menu.
  void noteRecovery(const std::filesystem::path& journals);
  /// With nobody there nothing asks: what would be asked is told in the pulse bar.
  void setUnattended(bool on) { isUnattended_ = on; }
  /// As the system asks for it: nothing is asked, unsaved work stays in its journal, and light ends in the
  /// dark.
  void endInOrder();
  void setDark(bool dark);
  /// Size, place, columns and workspace as they were when the program ended last, and so on at the next end.
  void restoreLayout();
  /// Asks whether the show may read what it names outside its own folder.
  void askForOutsideFiles();

  /// Tells the user of something that failed; tests replace it.
  std::function<void(const QString& words)> tell;

 protected:
  void closeEvent(QCloseEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void makeMenus();
  void makeFileMenu();
  void makeEditMenu();
  void makeViewMenu();
  void makeShowMenu();
  void makeComposeMenu();
  void makeLiveMenu();
  void makeNightMenu();
  void makeStaveMenu(QMenu* menu);
  void makeBeatsMenu(QMenu* menu);
  void makePlayingActions(QMenu* menu);
  void makeHelpMenu();
  QAction* addAction(QMenu* menu, const QString& name, const QString& label, const QKeySequence& keys,
                     std::function<void()> run);
  void fillRecent();
  /// Opens or imports a file by its kind, as if it had been chosen in the menu for it.
  void takeFile(const QString& path);
  void rememberRecent(const std::filesystem::path& path);
  void newShow();
  void openAsking();
  bool save();
  bool saveAs();
  bool mayDiscard();
  bool mayOverwrite();
  bool showsSelected() const;
  void deleteSelected();
  QList<FoundAction> everyAction();
  void fitScreen();
  void duplicateSelected();
  void selectAll();
  void groupSelected(bool together);
  void rename();
  bool copySelected();
  void pasteClipboard();
  void showHistory();
  void showPreferences();
  void showProblems();
  static bool showsGlows();
  void showGlows(bool on);
  void toggleGlowWindow();
  void openDemo();
  void openGuide();
  static QString sharedFile(const QString& file);
  void addThings(QList<FoundAction>& found);
  /// Whether the start page stands where the plan would be.
  void updateStart();
  void connectStart();
  void keepLayout() const;
  void startFrom(ShowTemplate kind);
  void goTo(const ProblemPlace& place);
  bool confirmLosses(const QString& edit, const Losses& losses);
  void updateTitle();
  void updateActions();

  Session session_;
  QStackedWidget* pages_;
  QSplitter* columns_ = nullptr;
  Spine* spine_;
  PlanPage* plan_;
  WirePage* wire_;
  BenchPage* bench_;
  ScorePage* score_;
  QActionGroup* composing_;
  QActionGroup* carrying_ = nullptr;
  /// An empty plan was asked for.
  bool isStarted_ = false;
  QPointer<ProblemsDialog> problems_;
  std::unique_ptr<GlowWindow> glowWindow_;
  bool keepsLayout_ = false;
  LiveInputs* inputs_;
  NightDesk* night_;
  PhoneHost* phones_;
  RunPage* run_;
  Inspector* inspector_;
  PulseBar* pulse_;
  ScreenPorts* screens_;
  SelectionLight* light_;
  StartPage* start_;
  bool isUnattended_ = false;
  QAction* outside_ = nullptr;
  QMenu* recent_ = nullptr;
  QAction* undo_ = nullptr;
  QAction* redo_ = nullptr;
};

}  // namespace chispa::desk
