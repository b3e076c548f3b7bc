// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <map>
#include <unordered_map>

#include "core/base/memory.h"
#include "core/render/compiled.h"
#include "core/render/compiledlive.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

/// Compiles the scores of one show; what they share (cells, palettes) is made once.
class Compiler {
 public:
  Compiler(const Show& show, const MusicLibrary& music, const MediaLibrary& media, CompiledShow& out)
      : show_(show), music_(music), media_(media), out_(out) {}

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
    for (const auto& clip : score.clips)
      if (!clip->block) byZone[clip->zone].push_back(clip.get());
    for (const Clip& clip : fromBlocks) byZone[clip.zone].push_back(&clip);
    std::map<int, std::vector<const Clip*>> over;
    for (auto& [zone, clips] : byZone) std::erase_if(clips, [](const Clip* clip) { return clip->over > 0; });
    for (const auto& clip : score.clips)
      if (clip->over > 0 && !clip->block) over[clip->over].push_back(clip.get());
    for (auto stave = score.staves.rbegin(); stave != score.staves.rend(); ++stave) {
      const Zone* zone = find(show_.zones, *stave);
      if (zone) compiled.staves.push_back(compileStave(*zone, byZone[*stave], compiled.grid));
    }
    for (const auto& [number, clips] : over) addOver(clips, compiled);
    findWaves(compiled);
    return compiled;
  }

  void findWaves(CompiledScore& score) {
    // In which stave, counted from 1, each pixel was lit last.
    std::vector<std::size_t> litIn(static_cast<std::size_t>(out_.map.count()), 0);
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
        compiled.staves.push_back(compileStave(*zone, own, compiled.grid));
    }
  }

  CompiledStave compileStave(const Zone& zone, const std::vector<const Clip*>& clips, const MusicGrid& grid) {
    CompiledStave stave;
    stave.zone = zone.id;
    stave.cells = cellsFor(zone);
    for (const Clip* clip : clips) {
      CompiledClip compiled = compileClip(*clip, paletteFor(clip->palette), media_);
      compiled.fades = show_.light.fades;
      measureBeats(grid, compiled);
      if (compiled.effect) stave.clips.push_back(std::move(compiled));
    }
    std::stable_sort(stave.clips.begin(), stave.clips.end(),
                     [](const CompiledClip& a, const CompiledClip& b) {
                       return std::pair(a.layer, a.start) < std::pair(b.layer, b.start);
                     });
    crossFade(stave.clips);
    return stave;
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
    if (!cells) cells = std::make_shared<const ZoneCells>(cellsOf(show_, out_.map, zone));
    return cells;
  }

  std::shared_ptr<const PaletteTable> paletteFor(PaletteId id) {
    auto& table = palettes_[id];
    if (!table) table = tableOf(show_, id);
    return table;
  }

  const Show& show_;
  const MusicLibrary& music_;
  const MediaLibrary& media_;
  CompiledShow& out_;
  std::unordered_map<ZoneId, std::shared_ptr<const ZoneCells>> cells_;
  std::unordered_map<PaletteId, std::shared_ptr<const PaletteTable>> palettes_;
};

/// Pixels from which on it is worth a few milliseconds to give back what only compiling needed.
constexpr int kLargeShow = 100'000;

std::size_t countOf(const ZoneCells& cells) {
  return static_cast<std::size_t>(cells.count());
}

/// Zones of `score` that clips of `stave` show are worked out as a whole: the cells of the largest.
std::size_t maxOfSources(const CompiledStave& stave, const CompiledScore& score) {
  std::size_t most = 0;
  for (const CompiledClip& clip : stave.clips)
    if (const CompiledStave* source = clip.source ? score.staveOf(clip.source) : nullptr)
      most = std::max(most, countOf(*source->cells));
  return most;
}

