// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/setupdialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPointer>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "core/edit/adoptsetup.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {
namespace {

enum Column { kWhere, kResult, kThere, kWanted };

/// Compares, and if asked keeps what is there and writes.
Result<link::SetupReport> askOne(const Controller& controller, const std::vector<PortSettings>& wanted,
                                 bool send, const std::atomic<bool>& cancelled) {
  if (cancelled)
    return Failure{"Not asked: it was stopped before.", controller.name, "Ask again when you like."};
  if (!send) return link::compareSetup(controller, wanted);
  return link::pushSetup(controller, wanted, [&](const std::string& before) {
    return link::SetupStore::ofUser().keep(controller, before);
  });
}

void colourWords(QTreeWidgetItem* item, int column, const QString& words, const QColor& colour) {
  item->setText(column, words);
  item->setToolTip(column, words);
  item->setForeground(column, colour);
}

}  // namespace

SetupDialog::SetupDialog(const Session& session, QWidget* parent)
    : QDialog(parent), session_(session), state_(new QLabel), target_(new QComboBox), list_(new QTreeWidget) {
  setObjectName(QStringLiteral("setupDialog"));
  setWindowTitle(tr("Set up controllers"));
  resize(980, 480);
  auto* column = new QVBoxLayout(this);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("Set to"));
  target_->setObjectName(QStringLiteral("setupTarget"));
  target_->setAccessibleName(tr("What the controllers are set to"));
  target_->setToolTip(tr("What they are compared with, and what is written"));
  target_->addItems({tr("the show's wiring"), tr("the last backup")});
  label->setBuddy(target_);
  row->addWidget(label);
  row->addWidget(target_);
  row->addStretch();
  column->addLayout(row);
  list_->setObjectName(QStringLiteral("setupDifferences"));
  list_->setHeaderLabels({tr("Where"), tr("Result"), tr("On the controller"), tr("Wanted")});
  // What a controller has and what it shall have are compared at a glance: a long result is cut, and stands
  // whole below.
  list_->header()->setSectionResizeMode(kWhere, QHeaderView::ResizeToContents);
  list_->header()->resizeSection(kResult, textWidth(30));
  list_->header()->resizeSection(kThere, textWidth(38));
  list_->setAccessibleName(tr("Controllers and their differences"));
  list_->setToolTip(tr("Only ticked controllers are written; Space ticks one"));
  connect(list_, &QTreeWidget::itemChanged, this, &SetupDialog::describe);
  connect(list_, &QTreeWidget::currentItemChanged, this, &SetupDialog::describe);
  column->addWidget(list_, 1);
  state_->setObjectName(QStringLiteral("setupState"));
  state_->setWordWrap(true);
  column->addWidget(state_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  makeButtons(buttons);
  column->addWidget(buttons);
  connect(target_, &QComboBox::currentIndexChanged, this, [this] {
    fillRows();
    run(false);
  });
  fillRows();
  run(false);
}

SetupDialog::~SetupDialog() {
  if (cancelled_) *cancelled_ = true;
}

