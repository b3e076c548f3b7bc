// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa {

/// A fuse and the wire that it protects, chosen together: load ≤ fuse ≤ what the wire carries.
struct Protection {
  double fuse_a = 0;
  double wire_mm2 = 0;

  bool isPossible() const { return fuse_a > 0 && wire_mm2 > 0; }
};

/// What a copper wire of `mm2` carries all night, in amperes: insulated with PVC, several in one duct or
/// bundle, at 40 °C (IEC 60204-1:2016, table 6, installation method B2; below 0.75 mm² its row for small
/// conductors). 0 for a wire thinner than any of the table.
double wireCarries_a(double mm2);
/// The smallest common fuse that carries `amps` with a quarter to spare, and the thinnest common wire that
/// carries as much as the fuse lets through and loses at most a twentieth of `volts` over `wire_m` there and
/// back. Not possible where no common pair does.
Protection protectionFor(double amps, double wire_m, double volts);
/// Volts of what hangs on a port: of its first strip; 5 where nothing hangs.
double voltsOf(const Show& show, const Port& port);
/// Pixels that a port's chain is long, skipped ones included.
int chainPixels(const Port& port);
/// Amps that a bead of a port draws with all channels at full, dimmed as its settings say.
double beadFullWhite_a(const Show& show, const Port& port, const Bead& bead);
/// Amps that a port's run draws with all channels at full, dimmed as its settings say.
double portFullWhite_a(const Show& show, const Port& port);

}  // namespace chispa
