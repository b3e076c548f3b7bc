// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTreeWidget>

#include "desk/bench/benchtarget.h"

namespace chispa::desk {

/// What can be driven: controllers, their ports and beads, channels as they are, and an address typed in by
/// hand.
class TargetList : public QTreeWidget {
  Q_OBJECT
 public:
  explicit TargetList(QWidget* parent = nullptr);

  /// Fills the list anew; what is chosen stays chosen if it is still there, else the first port is.
  void fill(const Show& show, ControllerId rig);
  const BenchTarget& target() const { return target_; }
  void choose(const BenchTarget& target);
  /// The next fill() chooses anew.
  void forget() { target_ = {}; }

 signals:
  void chosen();

 private:
  QTreeWidgetItem* add(QTreeWidgetItem* under, const QString& words, const BenchTarget& target);
  void addPort(QTreeWidgetItem* under, const Show& show, const Controller& controller, int port);
  void showChosen();

  BenchTarget target_;
  std::vector<std::pair<BenchTarget, QTreeWidgetItem*>> rows_;
};

}  // namespace chispa::desk
