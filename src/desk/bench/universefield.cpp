// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/universefield.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QToolTip>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr std::uint8_t kOld = 12;

}  // namespace

UniverseField::UniverseField(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(150);
  setObjectName(QStringLiteral("universeField"));
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Values of the universe"));
  setToolTip(tr("One cell per channel, from the upper left; click one to see its last ten seconds"));
  age_.fill(kOld);
}

void UniverseField::showValues(const std::array<std::uint8_t, 512>& values, int used) {
  for (std::size_t i = 0; i < values.size(); ++i)
    age_[i] = values[i] != values_[i] ? std::uint8_t{0}
                                      : static_cast<std::uint8_t>(std::min<int>(kOld, age_[i] + 1));
  values_ = values;
  used_ = used;
  update();
}

int UniverseField::cellAt(QPointF at) const {
  const int column = static_cast<int>(at.x() * kColumns / width());
  const int row = static_cast<int>(at.y() * kRows / height());
  return std::clamp(row, 0, kRows - 1) * kColumns + std::clamp(column, 0, kColumns - 1);
}

void UniverseField::choose(int channel) {
  chosen_ = std::clamp(channel, 0, kColumns * kRows - 1);
  update();
  emit channelChosen(chosen_);
}

void UniverseField::mousePressEvent(QMouseEvent* event) {
  choose(cellAt(event->position()));
}

void UniverseField::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Left:
      return choose(chosen_ - 1);
    case Qt::Key_Right:
      return choose(chosen_ + 1);
    case Qt::Key_Up:
      return choose(chosen_ - kColumns);
    case Qt::Key_Down:
      return choose(chosen_ + kColumns);
    default:
      QWidget::keyPressEvent(event);
  }
}

bool UniverseField::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int cell = cellAt(help->pos());
  QToolTip::showText(help->globalPos(),
                     tr("channel %1: %2").arg(cell + 1).arg(values_[static_cast<std::size_t>(cell)]), this);
  return true;
}

void UniverseField::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const double wide = static_cast<double>(width()) / kColumns;
  const double tall = static_cast<double>(height()) / kRows;
  painter.setFont(numberFont(0.75));
  const bool roomForNumbers = wide > painter.fontMetrics().horizontalAdvance(QStringLiteral("255")) + 2;
  for (int i = 0; i < kColumns * kRows; ++i) {
    const auto at = static_cast<std::size_t>(i);
    const QRectF cell(i % kColumns * wide, i / kColumns * tall, wide - 1, tall - 1);
    const double share = values_[at] / 255.0;
    QColor colour = i < used_ ? theme().raised : theme().panel;
    if (values_[at] > 0) {
      const QColor ember = theme().ember;
      const auto mix = [&](int a, int b) { return static_cast<int>(a + (b - a) * (0.2 + 0.8 * share)); };
      colour = QColor(mix(colour.red(), ember.red()), mix(colour.green(), ember.green()),
                      mix(colour.blue(), ember.blue()));
    }
    painter.fillRect(cell, colour);
    if (age_[at] < kOld) {
      painter.setPen(theme().text);
      painter.drawRect(cell.adjusted(0.5, 0.5, -0.5, -0.5));
    }
    if (i == chosen_) {
      painter.setPen(QPen(theme().ember, 2));
      painter.drawRect(cell.adjusted(1, 1, -1, -1));
    }
    if (values_[at] == 0 || !roomForNumbers) continue;
    painter.setPen(share > 0.45 ? QColor(0x14, 0x10, 0x0c) : theme().text);
    painter.drawText(cell, Qt::AlignCenter, QString::number(values_[at]));
  }
}

}  // namespace chispa::desk
