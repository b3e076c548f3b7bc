// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/addressrow.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>

#include "desk/parts/format.h"
#include "desk/parts/named.h"

namespace chispa::desk {
namespace {

/// Protocols that an address can be typed in for.

}  // namespace

AddressRow::AddressRow(QWidget* parent) : QWidget(parent) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(2);
  protocol_ = new QComboBox;
  // A screen has no address to test.
  for (const ProtocolTraits& one : kProtocols)
    if (one.carrier != Carrier::None)
      protocol_->addItem(QLatin1String(one.title), static_cast<int>(one.protocol));
  connect(protocol_, &QComboBox::activated, this, &AddressRow::changed);
  wholeOnly_.push_back(
      add("rigProtocol", tr("Protocol"), tr("What the controller is spoken to with"), protocol_));
  host_ = new QLineEdit;
  host_->setMinimumWidth(120);
  connect(host_, &QLineEdit::editingFinished, this, &AddressRow::changed);
  wholeOnly_.push_back(add("rigHost", tr("Address"),
                           tr("IPv4 address or name of the controller; of serial DMX the adapter's path"),
                           host_));
  universe_ = number("rigUniverse", tr("Universe"), tr("First universe, as the protocol counts"), 0, 63'999);
  channel_ = number("rigChannel", tr("Channel"), tr("First channel, from 1"), 1, 512);
  pixels_ = number("rigPixels", tr("Pixels"), tr("How many pixels get data"), 1, 100'000);
  order_ = new QLineEdit;
  order_->setMaxLength(4);
  connect(order_, &QLineEdit::editingFinished, this, &AddressRow::changed);
  add("rigOrder", tr("Order"), tr("Channels of a pixel: the letters R, G, B and W, each once"), order_);
  columns_ = number("rigColumns", tr("Columns"), tr("Pixels per row of a matrix; 0 for a strip"), 0, 1000);
  columns_->setSpecialValueText(tr("strip"));
  wholeOnly_.push_back(columns_->parentWidget());
  keep_ = new QPushButton(tr("Keep in the show"));
  keep_->setObjectName(QStringLiteral("keepRig"));
  keep_->setToolTip(tr("Adds a controller with this address, and LEDs on the plan, to the show"));
  connect(keep_, &QPushButton::clicked, this, &AddressRow::keepAsked);
  wholeOnly_.push_back(keep_);
  grid->addWidget(keep_, placed_ / 4, placed_ % 4, Qt::AlignBottom);
}

QWidget* AddressRow::add(const char* name, const QString& words, const QString& tip, QWidget* field) {
  auto* cell = new QWidget;
  auto* column = new QVBoxLayout(cell);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(2);
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("quiet"));
  label->setBuddy(field);
  named(field, name, words, tip);
  column->addWidget(label);
  column->addWidget(field);
  auto* grid = static_cast<QGridLayout*>(layout());
  grid->addWidget(cell, placed_ / 4, placed_ % 4);
  ++placed_;
  return cell;
}

QSpinBox* AddressRow::number(const char* name, const QString& label, const QString& tip, int low, int high) {
  auto* field = new QSpinBox;
  field->setRange(low, high);
  field->setKeyboardTracking(false);
  add(name, label, tip, field);
  connect(field, &QSpinBox::valueChanged, this, &AddressRow::changed);
  return field;
}

void AddressRow::setWhole(bool whole) {
  for (QWidget* one : wholeOnly_) one->setVisible(whole);
}

void AddressRow::show(const BenchRig& rig) {
  const QSignalBlocker quiet(this);
  protocol_->setCurrentIndex(protocol_->findData(static_cast<int>(rig.controller.protocol)));
  host_->setText(text(rig.controller.host));
  const FixedStart start = rigStart(rig);
  universe_->setValue(start.universe);
  channel_->setValue(start.channel);
  pixels_->setValue(pixelCount(rig.fixture));
  const auto& order = rig.controller.ports.front().settings.order;
  order_->setText(text(order.value_or(rig.strip.order)));
  columns_->setValue(rigColumns(rig));
}

void AddressRow::read(BenchRig& rig) const {
  rig.controller.protocol = static_cast<Protocol>(protocol_->currentData().toInt());
  if (!host_->text().trimmed().isEmpty()) rig.controller.host = host_->text().trimmed().toStdString();
  const int universe =
      rig.controller.protocol == Protocol::E131 ? std::max(1, universe_->value()) : universe_->value();
  setRigStart(rig, universe, channel_->value());
  const auto order = order_->text().trimmed().toUpper().toStdString();
  if (isChannelOrder(order)) {
    rig.strip.order = order;
    rig.controller.ports.front().settings.order.reset();
  }
  if (pixels_->value() != pixelCount(rig.fixture) || columns_->value() != rigColumns(rig))
    setRigPixels(rig, pixels_->value(), columns_->value());
}

}  // namespace chispa::desk
