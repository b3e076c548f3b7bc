// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/sightings.h"

#include <algorithm>

namespace chispa::vision {
namespace {

/// Where the LED stands, or would stand, in a list that is ordered by LED.
template <class List>
auto placeOf(List& all, int led) {
  return std::lower_bound(all.begin(), all.end(), led,
                          [](const Sighting& s, int wanted) { return s.led < wanted; });
}

}  // namespace

const Sighting* Sightings::sure(int led) const {
  const auto found = placeOf(all, led);
  return found != all.end() && found->led == led && found->doubt.empty() ? &*found : nullptr;
}

std::vector<std::optional<Spot>> Sightings::sureSpots(int leds) const {
  std::vector<std::optional<Spot>> spots(static_cast<std::size_t>(leds));
  for (const Sighting& one : all)
    if (one.doubt.empty() && one.led < leds) spots[static_cast<std::size_t>(one.led)] = one.spot;
  return spots;
}

void Sightings::put(int led, Spot spot) {
  std::erase(missing, led);
  auto found = placeOf(all, led);
  if (found == all.end() || found->led != led) found = all.insert(found, {led, spot});
  found->spot = spot;
  found->doubt.clear();
}

void Sightings::settle(int leds) {
  std::sort(all.begin(), all.end(), [](const Sighting& a, const Sighting& b) { return a.led < b.led; });
  missing.clear();
  for (int led = 0; led < leds; ++led) {
    const auto found = placeOf(all, led);
    if (found == all.end() || found->led != led) missing.push_back(led);
  }
}

Sightings merged(const Sightings& earlier, Sightings later, std::span<const int> only, int leds) {
  std::vector<bool> isWanted(static_cast<std::size_t>(leds), false);
  for (const int led : only) isWanted[static_cast<std::size_t>(led)] = true;
  std::erase_if(later.all, [&](const Sighting& one) { return !isWanted[static_cast<std::size_t>(one.led)]; });
  std::vector<bool> isSeen(static_cast<std::size_t>(leds), false);
  for (const Sighting& one : later.all) isSeen[static_cast<std::size_t>(one.led)] = true;
  for (const Sighting& one : earlier.all)
    if (!isSeen[static_cast<std::size_t>(one.led)]) later.all.push_back(one);
  later.settle(leds);
  return later;
}

}  // namespace chispa::vision
