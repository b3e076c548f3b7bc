// SPDX-License-Identifier: GPL-3.0-or-later
#include <QPainter>

#include "core/edit/arrange.h"
#include "core/edit/planedits.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"
#include "desk/plan/underlaypictures.h"
#include "desk/session/picking.h"

namespace chispa::desk {
namespace {

/// Selects by click and band, and moves what is selected.
class SelectHand : public PlanHand {
 public:
  using PlanHand::PlanHand;

  void press(const PlanPointer& pointer) override {
    pressed_ = now_ = pointer;
    wasPressed_ = true;
    moved_ = {};
    stepAtPress_ = view_.session().document.historyPosition();
    const auto hit = view_.fixtureAt(pointer.at);
    if (hit) {
      pick(view_.session().selection, *hit, withGroups(view_.session().show(), {*hit}), pointer.keys);
      beginMove();
    } else if (chosenUnderlay()) {
      drag_ = Drag::Underlay;
    } else {
      drag_ = Drag::Band;
    }
  }

  void move(const PlanPointer& pointer) override {
    now_ = pointer;
    if (drag_ == Drag::Pieces || drag_ == Drag::Underlay) moveBy(wantedMove(pointer));
  }

  void release(const PlanPointer& pointer) override {
    now_ = pointer;
    const Drag ended = std::exchange(drag_, Drag::None);
    if (ended == Drag::Pieces || ended == Drag::Underlay) view_.session().document.seal();
    if (ended == Drag::Band)
      selectWithin(QRectF(pressed_.at, pointer.at).normalized(),
                   pointer.keys & (Qt::ShiftModifier | Qt::ControlModifier));
  }

  bool cancel() override {
    const Drag ended = std::exchange(drag_, Drag::None);
    if (ended == Drag::None) return false;
    if (ended != Drag::Band) view_.session().document.forgetAfter(stepAtPress_);
    return true;
  }

  /// A double click takes the one piece out of its group.
  void finish() override {
    if (const auto hit = wasPressed_ ? view_.fixtureAt(pressed_.at) : std::nullopt)
      view_.session().selection.select(FixtureIds{*hit});
  }

  void paint(QPainter& painter) const override {
    if (drag_ == Drag::Band) {
      painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
      painter.setBrush(Qt::NoBrush);
      painter.drawRect(QRectF(pressed_.at, now_.at).normalized());
    }
    if ((drag_ == Drag::Pieces || drag_ == Drag::Underlay) && !moved_.isNull()) {
      painter.setPen(theme().text);
      painter.drawText(now_.at + QPointF(14, -8),
                       PlanView::tr("%1 across, %2 up").arg(lengthText(moved_.x()), lengthText(moved_.y())));
    }
  }

  QString hint() const override { return {}; }

 private:
  enum class Drag { None, Pieces, Underlay, Band };

  const Underlay* chosenUnderlay() const {
    const auto* id = std::get_if<UnderlayId>(&view_.session().selection.now());
    const Underlay* underlay = id ? chispa::find(view_.session().show().underlays, *id) : nullptr;
    return underlay && isSeenFrom(underlay->face, view_) ? underlay : nullptr;
  }

  void beginMove() {
    drag_ = view_.side() == PlanSide::Unrolled ? Drag::None : Drag::Pieces;
    ends_.clear();
    for (const FixtureId id : view_.session().selection.fixtures())
      for (const QPointF& end : view_.endsOf(*chispa::find(view_.session().show().fixtures, id)))
        ends_.push_back(end);
  }

  /// How far things have gone since the press: an end of theirs onto an end of another, else in steps of the
  /// grid.
  QPointF wantedMove(const PlanPointer& pointer) const {
    const QPointF raw = view_.toPlan(pointer.at) - view_.toPlan(pressed_.at);
    if (pointer.keys & Qt::AltModifier) return raw;
    constexpr std::size_t kMaxEnds = 200;
    if (drag_ == Drag::Pieces && ends_.size() <= kMaxEnds)
      for (const QPointF& end : ends_)
        if (const auto other = view_.endNear(view_.toScreen(end + raw), view_.session().selection.fixtures()))
          return *other - end;
    constexpr double kStep_m = 0.05;
    const auto step = [](double x) { return std::round(x / kStep_m) * kStep_m; };
    return {step(raw.x()), step(raw.y())};
  }

  void moveBy(QPointF wanted) {
    const QPointF by = wanted - moved_;
    if (by.isNull()) return;
    moved_ = wanted;
    const Vec3 world = view_.projection().lifted(by);
    const Session& session = view_.session();
    if (drag_ == Drag::Underlay)
      session.edit(
          PlanView::tr("move an underlay"),
          [&, id = chosenUnderlay()->id](Show& show) {
            changeItem(show.underlays, id, [&](Underlay& u) { u.position_m = u.position_m + world; });
          },
          QStringLiteral("plan-drag"));
    else
      session.edit(
          PlanView::tr("move"), [&](Show& show) { moveFixtures(show, session.selection.fixtures(), world); },
          QStringLiteral("plan-drag"));
  }

  void selectWithin(QRectF screen, bool adding) {
    Selection& selection = view_.session().selection;
    FixtureIds ids = adding ? selection.fixtures() : FixtureIds{};
    for (const PlanView::Piece& piece : view_.pieces()) {
      const bool inside =
          !piece.flat.empty() && std::all_of(piece.flat.begin(), piece.flat.end(),
                                             [&](QPointF p) { return screen.contains(view_.toScreen(p)); });
      if (inside && std::find(ids.begin(), ids.end(), piece.fixture->id) == ids.end())
        ids.push_back(piece.fixture->id);
    }
    selection.select(ids.empty() ? Selected{} : Selected{withGroups(view_.session().show(), ids)});
  }

  Drag drag_ = Drag::None;
  PlanPointer pressed_{};
  bool wasPressed_ = false;
  PlanPointer now_{};
  QPointF moved_;
  std::size_t stepAtPress_ = 0;
  std::vector<QPointF> ends_;
};

}  // namespace

std::unique_ptr<PlanHand> makeSelectHand(PlanView& view) {
  return std::make_unique<SelectHand>(view);
}

}  // namespace chispa::desk
