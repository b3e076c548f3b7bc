// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/finddialog.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPointer>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <QtConcurrent>

#include "core/edit/wireedits.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/session/pools.h"

namespace chispa::desk {

FindDialog::FindDialog(const Session& session, QWidget* parent)
    : QDialog(parent), session_(session), interfaces_(link::localInterfaces()) {
  setObjectName(QStringLiteral("findDialog"));
  setWindowTitle(tr("Find controllers"));
  resize(640, 380);
  auto* column = new QVBoxLayout(this);
  auto* row = new QHBoxLayout;
  interfaceList_ = new QListWidget;
  interfaceList_->setObjectName(QStringLiteral("findInterfaces"));
  interfaceList_->setAccessibleName(tr("Network interfaces"));
  interfaceList_->setToolTip(tr("The networks that are asked; Space ticks one"));
  interfaceList_->setMaximumHeight(4 * fontMetrics().height() + 20);
  for (const link::Interface& one : interfaces_) {
    auto* item =
        new QListWidgetItem(QStringLiteral("%1 · %2").arg(text(one.name), text(one.address)), interfaceList_);
    // Loopback is this machine itself: only who looks for simulated nodes wants that.
    item->setCheckState(one.broadcast.empty() ? Qt::Unchecked : Qt::Checked);
  }
  search_ = new QPushButton(tr("Search"));
  search_->setObjectName(QStringLiteral("findSearch"));
  search_->setToolTip(tr("Asks these networks and the show's controllers; takes four seconds"));
  connect(search_, &QPushButton::clicked, this, &FindDialog::search);
  row->addWidget(interfaceList_, 1);
  row->addWidget(search_, 0, Qt::AlignTop);
  column->addLayout(row);
  list_ = new QTreeWidget;
  list_->setObjectName(QStringLiteral("foundControllers"));
  list_->setAccessibleName(tr("Controllers that answered"));
  list_->setRootIsDecorated(false);
  list_->setHeaderLabels(
      {tr("Name"), tr("Address"), tr("Kind"), tr("Ports"), tr("First universe"), tr("In the show")});
  list_->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  connect(list_, &QTreeWidget::currentItemChanged, this, &FindDialog::describe);
  column->addWidget(list_, 1);
  state_ = new QLabel(
      tr("Not searched yet. Art-Net nodes and DDP displays answer; E1.31 sources announce themselves every "
         "ten seconds. Controllers that only receive E1.31 cannot be found: add them by hand."));
  state_->setObjectName(QStringLiteral("findState"));
  state_->setWordWrap(true);
  column->addWidget(state_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  take_ = buttons->addButton(tr("Add to the show"), QDialogButtonBox::ActionRole);
  take_->setObjectName(QStringLiteral("findTake"));
  take_->setEnabled(false);
  connect(take_, &QPushButton::clicked, this, &FindDialog::take);
  takeAll_ = buttons->addButton(tr("Add all"), QDialogButtonBox::ActionRole);
  named(takeAll_, "findTakeAll", tr("Add all"), tr("Adds every controller that is not in the show yet"));
  takeAll_->setEnabled(false);
  connect(takeAll_, &QPushButton::clicked, this, &FindDialog::takeAll);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
}

FindDialog::~FindDialog() {
  if (cancelled_) *cancelled_ = true;
}

std::vector<link::Interface> FindDialog::chosenInterfaces() const {
  std::vector<link::Interface> chosen;
  for (int i = 0; i < interfaceList_->count(); ++i)
    if (interfaceList_->item(i)->checkState() == Qt::Checked)
      chosen.push_back(interfaces_[static_cast<std::size_t>(i)]);
  return chosen;
}

void FindDialog::search() {
  if (cancelled_) {
    *cancelled_ = true;
    return;
  }
  found_.clear();
  troubles_.clear();
  list_->clear();
  cancelled_ = std::make_shared<std::atomic<bool>>(false);
  search_->setText(tr("Stop"));
  state_->setText(tr("Listening for answers…"));
  link::FindRequest request{chosenInterfaces(), {}};
  for (const auto& controller : session_.show().controllers)
    if (isNetworked(controller->protocol)) request.addresses.push_back(controller->host);
  QPointer<FindDialog> self(this);
  [[maybe_unused]] const auto running =
      QtConcurrent::run(&pools::network(), [self, request, cancelled = cancelled_] {
        const Outcome outcome = link::findControllers(
            request,
            [&](const link::FoundController& one) {
              QMetaObject::invokeMethod(
                  qApp,
                  [self, one] {
                    if (self) self->show(one);
                  },
                  Qt::QueuedConnection);
            },
            *cancelled,
            [&](const Failure& failure) {
              QMetaObject::invokeMethod(
                  qApp,
                  [self, words = said(failure)] {
                    if (self) self->troubles_ << words;
                  },
                  Qt::QueuedConnection);
            });
        QMetaObject::invokeMethod(
            qApp,
            [self, outcome] {
              if (self) self->finish(outcome);
            },
            Qt::QueuedConnection);
      });
}

namespace {

const Controller* atAddress(const Show& show, const std::string& address) {
  const auto found = std::find_if(show.controllers.begin(), show.controllers.end(),
                                  [&](const auto& c) { return c->host == address; });
  return found == show.controllers.end() ? nullptr : found->get();
}

/// A controller that is not in the show; of E1.31 sources it is not known what hangs behind them.
bool isNew(const Show& show, const link::FoundController& found) {
  return !atAddress(show, found.address) && found.by != link::FoundBy::UniverseDiscovery;
}

/// Adds it, or gives its namesake the new address.
ControllerId addFound(Show& show, const link::FoundController& found) {
  if (const Controller* namesake = findNamed(show.controllers, found.name)) {
    Controller moved = *namesake;
    moved.host = found.address;
    put(show.controllers, moved);
    return moved.id;
  }
  const ControllerId id = addController(show, std::max(1, found.ports));
  Controller added = *chispa::find(show.controllers, id);
  added.name = freeName(show.controllers, found.name.empty() ? added.name : found.name);
  added.host = found.address;
  added.protocol = found.by == link::FoundBy::DdpStatus ? Protocol::Ddp : Protocol::ArtNet;
  added.firstUniverse = found.firstUniverse;
  put(show.controllers, added);
  return id;
}

}  // namespace

namespace {

QString kindText(link::FoundBy by) {
  switch (by) {
    case link::FoundBy::ArtPoll:
      return FindDialog::tr("Art-Net node");
    case link::FoundBy::UniverseDiscovery:
      return FindDialog::tr("E1.31 source");
    case link::FoundBy::DdpStatus:
      return FindDialog::tr("DDP display");
  }
  return {};
}

}  // namespace

void FindDialog::show(const link::FoundController& found) {
  const bool isSource = found.by == link::FoundBy::UniverseDiscovery;
  auto row = std::find_if(found_.begin(), found_.end(), [&](const auto& f) {
    return f.address == found.address && (f.by == link::FoundBy::UniverseDiscovery) == isSource;
  });
  // Whoever answers to more than one question is listed once, as what tells most of itself.
  if (row != found_.end() && row->by != found.by && found.by == link::FoundBy::DdpStatus) return;
  if (row == found_.end()) {
    row = found_.insert(found_.end(), found);
    list_->addTopLevelItem(new QTreeWidgetItem);
  }
  *row = found;
  const Controller* known = atAddress(session_.show(), found.address);
  const Controller* namesake = known ? nullptr : findNamed(session_.show().controllers, found.name);
  QTreeWidgetItem* item = list_->topLevelItem(static_cast<int>(row - found_.begin()));
  const QStringList words{text(found.name),
                          text(found.address),
                          kindText(found.by),
                          QString::number(found.ports),
                          QString::number(found.firstUniverse),
                          isSource   ? tr("also sends")
                          : known    ? tr("yes, %1").arg(text(known->name))
                          : namesake ? tr("at %1 until now").arg(text(namesake->host))
                                     : tr("no")};
  for (int column = 0; column < words.size(); ++column) item->setText(column, words[column]);
  if (!list_->currentItem()) list_->setCurrentItem(item);
  describe();
}

void FindDialog::finish(const Outcome& outcome) {
  cancelled_.reset();
  search_->setText(tr("Search"));
  if (!outcome)
    state_->setText(said(outcome.failure()));
  else
    state_->setText(counted(
        static_cast<qsizetype>(found_.size()), tr("One controller answered."),
        found_.empty()
            ? tr("Nobody answered. Check the cable and that controller and computer are on one network.")
            : tr("%1 controllers answered.")));
  if (outcome && !troubles_.isEmpty())
    state_->setText(state_->text() + QLatin1Char('\n') + troubles_.join(QLatin1Char('\n')));
}

void FindDialog::describe() {
  takeAll_->setEnabled(std::any_of(found_.begin(), found_.end(), [this](const link::FoundController& found) {
    return isNew(session_.show(), found);
  }));
  const int row = list_->indexOfTopLevelItem(list_->currentItem());
  take_->setEnabled(row >= 0);
  if (row < 0) return;
  const link::FoundController& found = found_[static_cast<std::size_t>(row)];
  take_->setEnabled(isNew(session_.show(), found));
  take_->setText(take_->isEnabled() && findNamed(session_.show().controllers, found.name)
                     ? tr("Use its new address")
                     : tr("Add to the show"));
}

void FindDialog::takeAll() {
  ControllerId id;
  session_.edit(tr("add found controllers"), [&](Show& show) {
    for (const link::FoundController& found : found_)
      if (isNew(show, found)) id = addFound(show, found);
  });
  if (id) session_.selection.select(id);
  for (std::size_t row = 0; row < found_.size(); ++row)
    if (atAddress(session_.show(), found_[row].address))
      list_->topLevelItem(static_cast<int>(row))->setText(5, tr("yes"));
  describe();
}

void FindDialog::take() {
  const int row = list_->indexOfTopLevelItem(list_->currentItem());
  if (row < 0) return;
  const link::FoundController found = found_[static_cast<std::size_t>(row)];
  ControllerId id;
  session_.edit(tr("add a found controller"), [&](Show& show) { id = addFound(show, found); });
  session_.selection.select(id);
  list_->currentItem()->setText(5, tr("yes"));
  describe();
}

}  // namespace chispa::desk
