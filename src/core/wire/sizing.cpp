// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/sizing.h"

#include <algorithm>
#include <utility>

#include "core/wire/current.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

constexpr double kSpare = 1.25;

}  // namespace

double fuseFor_a(double amps) {
  for (const double fuse : {1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0})
    if (fuse >= amps * kSpare) return fuse;
  return 0;
}

double wireFor_mm2(double amps) {
  constexpr std::pair<double, double> kCarries_a[] = {{0.25, 4}, {0.5, 8}, {0.75, 11}, {1, 14}, {1.5, 18}, {2.5, 25}, {4, 34}, {6, 43}, {10, 60}};
  for (const auto& [mm2, carries] : kCarries_a)
    if (carries >= amps * kSpare) return mm2;
  return 0;
}

int threadPixels(const Port& port) {
  int sum = 0;
  for (const Bead& bead : port.run) sum += bead.count + bead.skippedBefore;
  return sum;
}

double beadFullWhite_a(const Show& show, const Port& port, const Bead& bead) {
  const Fixture* fixture = find(show.fixtures, bead.fixture);
  if (!fixture) return 0;
  const StripType& strip = stripTypeOf(show, *fixture);
  return fullWhite_a(strip, std::clamp(bead.count, 0, pixelCount(*fixture))) * resolveWire(strip, port.settings, bead.settings).brightness;
}

double portFullWhite_a(const Show& show, const Port& port) {
  double amps = 0;
  for (const Bead& bead : port.run) amps += beadFullWhite_a(show, port, bead);
  return amps;
}

}  // namespace chispa
