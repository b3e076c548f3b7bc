// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/stretches.h"

#include <algorithm>
#include <map>
#include <numeric>

#include "core/board/stack.h"

namespace chispa::board {
namespace {

void takeCell(const ZoneCells& cells, int cell, const BoardStrip& strip, StaveOnBoard& one) {
  std::vector<std::uint16_t> values;
  for (const std::uint32_t pixel : cells.pixelsOf(cell))
    // What a value shows is told by the pixel in its middle.
    if (const auto value = strip.valueOf(pixel); value && strip.middleOf(*value) == pixel)
      values.push_back(*value);
  if (values.empty()) return;
  one.keptCells.push_back(static_cast<std::size_t>(cell));
  one.values.insert(values.begin(), values.end());
  one.cellValues.push_back(std::move(values));
}

}  // namespace

Micros timeOf(std::uint32_t frame, int rate) {
  const auto ms = std::uint64_t{frame} * 1000 / static_cast<std::uint64_t>(rate);
  return Micros(static_cast<Micros::rep>(ms) * 1000);
}

std::uint32_t frameFrom(Micros t, int rate) {
  auto frame = static_cast<std::uint32_t>(std::max<Micros::rep>(0, t.count() * rate / 1'000'000));
  while (frame > 0 && timeOf(frame - 1, rate) >= t) --frame;
  while (timeOf(frame, rate) < t) ++frame;
  return frame;
}

std::uint32_t framesOf(const BoardScene& scene, int rate) {
  if (scene.round().count() > 0) return 0;
  return scene.isLook() ? 0 : frameFrom(scene.length(), rate);
}

std::vector<StaveOnBoard> stavesOnBoard(const Show& show, const BoardScene& scene, const BoardStrip& strip) {
  std::vector<StaveOnBoard> all;
  for (const CompiledStave& stave : scene.staves()) {
    StaveOnBoard one;
    one.stave = &stave;
    if (const Zone* zone = find(show.zones, stave.zone)) one.zone = zone->name;
    for (int cell = 0; cell < stave.cells->count(); ++cell) takeCell(*stave.cells, cell, strip, one);
    if (!one.values.empty()) all.push_back(std::move(one));
  }
  return all;
}

std::vector<std::vector<std::size_t>> groupsOf(const std::vector<StaveOnBoard>& staves) {
  std::vector<std::size_t> group(staves.size());
  std::iota(group.begin(), group.end(), 0);
  std::map<std::uint16_t, std::size_t> ownerOf;
  for (std::size_t i = 0; i < staves.size(); ++i)
    for (const std::uint16_t value : staves[i].values) {
      const auto [found, isNew] = ownerOf.try_emplace(value, i);
      if (isNew || group[found->second] == group[i]) continue;
      const std::size_t from = group[i], to = group[found->second];
      std::replace(group.begin(), group.end(), from, to);
    }
  std::map<std::size_t, std::vector<std::size_t>> byGroup;
  for (std::size_t i = 0; i < staves.size(); ++i) byGroup[group[i]].push_back(i);
  std::vector<std::vector<std::size_t>> groups;
  for (auto& [number, members] : byGroup) groups.push_back(std::move(members));
  return groups;
}

std::vector<Stretch> stretchesOf(const BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                                 const std::vector<std::size_t>& group, int rate) {
  const std::uint32_t frames = framesOf(scene, rate);
  std::set<std::uint32_t> cuts = {0};
  if (!scene.isLook()) {
    cuts.insert(frames);
    for (const std::size_t member : group)
      for (const CompiledClip& clip : staves[member].stave->clips())
        for (const Micros t : {clip.start, clip.end(), clip.end() - clip.crossOut, clip.start + clip.crossIn})
          cuts.insert(std::min(frames, frameFrom(t, rate)));
  }
  std::vector<Stretch> all;
  for (auto cut = cuts.begin(); cut != cuts.end(); ++cut) {
    const auto next = std::next(cut);
    if (!scene.isLook() && next == cuts.end()) break;
    Stretch stretch{*cut, scene.isLook() ? kNever : *next, {}};
    for (const std::size_t member : group)
      if (auto shown = shownAt(scene, *staves[member].stave, timeOf(*cut, rate)); !shown.empty())
        stretch.lit.emplace_back(member, std::move(shown));
    if (stretch.lit.empty()) continue;
    if (!all.empty() && all.back().end == stretch.first && all.back().lit == stretch.lit)
      all.back().end = stretch.end;
    else
      all.push_back(std::move(stretch));
  }
  return all;
}

}  // namespace chispa::board
