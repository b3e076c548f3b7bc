// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>

#include "core/show/unwired.h"

namespace chispa {

// Edits of the wiring; see planedits.h.

ControllerId addController(Show& show, int ports);
void deleteController(Show& show, ControllerId id);

/// Where on a controller: the port, and the place among its beads, both from 0.
struct ChainPlace {
  ControllerId controller;
  int port = 0;
  int bead = 0;

  bool operator==(const ChainPlace&) const = default;
};

/// The bead at a place, or null.
const Bead* beadAt(const Show& show, const ChainPlace& place);

/// Hangs a stretch on a port, before the bead that is there now; a place beyond the last puts it at the end.
void hang(Show& show, const UnwiredPiece& piece, const ChainPlace& place);
void unhang(Show& show, const ChainPlace& place);
/// All of these; the places are those before any was taken.
void unhang(Show& show, std::vector<ChainPlace> places);
/// Hangs the first stretch at a place and each further one at the end of the next port, and of the
/// controllers behind that one; stretches for which no port is left stay where they are. Returns how many
/// hang.
int hangInTurn(Show& show, const std::vector<UnwiredPiece>& pieces, const ChainPlace& place);
/// Moves a bead; `to` counts as if the bead were still where it is.
void moveBead(Show& show, const ChainPlace& from, const ChainPlace& to);
/// Cuts a bead in two behind its `pixels`th pixel in data order; nothing happens at its ends.
void cutBead(Show& show, const ChainPlace& place, int pixels);
/// The same, and what is behind the cut, with all that hangs behind it, goes to the beginning of the next
/// port of the controller; without one it is only cut.
void cutToNextPort(Show& show, const ChainPlace& place, int pixels);
/// Data enters at the other end.
void turnBead(Show& show, const ChainPlace& place);
void setSkipped(Show& show, const ChainPlace& place, int skipped);
/// Changes how a bead, or all of a port, takes its values.
void changeBeadSettings(Show& show, const ChainPlace& place,
                        const std::function<void(WireSettings&)>& change);
void changePort(Show& show, ControllerId id, int port, const std::function<void(Port&)>& change);
void changePortSettings(Show& show, ControllerId id, int port,
                        const std::function<void(WireSettings&)>& change);
/// Keeps the start of a bead, or of a port, where it is said to be; nothing lets it follow again.
void fixBeadStart(Show& show, const ChainPlace& place, std::optional<FixedStart> fixedStart);
void fixPortStart(Show& show, ControllerId id, int port, std::optional<FixedStart> fixedStart);
/// Adds a supply of `volts` without a budget.
SupplyId addSupply(Show& show, double volts);
/// Removes a supply, and its injection points with it.
void deleteSupply(Show& show, SupplyId id);
/// Injects power in front of the bead's `pixel`th pixel in data order, from the first supply of the strip's
/// voltage; adds one where there is none.
void inject(Show& show, const ChainPlace& place, int pixel);
void changeInjection(Show& show, const ChainPlace& place, int index,
                     const std::function<void(Injection&)>& change);
void removeInjection(Show& show, const ChainPlace& place, int index);
/// Hangs the same pixels once more: an echo, with the bead's settings but with neither its fixed start nor
/// its power.
void echoBead(Show& show, const ChainPlace& from, const ChainPlace& to);
/// How many strings a fixture is made of: strips of a matrix, strings of a cone, spokes; a line is one.
int stringCount(const Fixture& fixture);
/// Hangs each string of a fixture (a strip of a matrix, a string of a cone, a spoke) on a port of its own,
/// from `port` on; a fixture without strings hangs whole. Returns how many ports were used; 0, and no change,
/// if there are too few.
int spreadOverPorts(Show& show, FixtureId fixture, ControllerId id, int port);
/// Ports taken away take their beads with them.
void setPortCount(Show& show, ControllerId id, int ports);

}  // namespace chispa
