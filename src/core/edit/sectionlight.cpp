// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/sectionlight.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

#include "core/edit/clipcuts.h"
#include "core/edit/layerallocator.h"
#include "core/music/features.h"

namespace chispa {
namespace {

constexpr std::array kMoods = {"", "quiet", "rise", "full", "end"};
constexpr Micros kShortest{20'000};

/// A name without the last word, where that is a number or a mood.
std::string kindOf(const std::string& name) {
  const std::size_t space = name.rfind(' ');
  if (space == std::string::npos || space == 0) return name;
  const std::string last = name.substr(space + 1);
  const bool isNumber = !last.empty() && std::all_of(last.begin(), last.end(),
                                                     [](unsigned char c) { return std::isdigit(c) != 0; });
  const bool isMood = std::find(kMoods.begin() + 1, kMoods.end(), last) != kMoods.end();
  return isNumber || isMood ? name.substr(0, space) : name;
}

/// Whole bars that a stretch has, at least one.
int barsOf(const MusicGrid& grid, TimeSpan span) {
  return std::max(1, static_cast<int>(std::lround(grid.barAt(span.end()) - grid.barAt(span.from))));
}

/// Leaves `span` without clips: those that reach into it are cut.
void clear(Show& show, Score& score, TimeSpan span) {
  std::vector<std::shared_ptr<const Clip>> kept;
  for (const auto& clip : score.clips) {
    if (clip->end() <= span.from || clip->start >= span.end()) {
      kept.push_back(clip);
      continue;
    }
    if (clip->start < span.from - kShortest) {
      Clip before = *clip;
      cutBehind(before, span.from);
      kept.push_back(std::make_shared<const Clip>(std::move(before)));
    }
    if (clip->end() > span.end() + kShortest) {
      Clip behind = *clip;
      cutBefore(behind, span.end());
      if (clip->start < span.from - kShortest) behind.id = show.newId<ClipId>();
      kept.push_back(std::make_shared<const Clip>(std::move(behind)));
    }
  }
  score.clips = std::move(kept);
}

/// The light of a stretch of a score, to be laid over others, of the same score or of another.
class SectionLight {
 public:
  SectionLight(const Score& score, TimeSpan from)
      : grid_(instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars)),
        from_(from),
        bars_(barsOf(grid_, from)) {
    for (const auto& clip : score.clips) {
      if (clip->end() <= from.from || clip->start >= from.end()) continue;
      Clip own = *clip;
      if (own.start < from.from) cutBefore(own, from.from);
      if (own.end() > from.end()) cutBehind(own, from.end());
      if (own.length >= kShortest) clips_.push_back(std::move(own));
    }
  }

  void layOver(Show& show, Score& score, TimeSpan to, ClipList& made) const {
    LayerAllocator layers(score);
    const MusicGrid there(instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars));
    const int bars = barsOf(there, to);
    for (int round = 0; round * bars_ < bars; ++round)
      for (const Clip& clip : clips_) {
        if (isOverAll(clip) && round > 0) continue;
        Clip copy = clip;
        copy.start = moved(clip.start, there, to, round);
        const Micros end =
            isOverAll(clip) ? to.end() : std::min(to.end(), moved(clip.end(), there, to, round));
        if (end - copy.start < kShortest) continue;
        adapt(copy, end - copy.start);
        copy.id = show.newId<ClipId>();
        copy.layer = layers.take(copy.zone, copy.start, copy.end(), clip.layer);
        made.push_back(copy.id);
        score.clips.push_back(std::make_shared<const Clip>(std::move(copy)));
      }
  }

 private:
  bool isOverAll(const Clip& clip) const {
    return clip.start <= from_.from + kShortest && clip.end() >= from_.end() - kShortest;
  }
  /// Where an instant of the stretch lies in `to`, the `round`-th time that it is played there.
  Micros moved(Micros at, const MusicGrid& there, TimeSpan to, int round) const {
    const double bar = grid_.barAt(at) - grid_.barAt(from_.from) + round * bars_;
    return there.barStart(there.barAt(to.from) + bar);
  }
  /// Gives a clip another length; effects that run over the whole of it still do.
  static void adapt(Clip& clip, Micros length) {
    const double ratio = static_cast<double>(length.count()) / static_cast<double>(clip.length.count());
    // Tempo that drifts is not worth a cut.
    constexpr double kMuch = 1.25;
    if (ratio < 1 && ratio * kMuch < 1)
      cutBehind(clip, clip.start + length);
    else
      clip.length = length;
    clip.fadeIn = std::min(clip.fadeIn, length);
    clip.fadeOut = std::min(clip.fadeOut, length - clip.fadeIn);
  }

  MusicGrid grid_;
  TimeSpan from_;
  int bars_;
  std::vector<Clip> clips_;
};

}  // namespace

std::string sectionName(const FoundSection& section) {
  std::string name;
  // After Z come AA, AB …
  for (int rest = section.letter; rest >= 0; rest = rest / 26 - 1)
    name.insert(name.begin(), static_cast<char>('A' + rest % 26));
  const std::string mood = kMoods[static_cast<std::size_t>(section.mood)];
  return mood.empty() ? name : name + " " + mood;
}

bool areAlike(const std::string& name, const std::string& other) {
  return !name.empty() && kindOf(name) == kindOf(other);
}

std::vector<TimeSpan> sectionsLike(const Score& score, Micros at) {
  std::vector<TimeSpan> spans;
  const MarkLane* lane = laneOf(score, LaneKind::Sections);
  if (!lane) return spans;
  const TimeSpan own = sectionAt(score, at);
  const auto mark =
      std::find_if(lane->marks.begin(), lane->marks.end(), [&](const Mark& m) { return m.at == own.from; });
  if (mark == lane->marks.end()) return spans;
  for (const Mark& other : lane->marks)
    if (other.at != own.from && areAlike(mark->text, other.text)) spans.push_back(sectionAt(score, other.at));
  return spans;
}

ClipList copySectionLight(Show& show, ScoreId id, Micros at) {
  ClipList made;
  const Score* score = find(show.scores, id);
  if (!score) return made;
  const SectionLight light(*score, sectionAt(*score, at));
  const auto others = sectionsLike(*score, at);
  changeItem(show.scores, id, [&](Score& changed) {
    for (const TimeSpan& span : others) {
      clear(show, changed, span);
      light.layOver(show, changed, span, made);
    }
  });
  return made;
}

ClipList takeLightOf(Show& show, ScoreId id, ScoreId from) {
  ClipList made;
  const Score* found = find(show.scores, from);
  if (!found || from == id) return made;
  const auto isAnothers = [&](ZoneId one) {
    const Zone* zone = find(show.zones, one);
    return zone && zone->score && zone->score != id;
  };
  Score model = *found;
  std::erase_if(model.staves, isAnothers);
  std::erase_if(model.clips, [&](const auto& clip) { return isAnothers(clip->zone); });
  for (StaveFolder& folder : model.folders) std::erase_if(folder.zones, isAnothers);
  const SectionLight light(model, {Micros(0), model.length});
  changeItem(show.scores, id, [&](Score& changed) {
    // Its own zones keep their staves below.
    for (const ZoneId zone : changed.staves)
      if (std::find(model.staves.begin(), model.staves.end(), zone) == model.staves.end())
        model.staves.push_back(zone);
    changed.staves = model.staves;
    changed.folders = model.folders;
    const TimeSpan whole{Micros(0), changed.length};
    clear(show, changed, whole);
    light.layOver(show, changed, whole, made);
  });
  return made;
}

}  // namespace chispa
