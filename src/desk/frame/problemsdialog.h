// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

#include "core/check/problems.h"

class QTreeWidget;
class QTreeWidgetItem;

namespace chispa::desk {

/// All problems of the show, grouped by how bad they are; Enter or a double click goes to where one is. It
/// stays open beside the window and follows the show. UI thread.
class ProblemsDialog : public QDialog {
  Q_OBJECT
 public:
  explicit ProblemsDialog(QWidget* parent);

  void list(const std::vector<Problem>& problems);

 signals:
  void goToAsked(const chispa::ProblemPlace& place);
  void mendingAsked(const chispa::Problem& problem);

 private:
  void goToChosen();
  void mendChosen();
  /// The chosen problem, or null.
  const Problem* chosen() const;

  QTreeWidget* list_;
  std::vector<Problem> problems_;
};

}  // namespace chispa::desk
