// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/unwired.h"

#include <algorithm>
#include <unordered_map>

namespace chispa {
namespace {

using HungPixels = std::unordered_map<FixtureId, std::vector<bool>>;

HungPixels hungPixels(const Show& show) {
  HungPixels hung;
  for (const auto& fixture : show.fixtures)
    hung[fixture->id].resize(static_cast<std::size_t>(pixelCount(*fixture)), false);
  for (const auto& controller : show.controllers)
    for (const Port& port : controller->ports)
      for (const Bead& bead : port.run) {
        const auto found = hung.find(bead.fixture);
        if (found == hung.end()) continue;
        const int end = std::min(bead.first + bead.count, static_cast<int>(found->second.size()));
        for (int i = std::max(0, bead.first); i < end; ++i) found->second[static_cast<std::size_t>(i)] = true;
      }
  return hung;
}

}  // namespace

std::vector<UnwiredPiece> unwiredPieces(const Show& show) {
  std::vector<UnwiredPiece> loose;
  const HungPixels all = hungPixels(show);
  for (const auto& fixture : show.fixtures) {
    const auto& hung = all.at(fixture->id);
    for (int i = 0; i < std::ssize(hung); ++i) {
      if (hung[static_cast<std::size_t>(i)]) continue;
      const bool continues = !loose.empty() && loose.back().fixture == fixture->id &&
                             loose.back().first + loose.back().count == i;
      if (continues)
        ++loose.back().count;
      else
        loose.push_back({fixture->id, i, 1});
    }
  }
  return loose;
}

}  // namespace chispa
