// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <optional>

#include <QImage>

#include "desk/session/session.h"

class QPainter;

namespace chispa::desk {

class PlanView;

/// The photos and drawings that lie beneath the plan; each file is read once, on a thread. UI thread.
class UnderlayPictures : public QObject {
  Q_OBJECT
 public:
  explicit UnderlayPictures(const Session& session);

  void paint(QPainter& painter, const PlanView& view);
  /// The picture of a file; null if it cannot be read. Drawings come at a width that is fine to zoom into.
  /// Any thread.
  static QImage read(const QString& path);
  /// Takes what was read of a file already.
  void keep(const QString& path, const QImage& picture) { pictures_[path] = picture; }
  /// Where a file that a show names is.
  static QString pathOf(const Document& document, const std::string& file);

 signals:
  /// A picture that was being read is there, or is known to be none.
  void arrived();

 private:
  /// Nothing while it is being read.
  const QImage* pictureOf(const QString& path);
  /// Why there is no picture.
  QString troubleOf(const Underlay& underlay) const;

  Session session_;
  std::map<QString, std::optional<QImage>> pictures_;
};

/// The side from which an underlay of a face is seen.
bool isSeenFrom(UnderlayFace face, const PlanView& view);

}  // namespace chispa::desk
