// SPDX-License-Identifier: GPL-3.0-or-later
#include "scores.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace chispa::bench {
namespace {

/// Pairs of marks that lie within `tolerance_s` of each other, each mark in one pair at most.
std::size_t pairs(const std::vector<double>& a, const std::vector<double>& b, double tolerance_s) {
  std::size_t count = 0, i = 0, j = 0;
  while (i < a.size() && j < b.size()) {
    if (std::abs(a[i] - b[j]) <= tolerance_s) {
      ++count, ++i, ++j;
    } else if (a[i] < b[j]) {
      ++i;
    } else {
      ++j;
    }
  }
  return count;
}

std::vector<double> between(const std::vector<double>& beats) {
  std::vector<double> halves;
  for (std::size_t i = 1; i < beats.size(); ++i) halves.push_back(0.5 * (beats[i - 1] + beats[i]));
  return halves;
}

std::vector<double> everySecond(const std::vector<double>& beats, std::size_t first) {
  std::vector<double> taken;
  for (std::size_t i = first; i < beats.size(); i += 2) taken.push_back(beats[i]);
  return taken;
}

}  // namespace

double fMeasure(const std::vector<double>& found_s, const std::vector<double>& right_s, double tolerance_s) {
  if (found_s.empty() && right_s.empty()) return 1;
  return 2 * static_cast<double>(pairs(found_s, right_s, tolerance_s)) /
         static_cast<double>(found_s.size() + right_s.size());
}

double fAtAnyLevel(const std::vector<double>& found_s, const std::vector<double>& right_s) {
  const std::vector<double> halves = between(right_s);
  std::vector<double> twice = right_s;
  twice.insert(twice.end(), halves.begin(), halves.end());
  std::sort(twice.begin(), twice.end());
  double best = 0;
  for (const auto& level : {right_s, twice, everySecond(right_s, 0), everySecond(right_s, 1), halves})
    best = std::max(best, fMeasure(found_s, level));
  return best;
}

double shareOn(const std::vector<double>& found_s, const std::vector<double>& right_s) {
  return found_s.empty() ? 0
                         : static_cast<double>(pairs(found_s, right_s, kTolerance_s)) /
                               static_cast<double>(found_s.size());
}

double meanGap(const std::vector<double>& marks_s) {
  return marks_s.size() < 2 ? 0
                            : (marks_s.back() - marks_s.front()) / static_cast<double>(marks_s.size() - 1);
}

double bordersF(const std::vector<LetteredSection>& found, const std::vector<LetteredSection>& right,
                double bar_s) {
  const auto borders = [](const std::vector<LetteredSection>& sections) {
    std::vector<double> at;
    for (std::size_t i = 1; i < sections.size(); ++i) at.push_back(sections[i].from_s);
    return at;
  };
  return fMeasure(borders(found), borders(right), bar_s);
}

namespace {

/// What was found for most of the time from one instant to another.
std::string maxOf(const std::vector<LetteredSection>& sections, double from_s, double to_s) {
  std::map<std::string, double> times;
  for (std::size_t i = 0; i < sections.size(); ++i) {
    const double low = std::max(from_s, sections[i].from_s);
    const double high = i + 1 < sections.size() ? std::min(to_s, sections[i + 1].from_s) : to_s;
    if (high > low) times[sections[i].letter] += high - low;
  }
  const auto most = std::max_element(times.begin(), times.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == times.end() ? "" : most->first;
}

}  // namespace

double returnsRecognised(const std::vector<LetteredSection>& found, const std::vector<LetteredSection>& right,
                         double end_s) {
  int returns = 0, recognised = 0;
  std::map<std::string, std::vector<std::string>> heardAs;
  for (std::size_t i = 0; i < right.size(); ++i) {
    const double to_s = i + 1 < right.size() ? right[i + 1].from_s : end_s;
    const std::string as = maxOf(found, right[i].from_s, to_s);
    auto& before = heardAs[right[i].letter];
    if (!before.empty()) {
      ++returns;
      recognised += std::find(before.begin(), before.end(), as) != before.end() && !as.empty();
    }
    before.push_back(as);
  }
  return returns > 0 ? static_cast<double>(recognised) / returns : -1;
}

}  // namespace chispa::bench
