// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/clipedits.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/base/hash.h"
#include "core/edit/clipcuts.h"
#include "core/edit/layerallocator.h"
#include "core/effect/effect.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

constexpr Micros kShortest{20'000};

Micros times(Micros time, double factor) {
  return Micros(static_cast<std::int64_t>(std::llround(static_cast<double>(time.count()) * factor)));
}

std::vector<Clip> clipsOf(const Score& score, const ClipList& ids) {
  std::vector<Clip> clips;
  eachClip(score, ClipSet(ids.begin(), ids.end()), [&](const Clip& clip) {
    clips.push_back(clip);
    return true;
  });
  return clips;
}

ClipId addCopy(Show& show, Score& score, LayerAllocator& layers, Clip clip) {
  clip.id = show.newId<ClipId>();
  clip.layer = layers.take(clip.zone, clip.start, clip.end(), 0);
  const ClipId id = clip.id;
  if (std::find(score.staves.begin(), score.staves.end(), clip.zone) == score.staves.end())
    score.staves.push_back(clip.zone);
  score.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
  return id;
}

void moveMarks(Score& score, Micros from, Micros gone, Micros by) {
  for (MarkLane& lane : score.lanes) {
    std::erase_if(lane.marks, [&](const Mark& mark) { return mark.at >= from && mark.at < from + gone; });
    for (Mark& mark : lane.marks)
      if (mark.at >= from + gone) mark.at += by;
  }
}

template <class Change>
int replaceWhere(Show& show, ScoreId id, TimeSpan span, Change change) {
  int count = 0;
  changeItem(show.scores, id, [&](Score& score) {
    for (auto& clip : score.clips) {
      if (clip->start < span.from || clip->start >= span.end()) continue;
      Clip changed = *clip;
      if (!change(changed)) continue;
      clip = std::make_shared<const Clip>(std::move(changed));
      ++count;
    }
  });
  return count;
}

}  // namespace

void stretchClips(Show& show, ScoreId score, const ClipList& ids, Micros pivot, double factor) {
  if (factor <= 0) return;
  changeClips(show, score, ids, [&](Clip& clip) {
    clip.start = std::max(Micros(0), pivot + times(clip.start - pivot, factor));
    clip.length = std::max(kShortest, times(clip.length, factor));
    clip.fadeIn = times(clip.fadeIn, factor);
    clip.fadeOut = times(clip.fadeOut, factor);
    clip.speed = std::clamp(clip.speed / factor, limits::kSlowest, limits::kFastest);
  });
}

void shiftContent(Show& show, ScoreId score, const ClipList& ids, Micros by) {
  changeClips(show, score, ids, [by](Clip& clip) { clip.contentOffset += by; });
}

ClipList splitClips(Show& show, ScoreId id, const ClipList& ids, Micros at) {
  const ClipSet wanted(ids.begin(), ids.end());
  ClipList right;
  changeItem(show.scores, id, [&](Score& score) {
    for (std::size_t i = 0, count = score.clips.size(); i < count; ++i) {
      const auto whole = score.clips[i];
      if (!wanted.contains(whole->id) || at <= whole->start || at >= whole->end()) continue;
      Clip first = *whole;
      Clip second = *whole;
      cutBehind(first, at);
      cutBefore(second, at);
      second.id = show.newId<ClipId>();
      right.push_back(second.id);
      score.clips[i] = std::make_shared<const Clip>(std::move(first));
      score.clips.push_back(std::make_shared<const Clip>(std::move(second)));
    }
  });
  return right;
}

void rippleDelete(Show& show, ScoreId id, TimeSpan span) {
  changeItem(show.scores, id, [&](Score& score) {
    std::vector<std::shared_ptr<const Clip>> kept;
    for (const auto& old : score.clips) {
      Clip clip = *old;
      if (clip.start >= span.from && clip.end() <= span.end()) continue;
      if (clip.start >= span.end()) {
        clip.start -= span.length;
      } else if (clip.end() > span.end() && clip.start >= span.from) {
        cutBefore(clip, span.end());
        clip.start = span.from;
      } else if (clip.end() > span.end()) {
        clip.length -= span.length;
      } else if (clip.end() > span.from) {
        cutBehind(clip, span.from);
      }
      kept.push_back(clip == *old ? old : std::make_shared<const Clip>(std::move(clip)));
    }
    score.clips = std::move(kept);
    moveMarks(score, span.from, span.length, -span.length);
    score.length = std::max(
        Micros(0), score.length - std::min(span.length, std::max(Micros(0), score.length - span.from)));
  });
}