/// The most cells of a score's zones that a renderer has in hand at once: a tile where all clips can be
/// divided.
std::size_t maxCellsOf(const CompiledScore& score) {
  std::size_t most = 0;
  for (const CompiledStave& stave : score.staves) {
    const bool isDivided = std::all_of(stave.clips.begin(), stave.clips.end(), Renderer::canBeTiled);
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

void measureBeats(const MusicGrid& grid, CompiledClip& clip) {
  const double beats = grid.beatAt(clip.end()) - grid.beatAt(clip.start);
  if (beats > 0) clip.beatLength_s = seconds(clip.length) / beats;
  constexpr Micros kLeast{10'000};
  Micros shortest = std::max(kLeast, grid.beatLength(clip.start));
  for (Micros t = clip.start; t < clip.end(); t += std::max(kLeast, grid.beatLength(t)))
    shortest = std::min(shortest, std::max(kLeast, grid.beatLength(t)));
  clip.shortestBeat_s = seconds(shortest);
}

MusicGrid gridOf(const Score& score) {
  return {instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars)};
}

std::shared_ptr<const PaletteTable> tableOf(const Show& show, PaletteId id) {
  const Palette* palette = find(show.palettes, id);
  return std::make_shared<const PaletteTable>(palette ? *palette : Palette{});
}

namespace {

std::optional<CompiledMotion> compileMotion(const Effect& effect, const std::string& key,
                                            const Motion& motion) {
  CompiledMotion compiled;
  compiled.motion = motion;
  if (key == kPalettePlaceKey) {
    constexpr double kMaxTurns = 1'000;
    compiled.param = CompiledMotion::kPalettePlace;
    compiled.least = -kMaxTurns;
    compiled.most = kMaxTurns;
  } else if (key != kStrengthKey) {
    const auto index = paramIndex(effect, key);
    if (!index || effect.params[*index].kind != ParamKind::Number) return std::nullopt;
    compiled.param = *index;
    compiled.least = effect.params[*index].low;
    compiled.most = effect.params[*index].high;
  }
  if (motion.driver != Driver::Parameter) return compiled;
  const auto follows = paramIndex(effect, motion.parameter);
  if (!follows || effect.params[*follows].kind != ParamKind::Number || follows == compiled.param)
    return std::nullopt;
  compiled.follows = *follows;
  compiled.followsLeast = effect.params[*follows].low;
  compiled.followsMost = effect.params[*follows].high;
  return compiled;
}

}  // namespace

std::vector<Clip> unfolded(const Show& show, const Clip& clip) {
  if (!clip.block) return {clip};
  std::vector<Clip> clips;
  const Block* block = find(show.blocks, clip.block);
  if (!block) return clips;
  for (const auto& part : block->clips) {
    // Blocks do not stand in blocks.
    if (part->block || part->start >= clip.length) continue;
    Clip one = *part;
    one.zone = part->zone ? part->zone : clip.zone;
    one.start += clip.start;
    one.length = std::min(one.length, clip.end() - one.start);
    one.whole =
        one.whole.count() > 0 ? one.whole : micros(seconds(part->length) * part->speed) + part->contentOffset;
    one.layer += clip.layer;
    one.strength *= clip.strength;
    one.seed ^= clip.seed;
    clips.push_back(std::move(one));
  }
  return clips;
}

CompiledClip compileClip(const Clip& clip, std::shared_ptr<const PaletteTable> palette,
                         const MediaLibrary& media) {
  CompiledClip compiled;
  compiled.id = clip.id;
  compiled.effect = findEffect(clip.effect);
  compiled.start = clip.start;
  compiled.length = clip.length;
  compiled.fadeIn = clip.fadeIn;
  compiled.fadeOut = clip.fadeOut;
  compiled.fadeShape = clip.fadeShape;
  compiled.givesWay = clip.givesWay;
  compiled.contentOffset = clip.contentOffset;
  compiled.speed = clip.speed;
  compiled.whole = clip.whole;
  compiled.layer = clip.layer;
  compiled.blend = clip.blend;
  compiled.strength = static_cast<float>(std::clamp(clip.strength, 0.0, 1.0));
  compiled.seed = clip.seed;
  compiled.palette = std::move(palette);
  compiled.paletteShift = clip.paletteShift;
  compiled.paletteTurns = clip.paletteTurns;
  if (!compiled.effect) return compiled;
  const Effect& effect = *compiled.effect;
  compiled.params = ParamPack(effect.params, clip.params);
  if (effect.prepare) compiled.prepared = effect.prepare(compiled.params, media);
  if (effect.roles.source)
    compiled.source = ZoneId{static_cast<std::uint32_t>(compiled.params.number(*effect.roles.source))};
  for (const auto& [key, motion] : clip.motions)
    if (auto made = compileMotion(effect, key, motion)) compiled.motions.push_back(*std::move(made));
  return compiled;
}

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

std::shared_ptr<const CompiledShow> compile(const Show& show, const MusicLibrary& music,
                                            const MediaLibrary& media) {
  auto compiled = std::make_shared<CompiledShow>();
  compiled->light = show.light;
  compiled->map = mapPixels(show);
  compiled->patch = derivePatch(show);
  compiled->power = powerChains(show);
  compiled->budget = std::make_unique<const PowerBudget>(show, compiled->power);
  compiled->packer = std::make_unique<const Packer>(show, compiled->map, compiled->patch, *compiled->budget);
  Compiler compiler(show, music, media, *compiled);
  for (const auto& score : show.scores) compiled->scores.push_back(compiler.compileScore(*score));
  compiled->live = compiler.compileByHand();
  compiled->maxCells = maxCellsOf(*compiled);
  if (compiled->map.count() >= kLargeShow) giveBackMemory();
  return compiled;
}

}  // namespace chispa
