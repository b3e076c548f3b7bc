// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QWidget>

class QToolButton;

namespace chispa::desk {

/// The five workspaces in the order of the work.
enum class Workspace { Plan, Wire, Bench, Score, Run };

/// The strip at the left that changes between workspaces; Ctrl+1 … Ctrl+5.
class Spine : public QWidget {
  Q_OBJECT
 public:
  explicit Spine(QWidget* parent = nullptr);
  void show(Workspace workspace);
  /// Draws the icons anew in the theme's colours.
  void refreshIcons();

 signals:
  void chosen(chispa::desk::Workspace workspace);

 private:
  std::vector<QToolButton*> buttons_;
};

}  // namespace chispa::desk
