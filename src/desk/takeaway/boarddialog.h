// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QDialog>
#include <QTimer>

#include "core/board/kinds.h"
#include "desk/session/session.h"

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QListWidget;
class QPushButton;
class QSpinBox;
class QTreeWidget;
class QVBoxLayout;

namespace chispa::desk {

class MemoryBar;
class PairGlow;
class WorkBar;

/// Takes light away for a small board: which scenes, for what, on which board; what it takes of its memory
/// and what would make it smaller, seen side by side; then its files are written. All of it is worked out on
/// a worker, anew at each change. UI thread.
class BoardDialog : public QDialog {
  Q_OBJECT
 public:
  explicit BoardDialog(const Session& session, QWidget* parent = nullptr);

  /// Writes the files into `folder`; says what became of it in the last line.
  void writeTo(const QString& folder);

 private:
  /// Columns of the lists of scenes, and of what would save room.
  enum BoardColumn { SceneName, KeptAs, SceneBytes };
  enum SavingColumn { What, Saves, SavingLoss };
  /// What a worker made.
  struct Made {
    Result<board::BoardLight> light;
    std::vector<board::BoardSaving> savings;
  };

  void makeColumns();
  QVBoxLayout* makeScenes();
  QVBoxLayout* makeSizes();
  void fillScenes();
  void fillRuns();
  board::BoardPlan plan() const;
  board::BoardKind kind() const;
  /// Something was changed: works it out anew in a moment.
  void changed();
  void begin();
  void end(const Made& made, std::uint64_t serial);
  void showLight();
  void showSavings(const std::vector<board::BoardSaving>& savings);
  void showScene();
  void takeSaving();
  void say(const QString& words, bool isFine);

  Session session_;
  QTreeWidget* scenes_;
  QListWidget* runs_;
  QComboBox* board_;
  QSpinBox* flash_;
  QSpinBox* ram_;
  QSpinBox* rate_;
  QSpinBox* colours_;
  QSpinBox* group_;
  QDoubleSpinBox* loop_;
  QDoubleSpinBox* each_;
  QLabel* flashWords_;
  MemoryBar* flashBar_;
  QLabel* flashParts_;
  QLabel* ramWords_;
  MemoryBar* ramBar_;
  QLabel* speed_;
  QTreeWidget* savings_;
  QPushButton* take_;
  PairGlow* glow_;
  QLabel* state_;
  WorkBar* progress_;
  QPushButton* write_;
  QTimer soon_;
  std::uint64_t serial_ = 0;
  bool isFilling_ = false;
  board::BoardPlan made_;
  std::shared_ptr<const Show> show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<const board::BoardLight> light_;
};

}  // namespace chispa::desk
