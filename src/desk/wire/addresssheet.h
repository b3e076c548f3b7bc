// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTableWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The wiring as a table that can be sorted and filtered: every stretch with its universes and channels. Read
/// only.
class AddressSheet : public QTableWidget {
  Q_OBJECT
 public:
  explicit AddressSheet(const Session& session, QWidget* parent = nullptr);

  /// Shows only rows in which everything in `words`, parted by commas, stands somewhere.
  void setFilter(const QString& words);
  /// The rows that are shown, in the order shown, as a table (RFC 4180).
  QString csv() const;

 private:
  void fill();

  Session session_;
  QString filter_;
};

}  // namespace chispa::desk
