// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/problemsdialog.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kIndexRole = Qt::UserRole;

QString groupName(Severity severity, int count) {
  switch (severity) {
    case Severity::Error:
      return counted(count, ProblemsDialog::tr("1 error"), ProblemsDialog::tr("%1 errors"));
    case Severity::Warning:
      return counted(count, ProblemsDialog::tr("1 warning"), ProblemsDialog::tr("%1 warnings"));
    case Severity::Note:
      return counted(count, ProblemsDialog::tr("1 note"), ProblemsDialog::tr("%1 notes"));
  }
  return {};
}

QColor colourOf(Severity severity) {
  return severity == Severity::Error     ? theme().wrong
         : severity == Severity::Warning ? theme().watch
                                         : theme().quiet;
}

}  // namespace

ProblemsDialog::ProblemsDialog(QWidget* parent) : QDialog(parent), list_(new QTreeWidget) {
  setObjectName(QStringLiteral("problemsDialog"));
  setWindowTitle(tr("Problems"));
  resize(textWidth(110), 360);
  auto* column = new QVBoxLayout(this);
  named(list_, "problemList", tr("Problems"), tr("Enter or a double click goes to where it is"));
  list_->setHeaderLabels({tr("Where"), tr("What"), tr("What to do")});
  list_->setWordWrap(true);
  list_->setUniformRowHeights(false);
  list_->header()->setSectionResizeMode(1, QHeaderView::Stretch);
  list_->header()->setSectionResizeMode(2, QHeaderView::Stretch);
  list_->header()->setStretchLastSection(false);
  list_->setColumnWidth(0, textWidth(26));
  column->addWidget(list_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  QPushButton* go = buttons->addButton(tr("Go there"), QDialogButtonBox::ActionRole);
  named(go, "problemGo", tr("Go there"), tr("Selects what the problem is about, in its workspace"));
  column->addWidget(buttons);
  connect(go, &QPushButton::clicked, this, &ProblemsDialog::goToChosen);
  connect(list_, &QTreeWidget::itemActivated, this, &ProblemsDialog::goToChosen);
  connect(list_, &QTreeWidget::currentItemChanged, go,
          [go](const QTreeWidgetItem* item) { go->setEnabled(item && item->parent()); });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
  go->setEnabled(false);
}

void ProblemsDialog::list(const std::vector<Problem>& problems) {
  if (problems == problems_ && list_->topLevelItemCount() > 0) return;
  problems_ = problems;
  list_->clear();
  for (const Severity severity : {Severity::Error, Severity::Warning, Severity::Note}) {
    const auto isOne = [severity](const Problem& problem) { return problem.severity == severity; };
    const auto count = std::count_if(problems_.begin(), problems_.end(), isOne);
    if (count == 0) continue;
    auto* group = new QTreeWidgetItem(list_, {groupName(severity, static_cast<int>(count))});
    group->setFirstColumnSpanned(true);
    group->setForeground(0, colourOf(severity));
    group->setExpanded(true);
    for (std::size_t i = 0; i < problems_.size(); ++i) {
      if (!isOne(problems_[i])) continue;
      const Problem& problem = problems_[i];
      auto* item = new QTreeWidgetItem(group, {text(problem.where), text(problem.what), text(problem.cure)});
      item->setData(0, kIndexRole, static_cast<int>(i));
      for (int c = 0; c < 3; ++c) item->setToolTip(c, item->text(c));
    }
  }
  if (problems_.empty()) new QTreeWidgetItem(list_, {tr("No problems")});
}

void ProblemsDialog::goToChosen() {
  const QTreeWidgetItem* item = list_->currentItem();
  if (item && item->parent())
    emit goToAsked(problems_[static_cast<std::size_t>(item->data(0, kIndexRole).toInt())].place);
}

}  // namespace chispa::desk
