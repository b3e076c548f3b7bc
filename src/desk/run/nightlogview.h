// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QDialog>

#include "desk/session/nightdesk.h"
#include "engine/night/nightlog.h"

class QLabel;
class QListWidget;
class QTreeWidget;

namespace chispa::desk {

/// What the nights were like: the last weeks at a glance, and one night in full. UI thread; the log is read
/// on a worker.
class NightLogView : public QDialog {
  Q_OBJECT
 public:
  NightLogView(const Session& session, QWidget* parent = nullptr);

 private:
  void fill(const std::vector<engine::NightSum>& nights);
  void showNight();
  QString summary(const engine::NightSum& night) const;

  Session session_;
  QListWidget* nights_;
  QTreeWidget* events_;
  QLabel* summary_;
  std::vector<engine::NightSum> sums_;
};

}  // namespace chispa::desk
