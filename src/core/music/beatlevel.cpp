// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/beatlevel.h"

#include <algorithm>
#include <map>

namespace chispa {
namespace {

/// Marks that lie this near to each other are one.
constexpr Micros kSame{2'000};

std::size_t firstFrom(const std::vector<Micros>& marks, Micros at) {
  return static_cast<std::size_t>(std::lower_bound(marks.begin(), marks.end(), at - kSame) - marks.begin());
}

/// The beat at `at`, or the last one before it; the first one if there is none.
std::size_t beatAt(const std::vector<Micros>& beats, Micros at) {
  const auto behind = std::upper_bound(beats.begin(), beats.end(), at + kSame);
  return behind == beats.begin() ? 0 : static_cast<std::size_t>(behind - beats.begin()) - 1;
}

/// A beat's length; the last one is as long as that before it.
Micros lengthOf(const std::vector<Micros>& beats, std::size_t beat) {
  return beat + 1 < beats.size() ? beats[beat + 1] - beats[beat] : beats[beat] - beats[beat - 1];
}

/// Begins a bar on beat `first` and on every `perBar`-th behind it.
void addBars(BeatMarks& marks, std::size_t first, int perBar) {
  for (std::size_t i = first; i < marks.beats.size(); i += static_cast<std::size_t>(perBar))
    marks.bars.push_back(marks.beats[i]);
}

/// Moves beats from `first` on, and the bars that begin on them, as `moved` says of a beat's number.
template <class Moved>
BeatMarks shifted(const BeatMarks& marks, std::size_t first, Moved moved) {
  BeatMarks out = marks;
  for (std::size_t i = first; i < marks.beats.size(); ++i) {
    out.beats[i] = moved(i);
    const std::size_t bar = firstFrom(marks.bars, marks.beats[i]);
    if (bar < marks.bars.size() && marks.bars[bar] <= marks.beats[i] + kSame) out.bars[bar] = out.beats[i];
  }
  std::erase_if(out.beats, [](Micros at) { return at.count() < 0; });
  std::erase_if(out.bars, [](Micros at) { return at.count() < 0; });
  return out;
}

BeatMarks twice(const BeatMarks& marks, std::size_t first) {
  BeatMarks out{{marks.beats.begin(), marks.beats.begin() + static_cast<std::ptrdiff_t>(first)}, marks.bars};
  for (std::size_t i = first; i < marks.beats.size(); ++i) {
    out.beats.push_back(marks.beats[i]);
    if (i + 1 < marks.beats.size()) out.beats.push_back(marks.beats[i] + lengthOf(marks.beats, i) / 2);
  }
  for (std::size_t bar = firstFrom(marks.bars, marks.beats[first]); bar + 1 < marks.bars.size(); ++bar) {
    const std::size_t from = firstFrom(out.beats, marks.bars[bar]),
                      to = firstFrom(out.beats, marks.bars[bar + 1]);
    if (to < out.beats.size() && (to - from) % 2 == 0) out.bars.push_back(out.beats[(from + to) / 2]);
  }
  std::sort(out.bars.begin(), out.bars.end());
  return out;
}

BeatMarks half(const BeatMarks& marks, std::size_t first, int perBar) {
  const std::size_t bar = firstFrom(marks.bars, marks.beats[first]);
  std::size_t begins = bar < marks.bars.size() ? firstFrom(marks.beats, marks.bars[bar]) : first;
  BeatMarks out{{marks.beats.begin(), marks.beats.begin() + static_cast<std::ptrdiff_t>(first)},
                {marks.bars.begin(), marks.bars.begin() + static_cast<std::ptrdiff_t>(bar)}};
  for (std::size_t i = first + (begins - first) % 2; i < marks.beats.size(); i += 2)
    out.beats.push_back(marks.beats[i]);
  addBars(out, firstFrom(out.beats, marks.beats[begins]), perBar);
  return out;
}

}  // namespace

BeatMarks counted(const BeatMarks& marks, BeatLevel level, Micros from) {
  if (marks.beats.size() < 2) return marks;
  const auto& beats = marks.beats;
  const std::size_t first = beatAt(beats, from);
  switch (level) {
    case BeatLevel::Twice:
      return twice(marks, first);
    case BeatLevel::Half:
      return half(marks, first, beatsPerBar(marks));
    case BeatLevel::HalfBeatLater:
      return shifted(marks, first, [&](std::size_t i) { return beats[i] + lengthOf(beats, i) / 2; });
    case BeatLevel::ThirdLater:
      return shifted(marks, first, [&](std::size_t i) { return beats[i] + lengthOf(beats, i) / 3; });
    case BeatLevel::ThirdEarlier:
      return shifted(marks, first,
                     [&](std::size_t i) { return beats[i] - lengthOf(beats, i > 0 ? i - 1 : 0) / 3; });
    case BeatLevel::ThreeInABar:
    case BeatLevel::FourInABar: {
      BeatMarks out = marks;
      out.bars.erase(out.bars.begin() + static_cast<std::ptrdiff_t>(firstFrom(out.bars, beats[first])),
                     out.bars.end());
      addBars(out, first, level == BeatLevel::ThreeInABar ? 3 : 4);
      return out;
    }
  }
  return marks;
}

int beatsPerBar(const BeatMarks& marks) {
  std::map<std::size_t, int> counts;
  for (std::size_t i = 0; i + 1 < marks.bars.size(); ++i)
    ++counts[firstFrom(marks.beats, marks.bars[i + 1]) - firstFrom(marks.beats, marks.bars[i])];
  const auto most = std::max_element(counts.begin(), counts.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == counts.end() || most->first < 1 ? 4 : static_cast<int>(most->first);
}

}  // namespace chispa
