// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <iostream>

#include "cli/table.h"
#include "cli/verbs.h"
#include "core/vision/source.h"
#include "core/vision/spotter.h"
#include "core/vision/stereo.h"

namespace chispa::cli {
namespace {

using Spots = std::vector<std::optional<vision::Spot>>;

/// What one camera place saw; the size of its pictures goes to `lens`.
Result<Spots> look(const std::string& path, int leds, vision::Lens& lens) {
  auto source = vision::openFrames(path);
  if (!source) return source.failure();
  vision::Spotter spotter(leds, {});
  while (auto frame = (*source)->next()) {
    lens.width = frame->picture.width;
    lens.height = frame->picture.height;
    spotter.add(*std::move(frame));
  }
  spotter.finish();
  const vision::Sightings seen = spotter.sightings();
  if (seen.rounds == 0)
    return Failure{"no whole round of blinking is in the frames", path,
                   "begin to film before the LEDs begin to blink, and end after they begin again"};
  Spots spots = seen.sureSpots(leds);
  std::cerr << path << ": " << seen.rounds << " rounds in " << seen.frames << " frames; "
            << std::count_if(spots.begin(), spots.end(), [](const auto& s) { return s.has_value(); })
            << " of " << leds << " LEDs found\n";
  for (const vision::Sighting& one : seen.all)
    if (!one.doubt.empty()) std::cerr << "LED " << one.led + 1 << " is doubtful: " << one.doubt << "\n";
  return spots;
}

int fail(const Failure& failure) {
  std::cerr << "chispa-cli: " << failure.text() << "\n";
  return kShowError;
}

/// A plane, in picture pixels, or in metres from the lower left if a length is known.
int printPlane(const Spots& spots, const std::optional<vision::KnownLength>& known, bool asJson) {
  double scale = 1;
  if (known) {
    const auto found = vision::metresPerPixel(spots, *known);
    if (!found)
      return fail({"the LEDs of the known length were not found", {}, "measure between two others"});
    scale = *found;
  }
  Table table(
      known ? std::vector<std::string>{"led", "x_m", "y_m"} : std::vector<std::string>{"led", "x_px", "y_px"},
      asJson);
  constexpr int kDecimals = 6;
  for (std::size_t i = 0; i < spots.size(); ++i)
    if (spots[i])
      table.add({static_cast<long>(i + 1), Field::of(spots[i]->x * scale, kDecimals),
                 Field::of(spots[i]->y * (known ? -scale : scale), kDecimals)});
  return kDone;
}

}  // namespace

int map(const Words& words) {
  vision::Lens lens;
  lens.fieldOfView_deg = words.fieldOfView_deg;
  const auto first = look(words.frames, words.leds, lens);
  if (!first) return fail(first.failure());
  std::optional<vision::KnownLength> known;
  if (words.known.size() == 3)
    known = vision::KnownLength{static_cast<int>(words.known[0]) - 1, static_cast<int>(words.known[1]) - 1,
                                words.known[2]};
  if (words.secondFrames.empty()) return printPlane(*first, known, words.json);
  const auto second = look(words.secondFrames, words.leds, lens);
  if (!second) return fail(second.failure());
  if (!known)
    return fail({"places in space need a known length",
                 {},
                 "give --known with two LEDs and the metres between them"});
  const auto space = vision::placesInSpace(*first, *second, lens, *known);
  if (!space) return fail(space.failure());
  std::cerr << "median residual " << space->medianResidual_px << " px, distortion " << space->k1 << "\n";
  Table table({"led", "x_m", "y_m", "z_m", "residual_px"}, words.json);
  constexpr int kDecimals = 6;
  for (std::size_t i = 0; i < space->points.size(); ++i)
    if (const auto& p = space->points[i])
      table.add({static_cast<long>(i + 1), Field::of(p->x, kDecimals), Field::of(p->y, kDecimals),
                 Field::of(p->z, kDecimals), Field::of(space->residual_px[i], kDecimals)});
  return kDone;
}

}  // namespace chispa::cli
