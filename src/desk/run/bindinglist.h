// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QListWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// What drives what, a row a binding and a row for each zone that listens to a desk, with what comes in now.
/// UI thread.
class BindingList : public QListWidget {
  Q_OBJECT
 public:
  explicit BindingList(const Session& session, QWidget* parent = nullptr);

  /// The binding that is chosen; none if none is.
  BindingId chosen() const;

 private:
  void refill();
  void follow();
  void choose(QListWidgetItem* item);

  Session session_;
};

}  // namespace chispa::desk
