// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

class QComboBox;
class QLabel;
class QPushButton;

namespace chispa::desk {

class PhoneHost;

/// Switches the phone page on, on the chosen interface, and shows the code that pairs a phone. UI thread.
class PhoneDialog : public QDialog {
  Q_OBJECT
 public:
  explicit PhoneDialog(PhoneHost& host, QWidget* parent = nullptr);

 private:
  void switchPage(bool on);
  void showCode();
  void showPhones();

  PhoneHost& host_;
  QComboBox* interface_;
  QPushButton* switch_;
  QPushButton* forget_;
  QLabel* code_;
  QLabel* address_;
  QLabel* phones_;
};

}  // namespace chispa::desk
