// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/beats.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chispa {
namespace {

using Curve = std::vector<float>;
constexpr int kRate = MusicFeatures::kRate;

/// The curve above the mean of the two seconds around, at unit deviation.
Curve flattened(const Curve& curve) {
  constexpr std::ptrdiff_t kAround = kRate;
  const auto n = std::ssize(curve);
  std::vector<double> sums(curve.size() + 1, 0.0);
  for (std::size_t i = 0; i < curve.size(); ++i) sums[i + 1] = sums[i] + curve[i];
  Curve flat(curve.size());
  double square = 0;
  for (std::ptrdiff_t i = 0; i < n; ++i) {
    const auto low = static_cast<std::size_t>(std::max<std::ptrdiff_t>(0, i - kAround));
    const auto high = static_cast<std::size_t>(std::min(n, i + kAround));
    const double mean = (sums[high] - sums[low]) / static_cast<double>(high - low);
    const auto at = static_cast<std::size_t>(i);
    flat[at] = std::max(0.f, curve[at] - static_cast<float>(mean));
    square += flat[at] * flat[at];
  }
  const auto deviation = static_cast<float>(std::sqrt(square / static_cast<double>(std::max<std::ptrdiff_t>(1, n))));
  if (deviation > 1e-4f)
    for (float& v : flat) v /= deviation;
  return flat;
}

double correlationAt(const Curve& curve, std::size_t lag) {
  double sum = 0;
  for (std::size_t i = lag; i < curve.size(); ++i) sum += curve[i] * curve[i - lag];
  return sum / static_cast<double>(curve.size());
}

/// Frames a beat: the lag whose multiples fit too, weighed towards speeds at which people tap.
double beatPeriod(const Curve& onset) {
  constexpr int kShortest = kRate * 60 / 210;
  constexpr int kLongest = kRate * 60 / 50;
  constexpr int kMultiples = 4;
  std::vector<double> correlation(static_cast<std::size_t>(kLongest * kMultiples + 2));
  for (std::size_t lag = 1; lag < correlation.size() && lag < onset.size(); ++lag)
    correlation[lag] = correlationAt(onset, lag);
  double best = 0;
  double bestPeriod = kRate / 2.0;
  for (double period = kShortest; period <= kLongest; period += 0.25) {
    double fit = 0;
    for (int k = 1; k <= kMultiples; ++k) {
      const double at = period * k;
      const auto low = static_cast<std::size_t>(at);
      const double share = at - static_cast<double>(low);
      fit += (correlation[low] * (1 - share) + correlation[low + 1] * share) / k;
    }
    constexpr double kPreferred_bpm = 125;
    constexpr double kOctaves = 0.9;
    const double octaves = std::log2(60.0 * kRate / period / kPreferred_bpm) / kOctaves;
    fit *= std::exp(-0.5 * octaves * octaves);
    if (fit > best) {
      best = fit;
      bestPeriod = period;
    }
  }
  return best > 0 ? bestPeriod : 0;
}

/// Frames of the beats: the chain of onsets about one period apart whose sum is greatest.
std::vector<std::size_t> trackBeats(const Curve& onset, double period) {
  constexpr double kTightness = 100;
  const auto n = std::ssize(onset);
  std::vector<double> total(onset.size());
  std::vector<std::ptrdiff_t> previous(onset.size(), -1);
  const auto nearest = static_cast<std::ptrdiff_t>(period / 2);
  const auto farthest = static_cast<std::ptrdiff_t>(period * 2);
  for (std::ptrdiff_t i = 0; i < n; ++i) {
    double best = 0;
    std::ptrdiff_t from = -1;
    for (std::ptrdiff_t back = nearest; back <= farthest && back <= i; ++back) {
      const double off = std::log(static_cast<double>(back) / period);
      const double score = total[static_cast<std::size_t>(i - back)] - kTightness * off * off;
      if (score > best) {
        best = score;
        from = i - back;
      }
    }
    total[static_cast<std::size_t>(i)] = onset[static_cast<std::size_t>(i)] + best;
    previous[static_cast<std::size_t>(i)] = from;
  }
  // The last beat is the best end within the last two periods; silence behind it has no beats.
  std::ptrdiff_t last = n - 1;
  for (std::ptrdiff_t i = std::max<std::ptrdiff_t>(0, n - 1 - farthest); i < n; ++i)
    if (total[static_cast<std::size_t>(i)] > total[static_cast<std::size_t>(last)]) last = i;
  std::vector<std::size_t> beats;
  for (std::ptrdiff_t i = last; i >= 0; i = previous[static_cast<std::size_t>(i)])
    beats.push_back(static_cast<std::size_t>(i));
  std::reverse(beats.begin(), beats.end());
  return beats;
}

/// Beats before the first sound and after the last one are dropped.
void trimSilence(std::vector<std::size_t>& beats, const Curve& onset) {
  const auto sounds = [&](std::size_t beat) {
    float most = 0;
    for (std::size_t i = beat > 4 ? beat - 4 : 0; i < std::min(onset.size(), beat + 5); ++i) most = std::max(most, onset[i]);
    return most > 0.5f;
  };
  while (!beats.empty() && !sounds(beats.back())) beats.pop_back();
  const auto first = std::find_if(beats.begin(), beats.end(), sounds);
  beats.erase(beats.begin(), first);
}

/// Centre of the onset peak about `frame`, in microseconds.
Micros refined(const Curve& onset, std::size_t frame) {
  if (frame == 0 || frame + 1 >= onset.size()) return micros(static_cast<double>(frame) / kRate);
  const double a = onset[frame - 1];
  const double b = onset[frame];
  const double c = onset[frame + 1];
  const double bend = a - 2 * b + c;
  const double shift = bend < 0 ? std::clamp(0.5 * (a - c) / bend, -0.5, 0.5) : 0;
  return micros((static_cast<double>(frame) + shift) / kRate);
}

struct Metre {
  int beats = 4;
  int firstBeat = 0;
};

/// Metre and phase by how far the low onsets of down-beats stand above those of the other beats.
Metre findMetre(const std::vector<float>& weight) {
  Metre best;
  double bestContrast = -1e9;
  for (const int beats : {3, 4}) {
    for (int phase = 0; phase < beats; ++phase) {
      double on = 0;
      double off = 0;
      int ons = 0;
      int offs = 0;
      for (int i = 0; i < std::ssize(weight); ++i) {
        const bool down = i % beats == phase;
        (down ? on : off) += weight[static_cast<std::size_t>(i)];
        ++(down ? ons : offs);
      }
      const double contrast = on / std::max(1, ons) - off / std::max(1, offs);
      if (contrast > bestContrast) {
        bestContrast = contrast;
        best = {beats, phase};
      }
    }
  }
  return best;
}

float peakNear(const Curve& curve, std::size_t frame) {
  constexpr std::size_t kNear = 4;
  const auto from = curve.begin() + static_cast<std::ptrdiff_t>(frame > kNear ? frame - kNear : 0);
  const auto to = curve.begin() + static_cast<std::ptrdiff_t>(std::min(curve.size(), frame + kNear + 1));
  return *std::max_element(from, to);
}

}  // namespace

