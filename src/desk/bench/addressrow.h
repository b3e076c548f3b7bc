// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "core/edit/benchrig.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;

namespace chispa::desk {

/// The fields of an address by hand: where it is, how many LEDs, in what order. Of channels of a controller
/// it shows those that make sense.
class AddressRow : public QWidget {
  Q_OBJECT
 public:
  explicit AddressRow(QWidget* parent = nullptr);

  /// Shows the rig, without telling of a change.
  void show(const BenchRig& rig);
  /// Puts what the fields say into the rig.
  void read(BenchRig& rig) const;
  /// `whole` has protocol, host and columns too.
  void setWhole(bool whole);

 signals:
  void changed();
  /// The address is to become part of the show.
  void keepAsked();

 private:
  QWidget* add(const char* name, const QString& label, const QString& tip, QWidget* field);
  QSpinBox* number(const char* name, const QString& label, const QString& tip, int low, int high);

  std::vector<QWidget*> wholeOnly_;
  int placed_ = 0;
  QComboBox* protocol_;
  QLineEdit* host_;
  QSpinBox* universe_;
  QSpinBox* channel_;
  QSpinBox* pixels_;
  QLineEdit* order_;
  QSpinBox* columns_;
  QPushButton* keep_;
};

}  // namespace chispa::desk
