// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>

#include <QObject>
#include <QTimer>

#include "core/media/media.h"

namespace chispa::desk {

/// Looks at parts of the screens, 25 times a second, and keeps what it sees for the spyholes of a show. UI
/// thread; the pictures are read by any.
class ScreenWatch : public QObject {
  Q_OBJECT
 public:
  explicit ScreenWatch(QObject* parent = nullptr);

  /// Watches these parts from now on, and no others.
  void watch(const std::vector<ScreenPart>& parts);
  /// From now on the screen is looked at, where parts of it are watched: light or playing was asked for, or
  /// the show is being edited. Opening a show alone looks at nothing.
  void allow();
  /// Gives the pictures of all watched parts to a library.
  void addTo(MediaLibrary& library) const;
  /// Why nothing is seen; empty if all is well, or nothing is watched.
  QString trouble() const { return trouble_; }

 private:
  void look();
  bool lookAt(const ScreenPart& part, LivePicture& picture);

  std::map<ScreenPart, std::shared_ptr<LivePicture>> pictures_;
  QTimer timer_;
  bool isAllowed_ = false;
  QString trouble_;
};

}  // namespace chispa::desk