FoundBeats findBeats(const SpectralFrames& frames) {
  FoundBeats found;
  const Curve onset = flattened(frames.onset);
  if (onset.empty() || *std::max_element(onset.begin(), onset.end()) <= 0) return found;
  const double period = beatPeriod(onset);
  if (period <= 0) return found;
  auto beats = trackBeats(onset, period);
  trimSilence(beats, onset);
  if (beats.size() < 2) return found;
  const Curve low = flattened(frames.lowOnset);
  std::vector<float> weight;
  for (const std::size_t beat : beats) {
    found.beats.push_back(refined(onset, beat));
    weight.push_back(peakNear(low, beat));
  }
  const Metre metre = findMetre(weight);
  found.beatsPerBar = metre.beats;
  for (auto i = static_cast<std::size_t>(metre.firstBeat); i < found.beats.size(); i += static_cast<std::size_t>(metre.beats))
    found.bars.push_back(found.beats[i]);
  const double span = seconds(found.beats.back() - found.beats.front());
  found.tempo_bpm = 60.0 * static_cast<double>(found.beats.size() - 1) / span;
  return found;
}

std::vector<Micros> findOnsets(const SpectralFrames& frames) {
  constexpr float kLeast = 1.5f;
  constexpr float kShareOfLoudest = 0.25f;
  constexpr std::ptrdiff_t kApart = 5;
  const Curve onset = flattened(frames.onset);
  std::vector<Micros> found;
  if (onset.empty()) return found;
  const float standsOut = std::max(kLeast, kShareOfLoudest * *std::max_element(onset.begin(), onset.end()));
  for (std::ptrdiff_t i = kApart; i + kApart < std::ssize(onset); ++i) {
    const float here = onset[static_cast<std::size_t>(i)];
    const auto around = onset.begin() + i;
    if (here > standsOut && here >= *std::max_element(around - kApart, around + kApart + 1))
      found.push_back(refined(onset, static_cast<std::size_t>(i)));
  }
  return found;
}

}  // namespace chispa
