// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/check/problems.h"
#include "core/show/finditems.h"

namespace chispa {
namespace {

template <class F>
void changePort(Show& show, const PortPlace& place, F change) {
  changeItems(show.controllers, std::vector{place.controller}, [&](Controller& controller) {
    if (place.port >= 0 && place.port < std::ssize(controller.ports))
      change(controller.ports[static_cast<std::size_t>(place.port)].run);
  });
}

void shorten(const Show& show, std::vector<Bead>& run) {
  for (Bead& bead : run)
    if (const Fixture* fixture = find(show.fixtures, bead.fixture))
      bead.count = std::clamp(bead.count, 0, std::max(0, pixelCount(*fixture) - bead.first));
  std::erase_if(run, [](const Bead& bead) { return bead.count == 0; });
}

}  // namespace

void mend(Show& show, const Problem& problem) {
  const auto* clip = std::get_if<ClipPlace>(&problem.place);
  const auto* port = std::get_if<PortPlace>(&problem.place);
  const auto* zone = std::get_if<ZoneId>(&problem.place);
  if (problem.mending == Mending::DeleteClip && clip)
    changeItems(show.scores, std::vector{clip->score}, [&](Score& score) {
      std::erase_if(score.clips, [&](const auto& one) { return one->id == clip->clip; });
    });
  if (problem.mending == Mending::TakeGoneParts && zone)
    changeItems(show.zones, std::vector{*zone}, [&](Zone& own) {
      std::erase_if(own.parts, [&](const ZonePart& part) { return !find(show.fixtures, part.fixture); });
    });
  if (problem.mending == Mending::TakeGoneBeads && port)
    changePort(show, *port, [&](std::vector<Bead>& run) {
      std::erase_if(run, [&](const Bead& bead) { return !find(show.fixtures, bead.fixture); });
    });
  if (problem.mending == Mending::ShortenBeads && port)
    changePort(show, *port, [&](std::vector<Bead>& run) { shorten(show, run); });
}

}  // namespace chispa
