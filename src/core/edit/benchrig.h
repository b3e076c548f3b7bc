// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa {

/// LEDs that stand in no plan: an address typed in by hand and what is believed to hang there, for the Bench.
struct BenchRig {
  StripType strip;
  Fixture fixture;
  /// One port, one bead: all of the fixture.
  Controller controller;

  bool operator==(const BenchRig&) const = default;
};

/// Fifty pixels at 127.0.0.1, E1.31 universe 1, channel 1. Its ids are beyond those of any show.
BenchRig makeBenchRig();
/// A strip of `pixels`; with `columns` above 0 a matrix as wide, of as many full rows as there are.
void setRigPixels(BenchRig& rig, int pixels, int columns);
/// Columns of its matrix, 0 for a strip.
int rigColumns(const BenchRig& rig);
/// Where its first value goes.
void setRigStart(BenchRig& rig, int universe, int channel);
FixedStart rigStart(const BenchRig& rig);

/// The show with the rig added; controllers of the show at the same address rest, so that no two send to one
/// place.
Show withRig(const Show& show, const BenchRig& rig);
/// Takes over what an edit of withRig()'s show made of the rig.
void takeRig(BenchRig& rig, const Show& show);
/// Adds the rig to a show for good, with ids of its own, named after its address.
ControllerId keepRig(Show& show, const BenchRig& rig);

}  // namespace chispa
