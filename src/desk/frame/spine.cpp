// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/spine.h"

#include <QButtonGroup>
#include <QToolButton>
#include <QVBoxLayout>

#include "desk/parts/icon.h"

namespace chispa::desk {

Spine::Spine(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("spine"));
  setFixedWidth(64);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 8);
  column->setSpacing(2);
  auto* group = new QButtonGroup(this);
  const std::pair<const char*, QString> entries[] = {{"plan", tr("Plan")},
                                                     {"wire", tr("Wire")},
                                                     {"bench", tr("Bench")},
                                                     {"score", tr("Score")},
                                                     {"run", tr("Run")}};
  for (const auto& [name, label] : entries) {
    auto* button = new QToolButton;
    button->setObjectName(QStringLiteral("workspace-") + QLatin1String(name));
    button->setText(label);
    button->setToolTip(tr("%1 (Ctrl+%2)").arg(label).arg(buttons_.size() + 1));
    button->setAccessibleName(label);
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setIconSize({22, 22});
    button->setCheckable(true);
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    group->addButton(button);
    const auto workspace = static_cast<Workspace>(buttons_.size());
    connect(button, &QToolButton::clicked, this, [this, workspace] { emit chosen(workspace); });
    column->addWidget(button);
    buttons_.push_back(button);
  }
  column->addStretch();
  refreshIcons();
}

void Spine::show(Workspace workspace) {
  buttons_[static_cast<std::size_t>(workspace)]->setChecked(true);
}

void Spine::refreshIcons() {
  const char* names[] = {"plan", "wire", "bench", "score", "run"};
  for (std::size_t i = 0; i < buttons_.size(); ++i) buttons_[i]->setIcon(icon(QLatin1String(names[i])));
}

}  // namespace chispa::desk
