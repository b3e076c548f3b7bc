// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QWidget>

class QAction;

class QActionGroup;
class QToolButton;

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
  QToolButton* addButton(QActionGroup* group, const QString& name, const QString& label, const QString& tip,
                         const char* key);

  PlanView& view_;
  std::vector<ToolIcon> icons_;
};

}  // namespace chispa::desk