void rippleInsert(Show& show, ScoreId id, TimeSpan span) {
  changeItem(show.scores, id, [&](Score& score) {
    for (auto& old : score.clips) {
      if (old->start < span.from) continue;
      Clip clip = *old;
      clip.start += span.length;
      old = std::make_shared<const Clip>(std::move(clip));
    }
    moveMarks(score, span.from, Micros(0), span.length);
    score.length += span.length;
  });
}

ClipList repeatUntil(Show& show, ScoreId id, const ClipList& ids, Micros end) {
  ClipList copies;
  changeItem(show.scores, id, [&](Score& score) {
    const TimeSpan span = spanOf(score, ids);
    if (span.length < kShortest) return;
    LayerAllocator layers(score);
    const auto originals = clipsOf(score, ids);
    for (Micros by = span.length; span.from + by < end; by += span.length)
      for (Clip clip : originals) {
        clip.start += by;
        if (clip.start >= end) continue;
        if (clip.end() > end) cutBehind(clip, end);
        copies.push_back(addCopy(show, score, layers, std::move(clip)));
      }
  });
  return copies;
}

ClipList pasteClips(Show& show, ScoreId id, const std::vector<Clip>& clips, Micros at, ZoneId zone) {
  ClipList pasted;
  if (clips.empty()) return pasted;
  Micros first = clips.front().start;
  for (const Clip& clip : clips) first = std::min(first, clip.start);
  const bool isOneZone = std::all_of(clips.begin(), clips.end(),
                                     [&](const Clip& clip) { return clip.zone == clips.front().zone; });
  changeItem(show.scores, id, [&](Score& score) {
    LayerAllocator layers(score);
    for (Clip clip : clips) {
      clip.start = std::max(Micros(0), at + clip.start - first);
      if (zone && isOneZone) clip.zone = zone;
      pasted.push_back(addCopy(show, score, layers, std::move(clip)));
    }
  });
  return pasted;
}

ClipList fillInstants(Show& show, ScoreId id, const Clip& pattern, const Fill& fill) {
  ClipList made;
  if (fill.zones.empty()) return made;
  const auto step = static_cast<std::size_t>(std::max(1, fill.every));
  changeItem(show.scores, id, [&](Score& score) {
    LayerAllocator layers(score);
    for (std::size_t i = 0; i < fill.instants.size(); i += step) {
      const Micros end = i + step < fill.instants.size() ? fill.instants[i + step] : fill.end;
      if (end - fill.instants[i] < kShortest) continue;
      Clip clip = pattern;
      clip.start = fill.instants[i];
      clip.length = end - clip.start;
      clip.zone = fill.zones[(i / step) % fill.zones.size()];
      clip.fadeIn = std::min(clip.fadeIn, clip.length / 2);
      clip.fadeOut = std::min(clip.fadeOut, clip.length / 2);
      clip.seed = static_cast<std::uint32_t>(mixBits(pattern.seed + i) >> 40);
      made.push_back(addCopy(show, score, layers, std::move(clip)));
    }
  });
  return made;
}

void randomise(Show& show, ScoreId score, const ClipList& ids, double share, std::uint32_t seed) {
  changeClips(show, score, ids, [&](Clip& clip) {
    const Effect* effect = findEffect(clip.effect);
    if (!effect) return;
    const ParamPack now(effect->params, clip.params);
    for (std::size_t i = 0; i < effect->params.size(); ++i) {
      const ParamSpec& spec = effect->params[i];
      if (spec.kind != ParamKind::Number || !spec.onlyIf.empty()) continue;
      const double luck = 2 * static_cast<double>(chance(seed, clip.id.value, i)) - 1;
      const double value =
          std::clamp(now.number(i) + luck * share * (spec.high - spec.low), spec.low, spec.high);
      clip.params[spec.key] = std::round(value / spec.step) * spec.step;
    }
    clip.seed = static_cast<std::uint32_t>(mixBits(seed + clip.id.value) >> 40);
  });
}

int replaceEffect(Show& show, ScoreId score, TimeSpan span, const std::string& from, const std::string& to) {
  return replaceWhere(show, score, span, [&](Clip& clip) {
    if (clip.effect != from || clip.block) return false;
    clip.effect = to;
    return true;
  });
}

int replacePalette(Show& show, ScoreId score, TimeSpan span, PaletteId from, PaletteId to) {
  return replaceWhere(show, score, span, [&](Clip& clip) {
    if (clip.palette != from) return false;
    clip.palette = to;
    return true;
  });
}

