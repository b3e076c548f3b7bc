// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <map>
#include <unordered_map>
#include <unordered_set>

#include "core/base/memory.h"
#include "core/render/compiled.h"
#include "core/render/compiledlive.h"
#include "core/render/renderer.h"
#include "core/render/reuse.h"

namespace chispa {
namespace {

/// Compiles the scores of one show; what they share (cells, palettes) is made once.
class Compiler {
 public:
  Compiler(const Show& show, const MusicLibrary& music, const MediaLibrary& media, const Reuse& reuse,
           CompiledShow& out)
      : show_(show), music_(music), media_(media), reuse_(reuse), out_(out) {}

  CompiledScore compileScore(const Score& score) {
    CompiledScore compiled;
    compiled.id = score.id;
    compiled.length = score.length;
    compiled.grid = gridOf(score);
    compiled.sections = instantsOf(score, LaneKind::Sections);
    if (const auto found = music_.find(score.audio); found != music_.end()) compiled.features = found->second;
    compiled.audioStart = score.audioStart;
    std::unordered_map<ZoneId, std::vector<const Clip*>> byZone;
    std::vector<Clip> fromBlocks;
    for (const auto& clip : score.clips)
      if (clip->block)
        for (Clip& one : unfolded(show_, *clip)) fromBlocks.push_back(std::move(one));
    unfolded_.clear();
    for (const Clip& clip : fromBlocks) unfolded_.insert(&clip);
    for (const auto& clip : score.clips)
      if (!clip->block) byZone[clip->zone].push_back(clip.get());
    for (const Clip& clip : fromBlocks) byZone[clip.zone].push_back(&clip);
    std::map<int, std::vector<const Clip*>> over;
    for (auto& [zone, clips] : byZone) std::erase_if(clips, [](const Clip* clip) { return clip->over > 0; });
    for (const auto& clip : score.clips)
      if (clip->over > 0 && !clip->block) over[clip->over].push_back(clip.get());
    for (auto stave = score.staves.rbegin(); stave != score.staves.rend(); ++stave) {
      const Zone* zone = find(show_.zones, *stave);
      if (zone) compiled.staves.push_back(compileStave(*zone, byZone[*stave], compiled));
    }
    for (const auto& [number, clips] : over) addOver(clips, compiled);
    findWaves(compiled);
    return compiled;
  }

  void findWaves(CompiledScore& score) {
    if (const CompiledScore* alike = reuse_.lanesOf(score)) {
      score.waves = alike->waves;
      for (std::size_t s = 0; s < score.staves.size(); ++s)
        score.staves[s].isDistinct = alike->staves[s].isDistinct;
      return;
    }
    // In which stave, counted from 1, each pixel was lit last.
    std::vector<std::size_t> litIn(static_cast<std::size_t>(out_.map->count()), 0);
    std::size_t waveBegin = 0;
    for (std::size_t s = 0; s < score.staves.size(); ++s) {
      CompiledStave& stave = score.staves[s];
      stave.isDistinct = true;
      bool isApart = true;
      for (const std::uint32_t pixel : stave.cells->pixels) {
        stave.isDistinct = stave.isDistinct && litIn[pixel] != s + 1;
        isApart = isApart && (litIn[pixel] <= waveBegin || litIn[pixel] == s + 1);
        litIn[pixel] = s + 1;
      }
      if (s > 0 && isApart) continue;
      score.waves.push_back(s);
      waveBegin = s;
    }
  }

  std::shared_ptr<const CompiledLive> compileByHand() {
    return compileLive(show_, out_, media_,
                       {[this](const Zone& zone) { return cellsFor(zone); },
                        [this](PaletteId id) { return paletteFor(id); }});
  }

 private:
  /// Clips that lie over all staves, a lane for each zone in the order in which they are first named.
  void addOver(const std::vector<const Clip*>& clips, CompiledScore& compiled) {
    std::vector<ZoneId> zones;
    for (const Clip* clip : clips)
      if (std::find(zones.begin(), zones.end(), clip->zone) == zones.end()) zones.push_back(clip->zone);
    for (const ZoneId id : zones) {
      std::vector<const Clip*> own = clips;
      std::erase_if(own, [id](const Clip* clip) { return clip->zone != id; });
      if (const Zone* zone = find(show_.zones, id))
        compiled.staves.push_back(compileStave(*zone, own, compiled));
    }
  }

  /// Clips without a block are the show's own: a lane that has no others can be compared with an earlier one.
  CompiledStave compileStave(const Zone& zone, const std::vector<const Clip*>& clips,
                             const CompiledScore& score) {
    CompiledStave stave;
    stave.zone = zone.id;
    stave.cells = cellsFor(zone);
    const auto isOwn = [this](const Clip* clip) { return !unfolded_.contains(clip); };
    if (std::all_of(clips.begin(), clips.end(), isOwn)) stave.madeOf = clips;
    auto before = reuse_.clips(score, zone.id, stave.madeOf);
    const bool isKept = before && std::all_of(clips.begin(), clips.end(), [&](const Clip* clip) {
                          return paletteFor(clip->palette) == reuse_.palette(clip->palette);
                        });
    stave.shared = isKept ? std::move(before) : compileClips(clips, score.grid);
    return stave;
  }

  std::shared_ptr<const CompiledClips> compileClips(const std::vector<const Clip*>& clips,
                                                    const MusicGrid& grid) {
    CompiledClips made;
    for (const Clip* clip : clips) {
      CompiledClip compiled = compileClip(*clip, paletteFor(clip->palette), media_);
      compiled.fades = show_.light.fades;
      measureBeats(grid, compiled);
      if (compiled.effect) made.push_back(std::move(compiled));
    }
    std::stable_sort(made.begin(), made.end(), [](const CompiledClip& a, const CompiledClip& b) {
      return std::pair(a.layer, a.start) < std::pair(b.layer, b.start);
    });
    crossFade(made);
    return std::make_shared<const CompiledClips>(std::move(made));
  }

