// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

namespace chispa::desk {

class PlanView;

/// The tools of the plan and the sides it is looked at from, above it.
class ToolRow : public QWidget {
  Q_OBJECT
 public:
  /// Shortcuts work within `page`.
  ToolRow(PlanView& view, QWidget* page);
};

}  // namespace chispa::desk