void SetupDialog::makeButtons(QWidget* box) {
  auto* buttons = qobject_cast<QDialogButtonBox*>(box);
  const auto add = [&](const QString& name, const QString& label, const QString& tip) {
    auto* button = buttons->addButton(label, QDialogButtonBox::ActionRole);
    button->setObjectName(name);
    button->setToolTip(tip);
    return button;
  };
  send_ =
      add(QStringLiteral("sendSetup"), tr("Send to the controllers"),
          tr("Writes the differences to the ticked controllers, keeps a backup, and reads back to check"));
  take_ = add(QStringLiteral("takeSetup"), tr("Read into the show"),
              tr("Creates strips from the chosen controller's settings; only while nothing hangs on it"));
  stop_ = add(QStringLiteral("stopSetup"), tr("Stop"), tr("Skips the controllers that were not asked yet"));
  connect(send_, &QPushButton::clicked, this, [this] { run(true); });
  connect(take_, &QPushButton::clicked, this, &SetupDialog::readIntoShow);
  connect(stop_, &QPushButton::clicked, this, [this] { *cancelled_ = true; });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

void SetupDialog::fillRows() {
  const QSignalBlocker quiet(list_);
  list_->clear();
  rows_.clear();
  const Show& show = session_.show();
  const Patch patch = derivePatch(show);
  for (std::size_t i = 0; i < show.controllers.size(); ++i) {
    const Controller& controller = *show.controllers[i];
    auto* item = new QTreeWidgetItem({text(controller.name)});
    item->setCheckState(kWhere, Qt::Checked);
    list_->addTopLevelItem(item);
    Row row{controller, portSettings(show, patch, static_cast<int>(i)), item};
    if (target_->currentIndex() == static_cast<int>(Target::Before)) {
      row.kept = link::SetupStore::ofUser().keptOf(controller);
      row.isAsked = !row.kept.empty();
      if (row.isAsked)
        row.wanted = row.kept.front().ports;
      else
        item->setText(kWanted, tr("no backup"));
    }
    rows_.push_back(std::move(row));
    if (!rows_.back().kept.empty()) offerKept(rows_.size() - 1);
  }
}

void SetupDialog::offerKept(std::size_t index) {
  const Row& row = rows_[index];
  auto* choice =
      named(new QComboBox, "keptSetup", tr("Backup to restore on %1").arg(text(row.controller.name)),
            tr("Which backup to restore: when it was replaced, and what it held"));
  for (const link::KeptSetup& one : row.kept) {
    int pixels = 0;
    for (const PortSettings& port : one.ports)
      for (const PortSection& section : port.sections) pixels += section.pixels;
    choice->addItem(tr("as on %1 · %2 · %3")
                        .arg(text(one.when), counted(std::ssize(one.ports), tr("1 port"), tr("%1 ports")),
                             counted(pixels, tr("1 pixel"), tr("%1 pixels"))));
  }
  connect(choice, &QComboBox::currentIndexChanged, this, [this, index](int chosen) {
    if (running_ > 0 || chosen < 0) return;
    Row& changed = rows_[index];
    changed.wanted = changed.kept[static_cast<std::size_t>(chosen)].ports;
    run(false);
  });
  list_->setItemWidget(row.item, kWanted, choice);
}

void SetupDialog::run(bool send) {
  if (running_ > 0) return;
  failed_ = 0;
  cancelled_ = std::make_shared<std::atomic<bool>>(false);
  state_->setText(send ? tr("Writing …") : tr("Asking the controllers …"));
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    Row& row = rows_[i];
    const bool isChosen = row.item->checkState(kWhere) == Qt::Checked && row.isAsked;
    if (!isChosen || (send && !row.isDifferent)) continue;
    ++running_;
    colourWords(row.item, kResult, send ? tr("writing …") : tr("asking …"), theme().quiet);
    QPointer<SetupDialog> self(this);
    runThen(
        pools::network(), this,
        [controller = row.controller, wanted = row.wanted, send, cancelled = cancelled_] {
          return askOne(controller, wanted, send, *cancelled);
        },
        [self, i, send](const Result<link::SetupReport>& report) {
          if (self) self->finishRow(i, report, send);
        });
  }
  target_->setEnabled(running_ == 0);
  if (running_ == 0)
    finishAll();
  else
    describe();
}

