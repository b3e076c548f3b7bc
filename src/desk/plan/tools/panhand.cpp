// SPDX-License-Identifier: GPL-3.0-or-later
#include <optional>

#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// Moves the plan under the pointer; the free view is turned, and moved with Shift.
class PanHand : public PlanHand {
 public:
  using PlanHand::PlanHand;

  void press(const PlanPointer& pointer) override { from_ = pointer.at; }
  void move(const PlanPointer& pointer) override {
    if (!from_) return;
    const QPointF by = pointer.at - *from_;
    from_ = pointer.at;
    if (view_.side() == PlanSide::Free && !(pointer.keys & Qt::ShiftModifier))
      view_.orbitBy(by);
    else
      view_.panBy(by);
  }
  void release(const PlanPointer&) override { from_.reset(); }

  QString hint() const override {
    return view_.side() == PlanSide::Free ? PlanView::tr("Drag to turn the view; with Shift to move it.")
                                          : PlanView::tr("Drag to move the view.");
  }

 private:
  std::optional<QPointF> from_;
};

}  // namespace

std::unique_ptr<PlanHand> makePanHand(PlanView& view) {
  return std::make_unique<PanHand>(view);
}

}  // namespace chispa::desk
