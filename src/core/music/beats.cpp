// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/beats.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace chispa {
namespace {

constexpr double kFramesPerSecond = RhythmInput::kRate;

/// The instant of a beat on `frame`: the middle of what is heard of it there.
Micros instantOf(const std::vector<float>& beat, std::size_t frame) {
  constexpr std::ptrdiff_t kNear = 2;
  double sum = 0, weighed = 0;
  for (std::ptrdiff_t off = -kNear; off <= kNear; ++off) {
    const std::ptrdiff_t at = static_cast<std::ptrdiff_t>(frame) + off;
    if (at < 0 || at >= std::ssize(beat)) continue;
    const auto chance = static_cast<double>(beat[static_cast<std::size_t>(at)]);
    sum += chance;
    weighed += chance * static_cast<double>(off);
  }
  const double shift = sum > 0.2 ? std::clamp(weighed / sum, -1.0, 1.0) : 0;
  return micros(std::max(0.0, (static_cast<double>(frame) + shift) / kFramesPerSecond));
}

/// The largest chance on `frame` and on those beside it.
float chanceNear(const std::vector<float>& curve, std::ptrdiff_t frame) {
  float most = 0;
  for (std::ptrdiff_t i = std::max<std::ptrdiff_t>(0, frame - 1);
       i <= std::min(std::ssize(curve) - 1, frame + 1); ++i)
    most = std::max(most, curve[static_cast<std::size_t>(i)]);
  return most;
}

/// How plainly beats are heard about each of them: their mean chance within a few beats.
std::vector<float> surenessOf(const BeatChances& chances, const std::vector<PlacedBeat>& beats) {
  constexpr std::size_t kAround = 6;
  std::vector<float> own, sure;
  for (const PlacedBeat& beat : beats)
    own.push_back(chanceNear(chances.beat, static_cast<std::ptrdiff_t>(beat.frame)));
  for (std::size_t i = 0; i < own.size(); ++i) {
    const std::size_t low = i > kAround ? i - kAround : 0;
    const std::size_t high = std::min(own.size(), i + kAround + 1);
    float sum = 0;
    for (std::size_t k = low; k < high; ++k) sum += own[k];
    sure.push_back(sum / static_cast<float>(high - low));
  }
  return sure;
}

/// What would be heard if the tapped beats were plain.
BeatChances withTaps(BeatChances chances, const std::vector<Micros>& taps) {
  constexpr float kPlain = 0.99f, kNone = 0.01f;
  if (taps.size() < 2) return chances;
  const auto frameOf = [&](Micros at) { return std::lround(seconds(at) * kFramesPerSecond); };
  const auto count = std::ssize(chances.beat);
  const long gap = (frameOf(taps.back()) - frameOf(taps.front())) / static_cast<long>(taps.size() - 1);
  const long from = std::max(0L, frameOf(taps.front()) - gap / 2);
  const long to = std::min<long>(count, frameOf(taps.back()) + gap / 2);
  for (long i = from; i < to; ++i)
    chances.beat[static_cast<std::size_t>(i)] = chances.first[static_cast<std::size_t>(i)] = kNone;
  for (std::size_t n = 0; n < taps.size(); ++n) {
    const long frame = frameOf(taps[n]);
    if (frame < 0 || frame >= count) continue;
    chances.beat[static_cast<std::size_t>(frame)] = kPlain;
    if (n == 0 || n + 1 == taps.size()) chances.first[static_cast<std::size_t>(frame)] = 0.97f;
  }
  return chances;
}

}  // namespace

float FoundBeats::surenessAt(Micros at) const {
  constexpr Micros kSame{2'000};
  const auto beat = std::lower_bound(beats.begin(), beats.end(), at - kSame);
  return beat != beats.end() && *beat <= at + kSame ? sureness[static_cast<std::size_t>(beat - beats.begin())]
                                                    : 1;
}

FoundBeats foundBeats(const BeatChances& chances, const std::vector<PlacedBeat>& placed) {
  FoundBeats found;
  std::map<int, int> metres;
  for (const PlacedBeat& beat : placed) {
    found.beats.push_back(instantOf(chances.beat, beat.frame));
    if (beat.place == 0) found.bars.push_back(found.beats.back());
    ++metres[beat.metre];
  }
  if (found.beats.size() < 2) return {};
  found.sureness = surenessOf(chances, placed);
  found.beatsPerBar = std::max_element(metres.begin(), metres.end(), [](const auto& a, const auto& b) {
                        return a.second < b.second;
                      })->first;
  const double span = seconds(found.beats.back() - found.beats.front());
  found.tempo_bpm = 60.0 * static_cast<double>(found.beats.size() - 1) / span;
  return found;
}

BeatChances hearBeats(const SpectralFrames& frames, const Chromagram& harmony) {
  const auto sounds = [](float rise) { return rise > 0; };
  if (std::none_of(frames.onset.begin(), frames.onset.end(), sounds)) return {};
  return beatChances(rhythmInput(frames.picture, harmony));
}

FoundBeats findBeats(const BeatChances& chances, const BeatWish& wish) {
  if (chances.beat.empty()) return {};
  MetreModel model;
  if (wish.tempo_bpm) {
    model.likelyTempo_bpm = *wish.tempo_bpm;
    model.usualTempo = 12;
  }
  return foundBeats(chances, placeBeats(withTaps(chances, wish.bar), model));
}

namespace {

/// How likely beats and bars are by what is heard, in natural logarithms; what lies beside them has none.
double likelihoodOf(const BeatChances& chances, const BeatMarks& marks) {
  const auto log = [](float chance) {
    return std::log(std::clamp(static_cast<double>(chance), 0.005, 0.995));
  };
  const auto most = [](const std::vector<float>& curve, Micros at) {
    return chanceNear(curve, std::lround(seconds(at) * kFramesPerSecond));
  };
  double sum = 0;
  for (const float chance : chances.beat) sum += log(1 - chance);
  for (const Micros beat : marks.beats) {
    const float chance = most(chances.beat, beat);
    // The frames beside a beat are heard as a part of it.
    sum += log(chance) - 2 * log(1 - chance);
    const float first = std::clamp(most(chances.first, beat) / std::max(chance, 0.02f), 0.02f, 0.98f);
    sum += log(std::binary_search(marks.bars.begin(), marks.bars.end(), beat) ? first : 1 - first);
  }
  return sum;
}

}  // namespace

std::vector<BeatReading> otherReadings(const BeatChances& chances, const BeatMarks& found) {
  std::vector<BeatReading> readings;
  if (chances.beat.empty() || found.beats.size() < 2) return readings;
  double best = likelihoodOf(chances, found);
  for (const BeatLevel level :
       {BeatLevel::Twice, BeatLevel::Half, BeatLevel::HalfBeatLater, BeatLevel::ThirdLater,
        BeatLevel::ThirdEarlier, BeatLevel::ThreeInABar, BeatLevel::FourInABar}) {
    BeatReading reading{level, counted(found, level), 0};
    if (reading.marks == found) continue;
    reading.behind = likelihoodOf(chances, reading.marks);
    best = std::max(best, reading.behind);
    readings.push_back(std::move(reading));
  }
  const double length_s = static_cast<double>(chances.beat.size()) / kFramesPerSecond;
  for (BeatReading& reading : readings) reading.behind = (best - reading.behind) / length_s;
  std::sort(readings.begin(), readings.end(),
            [](const auto& a, const auto& b) { return a.behind < b.behind; });
  return readings;
}

}  // namespace chispa
