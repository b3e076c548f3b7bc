// SPDX-License-Identifier: GPL-3.0-or-later
// What LoomView says of the thing under the pointer, and of all things to those who cannot see them.
#include "desk/parts/format.h"
#include "desk/wire/loomview.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

/// Where the value of a bead's pixel goes, `above` pixels of it lying before it in data order.
QString addressOf(const Show& show, const ChainPlace& place, int above) {
  const Controller* controller = chispa::find(show.controllers, place.controller);
  for (const PatchSpan& span : spansOf(show, place)) {
    if (controller && above < span.pixels)
      return text(addressText(controller->protocol, span.universe,
                              span.channelOf(above / std::max(1, span.pixelsPerValue))));
    above -= span.pixels;
  }
  return {};
}

}  // namespace

QString LoomView::tipAt(QPointF at) const {
  if (const auto* box = layout_.beadAt(at)) {
    const Bead* bead = chispa::beadAt(session_.show(), box->place);
    const Fixture* fixture = bead ? chispa::find(session_.show().fixtures, bead->fixture) : nullptr;
    if (!fixture || bead->count == 0) return {};
    const int above = std::clamp(LoomLayout::pixelsAbove(*box, at.y()), 0, bead->count - 1);
    const int pixel = bead->reversed ? bead->first + bead->count - 1 - above : bead->first + above;
    return tr("%1, pixel %2 of %3\nPort %4, address %5")
        .arg(text(fixture->name))
        .arg(pixel + 1)
        .arg(pixelCount(*fixture))
        .arg(box->place.port + 1)
        .arg(addressOf(session_.show(), box->place, above));
  }
  if (const auto* chip = layout_.chipAt(at))
    return tr("%1\nNot wired yet: drag it onto a port").arg(chip->label);
  if (const auto* card = layout_.cardAt(at)) {
    const Controller* controller = chispa::find(session_.show().controllers, card->controller);
    return controller
               ? tr("%1\n%2, %3")
                     .arg(text(controller->name), QString::fromLatin1(protocolTitle(controller->protocol)),
                          counted(std::ssize(controller->ports), tr("1 port"), tr("%1 ports")))
               : QString();
  }
  if (const auto* chain = layout_.chainAt(at))
    return tr("Port %1\n%2, %3 at full white")
        .arg(chain->port + 1)
        .arg(counted(chain->pixels, tr("one pixel"), tr("%1 pixels")), ampsText(chain->amps));
  return {};
}

namespace {

/// The `i`th bead of all chains.
const LoomLayout::BeadBox& beadOf(const LoomLayout& layout, std::size_t i) {
  auto chain = layout.chains().begin();
  for (; i >= chain->beads.size(); ++chain) i -= chain->beads.size();
  return chain->beads[i];
}

std::size_t beadCount(const LoomLayout& layout) {
  std::size_t count = 0;
  for (const LoomLayout::Chain& chain : layout.chains()) count += chain.beads.size();
  return count;
}

/// A chain with the space in which something can be hung on it.
QRect placeOf(const LoomLayout::Chain& chain, double beamY) {
  constexpr double kReach_px = 12;
  return QRectF(chain.x - kReach_px, beamY, 2 * kReach_px, std::max(kReach_px, chain.bottom - beamY))
      .toAlignedRect();
}

}  // namespace

// Controllers first, then ports, then what hangs on them, then what is not wired yet.
LoomView::Told LoomView::kindOf(int i) const {
  auto index = static_cast<std::size_t>(i);
  const std::size_t counts[] = {layout_.cards().size(), layout_.chains().size(), beadCount(layout_),
                                layout_.chips().size()};
  int kind = 0;
  for (; kind < 3 && index >= counts[kind]; ++kind) index -= counts[kind];
  return {static_cast<Told::Kind>(kind), index};
}

int LoomView::toldCount() const {
  return static_cast<int>(layout_.cards().size() + layout_.chains().size() + beadCount(layout_) +
                          layout_.chips().size());
}

ToldPiece LoomView::told(int i) const {
  const auto [kind, index] = kindOf(i);
  const Selection& selection = session_.selection;
  const auto nameOf = [this](ControllerId id) {
    const Controller* controller = chispa::find(session_.show().controllers, id);
    return controller ? text(controller->name) : QString();
  };
  switch (kind) {
    case Told::Kind::Card: {
      const auto& card = layout_.cards()[index];
      return {nameOf(card.controller), tipAt(card.box.center()), card.box.toAlignedRect(),
              selection.has(card.controller)};
    }
    case Told::Kind::Port: {
      const auto& chain = layout_.chains()[index];
      return {tr("%1, port %2").arg(nameOf(chain.controller)).arg(chain.port + 1),
              tr("%1, %2 at full white")
                  .arg(counted(chain.pixels, tr("one pixel"), tr("%1 pixels")), ampsText(chain.amps)),
              placeOf(chain, layout_.beamY()), selection.has(PortChoice{chain.controller, chain.port})};
    }
    case Told::Kind::Bead: {
      const auto& bead = beadOf(layout_, index);
      return {
          tr("%1, on %2, port %3").arg(bead.label, nameOf(bead.place.controller)).arg(bead.place.port + 1),
          tr("%1 from address %2")
              .arg(counted(bead.count, tr("one pixel"), tr("%1 pixels")),
                   addressOf(session_.show(), bead.place, 0)),
          bead.box.toAlignedRect(), selection.has(beadPlace(bead.place))};
    }
    case Told::Kind::Chip:
      break;
  }
  const auto& chip = layout_.chips()[index];
  return {chip.label, tr("Not wired yet"), chip.box.toAlignedRect(), selection.has(chip.piece.fixture)};
}

void LoomView::selectTold(int i) {
  const auto [kind, index] = kindOf(i);
  Selection& selection = session_.selection;
  if (kind == Told::Kind::Card)
    selection.select(layout_.cards()[index].controller);
  else if (kind == Told::Kind::Port)
    selection.select(PortChoice{layout_.chains()[index].controller, layout_.chains()[index].port});
  else if (kind == Told::Kind::Bead)
    selection.select(beadPlace(beadOf(layout_, index).place));
  else
    selection.select(FixtureIds{layout_.chips()[index].piece.fixture});
}

int LoomView::selectedTold() const {
  for (int i = 0; i < toldCount(); ++i)
    if (told(i).isSelected) return i;
  return -1;
}

}  // namespace chispa::desk
