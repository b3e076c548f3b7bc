// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/power.h"

#include "core/show/unwired.h"
#include "core/wire/current.h"
#include "core/wire/sizing.h"

namespace chispa {

AmpsByVolts fullWhiteAmps(const Show& show) {
  AmpsByVolts amps;
  for (const auto& controller : show.controllers)
    for (const Port& port : controller->ports)
      for (const Bead& bead : port.run)
        if (const Fixture* fixture = find(show.fixtures, bead.fixture))
          amps[stripTypeOf(show, *fixture).volts] += beadFullWhite_a(show, port, bead);
  for (const UnwiredPiece& piece : unwiredPieces(show)) {
    const StripType& strip = stripTypeOf(show, *find(show.fixtures, piece.fixture));
    amps[strip.volts] += fullWhite_a(strip, piece.count);
  }
  return amps;
}

AmpsByVolts frameAmps(std::span<const PowerChain> chains, const PixelFrame& frame, double master) {
  AmpsByVolts amps;
  for (const PowerChain& chain : chains)
    for (const double a : frame_a(chain, frame, master)) amps[chain.volts] += a;
  return amps;
}

}  // namespace chispa
