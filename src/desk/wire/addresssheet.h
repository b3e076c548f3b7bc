// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTableWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The wiring as a table that can be sorted: every stretch with its universes and channels. Read only.
class AddressSheet : public QTableWidget {
  Q_OBJECT
 public:
  explicit AddressSheet(const Session& session, QWidget* parent = nullptr);

 private:
  void fill();

  Session session_;
};

}  // namespace chispa::desk
