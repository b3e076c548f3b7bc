// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "desk/plan/planview.h"

namespace chispa::desk {

/// Draws what there is to see on a plan, from the back to the front.
class PlanPainter {
 public:
  /// `dots` is a picture of the view's size to draw small dots into; what it holds is of no account.
  PlanPainter(const PlanView& view, QPainter& painter, QImage& dots)
      : view_(view), painter_(painter), dots_(dots) {}

  void paintGrid();
  /// Every LED in its light of this moment.
  void paintPieces();
  /// The name of every fixture and where data comes in, where there is room.
  void paintLabels();
  /// What is selected: fixtures with their data-in end and numbers, or a zone with its cells in playing
  /// order.
  void paintSelection();
  /// The line of words at the bottom, or what to do first on an empty plan.
  void paintHint();

 private:
  void paintSmallDots(const PlanView::Piece& piece, int side, const std::vector<QRgb>& colours);
  void paintLargeDots(const PlanView::Piece& piece, double size, const std::vector<QRgb>& colours);
  void colour(const PlanView::Piece& piece, std::vector<QRgb>& colours) const;
  void paintArrow(const PlanView::Piece& piece, double size, const QColor& colour);
  /// Along the fixture; where edges are not smoothed, the box about it.
  void paintOutline(const PlanView::Piece& piece);
  void paintFixture(const PlanView::Piece& piece, bool isNumbered);
  void paintNumbers(const PlanView::Piece& piece);
  void paintWalk(const PlanView::Piece& piece, int pixel);
  void paintZone(const Zone& zone);
  /// At a step that is easy to count in, where they do not cover one another; the ends come first. `spots`:
  /// by cell; `gap`: dots from one to the next.
  void paintCellNumbers(const std::vector<std::optional<QPointF>>& spots, double gap);
  /// Rings about pixels of the show, ascending.
  void paintPixels(const std::vector<std::uint32_t>& pixels);
  double dotSize(const PlanView::Piece& piece) const;

  const PlanView& view_;
  QPainter& painter_;
  QImage& dots_;
};

}  // namespace chispa::desk
