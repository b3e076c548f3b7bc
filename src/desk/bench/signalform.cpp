// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/signalform.h"

#include <QCheckBox>
#include <QColorDialog>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/parts/named.h"

namespace chispa::desk {

using SignalKind = engine::TestSignal::Kind;

SignalForm::SignalForm(QWidget* parent) : QWidget(parent) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  signals_ = new QListWidget;
  named(signals_, "benchSignals", tr("Signals"), tr("What is sent"));
  signals_->addItems({tr("Walk"), tr("Solid, and power test"), tr("Colour cycle"), tr("Every n-th"),
                      tr("Gradient along"), tr("Alternating"), tr("First and last"),
                      tr("Each port its colour"), tr("Row by row (matrices)"),
                      tr("Column by column (matrices)"), tr("Diagonal (matrices)"), tr("Letter F (matrices)"),
                      tr("Faders")});
  for (int i = 0; i < signals_->count(); ++i)
    signals_->item(i)->setSizeHint(QSize(0, fontMetrics().lineSpacing() + 7));
  signals_->setCurrentRow(0);
  connect(signals_, &QListWidget::currentRowChanged, this, [this] {
    showRows();
    emit changed();
  });
  column->addWidget(signals_, 1);
  form_ = new QFormLayout;
  form_->setVerticalSpacing(2);
  speed_ = addNumber("walkSpeed", tr("Step time"), tr("s"), 0, 5, 0.05, 0.2, 2);
  lit_ = addNumber("walkLit", tr("Pixels lit"), {}, 1, 1000, 1, 1, 0);
  nth_ = addNumber("signalNth", tr("One of"), {}, 1, 1000, 1, 10, 0);
  level_ = addNumber("walkLevel", tr("Level"), QStringLiteral("%"), 1, 100, 5, 30, 0);
  most_ = addNumber("signalMost", tr("Limit"), QStringLiteral("%"), 1, 100, 5, 100, 0);
  colourButton_ = new QPushButton;
  named(colourButton_, "signalColour", tr("Colour"), tr("Any colour"));
  connect(colourButton_, &QPushButton::clicked, this, &SignalForm::chooseColour);
  form_->addRow(tr("Colour"), colourButton_);
  column->addLayout(form_);
  bounces_ = addSwitch(column, "walkBounces", tr("Back and forth"),
                       tr("The walk runs back from the end instead of starting over"));
  loops_ = addSwitch(column, "walkLoops", tr("Repeat"),
                     tr("The walk starts again after the end; otherwise it stays there"));
  loops_->setChecked(true);
  restPlays_ = addSwitch(column, "restPlays", tr("Keep the rest playing"),
                         tr("What is not driven plays the score; otherwise it is dark"));
  send_ = new QPushButton(tr("Send"));
  send_->setObjectName(QStringLiteral("walkButton"));
  send_->setCheckable(true);
  send_->setToolTip(
      tr("Sends the signal to what is chosen above. ← and → step a walk by one, with Shift by ten."));
  connect(send_, &QPushButton::toggled, this, &SignalForm::changed);
  column->addWidget(send_);
  setColour(Qt::white);
  showRows();
}

QDoubleSpinBox* SignalForm::addNumber(const char* name, const QString& label, const QString& unit, double low,
                                      double high, double step, double value, int decimals) {
  auto* field = new QDoubleSpinBox;
  named(field, name, label, label);
  field->setDecimals(decimals);
  field->setRange(low, high);
  field->setSingleStep(step);
  if (!unit.isEmpty()) field->setSuffix(QLatin1Char(' ') + unit);
  field->setValue(value);
  connect(field, &QDoubleSpinBox::valueChanged, this, &SignalForm::changed);
  form_->addRow(label, field);
  return field;
}

QCheckBox* SignalForm::addSwitch(QVBoxLayout* column, const char* name, const QString& label,
                                 const QString& tip) {
  auto* box = new QCheckBox(label);
  box->setObjectName(QLatin1String(name));
  box->setToolTip(tip);
  connect(box, &QCheckBox::toggled, this, &SignalForm::changed);
  column->addWidget(box);
  return box;
}

void SignalForm::chooseColour() {
  auto* dialog = new QColorDialog(colour_, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  connect(dialog, &QColorDialog::currentColorChanged, this, &SignalForm::setColour);
  dialog->open();
}

void SignalForm::setColour(const QColor& colour) {
  if (!colour.isValid()) return;
  colour_ = colour;
  colourButton_->setText(colour.name());
  QPixmap patch(14, 14);
  patch.fill(colour);
  colourButton_->setIcon(QIcon(patch));
  emit changed();
}

void SignalForm::setLevel(double percent) {
  level_->setValue(percent);
}

SignalKind SignalForm::kind() const {
  return static_cast<SignalKind>(std::max(0, signals_->currentRow()));
}
QString SignalForm::kindName() const {
  return signals_->currentItem() ? signals_->currentItem()->text() : QString();
}
void SignalForm::setKind(SignalKind kind) {
  signals_->setCurrentRow(static_cast<int>(kind));
}
bool SignalForm::isSending() const {
  return send_->isChecked();
}
void SignalForm::setSending(bool on) {
  send_->setChecked(on);
}
float SignalForm::most() const {
  return static_cast<float>(most_->value() / 100);
}

void SignalForm::holdAt(int place) {
  place_ = place;
  const QSignalBlocker quiet(speed_);
  speed_->setValue(0);
  emit changed();
}

void SignalForm::showRows() {
  const auto show = [this](QWidget* field, bool on) {
    field->setVisible(on);
    if (QWidget* label = form_->labelForField(field)) label->setVisible(on);
  };
  const SignalKind now = kind();
  const bool isSweep =
      now == SignalKind::RowSweep || now == SignalKind::ColumnSweep || now == SignalKind::Diagonal;
  show(speed_,
       now == SignalKind::Walk || now == SignalKind::Cycle || now == SignalKind::Alternate || isSweep);
  show(lit_, now == SignalKind::Walk);
  show(nth_, now == SignalKind::EveryNth);
  show(level_, now != SignalKind::Faders);
  show(colourButton_, now != SignalKind::Cycle && now != SignalKind::Ends && now != SignalKind::PortColours &&
                          now != SignalKind::Faders);
  bounces_->setVisible(now == SignalKind::Walk);
  loops_->setVisible(now == SignalKind::Walk);
}

engine::TestSignal SignalForm::signal() const {
  engine::TestSignal signal;
  signal.kind = kind();
  signal.seconds = speed_->value();
  signal.first = place_;
  signal.lit = static_cast<int>(lit_->value());
  signal.nth = static_cast<int>(nth_->value());
  signal.bounces = bounces_->isChecked();
  signal.loops = loops_->isChecked();
  signal.restPlays = restPlays_->isChecked();
  const float level = std::min(static_cast<float>(level_->value() / 100), most());
  const auto light = [level](int value) { return linearFromSrgb(static_cast<float>(value) / 255.f) * level; };
  signal.colour = {light(colour_.red()), light(colour_.green()), light(colour_.blue())};
  signal.since = engine::SteadyClock().now();
  return signal;
}

}  // namespace chispa::desk
