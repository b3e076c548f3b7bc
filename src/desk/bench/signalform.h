// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>
#include <QWidget>

#include "engine/signal.h"

class QCheckBox;
class QDoubleSpinBox;
class QFormLayout;
class QListWidget;
class QPushButton;
class QVBoxLayout;

namespace chispa::desk {

/// What is sent: the signal, its speed, level and colour, and the switch that sends it.
class SignalForm : public QWidget {
  Q_OBJECT
 public:
  explicit SignalForm(QWidget* parent = nullptr);

  /// The signal as it is set; its target is the caller's.
  engine::TestSignal signal() const;
  engine::TestSignal::Kind kind() const;
  QString kindName() const;
  void setKind(engine::TestSignal::Kind kind);
  bool isSending() const;
  void setSending(bool on);
  void setColour(const QColor& colour);
  void setLevel(double percent);
  /// A level 0–1 that nothing goes above.
  float most() const;
  /// Stands still, at a place that is stepped by hand.
  void holdAt(int place);

 signals:
  void changed();

 private:
  QDoubleSpinBox* addNumber(const char* name, const QString& label, const QString& unit, double low,
                            double high, double step, double value, int decimals);
  QCheckBox* addSwitch(QVBoxLayout* column, const char* name, const QString& label, const QString& tip);
  void chooseColour();
  void showRows();

  QListWidget* signals_;
  QFormLayout* form_;
  QPushButton* send_;
  QPushButton* colourButton_;
  QColor colour_ = Qt::white;
  int place_ = 0;
  QDoubleSpinBox* speed_;
  QDoubleSpinBox* level_;
  QDoubleSpinBox* most_;
  QDoubleSpinBox* lit_;
  QDoubleSpinBox* nth_;
  QCheckBox* bounces_;
  QCheckBox* loops_;
  QCheckBox* restPlays_;
};

}  // namespace chispa::desk
