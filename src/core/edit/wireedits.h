// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>

#include "core/show/loose.h"

namespace chispa {

// Edits of the wiring; see planedits.h.

ControllerId addController(Show& show, int ports);
void deleteController(Show& show, ControllerId id);

/// Where on a controller: the port, and the place among its beads, both from 0.
struct ThreadPlace {
  ControllerId controller;
  int port = 0;
  int bead = 0;

  bool operator==(const ThreadPlace&) const = default;
};

/// The bead at a place, or null.
const Bead* beadAt(const Show& show, const ThreadPlace& place);

/// Hangs a stretch on a port, before the bead that is there now; a place beyond the last puts it at the end.
void hang(Show& show, const LoosePiece& piece, const ThreadPlace& place);
void unhang(Show& show, const ThreadPlace& place);
/// Moves a bead; `to` counts as if the bead were still where it is.
void moveBead(Show& show, const ThreadPlace& from, const ThreadPlace& to);
/// Cuts a bead in two behind its `pixels`th pixel in data order; nothing happens at its ends.
void cutBead(Show& show, const ThreadPlace& place, int pixels);
/// Data enters at the other end.
void turnBead(Show& show, const ThreadPlace& place);
void setSkipped(Show& show, const ThreadPlace& place, int skipped);
/// Changes how a bead, or all of a port, takes its values.
void changeBeadSettings(Show& show, const ThreadPlace& place,
                        const std::function<void(WireSettings&)>& change);
void changePort(Show& show, ControllerId id, int port, const std::function<void(Port&)>& change);
void changePortSettings(Show& show, ControllerId id, int port,
                        const std::function<void(WireSettings&)>& change);
/// Keeps the start of a bead, or of a port, where it is said to be; nothing lets it follow again.
void pinBead(Show& show, const ThreadPlace& place, std::optional<Pin> pin);
void pinPort(Show& show, ControllerId id, int port, std::optional<Pin> pin);
/// Adds a supply of `volts` without a budget.
SupplyId addSupply(Show& show, double volts);
/// Takes a supply away, and its pins with it.
void deleteSupply(Show& show, SupplyId id);
/// Puts a pin in front of the bead's `pixel`th pixel in data order, from the first supply of the strip's
/// voltage; adds one where there is none.
void inject(Show& show, const ThreadPlace& place, int pixel);
void changeInjection(Show& show, const ThreadPlace& place, int index,
                     const std::function<void(Injection&)>& change);
void removeInjection(Show& show, const ThreadPlace& place, int index);
/// Hangs the same pixels once more: an echo, with the bead's settings but with neither its pin nor its power.
void echoBead(Show& show, const ThreadPlace& from, const ThreadPlace& to);
/// How many strings a fixture is made of: strips of a matrix, strings of a cone, spokes; a line is one.
int stringCount(const Fixture& fixture);
/// Hangs each string of a fixture (a strip of a matrix, a string of a cone, a spoke) on a port of its own,
/// from `port` on; a fixture without strings hangs whole. Returns how many ports were used; 0, and no change,
/// if there are too few.
int spreadOverPorts(Show& show, FixtureId fixture, ControllerId id, int port);
/// Ports taken away take their beads with them.
void setPortCount(Show& show, ControllerId id, int ports);

}  // namespace chispa
