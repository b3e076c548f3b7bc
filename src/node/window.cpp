// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/window.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QPushButton>
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

NodeWindow::NodeWindow(Node& node) : node_(node), scenes_(new QWidget(this)) {
  setWindowTitle(QString::fromStdString(node.name()) + QStringLiteral(" — ") +
                 QString::fromStdString(node.options().listen));
  setMinimumSize(240, 120);
  scenes_->setStyleSheet(QStringLiteral(
      "QPushButton { background: #2c2c30; color: #e6e3dd; border: 1px solid #3a3a40; border-radius: 4px; "
      "padding: 5px; } QPushButton:checked, QPushButton:focus { border-color: #e3b341; }"));
  auto* row = new QHBoxLayout(scenes_);
  row->setContentsMargins(kMargin, 4, kMargin, 4);
  auto* timer = new QTimer(this);
  connect(timer, &QTimer::timeout, this, [this] {
    refreshScenes();
    update();
  });
  timer->start(33);
}

void NodeWindow::refreshScenes() {
  auto names = node_.sceneNames();
  if (names != sceneNames_) {
    sceneNames_ = std::move(names);
    qDeleteAll(scenes_->findChildren<QPushButton*>());
    const auto add = [this](int scene, const QString& name) {
      auto* button = new QPushButton(name, scenes_);
      button->setCheckable(true);
      button->setProperty("scene", scene);
      button->setToolTip(words("Plays it from the node's own memory (%1)").arg(scene));
      connect(button, &QPushButton::clicked, this, [this, scene] { node_.playScene(scene); });
      scenes_->layout()->addWidget(button);
    };
    if (!sceneNames_.empty()) add(0, words("Dark"));
    for (std::size_t i = 0; i < sceneNames_.size(); ++i)
      add(static_cast<int>(i) + 1, QString::fromStdString(sceneNames_[i]));
    placeScenes();
  }
  for (auto* button : scenes_->findChildren<QPushButton*>())
    button->setChecked(button->property("scene").toInt() == node_.shownScene());
}

void NodeWindow::placeScenes() {
  scenes_->setVisible(!sceneNames_.empty());
  const int tall = scenes_->sizeHint().height();
  scenes_->setGeometry(0, height() - tall, width(), tall);
}

void NodeWindow::resizeEvent(QResizeEvent*) {
  placeScenes();
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
  tall_ = y + scrolled_ + (scenes_->isVisible() ? scenes_->height() : 0);
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
  const int scene = event->key() - Qt::Key_0;
  if (scene >= 0 && scene <= 9 && scene <= static_cast<int>(sceneNames_.size()) && !sceneNames_.empty())
    return node_.playScene(scene);
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
