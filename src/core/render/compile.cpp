// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <unordered_map>

#include "core/render/compiled.h"

namespace chispa {
namespace {

std::vector<Micros> instantsOf(const Score& score, LaneKind kind) {
  std::vector<Micros> instants;
  if (const MarkLane* lane = laneOf(score, kind))
    for (const Mark& mark : lane->marks) instants.push_back(mark.at);
  std::sort(instants.begin(), instants.end());
  return instants;
}

/// Compiles the scores of one show; what they share (cells, palettes) is made once.
class Compiler {
 public:
  Compiler(const Show& show, const MusicLibrary& music, CompiledShow& out) : show_(show), music_(music), out_(out) {}

  CompiledScore compileScore(const Score& score) {
    CompiledScore compiled;
    compiled.id = score.id;
    compiled.length = score.length;
    compiled.grid = gridOf(score);
    if (const auto found = music_.find(score.audio); found != music_.end()) compiled.features = found->second;
    std::unordered_map<ZoneId, std::vector<const Clip*>> byZone;
    for (const auto& clip : score.clips) byZone[clip->zone].push_back(clip.get());
    for (auto stave = score.staves.rbegin(); stave != score.staves.rend(); ++stave) {
      const Zone* zone = find(show_.zones, *stave);
      if (zone) compiled.staves.push_back(compileStave(*zone, byZone[*stave]));
    }
    return compiled;
  }

 private:
  CompiledStave compileStave(const Zone& zone, const std::vector<const Clip*>& clips) {
    CompiledStave stave;
    stave.zone = zone.id;
    stave.cells = cellsFor(zone);
    for (const Clip* clip : clips) {
      CompiledClip compiled = compileClip(*clip, paletteFor(clip->palette));
      if (compiled.effect) stave.clips.push_back(std::move(compiled));
    }
    std::stable_sort(stave.clips.begin(), stave.clips.end(), [](const CompiledClip& a, const CompiledClip& b) {
      return std::pair(a.layer, a.start) < std::pair(b.layer, b.start);
    });
    return stave;
  }

  std::shared_ptr<const ZoneCells> cellsFor(const Zone& zone) {
    auto& cells = cells_[zone.id];
    if (!cells) {
      cells = std::make_shared<const ZoneCells>(cellsOf(show_, out_.map, zone));
      out_.mostCells = std::max(out_.mostCells, static_cast<std::size_t>(cells->count()));
    }
    return cells;
  }

  std::shared_ptr<const PaletteTable> paletteFor(PaletteId id) {
    auto& table = palettes_[id];
    if (!table) table = tableOf(show_, id);
    return table;
  }

  const Show& show_;
  const MusicLibrary& music_;
  CompiledShow& out_;
  std::unordered_map<ZoneId, std::shared_ptr<const ZoneCells>> cells_;
  std::unordered_map<PaletteId, std::shared_ptr<const PaletteTable>> palettes_;
};

}  // namespace

MusicGrid gridOf(const Score& score) {
  return {instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars)};
}

std::shared_ptr<const PaletteTable> tableOf(const Show& show, PaletteId id) {
  const Palette* palette = find(show.palettes, id);
  return std::make_shared<const PaletteTable>(palette ? *palette : Palette{});
}

CompiledClip compileClip(const Clip& clip, std::shared_ptr<const PaletteTable> palette) {
  CompiledClip compiled;
  compiled.id = clip.id;
  compiled.effect = findEffect(clip.effect);
  if (compiled.effect) compiled.params = ParamPack(compiled.effect->params, clip.params);
  compiled.start = clip.start;
  compiled.length = clip.length;
  compiled.fadeIn = clip.fadeIn;
  compiled.fadeOut = clip.fadeOut;
  compiled.layer = clip.layer;
  compiled.blend = clip.blend;
  compiled.strength = static_cast<float>(std::clamp(clip.strength, 0.0, 1.0));
  compiled.seed = clip.seed;
  compiled.palette = std::move(palette);
  return compiled;
}

const CompiledScore* CompiledShow::scoreOf(ScoreId id) const {
  const auto found = std::find_if(scores.begin(), scores.end(), [id](const auto& score) { return score.id == id; });
  return found == scores.end() ? nullptr : &*found;
}

std::shared_ptr<const CompiledShow> compile(const Show& show, const MusicLibrary& music) {
  auto compiled = std::make_shared<CompiledShow>();
  compiled->map = mapPixels(show);
  compiled->patch = derivePatch(show);
  compiled->power = powerChains(show);
  compiled->budget = std::make_unique<const PowerBudget>(show, compiled->power);
  compiled->packer = std::make_unique<const Packer>(show, compiled->map, compiled->patch, *compiled->budget);
  Compiler compiler(show, music, *compiled);
  for (const auto& score : show.scores) compiled->scores.push_back(compiler.compileScore(*score));
  return compiled;
}

}  // namespace chispa
