// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/sizing.h"

#include <algorithm>
#include <utility>

#include "core/wire/current.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

constexpr double kSpare = 1.25;
/// Ohms of a metre of one square millimetre of copper, at 40 °C.
constexpr double kWarmCopper = 0.0190;
constexpr double kMaxDrop = 0.05;

/// IEC 60204-1:2016, table 6, column B2.
constexpr std::pair<double, double> kCarries_a[] = {{0.2, 4.3},  {0.5, 7.5},  {0.75, 8.5}, {1, 10.1},
                                                    {1.5, 13.1}, {2.5, 17.4}, {4, 23},     {6, 30},
                                                    {10, 40},    {16, 54}};

}  // namespace

double wireCarries_a(double mm2) {
  double carries = 0;
  for (const auto& [size, amps] : kCarries_a)
    if (mm2 >= size) carries = amps;
  return carries;
}

Protection protectionFor(double amps, double wire_m, double volts) {
  for (const double fuse : {1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0}) {
    if (fuse < amps * kSpare) continue;
    for (const auto& [mm2, carries] : kCarries_a)
      if (carries >= fuse && 2 * kWarmCopper * wire_m / mm2 * amps <= kMaxDrop * volts) return {fuse, mm2};
    return {fuse, 0};
  }
  return {};
}

double voltsOf(const Show& show, const Port& port) {
  const Fixture* first = port.run.empty() ? nullptr : find(show.fixtures, port.run.front().fixture);
  return first ? stripTypeOf(show, *first).volts : StripType{}.volts;
}

int chainPixels(const Port& port) {
  int sum = 0;
  for (const Bead& bead : port.run) sum += bead.count + bead.skippedBefore;
  return sum;
}

double beadFullWhite_a(const Show& show, const Port& port, const Bead& bead) {
  const Fixture* fixture = find(show.fixtures, bead.fixture);
  if (!fixture) return 0;
  const StripType& strip = stripTypeOf(show, *fixture);
  return fullWhite_a(strip, std::clamp(bead.count, 0, pixelCount(*fixture))) *
         resolveWire(strip, *fixture, port.settings, bead.settings).brightness;
}

double portFullWhite_a(const Show& show, const Port& port) {
  double amps = 0;
  for (const Bead& bead : port.run) amps += beadFullWhite_a(show, port, bead);
  return amps;
}

}  // namespace chispa
