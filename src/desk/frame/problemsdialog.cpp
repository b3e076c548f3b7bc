// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/problemsdialog.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "desk/parts/format.h"
#include "desk/parts/language.h"
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
  QPushButton* mending = buttons->addButton(tr("Do it"), QDialogButtonBox::ActionRole);
  named(mending, "problemMend", tr("Do it"),
        tr("Does what mends the problem, where one thing alone does; it can be undone"));
  column->addWidget(buttons);
  connect(mending, &QPushButton::clicked, this, &ProblemsDialog::mendChosen);
  connect(go, &QPushButton::clicked, this, &ProblemsDialog::goToChosen);
  connect(list_, &QTreeWidget::itemActivated, this, &ProblemsDialog::goToChosen);
  connect(list_, &QTreeWidget::currentItemChanged, this, [this, go, mending] {
    go->setEnabled(chosen());
    mending->setEnabled(chosen() && chosen()->mending != Mending::None);
  });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
  go->setEnabled(false);
  mending->setEnabled(false);
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
      auto* item = new QTreeWidgetItem(group, {said(problem.where), said(problem.what), said(problem.cure)});
      item->setData(0, kIndexRole, static_cast<int>(i));
      for (int c = 0; c < 3; ++c) item->setToolTip(c, item->text(c));
    }
  }
  if (problems_.empty()) new QTreeWidgetItem(list_, {tr("No problems")});
}

const Problem* ProblemsDialog::chosen() const {
  const QTreeWidgetItem* item = list_->currentItem();
  return item && item->parent() ? &problems_[static_cast<std::size_t>(item->data(0, kIndexRole).toInt())]
                                : nullptr;
}

void ProblemsDialog::goToChosen() {
  if (const Problem* problem = chosen()) emit goToAsked(problem->place);
}

void ProblemsDialog::mendChosen() {
  // What is mended is listed no more: the list is another when the edit comes back.
  if (const Problem* problem = chosen()) emit mendingAsked(Problem(*problem));
}

}  // namespace chispa::desk
