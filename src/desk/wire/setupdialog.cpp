// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/setupdialog.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <QtConcurrent>

#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "link/setup.h"

namespace chispa::desk {
namespace {

struct Answer {
  std::string controller;
  Result<link::SetupReport> report;
};

std::vector<Answer> askAll(const Show& show, bool send) {
  std::vector<Answer> answers;
  const Patch patch = derivePatch(show);
  for (std::size_t i = 0; i < show.controllers.size(); ++i) {
    const Controller& controller = *show.controllers[i];
    const auto wanted = portSettings(show, patch, static_cast<int>(i));
    answers.push_back({controller.name, send ? link::pushSetup(controller, wanted) : link::compareSetup(controller, wanted)});
  }
  return answers;
}

}  // namespace

SetupDialog::SetupDialog(const Session& session, QWidget* parent)
    : QDialog(parent), session_(session), state_(new QLabel), list_(new QTreeWidget) {
  setWindowTitle(tr("Compare and send the set-up"));
  resize(820, 420);
  auto* column = new QVBoxLayout(this);
  state_->setWordWrap(true);
  column->addWidget(state_);
  list_->setObjectName(QStringLiteral("setupDifferences"));
  list_->setHeaderLabels({tr("Where"), tr("On the controller"), tr("Wanted by the show")});
  list_->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  list_->setAccessibleName(tr("Differences"));
  column->addWidget(list_, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  send_ = buttons->addButton(tr("Send to the controllers"), QDialogButtonBox::ActionRole);
  send_->setObjectName(QStringLiteral("sendSetup"));
  send_->setToolTip(tr("Writes what differs, and reads it back"));
  connect(send_, &QPushButton::clicked, this, [this] { run(true); });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
  run(false);
}

void SetupDialog::run(bool send) {
  send_->setEnabled(false);
  list_->clear();
  state_->setText(send ? tr("Sending …") : tr("Asking the controllers …"));
  QtConcurrent::run([show = session_.show(), send] { return askAll(show, send); }).then(this, [this, send](const std::vector<Answer>& answers) {
    std::size_t different = 0;
    int failed = 0;
    for (const Answer& answer : answers) {
      auto* item = new QTreeWidgetItem({text(answer.controller)});
      list_->addTopLevelItem(item);
      if (!answer.report) {
        ++failed;
        item->setText(1, tr("! %1 %2").arg(text(answer.report.failure().what), text(answer.report.failure().cure)));
        item->setForeground(1, theme().wrong);
        continue;
      }
      const bool good = answer.report->verified;
      item->setText(1, good ? (send ? tr("✓ written and read back") : tr("✓ as the show wants it")) : send ? tr("! did not take what was written") : counted(std::ssize(answer.report->differences), tr("1 port differs"), tr("%1 ports differ")));
      item->setForeground(1, good ? theme().fine : theme().watch);
      if (!good) different += answer.report->differences.size();
      for (const auto& difference : answer.report->differences)
        item->addChild(new QTreeWidgetItem({text(difference.place), text(difference.there), text(difference.wanted)}));
      item->setExpanded(true);
    }
    send_->setEnabled(different > 0);
    if (failed > 0)
      state_->setText(counted(failed, tr("1 controller could not be asked; what to do stands beside it."), tr("%1 controllers could not be asked; what to do stands beside each.")));
    else
      state_->setText(different > 0 ? counted(static_cast<qsizetype>(different), tr("1 port differs. Sending replaces what is on the controller."), tr("%1 ports differ. Sending replaces what is on the controllers.")) : tr("Every controller has what the show wants."));
  });
}

}  // namespace chispa::desk
