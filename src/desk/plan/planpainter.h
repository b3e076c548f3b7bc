// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "desk/plan/planview.h"

namespace chispa::desk {

/// Draws what there is to see on a plan, from the back to the front.
class PlanPainter {
 public:
  PlanPainter(const PlanView& view, QPainter& painter) : view_(view), painter_(painter) {}

  void paintGrid();
  /// Every LED in its light of this moment.
  void paintPieces();
  /// What is selected: fixtures with their data-in end and numbers, or a zone with its cells in playing order.
  void paintSelection();
  /// The line of words at the bottom, or what to do first on an empty plan.
  void paintHint();

 private:
  void paintDots(const PlanView::Piece& piece, double size, const std::function<QColor(std::size_t)>& colourOf);
  void paintFixture(const PlanView::Piece& piece);
  void paintNumbers(const PlanView::Piece& piece);
  void paintWalk(const PlanView::Piece& piece, int pixel);
  void paintZone(const Zone& zone);
  double dotSize(const PlanView::Piece& piece) const;

  const PlanView& view_;
  QPainter& painter_;
};

}  // namespace chispa::desk
