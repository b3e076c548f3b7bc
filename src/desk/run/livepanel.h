// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/liveinputs.h"

class QCheckBox;
class QLabel;
class QMenu;
class QPushButton;

namespace chispa::desk {

class BindingList;

/// What drives what: the inputs and their switches, the bindings, learning, copying along, desks. UI thread.
class LivePanel : public QWidget {
  Q_OBJECT
 public:
  LivePanel(const Session& session, LiveInputs& inputs, QWidget* parent = nullptr);

  bool isLearning() const { return isLearning_; }
  /// The next control that moves is bound: to what is selected, or to the binding that is selected in place
  /// of its own.
  void learn(bool on);
  void copyAlong();
  /// The selected zone, or each selected fixture as one cell, listens to a desk.
  void listenToDesk();
  void collapseAndListen();
  /// As PDF or CSV, by the ending of `path`, which is asked for if it is empty.
  void exportDeskSheet(QString path = {});
  /// Hears desks and OSC at the interface with this address.
  void listenAt(const QString& address);

 signals:
  void failed(const QString& words);

 private:
  void take(const BindingSource& source, float value);
  QWidget* makeDeskMenu();
  QMenu* makeNetworkMenu(QWidget* parent);
  void fillNetworkMenu(QMenu* menu);
  void showInputs();
  void switchDesks(bool on);
  void switchOsc(bool on);

  Session session_;
  LiveInputs& inputs_;
  BindingList* list_;
  QCheckBox* midi_;
  QCheckBox* osc_;
  QCheckBox* desks_;
  QLabel* state_;
  QPushButton* learn_;
  QPushButton* copy_;
  bool isLearning_ = false;
};

}  // namespace chispa::desk
