// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/phonedialog.h"

#include <cmath>

#include <QApplication>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include "desk/frame/phonehost.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "link/finder.h"
#include "phone/qrcode.h"

namespace chispa::desk {
namespace {

/// A light ground with the quiet zone of four modules that readers need.
QPixmap pictureOf(const phone::QrCode& code) {
  constexpr int kQuiet = 4;
  // Modules are of whole dots: phones read them better.
  const double ratio = qApp->devicePixelRatio();
  const int module = static_cast<int>(std::lround(6 * ratio));
  const int side = (code.side + 2 * kQuiet) * module;
  QPixmap picture(side, side);
  picture.fill(Qt::white);
  QPainter painter(&picture);
  for (int y = 0; y < code.side; ++y)
    for (int x = 0; x < code.side; ++x)
      if (code.isDark(x, y))
        painter.fillRect((x + kQuiet) * module, (y + kQuiet) * module, module, module, Qt::black);
  painter.end();
  picture.setDevicePixelRatio(ratio);
  return picture;
}

}  // namespace

PhoneDialog::PhoneDialog(PhoneHost& host, QWidget* parent) : QDialog(parent), host_(host) {
  setObjectName(QStringLiteral("phoneDialog"));
  setWindowTitle(tr("Phone page"));
  auto* column = new QVBoxLayout(this);
  auto* words = new QLabel(
      tr("A page for phones on your own network: pads, levels and the Bench in the hand. It is off until you "
         "switch it on, and answers only phones that have scanned the code."));
  words->setWordWrap(true);
  column->addWidget(words);
  auto* form = new QFormLayout;
  interface_ = named(new QComboBox, "phoneInterface", tr("Network interface"),
                     tr("Where phones reach this computer; loopback is this computer alone"));
  for (const link::Interface& one : link::localInterfaces())
    interface_->addItem(QStringLiteral("%1 (%2)").arg(text(one.address), text(one.name)), text(one.address));
  form->addRow(tr("Network interface"), interface_);
  column->addLayout(form);
  switch_ = named(new QPushButton, "phoneSwitch", tr("Switch the page on"),
                  tr("Switches the phone page on or off"));
  switch_->setAutoDefault(false);
  connect(switch_, &QPushButton::clicked, this, [this] { switchPage(!host_.isOn()); });
  column->addWidget(switch_);
  code_ = named(new QLabel, "phoneCode", tr("Code"), tr("Scan this with the phone's camera"));
  code_->setAlignment(Qt::AlignCenter);
  column->addWidget(code_);
  address_ = named(new QLabel, "phoneAddress", tr("Address of the page"), tr("The same, to be typed"));
  address_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  address_->setWordWrap(true);
  column->addWidget(address_);
  phones_ = new QLabel;
  phones_->setObjectName(QStringLiteral("quiet"));
  phones_->setWordWrap(true);
  column->addWidget(phones_);
  forget_ = named(new QPushButton(tr("Forget all phones")), "phoneForget", tr("Forget all phones"),
                  tr("No phone is paired any more, and the code is another"));
  forget_->setAutoDefault(false);
  connect(forget_, &QPushButton::clicked, this, [this] {
    if (host_.server()) host_.server()->forgetPhones();
    showCode();
  });
  column->addWidget(forget_);
  auto* timer = new QTimer(this);
  connect(timer, &QTimer::timeout, this, &PhoneDialog::showPhones);
  constexpr int kEvery_ms = 500;
  timer->start(kEvery_ms);
  showCode();
}

void PhoneDialog::switchPage(bool on) {
  QString trouble;
  if (on)
    trouble = host_.switchOn(interface_->currentData().toString());
  else
    host_.switchOff();
  showCode();
  if (!trouble.isEmpty()) phones_->setText(trouble);
}

void PhoneDialog::showCode() {
  const bool isOn = host_.isOn();
  switch_->setText(isOn ? tr("Switch the page off") : tr("Switch the page on"));
  switch_->setAccessibleName(switch_->text());
  interface_->setEnabled(!isOn);
  code_->setVisible(isOn);
  address_->setVisible(isOn);
  forget_->setEnabled(isOn);
  if (isOn) {
    const std::string url = host_.server()->pairingUrl();
    code_->setPixmap(pictureOf(phone::qrCodeOf(url)));
    address_->setText(text(url));
  }
  showPhones();
  adjustSize();
}

void PhoneDialog::showPhones() {
  if (!host_.isOn()) return;
  const int looking = host_.server()->phones();
  const quint64 refused = host_.server()->refused();
  QString words = looking == 0   ? tr("No phone looks now.")
                  : looking == 1 ? tr("One phone looks now.")
                                 : tr("%1 phones look now.").arg(looking);
  if (refused > 0)
    words += QLatin1Char(' ') + (refused == 1 ? tr("One request of a stranger was refused.")
                                              : tr("%1 requests of strangers were refused.").arg(refused));
  phones_->setText(words);
}

}  // namespace chispa::desk
