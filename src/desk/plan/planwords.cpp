// SPDX-License-Identifier: GPL-3.0-or-later
// What PlanView says of the thing under the pointer, and of all fixtures to those who cannot see them.
#include <cmath>

#include "core/wire/wiredpixel.h"
#include "desk/parts/format.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// The pixel of a piece that is nearest to a place of the plan.
int pixelNear(const PlanView::Piece& piece, QPointF plan) {
  const auto apart = [plan](const QPointF& p) { return std::hypot(p.x() - plan.x(), p.y() - plan.y()); };
  const auto nearest =
      std::min_element(piece.flat.begin(), piece.flat.end(),
                       [&](const QPointF& a, const QPointF& b) { return apart(a) < apart(b); });
  return static_cast<int>(nearest - piece.flat.begin());
}

}  // namespace

QString PlanView::addressOf(FixtureId fixture, int pixel) const {
  const auto& compiled = session_.stage.compiled();
  const auto wired = compiled ? wiredPixel(compiled->patch, fixture, pixel) : std::nullopt;
  const auto& controllers = session_.show().controllers;
  if (!wired || wired->span->controller >= std::ssize(controllers)) return {};
  const Controller& controller = *controllers[static_cast<std::size_t>(wired->span->controller)];
  return tr("%1, port %2, address %3")
      .arg(text(controller.name))
      .arg(wired->span->port + 1)
      .arg(text(addressText(controller.protocol, wired->span->universe, wired->channel)));
}

QString PlanView::tipAt(QPointF at) const {
  const auto id = fixtureAt(at);
  const auto piece = std::find_if(pieces_.begin(), pieces_.end(),
                                  [&](const Piece& one) { return id && one.fixture->id == *id; });
  if (piece == pieces_.end() || piece->flat.empty()) return {};
  const int pixel = pixelNear(*piece, toPlan(at));
  const QString name =
      tr("%1, pixel %2 of %3").arg(text(piece->fixture->name)).arg(pixel + 1).arg(piece->points.size());
  const QString address = addressOf(*id, pixel);
  return name + QLatin1Char('\n') + (address.isEmpty() ? tr("Not wired yet") : address);
}

int PlanView::toldCount() const {
  return static_cast<int>(pieces_.size());
}

ToldPiece PlanView::told(int i) const {
  const Piece& piece = pieces_[static_cast<std::size_t>(i)];
  const QString address = addressOf(piece.fixture->id, 0);
  const QRectF& extent = piece.extent;
  return {text(piece.fixture->name),
          counted(std::ssize(piece.points), tr("one pixel"), tr("%1 pixels")) + QLatin1String(", ") +
              (address.isEmpty() ? tr("Not wired yet") : address),
          QRectF(toScreen(extent.topLeft()), toScreen(extent.bottomRight())).normalized().toAlignedRect(),
          session_.selection.has(piece.fixture->id)};
}

void PlanView::selectTold(int i) {
  session_.selection.select(FixtureIds{pieces_[static_cast<std::size_t>(i)].fixture->id});
}

int PlanView::selectedTold() const {
  const auto found = std::find_if(pieces_.begin(), pieces_.end(), [this](const Piece& piece) {
    return session_.selection.has(piece.fixture->id);
  });
  return found == pieces_.end() ? -1 : static_cast<int>(found - pieces_.begin());
}

}  // namespace chispa::desk
