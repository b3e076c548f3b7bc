// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QListWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The parts of a zone in playing order, to be dragged into another. UI thread.
class ZonePartList : public QListWidget {
  Q_OBJECT
 public:
  ZonePartList(const Session& session, ZoneId id);

  /// Shows the parts as they are now.
  void fill();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

 private:
  QString lineOf(const ZonePart& part) const;
  void removePart(int row);
  void movePart(int from, int to);

  Session session_;
  ZoneId id_;
  QStringList shown_;
};

}  // namespace chispa::desk
