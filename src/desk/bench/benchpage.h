// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>
#include <QWidget>
#include <map>

#include "desk/bench/finderview.h"
#include "desk/session/session.h"

class QCheckBox;
class QDoubleSpinBox;
class QFormLayout;
class QLabel;
class QListWidget;
class QPushButton;
class QStackedWidget;
class QTreeWidget;
class QVBoxLayout;

namespace chispa::desk {

class ChainView;
class UniverseField;

/// The workspace Bench: test signals to a port or a controller, and the values that leave.
class BenchPage : public QWidget {
  Q_OBJECT
 public:
  explicit BenchPage(const Session& session, QWidget* parent = nullptr);

  /// Chooses the port that is driven.
  void choosePort(PortChoice port);
  /// Switches the signal that is chosen on or off.
  void setSending(bool on);
  void setColour(const QColor& colour);
  /// Begins a finder on the chosen port, or goes on with it.
  void beginFinder(FinderKind kind);

 private:
  void makeSignals(QVBoxLayout* column);
  QDoubleSpinBox* addNumber(QFormLayout* form, const QString& name, const QString& label, const QString& unit, double low, double high, double step, double value, int decimals);
  QWidget* makeFinders();
  void fillPorts();
  engine::TestSignal::Kind kind() const;
  void showRows();
  void takeChoice();
  void sendSignal();
  void step(int by);
  void showNow();

  Session session_;
  PortChoice port_;
  int place_ = 0;
  QTreeWidget* ports_;
  QListWidget* signals_;
  QFormLayout* form_;
  QPushButton* send_ = nullptr;
  QPushButton* colourButton_;
  QColor colour_ = Qt::white;
  QDoubleSpinBox* speed_;
  QDoubleSpinBox* level_;
  QDoubleSpinBox* most_;
  QDoubleSpinBox* lit_;
  QDoubleSpinBox* nth_;
  QCheckBox* bounces_;
  QCheckBox* wholeController_;
  QCheckBox* restPlays_;
  QStackedWidget* stack_;
  FinderView* finderView_;
  QListWidget* finders_;
  /// Finders that were left before they knew, and the show they were begun in.
  std::map<std::tuple<FinderKind, ControllerId, int>, std::shared_ptr<Finder>> openFinders_;
  Show finderShow_;
  QLabel* headline_;
  QLabel* address_;
  ChainView* chain_;
  UniverseField* field_;
  QLabel* fieldTitle_;
};

}  // namespace chispa::desk
