// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <set>

#include <QObject>
#include <QStringList>

#include "desk/session/document.h"

namespace chispa::desk {

/// Which files outside its folder an opened show may read. Whoever made the show chose their names: they are
/// read once the maker has allowed them, by name, and that is remembered for this show. What is named by an
/// edit in this window the maker named himself. UI thread.
class OutsideFiles : public QObject {
  Q_OBJECT
 public:
  explicit OutsideFiles(const Document& document, QObject* parent = nullptr);

  /// True unless `name`, as the show says it, waits to be allowed.
  bool mayRead(const std::string& name) const { return !waiting_.contains(name); }
  /// The files that wait to be allowed, by where they lie.
  QStringList waiting() const;
  /// Allows all that wait, from now on and whenever this show is opened.
  void allow();
  /// What is said in place of a file that waits.
  static QString trouble(const std::string& name);

 signals:
  /// What waited is allowed.
  void allowed();

 private:
  void look();
  QString placeOf(const std::string& name) const;

  const Document& document_;
  std::set<std::string> waiting_;
};

}  // namespace chispa::desk
