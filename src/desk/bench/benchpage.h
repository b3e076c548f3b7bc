// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QTreeWidget;

namespace chispa::desk {

class ChainView;
class UniverseField;

/// The workspace Bench: a walking pixel over one port, and the values that leave.
class BenchPage : public QWidget {
  Q_OBJECT
 public:
  explicit BenchPage(const Session& session, QWidget* parent = nullptr);

  /// Chooses the port that is driven.
  void choosePort(PortChoice port);
  void setWalking(bool on);

 private:
  void fillPorts();
  void takeChoice();
  void sendSignal();
  void step(int by);
  void showNow();

  Session session_;
  PortChoice port_;
  int place_ = 0;
  QTreeWidget* ports_;
  QPushButton* walk_;
  QDoubleSpinBox* speed_;
  QDoubleSpinBox* level_;
  QLabel* headline_;
  QLabel* address_;
  ChainView* chain_;
  UniverseField* field_;
  QLabel* fieldTitle_;
};

}  // namespace chispa::desk
