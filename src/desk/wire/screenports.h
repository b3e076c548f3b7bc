// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>

#include <QSocketNotifier>
#include <QWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// A port of a screen: a window that shows the port's pixels as a matrix, row by row from the upper left.
/// Escape leaves the full screen.
class ScreenPortWindow : public QWidget {
  Q_OBJECT
 public:
  ScreenPortWindow(const Session& session, PortChoice port, QWidget* parent);

  /// Takes up where it is to be and what it shows.
  void adopt(const Port& port, std::vector<std::int32_t> pixels);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void place(const ScreenArea& area);

  Session session_;
  ScreenArea area_;
  std::vector<std::int32_t> pixels_;
  bool isPlaced_ = false;
};

/// Keeps a window open for each port of each screen of the show, while light is on. UI thread.
class ScreenPorts : public QObject {
  Q_OBJECT
 public:
  explicit ScreenPorts(const Session& session, QWidget* owner);

  std::size_t count() const { return windows_.size(); }

 private:
  void update();

  Session session_;
  QWidget* owner_;
  QSocketNotifier frames_;
  std::map<std::pair<ControllerId, int>, std::unique_ptr<ScreenPortWindow>> windows_;
};

}  // namespace chispa::desk
