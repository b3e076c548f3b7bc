// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/markedits.h"

#include <algorithm>
#include <cmath>

#include "core/edit/sectionlight.h"
#include "core/music/analysis.h"

namespace chispa {
namespace {

template <class F>
void changeLane(Show& show, ScoreId id, LaneKind kind, F change) {
  changeItem(show.scores, id, [&](Score& score) {
    for (MarkLane& lane : score.lanes)
      if (lane.kind == kind) {
        change(lane.marks, score);
        std::stable_sort(lane.marks.begin(), lane.marks.end(),
                         [](const Mark& a, const Mark& b) { return a.at < b.at; });
        return;
      }
  });
}

std::vector<Mark> marksAt(const std::vector<Micros>& instants) {
  std::vector<Mark> marks;
  for (const Micros at : instants) marks.push_back({{}, at, {}, Micros(0)});
  return marks;
}

std::size_t nearestOf(const std::vector<Micros>& instants, Micros at) {
  const auto after = std::lower_bound(instants.begin(), instants.end(), at);
  if (after == instants.end()) return instants.size() - 1;
  if (after == instants.begin()) return 0;
  return static_cast<std::size_t>(after - instants.begin()) - (at - *std::prev(after) < *after - at ? 1 : 0);
}

/// Marks at instants of the sound, as the score hears them; what it does not hear is left out.
std::vector<Mark> heardMarks(const Score& score, const std::vector<Micros>& instants) {
  std::vector<Mark> marks;
  for (const Micros at : instants)
    if (const Micros heard = at + score.audioStart; heard.count() >= 0 && heard <= score.length)
      marks.push_back({{}, heard, {}, Micros(0)});
  return marks;
}

/// The same of things that were found, with their names.
template <class Found, class NameOf>
std::vector<Mark> namedMarks(const Score& score, const std::vector<Found>& found, NameOf nameOf) {
  std::vector<Mark> marks;
  for (const Found& one : found)
    for (Mark& mark : heardMarks(score, {one.at})) {
      mark.text = nameOf(one);
      marks.push_back(std::move(mark));
    }
  return marks;
}

}  // namespace

LaneId putMarks(Show& show, ScoreId id, LaneKind kind, const std::string& name, std::vector<Mark> marks) {
  for (Mark& mark : marks) mark.id = show.newId<MarkId>();
  std::stable_sort(marks.begin(), marks.end(), [](const Mark& a, const Mark& b) { return a.at < b.at; });
  LaneId made;
  const LaneId fresh = show.newId<LaneId>();
  changeItem(show.scores, id, [&](Score& score) {
    auto lane = std::find_if(score.lanes.begin(), score.lanes.end(),
                             [kind](const MarkLane& l) { return l.kind == kind; });
    if (lane == score.lanes.end())
      lane = score.lanes.insert(score.lanes.end(), MarkLane{fresh, name, kind, {}});
    lane->marks = std::move(marks);
    made = lane->id;
  });
  return made;
}

void deleteLane(Show& show, ScoreId id, LaneId lane) {
  changeItem(show.scores, id, [lane](Score& score) {
    std::erase_if(score.lanes, [lane](const MarkLane& l) { return l.id == lane; });
  });
}

void shiftMarks(Show& show, ScoreId id, LaneKind kind, Micros by) {
  changeLane(show, id, kind, [by](std::vector<Mark>& marks, const Score&) {
    for (Mark& mark : marks) mark.at += by;
    std::erase_if(marks, [](const Mark& mark) { return mark.at.count() < 0; });
  });
}

namespace {

/// Puts beats and bars of the sound into the score's lanes.
void putHeard(Show& show, const Score& score, const BeatMarks& heard) {
  auto beats = heardMarks(score, heard.beats), bars = heardMarks(score, heard.bars);
  const ScoreId id = score.id;
  putMarks(show, id, LaneKind::Beats, "Beats", std::move(beats));
  putMarks(show, id, LaneKind::Bars, "Bars", std::move(bars));
}

}  // namespace

BeatMarks beatMarksOf(const Score& score) {
  return {instantsOf(score, LaneKind::Beats), instantsOf(score, LaneKind::Bars)};
}

void putReading(Show& show, ScoreId id, const BeatMarks& reading) {
  putMarks(show, id, LaneKind::Beats, "Beats", marksAt(reading.beats));
  putMarks(show, id, LaneKind::Bars, "Bars", marksAt(reading.bars));
}

void countBeats(Show& show, ScoreId id, BeatLevel level, Micros from) {
  if (const Score* score = find(show.scores, id))
    putReading(show, id, counted(beatMarksOf(*score), level, from));
}

bool settleBeats(Show& show, ScoreId id, const AnalysedAudio& heard, const std::vector<Micros>& tapped) {
  const Score* score = find(show.scores, id);
  if (!score || tapped.size() < 3) return false;
  BeatWish wish;
  for (const Micros at : tapped) wish.bar.push_back(at - score->audioStart);
  wish.tempo_bpm = 60.0 * static_cast<double>(tapped.size() - 1) / seconds(tapped.back() - tapped.front());
  const FoundBeats found = findBeats(heard.chances, wish);
  if (found.beats.empty()) return false;
  putHeard(show, *score, found);
  return true;
}

void setDownBeat(Show& show, ScoreId id, Micros at, int perBar) {
  const Score* score = find(show.scores, id);
  if (!score || perBar < 1) return;
  const auto beats = instantsOf(*score, LaneKind::Beats);
  if (beats.empty()) return;
  std::vector<Micros> bars;
  const auto step = static_cast<std::size_t>(perBar);
  for (std::size_t i = nearestOf(beats, at) % step; i < beats.size(); i += step) bars.push_back(beats[i]);
  putMarks(show, id, LaneKind::Bars, "Bars", marksAt(bars));
}

void makeGrid(Show& show, ScoreId id, Micros first, Micros second, int count, int perBar) {
  const Score* score = find(show.scores, id);
  constexpr Micros kShortestBeat{100'000};
  if (!score || count < 1 || perBar < 1) return;
  const double beat = static_cast<double>((second - first).count()) / count;
  if (beat < static_cast<double>(kShortestBeat.count())) return;
  std::vector<Micros> beats, bars;
  const auto from = static_cast<long>(-std::floor(static_cast<double>(first.count()) / beat));
  for (long n = from;; ++n) {
    const Micros at = first + Micros(static_cast<std::int64_t>(std::llround(static_cast<double>(n) * beat)));
    if (at > score->length) break;
    if (at.count() < 0) continue;
    beats.push_back(at);
    if (((n % perBar) + perBar) % perBar == 0) bars.push_back(at);
  }
  putMarks(show, id, LaneKind::Beats, "Beats", marksAt(beats));
  putMarks(show, id, LaneKind::Bars, "Bars", marksAt(bars));
}

void tapBeat(Show& show, ScoreId id, Micros at) {
  const Score* score = find(show.scores, id);
  if (!score) return;
  const auto beats = instantsOf(*score, LaneKind::Beats);
  if (beats.empty()) {
    putMarks(show, id, LaneKind::Beats, "Beats", marksAt({at}));
    return;
  }
  const std::size_t nearest = nearestOf(beats, at);
  const Micros gap = beats.size() < 2             ? Micros(500'000)
                     : nearest + 1 < beats.size() ? beats[nearest + 1] - beats[nearest]
                                                  : beats[nearest] - beats[nearest - 1];
  const Micros was = beats[nearest];
  const bool isMoved = std::chrono::abs(at - was) * 5 < gap * 2;
  changeLane(show, id, LaneKind::Beats, [&](std::vector<Mark>& marks, const Score&) {
    if (isMoved)
      marks[nearest].at = at;
    else
      marks.push_back({show.newId<MarkId>(), at, {}, Micros(0)});
  });
  // A bar that began on the beat goes with it.
  if (isMoved)
    changeLane(show, id, LaneKind::Bars, [&](std::vector<Mark>& marks, const Score&) {
      for (Mark& mark : marks)
        if (mark.at == was) mark.at = at;
    });
}

int beatsPerBar(const Score& score) {
  return beatsPerBar(beatMarksOf(score));
}

void putBeats(Show& show, ScoreId id, const AnalysedAudio& found) {
  const Score* score = find(show.scores, id);
  if (!score) return;
  auto sections = namedMarks(*score, found.sections, sectionName);
  putHeard(show, *score, found.beats);
  putMarks(show, id, LaneKind::Sections, "Sections", std::move(sections));
}

void putOnsets(Show& show, ScoreId id, const MusicFeatures& found) {
  constexpr std::pair<LaneKind, const char*> kLanes[] = {{LaneKind::LowOnsets, "Low onsets"},
                                                         {LaneKind::MiddleOnsets, "Middle onsets"},
                                                         {LaneKind::HighOnsets, "High onsets"}};
  for (std::size_t range = 0; range < std::size(kLanes); ++range)
    if (const Score* score = find(show.scores, id))
      putMarks(show, id, kLanes[range].first, kLanes[range].second, heardMarks(*score, found.onsets[range]));
}

void putChords(Show& show, ScoreId id, const FoundHarmony& found) {
  const Score* score = find(show.scores, id);
  if (!score) return;
  const auto nameOf = [](const FoundChord& one) {
    return one.chord ? chordName(*one.chord) : std::string("–");
  };
  putMarks(show, id, LaneKind::Chords, "Chords", namedMarks(*score, found.chords, nameOf));
}

}  // namespace chispa
