// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/write.h"

#include <set>

#include "core/board/boardwriter.h"

namespace chispa::board {

std::vector<BoardRun> litRuns(const Show& show, const std::vector<BoardOrder>& scenes) {
  std::set<ZoneId> zones;
  for (const BoardOrder& order : scenes) {
    if (const auto* id = std::get_if<ScoreId>(&order.scene)) {
      if (const Score* score = find(show.scores, *id))
        for (const auto& whole : score->clips)
          for (const Clip& clip : unfolded(show, *whole)) zones.insert(clip.zone);
    } else if (const Look* look = find(show.looks, std::get<LookId>(order.scene))) {
      for (const ZoneId zone : zonesOf(*look)) zones.insert(zone);
    }
  }
  std::set<FixtureId> lit;
  for (const ZoneId id : zones)
    if (const Zone* zone = find(show.zones, id))
      for (const ZonePart& part : zone->parts) lit.insert(part.fixture);
  std::vector<BoardRun> runs;
  for (const auto& fixture : show.fixtures)
    if (lit.contains(fixture->id)) runs.emplace_back(fixture->id);
  return runs;
}

Result<BoardLight> writeBoard(const Show& show, const CompiledShow& compiled, const BoardPlan& plan,
                              const Progress& progress) {
  constexpr std::size_t kMaxScenes = 255;
  if (plan.scenes.empty())
    return Failure{"There is nothing to play: no score and no look is chosen.", {}, "Choose at least one."};
  if (plan.scenes.size() > kMaxScenes)
    return Failure{"A board plays at most 255 scenes.", {}, "Choose fewer."};
  for (const BoardOrder& order : plan.scenes) {
    const auto* id = std::get_if<ScoreId>(&order.scene);
    const Score* score = id ? find(show.scores, *id) : nullptr;
    const bool isThere = id ? score && compiled.scoreOf(*id)
                            : find(show.looks, std::get<LookId>(order.scene)) &&
                                  compiled.live->lookOf(std::get<LookId>(order.scene));
    if (!isThere) return Failure{"A scene is no longer in the show.", {}, "Choose the scenes again."};
    if (score && score->length.count() <= 0)
      return Failure{
          sentence("“%1” has no length.", score->name), {}, "Give it one in Score, or leave it out."};
  }
  auto strip = BoardStrip::of(show, *compiled.map, plan.runs, plan.options.pixelsPerValue);
  auto every = BoardStrip::of(show, *compiled.map, plan.runs, 1);
  if (!strip || !every) return (strip ? every : strip).failure();
  return BoardWriter(show, compiled, plan, *std::move(strip), *std::move(every), progress).write();
}

}  // namespace chispa::board
