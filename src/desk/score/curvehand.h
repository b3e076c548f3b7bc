// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QPointF>
#include <QRectF>

#include "desk/session/session.h"

class QPainter;

namespace chispa::desk {

/// Draws the curves that move a clip's parameters on the clip itself, and changes them by hand: points are
/// dragged, a double click on a curve adds one, a right click takes one away. UI thread.
class CurveHand {
 public:
  explicit CurveHand(const Session& session) : session_(session) {}

  /// True if some parameter of the clip follows a curve.
  static bool hasCurves(const Clip& clip);
  /// Where a point of the curve is drawn on the clip's box.
  static QPointF spotOf(QRectF box, CurvePoint point);

  void paint(QPainter& painter, const Clip& clip, QRectF box) const;
  /// Takes the point at `at`; false if there is none.
  bool press(const Clip& clip, QRectF box, QPointF at);
  /// Adds a point to the curve under `at`; false if there is none.
  bool add(const Clip& clip, QRectF box, QPointF at);
  /// Takes the point under `at` away; the last of a curve stays. False if there is none.
  bool remove(const Clip& clip, QRectF box, QPointF at);
  void drag(QRectF box, QPointF to);
  void release();

 private:
  struct Held {
    ClipId clip;
    std::string key;
    std::size_t point;
  };
  static std::optional<Held> pointAt(const Clip& clip, QRectF box, QPointF at);
  void change(ClipId clip, const std::string& key, const QString& name,
              const std::function<void(std::vector<CurvePoint>&)>& edit, const QString& mergeKey = {});

  Session session_;
  std::optional<Held> held_;
};

}  // namespace chispa::desk
