// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>
#include <QWheelEvent>

namespace chispa::desk {
namespace {

/// Of the grid that rows stand in.
constexpr int kColumns = 3;

/// A number field that leaves the wheel to the panel behind it unless it has the focus.
class NumberField : public QDoubleSpinBox {
 public:
  NumberField() {
    setFocusPolicy(Qt::StrongFocus);
    connect(this, &QAbstractSpinBox::editingFinished, this, [this] { lineEdit()->setModified(false); });
  }

  /// Something is typed that is not taken over yet.
  bool isBeingTyped() const { return hasFocus() && lineEdit()->isModified(); }

 protected:
  void wheelEvent(QWheelEvent* event) override {
    if (hasFocus())
      QDoubleSpinBox::wheelEvent(event);
    else
      event->ignore();
  }
};

QLabel* label(const QString& words, const char* name, QWidget* parent) {
  auto* made = new QLabel(words, parent);
  made->setObjectName(QLatin1String(name));
  made->setWordWrap(true);
  made->setTextInteractionFlags(Qt::TextSelectableByMouse);
  return made;
}

}  // namespace

Form::Form(QWidget* parent) : QWidget(parent), grid_(new QGridLayout(this)) {
  grid_->setContentsMargins(12, 12, 12, 12);
  grid_->setHorizontalSpacing(8);
  grid_->setVerticalSpacing(6);
  // A label takes half of the width, and of a field for names two fifths: they are longer than numbers.
  grid_->setColumnStretch(0, 4);
  grid_->setColumnStretch(1, 1);
  grid_->setColumnStretch(2, 5);
}

void Form::addTitle(const QString& title, const Get<QString>& subtitle) {
  grid_->addWidget(label(title, "title", this), row_++, 0, 1, kColumns);
  addNote(subtitle);
}

void Form::addHeading(const QString& words) {
  grid_->setRowMinimumHeight(row_++, 8);
  grid_->addWidget(label(words, "heading", this), row_++, 0, 1, kColumns);
}

void Form::addRow(const QString& key, const QString& words, QWidget* field) {
  field->setObjectName(key);
  field->setAccessibleName(words);
  auto* name = new QLabel(words, this);
  name->setBuddy(field);
  name->setWordWrap(true);
  const int labelled = qobject_cast<QLineEdit*>(field) ? 1 : 2;
  grid_->addWidget(name, row_, 0, 1, labelled);
  grid_->addWidget(field, row_++, labelled, 1, kColumns - labelled);
}

void Form::addNumber(const QString& key, const QString& words, const Number& number, Get<double> get,
                     Set<double> set) {
  auto* field = new NumberField;
  // One step below the range stands for "mixed".
  field->setDecimals(number.decimals);
  field->setRange(number.low, number.high);
  field->setSingleStep(number.step);
  field->setKeyboardTracking(false);
  field->setAlignment(Qt::AlignRight);
  if (!number.unit.isEmpty()) field->setSuffix(QLatin1Char(' ') + number.unit);
  field->setToolTip(tr("%1: from %2 to %3 %4").arg(words).arg(number.low).arg(number.high).arg(number.unit));
  addRow(key, words, field);
  connect(field, &QDoubleSpinBox::valueChanged, this, [set](double value) { set(value); });
  refreshers_.push_back([field, get, number] {
    if (field->isBeingTyped()) return;
    const QSignalBlocker quiet(field);
    const auto value = get();
    field->setMinimum(value ? number.low : number.low - number.step);
    field->setSpecialValueText(value ? QString() : tr("mixed"));
    field->setValue(value.value_or(number.low - number.step));
  });
  refreshers_.back()();
}

void Form::addText(const QString& key, const QString& words, Get<QString> get, Set<QString> set) {
  auto* field = new QLineEdit;
  field->setToolTip(words);
  addRow(key, words, field);
  connect(field, &QLineEdit::editingFinished, this, [field, set, get] {
    field->setModified(false);
    if (get() != field->text() && !(field->text().isEmpty() && !get())) set(field->text());
  });
  refreshers_.push_back([field, get] {
    // What is being typed stays until it is taken over.
    if (field->hasFocus() && field->isModified()) return;
    const auto value = get();
    const QSignalBlocker quiet(field);
    field->setPlaceholderText(value ? QString() : tr("mixed"));
    if (field->text() == value.value_or(QString())) return;
    field->setText(value.value_or(QString()));
    field->setCursorPosition(0);
  });
  refreshers_.back()();
}

void Form::addChoice(const QString& key, const QString& words, const QStringList& choices, Get<int> get,
                     Set<int> set) {
  auto* field = new QComboBox;
  field->addItems(choices);
  field->setPlaceholderText(tr("mixed"));
  field->setToolTip(words);
  field->setFocusPolicy(Qt::StrongFocus);
  // A long choice must not make the panel wider than it is.
  field->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  field->setMinimumContentsLength(8);
  addRow(key, words, field);
  connect(field, &QComboBox::activated, this, [set](int index) { set(index); });
  refreshers_.push_back([field, get] {
    const QSignalBlocker quiet(field);
    field->setCurrentIndex(get().value_or(-1));
  });
  refreshers_.back()();
}

void Form::addSwitch(const QString& key, const QString& words, Get<bool> get, Set<bool> set) {
  auto* field = new QCheckBox;
  field->setToolTip(words);
  addRow(key, words, field);
  connect(field, &QCheckBox::clicked, this, [set](bool on) { set(on); });
  refreshers_.push_back([field, get] {
    const auto value = get();
    field->setTristate(!value);
    field->setCheckState(!value ? Qt::PartiallyChecked : *value ? Qt::Checked : Qt::Unchecked);
  });
  refreshers_.back()();
}

void Form::addFact(const QString& words, Get<QString> get) {
  auto* name = new QLabel(words, this);
  name->setWordWrap(true);
  auto* value = new QLabel(this);
  value->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  value->setWordWrap(true);
  grid_->addWidget(name, row_, 0, 1, 2);
  grid_->addWidget(value, row_++, 2);
  refreshers_.push_back([value, get] { value->setText(get().value_or(tr("mixed"))); });
  refreshers_.back()();
}

void Form::addNote(Get<QString> get) {
  auto* note = label({}, "quiet", this);
  grid_->addWidget(note, row_++, 0, 1, kColumns);
  refreshers_.push_back([note, get] {
    const QString words = get().value_or(QString());
    note->setText(words);
    note->setVisible(!words.isEmpty());
  });
  refreshers_.back()();
}

void Form::addWidget(QWidget* widget, std::function<void()> refresh) {
  grid_->addWidget(widget, row_++, 0, 1, kColumns);
  if (!refresh) return;
  refreshers_.push_back(std::move(refresh));
  refreshers_.back()();
}

QWidget* Form::addButton(const QString& key, const QString& words, const QString& tip,
                         std::function<void()> pressed) {
  auto* button = new QPushButton(words, this);
  button->setObjectName(key);
  button->setToolTip(tip);
  button->setAccessibleName(words);
  connect(button, &QPushButton::clicked, this, std::move(pressed));
  addWidget(button);
  return button;
}

void Form::addButtons(const std::vector<Button>& buttons) {
  auto* row = new QWidget(this);
  auto* layout = new QHBoxLayout(row);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(4);
  for (const Button& entry : buttons) {
    auto* button = new QPushButton(entry.label, row);
    button->setObjectName(entry.key);
    button->setToolTip(entry.tip);
    button->setAccessibleName(entry.tip);
    button->setMinimumWidth(0);
    connect(button, &QPushButton::clicked, this, entry.pressed);
    layout->addWidget(button, 1);
  }
  addWidget(row);
}

void Form::addStretch() {
  grid_->setRowStretch(row_++, 1);
}

void Form::refresh() {
  for (const auto& refresher : refreshers_) refresher();
}

}  // namespace chispa::desk
