// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/score.h"

#include <algorithm>

#include "core/show/items.h"

namespace chispa {

bool operator==(const Score& a, const Score& b) {
  return a.id == b.id && a.name == b.name && a.audio == b.audio && a.length == b.length &&
         a.audioStart == b.audioStart && a.framesPerSecond == b.framesPerSecond && a.lanes == b.lanes &&
         a.staves == b.staves && a.folders == b.folders && sameItems(a.clips, b.clips);
}

bool operator==(const Block& a, const Block& b) {
  return a.id == b.id && a.name == b.name && a.length == b.length && sameItems(a.clips, b.clips);
}

const MarkLane* laneOf(const Score& score, LaneKind kind) {
  const auto found = std::find_if(score.lanes.begin(), score.lanes.end(),
                                  [kind](const auto& lane) { return lane.kind == kind; });
  return found == score.lanes.end() ? nullptr : &*found;
}

const Clip* findClip(const Score& score, ClipId id) {
  return find(score.clips, id);
}

std::vector<Micros> instantsOf(const Score& score, LaneKind kind) {
  std::vector<Micros> instants;
  if (const MarkLane* lane = laneOf(score, kind))
    for (const Mark& mark : lane->marks) instants.push_back(mark.at);
  return instants;
}

}  // namespace chispa
