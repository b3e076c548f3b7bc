// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/historyplot.h"

#include <QPainter>
#include <QPainterPath>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

/// Ten seconds of the window's ticks.
constexpr std::size_t kMax = 300;

}  // namespace

HistoryPlot::HistoryPlot(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("historyPlot"));
  setAccessibleName(tr("The last ten seconds of the channel"));
  setToolTip(tr("The last ten seconds of the channel that is chosen in the field"));
  setFixedHeight(44);
}

void HistoryPlot::add(std::uint8_t value) {
  values_.push_back(value);
  if (values_.size() > kMax) values_.pop_front();
  update();
}

void HistoryPlot::clear() {
  values_.clear();
  update();
}

void HistoryPlot::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().night);
  if (values_.empty()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  QPainterPath line;
  const double step = static_cast<double>(width()) / static_cast<double>(kMax - 1);
  double x = width() - step * static_cast<double>(values_.size() - 1);
  for (const std::uint8_t value : values_) {
    const QPointF at(x, height() - 4 - value / 255.0 * (height() - 8));
    line.isEmpty() ? line.moveTo(at) : line.lineTo(at);
    x += step;
  }
  painter.setPen(QPen(theme().ember, 1.5));
  painter.drawPath(line);
}

}  // namespace chispa::desk
