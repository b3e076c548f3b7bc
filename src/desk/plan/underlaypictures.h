// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>

#include <QImage>

#include "desk/session/document.h"

class QPainter;

namespace chispa::desk {

class PlanView;

/// The photos and drawings that lie beneath the plan; each file is read once.
class UnderlayPictures {
 public:
  explicit UnderlayPictures(const Document& document) : document_(document) {}

  void paint(QPainter& painter, const PlanView& view);
  /// The picture of a file as a show names it; null if it cannot be read. Drawings come at a width that is
  /// fine to zoom into.
  static QImage read(const Document& document, const std::string& file);
  /// Where a file that a show names is.
  static QString pathOf(const Document& document, const std::string& file);

 private:
  const Document& document_;
  std::map<QString, QImage> pictures_;
};

/// The side from which an underlay of a face is seen.
bool isSeenFrom(UnderlayFace face, const PlanView& view);

}  // namespace chispa::desk
