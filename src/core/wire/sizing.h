// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa {

/// The smallest common fuse that carries `amps` with a quarter to spare; 0 if none does.
double fuseFor_a(double amps);
/// The smallest common copper wire for `amps`, in square millimetres, by what thin insulated wire carries in free air
/// at 30 °C, with a quarter to spare; 0 if none does. Long runs need more: their voltage drop decides.
double wireFor_mm2(double amps);
/// Pixels that a port's thread is long, skipped ones included.
int threadPixels(const Port& port);
/// Amps that a bead of a port draws with all channels at full, dimmed as its settings say.
double beadFullWhite_a(const Show& show, const Port& port, const Bead& bead);
/// Amps that a port's run draws with all channels at full, dimmed as its settings say.
double portFullWhite_a(const Show& show, const Port& port);

}  // namespace chispa
