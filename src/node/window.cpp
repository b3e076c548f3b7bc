// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/window.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <QPainter>
#include <QTimer>
#include <QWheelEvent>

#include "node/node.h"

namespace chispa::node {
namespace {

constexpr int kMargin = 12;
const QColor kGround(0x12, 0x12, 0x14);
const QColor kText(0x9a, 0x96, 0x8e);
const QColor kUnlit(0x2a, 0x2a, 0x2e);

QString words(const char* text) {
  return QCoreApplication::translate("NodeWindow", text);
}

}  // namespace

NodeWindow::NodeWindow(const Node& node) : node_(node) {
  setWindowTitle(QString::fromStdString(node.name()) + QStringLiteral(" — ") +
                 QString::fromStdString(node.options().listen));
  setMinimumSize(240, 120);
  auto* timer = new QTimer(this);
  connect(timer, &QTimer::timeout, this, qOverload<>(&NodeWindow::update));
  timer->start(33);
}

void NodeWindow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), kGround);
  const auto ports = node_.settings();
  const int line = fontMetrics().height();
  if (ports.empty()) {
    painter.setPen(kText);
    painter.drawText(rect().adjusted(kMargin, kMargin, -kMargin, -kMargin),
                     Qt::AlignCenter | Qt::TextWordWrap,
                     words("No port is set up yet. Send the set-up from Chispa (Wire, or chispa-cli push)."));
    return;
  }
  int y = kMargin - scrolled_;
  for (const PortSetup& port : ports) {
    const auto colours = node_.shown(port);
    if (colours.empty()) continue;
    painter.setPen(kText);
    painter.drawText(kMargin, y + line, words("port %1 · %2 px").arg(port.port).arg(colours.size()));
    y += line + 6;
    // Long strips go on in the next row, as a strip does on a spool.
    const int dot = colours.size() > 400 ? 5 : 8;
    const int perRow = std::max(1, (width() - 2 * kMargin) / dot);
    for (std::size_t i = 0; i < colours.size(); ++i) {
      const int at = static_cast<int>(i);
      const QColor colour(colours[i].r, colours[i].g, colours[i].b);
      const QRect place(kMargin + at % perRow * dot, y + at / perRow * dot, dot - 1, dot - 1);
      painter.fillRect(place, colour.lightness() < 10 ? kUnlit : colour);
    }
    y += (static_cast<int>(colours.size()) / perRow + 1) * dot + 8;
  }
  tall_ = y + scrolled_;
}

void NodeWindow::scrollBy(int dots) {
  scrolled_ = std::clamp(scrolled_ + dots, 0, std::max(0, tall_ - height()));
  update();
}

void NodeWindow::wheelEvent(QWheelEvent* event) {
  scrollBy(-event->angleDelta().y());
}

void NodeWindow::keyPressEvent(QKeyEvent* event) {
  constexpr int kLine = 60;
  switch (event->key()) {
    case Qt::Key_Down:
      return scrollBy(kLine);
    case Qt::Key_Up:
      return scrollBy(-kLine);
    case Qt::Key_PageDown:
      return scrollBy(height());
    case Qt::Key_PageUp:
      return scrollBy(-height());
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::node
