// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/chords.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chispa {
namespace {

constexpr int kPitches = 12;
/// Major triads, minor ones, and none.
constexpr std::size_t kStates = 2 * kPitches + 1;
constexpr std::size_t kNone = kStates - 1;
using Scores = std::array<float, kStates>;

Chord chordOf(std::size_t state) {
  return {static_cast<int>(state) % kPitches, state >= kPitches};
}

std::size_t classAbove(int root, int semitones) {
  return static_cast<std::size_t>((root + semitones) % kPitches);
}

/// What is heard of a triad: its tones, and the overtones of each that are other pitch classes, the fifth and
/// the third above it.
Chroma templateOf(const Chord& chord) {
  constexpr float kFifthAbove = 0.5f, kThirdAbove = 0.2f;
  Chroma heard{};
  for (const int tone : {0, chord.isMinor ? 3 : 4, 7}) {
    heard[classAbove(chord.root, tone)] += 1;
    heard[classAbove(chord.root, tone + 7)] += kFifthAbove;
    heard[classAbove(chord.root, tone + 4)] += kThirdAbove;
  }
  return heard;
}

const std::array<Chroma, kStates - 1>& templates() {
  static const auto all = [] {
    std::array<Chroma, kStates - 1> made{};
    for (std::size_t state = 0; state < made.size(); ++state) made[state] = templateOf(chordOf(state));
    return made;
  }();
  return all;
}

/// What sounds between two instants; quiet tones count more than in proportion, as they do to the ear.
Chroma sumBetween(const std::vector<Chroma>& chroma, Micros from, Micros to) {
  // Half a window of sound lies on either side of each chroma.
  constexpr double kHalf_s = 0.08;
  const auto frame = [&](double at_s) {
    return std::clamp<std::ptrdiff_t>(std::lround(at_s * Chromagram::kRate), 0, std::ssize(chroma));
  };
  const std::ptrdiff_t first = frame(seconds(from) + kHalf_s);
  const std::ptrdiff_t end = std::max(frame(seconds(to) - kHalf_s), std::min(first + 1, std::ssize(chroma)));
  Chroma sum{};
  for (std::ptrdiff_t i = first; i < end; ++i)
    for (std::size_t k = 0; k < sum.size(); ++k) sum[k] += std::sqrt(chroma[static_cast<std::size_t>(i)][k]);
  return sum;
}

/// How well each chord goes with what is heard.
Scores scoresOf(const Chroma& middle, const Chroma& bass) {
  constexpr float kSilence = 0.45f, kBass = 0.2f;
  Scores scores{};
  scores[kNone] = kSilence;
  const float deep = std::sqrt(std::inner_product(bass.begin(), bass.end(), bass.begin(), 0.f));
  for (std::size_t state = 0; state < kNone; ++state)
    scores[state] = cosineOf(middle, templates()[state]) +
                    (deep > 0 ? kBass * bass[classAbove(chordOf(state).root, 0)] / deep : 0);
  return scores;
}

/// The likeliest course through the chords; `heard` by beat, `isFirst` where a bar begins.
std::vector<std::size_t> likeliest(const std::vector<Scores>& heard, const std::vector<bool>& isFirst) {
  constexpr float kWithinBar = 0.4f, kAtBar = 0.12f;
  std::vector<std::array<std::size_t, kStates>> from(heard.size());
  Scores best = heard.front();
  for (std::size_t beat = 1; beat < heard.size(); ++beat) {
    const auto most = static_cast<std::size_t>(std::max_element(best.begin(), best.end()) - best.begin());
    const float changed = best[most] - (isFirst[beat] ? kAtBar : kWithinBar);
    for (std::size_t state = 0; state < kStates; ++state) {
      from[beat][state] = best[state] >= changed ? state : most;
      best[state] = std::max(best[state], changed) + heard[beat][state];
    }
  }
  std::vector<std::size_t> course(heard.size());
  course.back() = static_cast<std::size_t>(std::max_element(best.begin(), best.end()) - best.begin());
  for (std::size_t beat = heard.size() - 1; beat > 0; --beat) course[beat - 1] = from[beat][course[beat]];
  return course;
}

float correlation(const Chroma& a, const Chroma& b) {
  const auto centred = [](Chroma c) {
    const float mean = std::accumulate(c.begin(), c.end(), 0.f) / kPitches;
    for (float& v : c) v -= mean;
    return c;
  };
  return cosineOf(centred(a), centred(b));
}

/// `triads`: for how long each is heard, as shares of all.
std::optional<Chord> keyOf(const Chroma& all, const std::array<float, kStates>& triads) {
  constexpr Chroma kMajor{6.35f, 2.23f, 3.48f, 2.33f, 4.38f, 4.09f, 2.52f, 5.19f, 2.39f, 3.66f, 2.29f, 2.88f};
  constexpr Chroma kMinor{6.33f, 2.68f, 3.52f, 5.38f, 2.60f, 3.53f, 2.54f, 4.75f, 3.98f, 2.69f, 3.34f, 3.17f};
  if (*std::max_element(all.begin(), all.end()) <= 0) return std::nullopt;
  constexpr float kTonic = 1;
  std::optional<Chord> best;
  float most = -2;
  for (std::size_t state = 0; state < kNone; ++state) {
    const Chord key = chordOf(state);
    Chroma turned{};
    for (int step = 0; step < kPitches; ++step)
      turned[static_cast<std::size_t>(step)] = all[classAbove(key.root, step)];
    const float score = correlation(turned, key.isMinor ? kMinor : kMajor) + kTonic * triads[state];
    if (score > most) most = score, best = key;
  }
  return best;
}

}  // namespace

std::string pitchName(int pitchClass) {
  static constexpr const char* kNames[] = {"C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"};
  return kNames[static_cast<std::size_t>(((pitchClass % kPitches) + kPitches) % kPitches)];
}

std::string chordName(const Chord& chord) {
  return pitchName(chord.root) + (chord.isMinor ? "m" : "");
}

Sentence keyName(const Chord& key) {
  return key.isMinor ? sentence("%1 minor", pitchName(key.root)) : sentence("%1 major", pitchName(key.root));
}

FoundHarmony findHarmony(const Chromagram& harmony, const std::vector<Micros>& beats,
                         const std::vector<Micros>& bars) {
  FoundHarmony found;
  if (beats.size() < 2) return found;
  std::vector<Scores> heard;
  std::vector<bool> isFirst;
  Chroma all{};
  for (std::size_t i = 0; i < beats.size(); ++i) {
    const Micros to = i + 1 < beats.size() ? beats[i + 1] : 2 * beats[i] - beats[i - 1];
    const Chroma middle = sumBetween(harmony.middle, beats[i], to);
    heard.push_back(scoresOf(middle, sumBetween(harmony.bass, beats[i], to)));
    isFirst.push_back(std::binary_search(bars.begin(), bars.end(), beats[i]));
    for (std::size_t k = 0; k < all.size(); ++k) all[k] += middle[k];
  }
  const std::vector<std::size_t> course = likeliest(heard, isFirst);
  std::array<float, kStates> triads{};
  for (std::size_t i = 0; i < course.size(); ++i) {
    triads[course[i]] += 1 / static_cast<float>(course.size());
    if (i > 0 && course[i] == course[i - 1]) continue;
    found.chords.push_back({beats[i], course[i] == kNone ? std::nullopt : std::optional(chordOf(course[i]))});
  }
  found.key = keyOf(all, triads);
  return found;
}

}  // namespace chispa