  /// Where two neighbours of a layer overlap, one passes into the other.
  static void crossFade(std::vector<CompiledClip>& clips) {
    for (std::size_t i = 1; i < clips.size(); ++i) {
      CompiledClip& before = clips[i - 1];
      CompiledClip& after = clips[i];
      // One that lies within the other covers it like a layer above.
      if (before.layer != after.layer || before.end() <= after.start || before.end() >= after.end()) continue;
      after.crossIn = before.crossOut = before.end() - after.start;
    }
  }

  std::shared_ptr<const ZoneCells> cellsFor(const Zone& zone) {
    auto& cells = cells_[zone.id];
    if (!cells) cells = reuse_.cells(zone, *out_.map);
    if (!cells) cells = std::make_shared<const ZoneCells>(cellsOf(show_, *out_.map, zone));
    return cells;
  }

  std::shared_ptr<const PaletteTable> paletteFor(PaletteId id) {
    auto& table = out_.palettes[id];
    if (!table) table = reuse_.palette(id);
    if (!table) table = tableOf(show_, id);
    return table;
  }

  const Show& show_;
  const MusicLibrary& music_;
  const MediaLibrary& media_;
  const Reuse& reuse_;
  CompiledShow& out_;
  std::unordered_map<ZoneId, std::shared_ptr<const ZoneCells>> cells_;
  /// Clips of the score in hand that stand in no list of the show: they come out of blocks.
  std::unordered_set<const Clip*> unfolded_;
};

/// Pixels from which on it is worth a few milliseconds to give back what only compiling needed.
constexpr int kLargeShow = 100'000;

std::size_t countOf(const ZoneCells& cells) {
  return static_cast<std::size_t>(cells.count());
}

/// Zones of `score` that clips of `stave` show are worked out as a whole: the cells of the largest.
std::size_t maxOfSources(const CompiledStave& stave, const CompiledScore& score) {
  std::size_t most = 0;
  for (const CompiledClip& clip : stave.clips())
    if (const CompiledStave* source = clip.source ? score.staveOf(clip.source) : nullptr)
      most = std::max(most, countOf(*source->cells));
  return most;
}

/// The most cells of a score's zones that a renderer has in hand at once: a tile where all clips can be
/// divided.
std::size_t maxCellsOf(const CompiledScore& score) {
  std::size_t most = 0;
  for (const CompiledStave& stave : score.staves) {
    const auto clips = stave.clips();
    const bool isDivided = std::all_of(clips.begin(), clips.end(), Renderer::canBeTiled);
    most =
        std::max(most, isDivided ? std::min(countOf(*stave.cells), Renderer::kTile) : countOf(*stave.cells));
    most = std::max(most, maxOfSources(stave, score));
  }
  return most;
}

std::size_t maxCellsOf(const CompiledShow& show) {
  std::size_t most = 0;
  for (const CompiledScore& score : show.scores) most = std::max(most, maxCellsOf(score));
  for (const CompiledLook& look : show.live->looks)
    for (const CompiledStep& step : look.steps)
      for (const CompiledStave& stave : step.staves) {
        most = std::max(most, countOf(*stave.cells));
        for (const CompiledScore& score : show.scores) most = std::max(most, maxOfSources(stave, score));
      }
  for (const CompiledDeskInput& input : show.live->deskInputs) most = std::max(most, countOf(*input.cells));
  return most;
}

}  // namespace

const CompiledStave* CompiledScore::staveOf(ZoneId zone) const {
  const auto found =
      std::find_if(staves.begin(), staves.end(), [zone](const auto& stave) { return stave.zone == zone; });
  return found == staves.end() ? nullptr : &*found;
}

const CompiledScore* CompiledShow::scoreOf(ScoreId id) const {
  const auto found =
      std::find_if(scores.begin(), scores.end(), [id](const auto& score) { return score.id == id; });
  return found == scores.end() ? nullptr : &*found;
}

namespace {

/// What hangs where, what it draws and how it is packed.
void compileWiring(const Show& show, const CompiledShow* same, CompiledShow& out) {
  if (same) {
    out.patch = same->patch;
    out.power = same->power;
    out.budget = same->budget;
    out.packer = same->packer;
    return;
  }
  out.patch = derivePatch(show);
  out.power = std::make_shared<const std::vector<PowerChain>>(powerChains(show));
  out.budget = std::make_shared<const PowerBudget>(show, *out.power);
  out.packer = std::make_shared<const Packer>(show, *out.map, out.patch, *out.budget);
}

}  // namespace

std::shared_ptr<const CompiledShow> compile(const Show& show, const MusicLibrary& music,
                                            const MediaLibrary& media, const CompiledShow* before) {
  auto compiled = std::make_shared<CompiledShow>();
  compiled->source = show;
  compiled->media = media;
  compiled->light = show.light;
  const Reuse reuse(show, media, before);
  compiled->map = reuse.map();
  const bool isFresh = !compiled->map;
  if (isFresh) compiled->map = std::make_shared<const PixelMap>(mapPixels(show));
  compileWiring(show, reuse.keepsWiring() ? before : nullptr, *compiled);
  Compiler compiler(show, music, media, reuse, *compiled);
  for (const auto& score : show.scores) compiled->scores.push_back(compiler.compileScore(*score));
  compiled->live = compiler.compileByHand();
  compiled->maxCells = maxCellsOf(*compiled);
  if (isFresh && compiled->map->count() >= kLargeShow) giveBackMemory();
  return compiled;
}

}  // namespace chispa
