// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/markedits.h"

#include <algorithm>
#include <cmath>
#include <map>

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

void halveMarks(Show& show, ScoreId id, LaneKind kind) {
  changeLane(show, id, kind, [](std::vector<Mark>& marks, const Score&) {
    std::vector<Mark> kept;
    for (std::size_t i = 0; i < marks.size(); i += 2) kept.push_back(marks[i]);
    marks = std::move(kept);
  });
}

void doubleMarks(Show& show, ScoreId id, LaneKind kind) {
  changeLane(show, id, kind, [&show](std::vector<Mark>& marks, const Score&) {
    const std::size_t count = marks.size();
    for (std::size_t i = 0; i + 1 < count; ++i)
      marks.push_back({show.newId<MarkId>(), (marks[i].at + marks[i + 1].at) / 2, {}, Micros(0)});
  });
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
  const auto beats = instantsOf(score, LaneKind::Beats);
  const auto bars = instantsOf(score, LaneKind::Bars);
  std::map<long, int> counts;
  for (std::size_t i = 0; i + 1 < bars.size(); ++i)
    ++counts[std::lower_bound(beats.begin(), beats.end(), bars[i + 1]) -
             std::lower_bound(beats.begin(), beats.end(), bars[i])];
  const auto most = std::max_element(counts.begin(), counts.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == counts.end() || most->first < 1 ? 4 : static_cast<int>(most->first);
}

namespace {

/// Marks at instants of the sound, as the score hears them; what it does not hear is left out.
std::vector<Mark> heardMarks(const Score& score, const std::vector<Micros>& instants) {
  std::vector<Mark> marks;
  for (const Micros at : instants)
    if (const Micros heard = at + score.audioStart; heard.count() >= 0 && heard <= score.length)
      marks.push_back({{}, heard, {}, Micros(0)});
  return marks;
}

}  // namespace

void putBeats(Show& show, ScoreId id, const AnalysedAudio& found) {
  const Score* score = find(show.scores, id);
  if (!score) return;
  auto beats = heardMarks(*score, found.beats.beats), bars = heardMarks(*score, found.beats.bars),
       sections = heardMarks(*score, found.sections);
  for (std::size_t i = 0; i < sections.size(); ++i)
    sections[i].text = std::string(1, static_cast<char>('A' + i % 26));
  putMarks(show, id, LaneKind::Beats, "Beats", std::move(beats));
  putMarks(show, id, LaneKind::Bars, "Bars", std::move(bars));
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

}  // namespace chispa
