// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/screenports.h"

#include <QGuiApplication>
#include <QKeyEvent>
#include <QPainter>
#include <QScreen>

#include "core/colour/srgbtable.h"
#include "core/zone/pixelmap.h"
#include "desk/parts/format.h"
#include "engine/program.h"

namespace chispa::desk {

ScreenPortWindow::ScreenPortWindow(const Session& session, PortChoice port, QWidget* parent)
    : QWidget(parent, Qt::Window), session_(session) {
  const Controller* controller = chispa::find(session.show().controllers, port.controller);
  const QString name =
      tr("%1, port %2").arg(controller ? text(controller->name) : QString()).arg(port.port + 1);
  setObjectName(QStringLiteral("screenPort-%1-%2").arg(port.controller.value).arg(port.port));
  setWindowTitle(name);
  setAccessibleName(name);
  setAttribute(Qt::WA_ShowWithoutActivating);
}

void ScreenPortWindow::place(const ScreenArea& area) {
  const auto screens = QGuiApplication::screens();
  const QScreen* screen = screens.value(std::clamp(area.display, 0, static_cast<int>(screens.size()) - 1));
  const int columns = std::max(1, area.columns);
  const int rows = (static_cast<int>(pixels_.size()) + columns - 1) / columns;
  const QPoint corner = screen ? screen->geometry().topLeft() : QPoint();
  if (area.isFullScreen) {
    if (screen) setGeometry(screen->geometry());
    showFullScreen();
    return;
  }
  showNormal();
  setGeometry(QRect(corner + QPoint(area.left, area.top), QSize(columns, std::max(1, rows)) * area.dots));
}

void ScreenPortWindow::adopt(const Port& port, std::vector<std::int32_t> pixels) {
  const bool isMoved = !isPlaced_ || area_ != port.screen || pixels_.size() != pixels.size();
  area_ = port.screen;
  pixels_ = std::move(pixels);
  isPlaced_ = true;
  if (isMoved) place(area_);
}

void ScreenPortWindow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), Qt::black);
  const engine::Output& output = session_.stage.player().output();
  const PixelFrame& frame = session_.stage.player().latestFrame();
  if (pixels_.empty()) return;
  const float level = output.lightLevel();
  const int columns = std::max(1, area_.columns);
  const int rows = (static_cast<int>(pixels_.size()) + columns - 1) / columns;
  const SrgbTable& screen = SrgbTable::get();
  QImage picture(columns, rows, QImage::Format_RGB32);
  picture.fill(Qt::black);
  for (int row = 0; row < rows; ++row) {
    auto* line = reinterpret_cast<QRgb*>(picture.scanLine(row));
    const int first = row * columns;
    for (int i = first; i < std::min(first + columns, static_cast<int>(pixels_.size())); ++i) {
      const auto pixel = static_cast<std::size_t>(pixels_[static_cast<std::size_t>(i)]);
      if (pixel >= frame.size()) continue;  // Skipped ones too.
      const Srgb8 c = screen.colour(frame.r[pixel] * level, frame.g[pixel] * level, frame.b[pixel] * level);
      line[i - first] = qRgb(c.r, c.g, c.b);
    }
  }
  // Whole dots a pixel where it can be, so that all are equally large.
  const QRect room = area_.isFullScreen ? rect() : QRect(QPoint(), QSize(columns, rows) * area_.dots);
  painter.drawImage(room, picture);
}

void ScreenPortWindow::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && isFullScreen()) return showNormal();
  QWidget::keyPressEvent(event);
}

ScreenPorts::ScreenPorts(const Session& session, QWidget* owner)
    : QObject(owner),
      session_(session),
      owner_(owner),
      frames_(session.stage.player().output().bell().descriptor(), QSocketNotifier::Read) {
  // In step with the output, at whatever rate that computes frames.
  frames_.setEnabled(false);
  connect(&frames_, &QSocketNotifier::activated, this, [this] {
    session_.stage.player().output().bell().hear();
    for (const auto& [port, window] : windows_) window->update();
  });
  connect(&session_.document, &Document::showChanged, this, &ScreenPorts::update);
  connect(&session_.document, &Document::opened, this, &ScreenPorts::update);
  connect(&session_.stage, &Stage::lightChanged, this, &ScreenPorts::update);
}

void ScreenPorts::update() {
  std::map<std::pair<ControllerId, int>, std::unique_ptr<ScreenPortWindow>> kept;
  const Show& show = session_.show();
  for (const auto& controller : show.controllers) {
    if (!session_.stage.isLit() || controller->protocol != Protocol::Screen) continue;
    for (std::size_t p = 0; p < controller->ports.size(); ++p) {
      const std::pair key(controller->id, static_cast<int>(p));
      if (controller->ports[p].run.empty()) continue;
      auto& window = kept[key];
      if (const auto open = windows_.find(key); open != windows_.end()) window = std::move(open->second);
      if (!window)
        window = std::make_unique<ScreenPortWindow>(session_, PortChoice{controller->id, static_cast<int>(p)},
                                                    owner_);
      window->adopt(controller->ports[p],
                    engine::chainOf(show, pixelRanges(show), *controller, static_cast<int>(p)).pixels);
    }
  }
  windows_ = std::move(kept);
  const bool isAny = !windows_.empty();
  session_.stage.player().output().bell().listen(isAny);
  frames_.setEnabled(isAny);
}

}  // namespace chispa::desk
