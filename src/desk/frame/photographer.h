// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>

#include "core/show/items.h"
#include "desk/frame/mainwindow.h"

namespace chispa::desk {

/// Takes the pictures of docs/screenshots/ one after the other.
class Photographer {
 public:
  Photographer(MainWindow& window, const Session& session, QString folder)
      : window_(window), session_(session), folder_(std::move(folder)) {}

  /// Lets everything that is drawn on workers come in.
  void settle();
  /// The window as it is, as `name`.png.
  void take(const QString& name);
  void keep(const QImage& picture, const QString& name);
  /// False once one could not be written.
  bool good() const { return good_; }

 private:
  MainWindow& window_;
  Session session_;
  QString folder_;
  bool good_ = true;
};

template <class Id, class List>
Id firstIdWhere(const List& list, const std::string& name) {
  const auto* found = findNamed(list, name);
  return found ? found->id : Id{};
}

/// Run's nights: three weeks of them, the almanac and the strip of tonight.
void takeNights(MainWindow& window, const Session& session, Photographer& photo);
/// The lanterns' light on its way to a small board.
void takeBoard(const Session& session, Photographer& photo);
/// The rim's looks on their way into its controller, which is one of the demo's nodes.
void takeMemory(const Session& session, Photographer& photo);

}  // namespace chispa::desk
