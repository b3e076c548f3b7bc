// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/targetlist.h"

#include "desk/parts/format.h"

namespace chispa::desk {

TargetList::TargetList(QWidget* parent) : QTreeWidget(parent) {
  setObjectName(QStringLiteral("benchTargets"));
  setAccessibleName(tr("What is driven"));
  setToolTip(
      tr("A controller, a port, a part of it, channels, or any address: the signal goes there, all else is "
         "dark"));
  setHeaderHidden(true);
  setIndentation(12);
  connect(this, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
    for (const auto& [target, row] : rows_)
      if (row == item) target_ = target;
    emit chosen();
  });
}

QTreeWidgetItem* TargetList::add(QTreeWidgetItem* under, const QString& words, const BenchTarget& target) {
  auto* item = new QTreeWidgetItem({words});
  if (under)
    under->addChild(item);
  else
    addTopLevelItem(item);
  rows_.emplace_back(target, item);
  return item;
}

void TargetList::addPort(QTreeWidgetItem* under, const Show& show, const Controller& controller, int port) {
  using Kind = BenchTarget::Kind;
  const auto& run = controller.ports[static_cast<std::size_t>(port)].run;
  auto* item =
      add(under, tr("port %1 · %2 px").arg(port + 1).arg(skippedPlaces(show, {controller.id, port}).size()),
          {Kind::Port, controller.id, port, 0});
  if (run.size() < 2) return;
  for (int b = 0; b < std::ssize(run); ++b) {
    const Bead& bead = run[static_cast<std::size_t>(b)];
    const Fixture* fixture = chispa::find(show.fixtures, bead.fixture);
    add(item, tr("%1 · %2 px").arg(fixture ? text(fixture->name) : QString()).arg(bead.count),
        {Kind::Bead, controller.id, port, b});
  }
}

void TargetList::fill(const Show& show, ControllerId rig) {
  using Kind = BenchTarget::Kind;
  const QSignalBlocker quiet(this);
  rows_.clear();
  clear();
  for (const auto& controller : show.controllers) {
    auto* group = add(nullptr, text(controller->name), {Kind::Controller, controller->id, 0, 0});
    for (int p = 0; p < std::ssize(controller->ports); ++p) addPort(group, show, *controller, p);
    add(group, tr("channels…"), {Kind::Channels, controller->id, 0, 0});
    group->setExpanded(true);
  }
  add(nullptr, tr("An address by hand…"), {Kind::Address, rig, 0, 0});
  const auto has = [this](const BenchTarget& wanted) {
    return std::any_of(rows_.begin(), rows_.end(), [&](const auto& row) { return row.first == wanted; });
  };
  // A show without a controller is tested by hand.
  if (!has(target_)) target_ = show.controllers.empty() ? rows_.back().first : rows_[1].first;
  showChosen();
}

void TargetList::showChosen() {
  for (const auto& [target, item] : rows_)
    if (target == target_) {
      for (auto* above = item->parent(); above; above = above->parent()) above->setExpanded(true);
      setCurrentItem(item);
      scrollToItem(item);
    }
}

void TargetList::choose(const BenchTarget& target) {
  target_ = target;
  {
    const QSignalBlocker quiet(this);
    showChosen();
  }
  emit chosen();
}

}  // namespace chispa::desk
