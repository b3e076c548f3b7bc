// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QWidget>

class QAction;

namespace chispa::desk {

class PlanView;

/// The tools of the plan and the sides it is looked at from, above it.
class ToolRow : public QWidget {
  Q_OBJECT
 public:
  /// Shortcuts work within `page`.
  ToolRow(PlanView& view, QWidget* page);

  /// Draws the icons in the colours of the theme.
  void refreshIcons();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  struct ToolIcon {
    QAction* action;
    QString name;
  };
  PlanView& view_;
  std::vector<ToolIcon> icons_;
};

}  // namespace chispa::desk