BlockId makeBlock(Show& show, ScoreId id, const ClipList& ids, const std::string& name, BlockId into) {
  const Score* found = find(show.scores, id);
  if (!found) return {};
  auto clips = clipsOf(*found, ids);
  std::erase_if(clips, [](const Clip& clip) { return static_cast<bool>(clip.block); });
  if (clips.empty()) return {};
  const TimeSpan span = spanOf(*found, ids);
  const bool isOneZone = std::all_of(clips.begin(), clips.end(),
                                     [&](const Clip& clip) { return clip.zone == clips.front().zone; });
  const Block* before = find(show.blocks, into);
  Block block{before ? into : show.newId<BlockId>(),
              before ? before->name : freeName(show.blocks, name),
              span.length,
              {}};
  Clip place;
  place.zone = clips.front().zone;
  place.start = span.from;
  place.length = span.length;
  place.block = block.id;
  place.id = show.newId<ClipId>();
  int lowest = clips.front().layer;
  for (const Clip& clip : clips) lowest = std::min(lowest, clip.layer);
  place.layer = isOneZone ? lowest : 0;
  for (Clip clip : clips) {
    clip.start -= span.from;
    if (isOneZone) clip.zone = {};
    if (isOneZone) clip.layer -= lowest;
    block.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
  }
  put(show.blocks, block);
  ClipSet gone;
  for (const Clip& clip : clips) gone.insert(clip.id);
  changeItem(show.scores, id, [&](Score& score) {
    std::erase_if(score.clips, [&](const auto& clip) { return gone.contains(clip->id); });
    score.clips.push_back(std::make_shared<const Clip>(place));
  });
  return block.id;
}

ClipId placeBlock(Show& show, ScoreId id, BlockId blockId, ZoneId zone, Micros at) {
  const Block* block = find(show.blocks, blockId);
  if (!block) return {};
  Clip place;
  place.zone = zone;
  place.start = at;
  place.length = block->length;
  place.block = blockId;
  ClipId made;
  changeItem(show.scores, id, [&](Score& score) {
    LayerAllocator layers(score);
    place.seed = show.nextId;
    made = addCopy(show, score, layers, place);
  });
  return made;
}

ClipList dissolveBlock(Show& show, ScoreId id, ClipId clipId) {
  ClipList made;
  const Score* found = find(show.scores, id);
  const Clip* place = found ? find(found->clips, clipId) : nullptr;
  const Block* block = place ? find(show.blocks, place->block) : nullptr;
  if (!block) return made;
  const Clip instance = *place;
  const Block parts = *block;
  changeItem(show.scores, id, [&](Score& score) {
    remove(score.clips, clipId);
    LayerAllocator layers(score);
    for (const auto& part : parts.clips) {
      Clip clip = *part;
      clip.zone = part->zone ? part->zone : instance.zone;
      clip.start += instance.start;
      if (clip.start >= instance.end()) continue;
      if (clip.end() > instance.end()) cutBehind(clip, instance.end());
      made.push_back(addCopy(show, score, layers, std::move(clip)));
    }
  });
  return made;
}

OwnEffectId saveOwnEffect(Show& show, const Clip& clip, const std::string& name) {
  const OwnEffect own{show.newId<OwnEffectId>(), freeName(show.ownEffects, name), clip.effect, clip.params};
  put(show.ownEffects, own);
  return own.id;
}

bool deleteBlock(Show& show, BlockId block) {
  for (const auto& score : show.scores)
    for (const auto& clip : score->clips)
      if (clip->block == block) return false;
  remove(show.blocks, block);
  return true;
}

TimeSpan spanOf(const Score& score, const ClipList& ids) {
  std::optional<Micros> from;
  Micros end{0};
  eachClip(score, ClipSet(ids.begin(), ids.end()), [&](const Clip& clip) {
    from = std::min(from.value_or(clip.start), clip.start);
    end = std::max(end, clip.end());
    return true;
  });
  return from ? TimeSpan{*from, end - *from} : TimeSpan{};
}

TimeSpan sectionAt(const Score& score, Micros at) {
  TimeSpan section{Micros(0), score.length};
  const MarkLane* lane = laneOf(score, LaneKind::Sections);
  if (!lane) return section;
  for (const Mark& mark : lane->marks) {
    if (mark.at <= at) {
      section = {mark.at, score.length - mark.at};
    } else {
      section.length = mark.at - section.from;
      break;
    }
  }
  return section;
}

}  // namespace chispa