void SetupDialog::finishRow(std::size_t index, const Result<link::SetupReport>& report, bool sent) {
  Row& row = rows_[index];
  {
    const QSignalBlocker quiet(list_);
    qDeleteAll(row.item->takeChildren());
    row.isDifferent = false;
    if (!report) {
      ++failed_;
      colourWords(row.item, kResult, tr("! %1").arg(said(report.failure().what)), theme().wrong);
      for (const Sentence& words : {report.failure().what, report.failure().cure}) {
        auto* line = new QTreeWidgetItem({said(words)});
        row.item->addChild(line);
        line->setFirstColumnSpanned(true);
      }
    } else {
      row.isDifferent = !report->verified;
      const auto there = parsePortSettings(report->before, row.controller.name);
      row.there = there ? std::optional(*there) : std::nullopt;
      const qsizetype left = sent ? std::count_if(report->differences.begin(), report->differences.end(),
                                                  [](const auto& d) { return !d.isWritten; })
                                  : std::ssize(report->differences);
      if (report->verified)
        colourWords(row.item, kResult, sent ? tr("✓ written and read back") : tr("✓ up to date"),
                    theme().fine);
      else
        colourWords(row.item, kResult,
                    sent ? tr("! %1 not written. %2")
                               .arg(counted(left, tr("1 port"), tr("%1 ports")), text(report->trouble))
                         : counted(left, tr("1 port differs"), tr("%1 ports differ")),
                    sent ? theme().wrong : theme().watch);
      if (sent && !report->verified) ++failed_;
      for (const auto& difference : report->differences) {
        auto* line = new QTreeWidgetItem(
            {text(difference.place), QString(), text(difference.there), text(difference.wanted)});
        if (sent)
          colourWords(line, kResult,
                      difference.isWritten ? tr("✓ written") : tr("! has %1").arg(text(difference.now)),
                      difference.isWritten ? theme().fine : theme().wrong);
        row.item->addChild(line);
      }
    }
    row.item->setExpanded(true);
  }
  if (--running_ == 0) finishAll();
}

void SetupDialog::finishAll() {
  target_->setEnabled(true);
  const auto different =
      std::count_if(rows_.begin(), rows_.end(), [](const Row& row) { return row.isDifferent; });
  if (failed_ > 0)
    state_->setText(counted(failed_, tr("1 controller failed; the reason and the cure are shown below it."),
                            tr("%1 controllers failed; the reason and the cure are shown below each.")));
  else if (rows_.empty())
    state_->setText(tr("The show has no controller."));
  else
    state_->setText(different > 0 ? counted(different,
                                            tr("1 controller differs. Sending replaces its settings; a "
                                               "backup is kept and can be restored."),
                                            tr("%1 controllers differ. Sending replaces their settings; a "
                                               "backup is kept and can be restored."))
                                  : tr("Every controller is up to date."));
  describe();
}

void SetupDialog::describe() {
  const bool isIdle = running_ == 0;
  send_->setEnabled(isIdle && std::any_of(rows_.begin(), rows_.end(), [](const Row& row) {
                      return row.isDifferent && row.item->checkState(kWhere) == Qt::Checked;
                    }));
  stop_->setEnabled(!isIdle);
  const int chosen = list_->indexOfTopLevelItem(list_->currentItem());
  bool canTake = isIdle && chosen >= 0;
  if (canTake) {
    const Row& row = rows_[static_cast<std::size_t>(chosen)];
    const Controller* now = chispa::find(session_.show().controllers, row.controller.id);
    const bool isEmpty = now && std::all_of(now->ports.begin(), now->ports.end(),
                                            [](const Port& port) { return port.run.empty(); });
    canTake = isEmpty && row.there &&
              std::any_of(row.there->begin(), row.there->end(),
                          [](const PortSettings& port) { return !port.sections.empty(); });
  }
  take_->setEnabled(canTake);
}

void SetupDialog::readIntoShow() {
  const int chosen = list_->indexOfTopLevelItem(list_->currentItem());
  if (chosen < 0) return;
  const Row& row = rows_[static_cast<std::size_t>(chosen)];
  int made = 0;
  session_.edit(tr("read a set-up"),
                [&](Show& show) { made = adoptSetup(show, row.controller.id, *row.there); });
  fillRows();
  run(false);
  state_->setText(counted(made, tr("1 strip was made of what the controller is set up for."),
                          tr("%1 strips were made of what the controller is set up for.")));
}

}  // namespace chispa::desk
