// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QDialog>
#include <QTimer>

#include "core/controllermemory/fill.h"
#include "core/edit/memoryedits.h"
#include "desk/session/session.h"
#include "link/nodememory.h"

class QComboBox;
class QLabel;
class QListWidget;
class QMenu;
class QPushButton;
class QScrollArea;
class QToolButton;
class QTreeWidget;
class QVBoxLayout;

namespace chispa::desk {

class Form;
class MemoryBar;
class PairGlow;
class WorkBar;

/// Takes light away into a controller's own memory: its scenes and when they begin, what they take of what
/// the controller has, how they differ from the full light and from what is there; then it is written, read
/// back and tried, or what was there before is put back. What is wanted is part of the show, with undo. Light
/// and network are worked on elsewhere. UI thread.
class MemoryDialog : public QDialog {
  Q_OBJECT
 public:
  explicit MemoryDialog(const Session& session, QWidget* parent = nullptr);

 private:
  /// What is worked with until a controller has said what it holds.
  static MemoryLimits unknownLimits();
  static QString writtenWords();
  QVBoxLayout* makeScenes();
  QHBoxLayout* makeSceneButtons();
  QHBoxLayout* makeStartButtons();
  QVBoxLayout* makeMiddle();
  QVBoxLayout* makeSizes();
  QVBoxLayout* makeEnd();
  void fillControllers();
  void fillAddMenu();
  void fillPutBack();

  const Controller* controller() const;
  int currentScene() const;
  std::optional<StartPlace> currentStart() const;
  void editMemory(const QString& name, const std::function<void(ControllerMemory&)>& change);
  void addStart(int scene);
  void removeScene();
  void moveScene(int by);
  void removeStart();
  void takeAlmanac();

  /// Shows the lists as the show has them, and works the steps out anew in a moment.
  void refresh();
  void refreshLists();
  void refreshForms();
  void showState();
  void showFill();
  void showScene();
  void begin();
  void fit();
  Progress beginWork(const QString& words);
  void readController();
  void write(const MemoryContent& content, bool isShows);
  void play();
  void say(const QString& words, bool isFine);

  Session session_;
  QComboBox* controllers_;
  QLabel* told_;
  QTreeWidget* scenes_;
  QToolButton* add_;
  QListWidget* starts_;
  QScrollArea* forms_;
  std::vector<Form*> shownForms_;
  QString formsKey_;
  QLabel* bytesWords_;
  MemoryBar* bytesBar_;
  QLabel* stepsWords_;
  MemoryBar* stepsBar_;
  QTreeWidget* differences_;
  PairGlow* glow_;
  QLabel* state_;
  WorkBar* progress_;
  QPushButton* fit_;
  QPushButton* play_;
  QToolButton* putBack_;
  QPushButton* write_;
  QTimer soon_;
  std::uint64_t serial_ = 0;
  bool isFilling_ = false;
  /// What the controller said last; nothing before it answered.
  std::optional<MemoryState> there_;
  /// What it holds was written from here: that stays said until something differs.
  bool wasWritten_ = false;
  std::shared_ptr<const Show> show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<const MemoryFill> fill_;
};

}  // namespace chispa::desk
