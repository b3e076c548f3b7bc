// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/markgroup.h"

#include <algorithm>
#include <cmath>
#include <unordered_set>

#include "core/edit/scoreedits.h"

namespace chispa {
namespace {

constexpr std::int64_t kMost_us = 24LL * 3600 * 1'000'000;

Micros held(double at_us) {
  return Micros(
      static_cast<std::int64_t>(std::llround(std::clamp(at_us, 0.0, static_cast<double>(kMost_us)))));
}

/// The chosen marks of a score, the earliest first.
std::vector<Mark*> chosen(Score& score, const std::vector<MarkId>& marks) {
  const std::unordered_set<MarkId> wanted(marks.begin(), marks.end());
  std::vector<Mark*> found;
  for (MarkLane& lane : score.lanes)
    for (Mark& mark : lane.marks)
      if (wanted.contains(mark.id)) found.push_back(&mark);
  std::stable_sort(found.begin(), found.end(), [](const Mark* a, const Mark* b) { return a->at < b->at; });
  return found;
}

template <class F>
void changeMarks(Show& show, ScoreId id, const std::vector<MarkId>& marks, F change) {
  changeItem(show.scores, id, [&](Score& score) {
    const auto found = chosen(score, marks);
    if (found.empty()) return;
    change(found);
    for (MarkLane& lane : score.lanes)
      std::stable_sort(lane.marks.begin(), lane.marks.end(),
                       [](const Mark& a, const Mark& b) { return a.at < b.at; });
  });
}

}  // namespace

void moveMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, Micros by) {
  changeMarks(show, score, marks, [by](const std::vector<Mark*>& found) {
    const Micros step = std::clamp(by, -found.front()->at, Micros(kMost_us) - found.back()->at);
    for (Mark* mark : found) mark->at += step;
  });
}

void spreadMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks) {
  changeMarks(show, score, marks, [](const std::vector<Mark*>& found) {
    if (found.size() < 3) return;
    const auto first = static_cast<double>(found.front()->at.count());
    const auto length = static_cast<double>(found.back()->at.count()) - first;
    for (std::size_t i = 0; i < found.size(); ++i)
      found[i]->at = held(first + length * static_cast<double>(i) / static_cast<double>(found.size() - 1));
  });
}

void stretchMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, double factor) {
  if (!(factor > 0)) return;
  changeMarks(show, score, marks, [factor](const std::vector<Mark*>& found) {
    const auto first = static_cast<double>(found.front()->at.count());
    for (Mark* mark : found) {
      mark->at = held(first + (static_cast<double>(mark->at.count()) - first) * factor);
      mark->length = held(static_cast<double>(mark->length.count()) * factor);
    }
  });
}

void quantiseMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, LaneKind grid) {
  const Score* own = find(show.scores, score);
  const MarkLane* lane = own ? laneOf(*own, grid) : nullptr;
  if (!lane || lane->marks.empty()) return;
  std::vector<Micros> beats;
  for (const Mark& mark : lane->marks) beats.push_back(mark.at);
  changeMarks(show, score, marks, [&beats](const std::vector<Mark*>& found) {
    for (Mark* mark : found) {
      const auto after = std::lower_bound(beats.begin(), beats.end(), mark->at);
      const auto near = after == beats.begin() ? after
                        : after == beats.end() || mark->at - *std::prev(after) <= *after - mark->at
                            ? std::prev(after)
                            : after;
      mark->at = *near;
    }
  });
}

void deleteMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks) {
  for (const MarkId id : marks) deleteMark(show, score, id);
}

std::vector<MarkId> marksBetween(const Score& score, MarkId one, MarkId other) {
  for (const MarkLane& lane : score.lanes) {
    const auto at = [&](MarkId id) {
      return std::find_if(lane.marks.begin(), lane.marks.end(), [id](const Mark& m) { return m.id == id; });
    };
    auto first = at(one), last = at(other);
    if (first == lane.marks.end() || last == lane.marks.end()) continue;
    if (last < first) std::swap(first, last);
    std::vector<MarkId> between;
    for (; first <= last; ++first) between.push_back(first->id);
    return between;
  }
  return {};
}

}  // namespace chispa
