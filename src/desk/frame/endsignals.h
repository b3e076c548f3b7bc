// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>

namespace chispa::desk {

/// Turns SIGTERM, SIGINT and SIGHUP into asked(), in the window's thread: a system that shuts down, a closed
/// terminal or Ctrl+C ends the program in order, in the dark and with unsaved work kept. One at a time.
class EndSignals : public QObject {
  Q_OBJECT
 public:
  explicit EndSignals(QObject* parent = nullptr);
  ~EndSignals() override;

 signals:
  void asked();
};

}  // namespace chispa::desk
