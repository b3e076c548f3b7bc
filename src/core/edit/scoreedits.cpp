// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/scoreedits.h"

#include <algorithm>

#include "core/edit/clipedits.h"
#include "core/edit/layerallocator.h"
#include "core/edit/markedits.h"

namespace chispa {
namespace {

void sortMarks(MarkLane& lane) {
  std::stable_sort(lane.marks.begin(), lane.marks.end(),
                   [](const Mark& a, const Mark& b) { return a.at < b.at; });
}

}  // namespace

ScoreId addScore(Show& show, const std::string& name, const std::string& audio, Micros length) {
  Score score;
  score.id = show.newId<ScoreId>();
  score.name = freeName(show.scores, name);
  score.audio = audio;
  score.length = length;
  for (const auto& zone : show.zones) score.staves.push_back(zone->id);
  put(show.scores, score);
  return score.id;
}

Micros silentLength(double beatsPerMinute, int beatsPerBar, int bars) {
  return micros(60 / beatsPerMinute * beatsPerBar * bars);
}

ScoreId addSilentScore(Show& show, const std::string& name, double beatsPerMinute, int beatsPerBar,
                       int bars) {
  const ScoreId id = addScore(show, name, {}, Micros(0));
  setSilentLength(show, id, beatsPerMinute, beatsPerBar, bars);
  return id;
}

void setSilentLength(Show& show, ScoreId id, double beatsPerMinute, int beatsPerBar, int bars) {
  changeItem(show.scores, id,
             [&](Score& score) { score.length = silentLength(beatsPerMinute, beatsPerBar, bars); });
  BeatMarks grid;
  for (int beat = 0; beat < beatsPerBar * bars; ++beat) {
    const Micros at = micros(60 / beatsPerMinute * beat);
    grid.beats.push_back(at);
    if (beat % beatsPerBar == 0) grid.bars.push_back(at);
  }
  putReading(show, id, grid);
}

ClipId addClip(Show& show, ScoreId id, ZoneId zone, const std::string& effect, PaletteId palette,
               Micros start, Micros length) {
  const ClipId clipId = show.newId<ClipId>();
  changeItem(show.scores, id, [&](Score& score) {
    Clip clip;
    clip.id = clipId;
    clip.zone = zone;
    clip.effect = effect;
    clip.palette = palette;
    clip.start = start;
    clip.length = length;
    clip.layer = LayerAllocator(score).take(zone, start, start + length, 0);
    clip.seed = clipId.value;
    score.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
    if (std::find(score.staves.begin(), score.staves.end(), zone) == score.staves.end())
      score.staves.push_back(zone);
  });
  return clipId;
}

void deleteClips(Show& show, ScoreId id, const std::vector<ClipId>& ids) {
  const ClipSet gone(ids.begin(), ids.end());
  changeItem(show.scores, id, [&](Score& score) {
    std::erase_if(score.clips, [&](const auto& clip) { return gone.contains(clip->id); });
  });
}

std::vector<ClipId> duplicateClips(Show& show, ScoreId id, const std::vector<ClipId>& ids) {
  std::vector<ClipId> copies;
  changeItem(show.scores, id, [&](Score& score) {
    LayerAllocator layers(score);
    for (const ClipId clipId : ids) {
      const Clip* original = findClip(score, clipId);
      if (!original) continue;
      Clip copy = *original;
      copy.id = show.newId<ClipId>();
      copy.start = original->end();
      copy.layer = layers.take(copy.zone, copy.start, copy.end(), 0);
      copies.push_back(copy.id);
      score.clips.push_back(std::make_shared<const Clip>(std::move(copy)));
    }
  });
  return copies;
}

void moveClips(Show& show, ScoreId score, const std::vector<ClipId>& ids, Micros by) {
  changeClips(show, score, ids, [by](Clip& clip) { clip.start = std::max(Micros(0), clip.start + by); });
}

MarkId addMark(Show& show, ScoreId id, LaneKind kind, const std::string& laneName, Micros at,
               const std::string& text) {
  const MarkId mark = show.newId<MarkId>();
  const LaneId newLane = show.newId<LaneId>();
  changeItem(show.scores, id, [&](Score& score) {
    auto lane = std::find_if(score.lanes.begin(), score.lanes.end(),
                             [kind](const MarkLane& l) { return l.kind == kind; });
    if (lane == score.lanes.end())
      lane = score.lanes.insert(score.lanes.end(), MarkLane{newLane, laneName, kind, {}});
    lane->marks.push_back({mark, at, text, Micros(0)});
    sortMarks(*lane);
  });
  return mark;
}

void deleteMark(Show& show, ScoreId score, MarkId id) {
  changeItem(show.scores, score, [id](Score& s) {
    for (MarkLane& lane : s.lanes)
      std::erase_if(lane.marks, [id](const Mark& mark) { return mark.id == id; });
  });
}

void changeMark(Show& show, ScoreId score, MarkId id, const std::function<void(Mark&)>& change) {
  changeItem(show.scores, score, [&](Score& s) {
    for (MarkLane& lane : s.lanes)
      for (Mark& mark : lane.marks) {
        if (mark.id != id) continue;
        change(mark);
        mark.at = std::max(Micros(0), mark.at);
        return sortMarks(lane);
      }
  });
}

void moveMark(Show& show, ScoreId score, MarkId id, Micros to) {
  changeMark(show, score, id, [to](Mark& mark) { mark.at = to; });
}

MarkPlace findMark(const Score& score, MarkId id) {
  for (const MarkLane& lane : score.lanes)
    for (const Mark& mark : lane.marks)
      if (mark.id == id) return {&lane, &mark};
  return {};
}

PaletteId addPalette(Show& show, const std::string& name, std::vector<ColourStop> stops) {
  const PaletteId id = show.newId<PaletteId>();
  put(show.palettes, Palette{id, freeName(show.palettes, name), std::move(stops)});
  return id;
}

std::vector<Micros> snapPoints(const Score& score, const std::vector<ClipId>& without) {
  std::vector<Micros> points = {Micros(0)};
  for (const MarkLane& lane : score.lanes)
    for (const Mark& mark : lane.marks) points.push_back(mark.at);
  const ClipSet passedOver(without.begin(), without.end());
  for (const auto& clip : score.clips) {
    if (passedOver.contains(clip->id)) continue;
    points.push_back(clip->start);
    points.push_back(clip->end());
  }
  return points;
}

std::optional<Micros> snapped(const std::vector<Micros>& points, Micros at, Micros reach) {
  std::optional<Micros> best;
  for (const Micros point : points) {
    const Micros away = std::chrono::abs(point - at);
    if (away <= reach && (!best || away < std::chrono::abs(*best - at))) best = point;
  }
  return best;
}

}  // namespace chispa
