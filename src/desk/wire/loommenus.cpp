// SPDX-License-Identifier: GPL-3.0-or-later
// What a right click on LoomView offers.
#include <QContextMenuEvent>
#include <QMenu>

#include "desk/parts/contextmenu.h"
#include "desk/parts/format.h"
#include "desk/wire/loomview.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {

void LoomView::contextMenuEvent(QContextMenuEvent* event) {
  const QPointF at = event->reason() == QContextMenuEvent::Mouse ? QPointF(event->pos()) : spotOfSelection();
  const QPoint global = mapToGlobal(at.toPoint());
  if (const auto* bead = layout_.beadAt(at)) {
    if (!session_.selection.has(beadPlace(bead->place))) session_.selection.select(beadPlace(bead->place));
    return session_.selection.all<BeadPlace>().size() == 1 ? showBeadMenu(*bead, at, global)
                                                           : showBeadsMenu(global);
  }
  if (const auto* card = layout_.cardAt(at)) {
    if (!session_.selection.has(card->controller)) session_.selection.select(card->controller);
    return showCardMenu(*card, global);
  }
  if (const auto* chain = layout_.chainAt(at)) {
    const PortChoice port{chain->controller, chain->port};
    if (!session_.selection.has(port)) session_.selection.select(port);
    return showPortMenu(global);
  }
  showActions(*this, event->globalPos(), {"menuAddController", "", "exportSheet", "exportBooklet"});
}

QPointF LoomView::spotOfSelection() const {
  for (const auto& chain : layout_.chains()) {
    for (const auto& bead : chain.beads)
      if (session_.selection.has(beadPlace(bead.place))) return bead.box.center();
    if (session_.selection.has(PortChoice{chain.controller, chain.port}))
      return {chain.x, layout_.beamY() + 10};
  }
  for (const auto& card : layout_.cards())
    if (session_.selection.has(card.controller)) return card.box.center();
  return rect().center();
}

void LoomView::showCardMenu(const LoomLayout::Card& card, QPoint global) {
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("contextMenu"));
  menu.addAction(card.isFolded ? tr("Unfold") : tr("Fold"), this,
                 [this, id = card.controller] { toggleFold(id); });
  for (const char* name : {"rename", "delete"})
    if (auto* action = window()->findChild<QAction*>(QLatin1String(name))) menu.addAction(action);
  menu.exec(global);
}

void LoomView::showBeadMenu(const LoomLayout::BeadBox& bead, QPointF at, QPoint global) {
  const ChainPlace place = bead.place;
  const int above = LoomLayout::pixelsAbove(bead, at.y());
  const auto edit = [this](const QString& name, auto change) {
    return [this, name, change] { session_.edit(name, change); };
  };
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("contextMenu"));
  menu.addAction(tr("Cut after %1").arg(above), this,
                 edit(tr("cut after %1").arg(above), [=](Show& show) { cutBead(show, place, above); }));
  menu.addAction(tr("Cut after %1, the rest to the next port").arg(above), this,
                 edit(tr("cut after %1").arg(above), [=](Show& show) { cutToNextPort(show, place, above); }));
  menu.addAction(tr("Inject power before pixel %1").arg(above + 1), this,
                 edit(tr("add an injection point"), [=](Show& show) { inject(show, place, above); }));
  menu.addSeparator();
  menu.addAction(tr("Reverse"), this, [this] { turnSelected(); });
  menu.addAction(tr("Remove from port"), this, [this] { removeSelected(); });
  menu.exec(global);
}

void LoomView::showBeadsMenu(QPoint global) {
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("contextMenu"));
  menu.addAction(tr("Reverse"), this, [this] { turnSelected(); });
  menu.addAction(tr("Remove from port"), this, [this] { removeSelected(); });
  menu.exec(global);
}

void LoomView::removeSelected() {
  const std::vector<ChainPlace> places = chainPlaces(session_.selection.all<BeadPlace>());
  session_.edit(tr("remove from a port"), [&](Show& show) { unhang(show, places); });
  session_.selection.prune(session_.show(), session_.stage.score());
}

void LoomView::showPortMenu(QPoint global) {
  const PortChoices ports = session_.selection.all<PortChoice>();
  BeadPlaces beads;
  for (const PortChoice& port : ports)
    if (const auto* chain = layout_.chainOf(port.controller, port.port))
      for (const auto& bead : chain->beads) beads.push_back(beadPlace(bead.place));
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("contextMenu"));
  auto* select =
      menu.addAction(tr("Select its beads"), this, [this, beads] { session_.selection.select(beads); });
  auto* clear = menu.addAction(tr("Remove all from the port"), this, [this, beads] {
    session_.edit(tr("remove from a port"), [&](Show& show) { unhang(show, chainPlaces(beads)); });
  });
  select->setEnabled(!beads.empty());
  clear->setEnabled(!beads.empty());
  if (ports.size() == 1) {
    menu.addSeparator();
    menu.addAction(tr("Hang what is in the tray, from this port on"), this,
                   [this, port = ports.front()] {
                     session_.edit(tr("hang from port %1 on").arg(port.port + 1), [&](Show& show) {
                       hangInTurn(show, unwiredPieces(show), {port.controller, port.port, 1'000'000});
                     });
                   })
        ->setEnabled(!unwiredPieces(session_.show()).empty());
  }
  menu.exec(global);
}

}  // namespace chispa::desk
