// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/beats.h"

#include <algorithm>
#include <array>
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
  const auto deviation =
      static_cast<float>(std::sqrt(square / static_cast<double>(std::max<std::ptrdiff_t>(1, n))));
  if (deviation > 1e-4f)
    for (float& v : flat) v /= deviation;
  return flat;
}

constexpr int kShortest = kRate * 60 / 215;
constexpr int kLongest = kRate * 60 / 50;
constexpr int kPeriods = kLongest - kShortest + 1;

/// Between the curve and its largest value within a frame: an onset that is a little early or late still
/// counts.
Curve widened(const Curve& curve) {
  constexpr std::ptrdiff_t kReach = 1;
  Curve wide(curve.size());
  for (std::ptrdiff_t i = 0; i < std::ssize(curve); ++i) {
    const auto from = curve.begin() + std::max<std::ptrdiff_t>(0, i - kReach);
    const auto to = curve.begin() + std::min(std::ssize(curve), i + kReach + 1);
    wide[static_cast<std::size_t>(i)] =
        0.4f * *std::max_element(from, to) + 0.6f * curve[static_cast<std::size_t>(i)];
  }
  return wide;
}

/// What a beat of each period earns beside its onset: speeds at which people tap are preferred.
std::array<float, kPeriods> periodFavours() {
  constexpr double kPreferred_bpm = 112;
  constexpr double kOctaves = 0.75;
  constexpr double kWeight = 0.16;
  std::array<float, kPeriods> favours{};
  for (int p = 0; p < kPeriods; ++p) {
    const double octaves = std::log2(60.0 * kRate / (kShortest + p) / kPreferred_bpm) / kOctaves;
    favours[static_cast<std::size_t>(p)] = static_cast<float>(-kWeight * octaves * octaves);
  }
  return favours;
}

/// Frames of the beats: over the whole piece the chain of onsets, each one period behind the one before,
/// whose sum is greatest, where the period may drift. A state is a frame at which a beat falls and the period
/// that led to it (the bar pointer of N. Whiteley, A. T. Cemgil and S. Godsill, 2006, on beats alone, solved
/// by Viterbi's algorithm).
std::vector<std::size_t> trackBeats(const Curve& flat) {
  constexpr float kBias = 0.5f;
  constexpr float kDrift = 260;
  constexpr int kMostDrift = 9;
  constexpr std::uint8_t kFirst = 255;
  const Curve onset = widened(flat);
  const auto favours = periodFavours();
  const std::size_t n = onset.size();
  constexpr std::size_t kHeld = kLongest + 1;
  std::vector<std::array<float, kPeriods>> held(kHeld);
  std::vector<std::array<std::uint8_t, kPeriods>> from(n);
  std::pair<std::size_t, int> last{0, 0};
  float best = -1e9f;
  for (std::size_t i = 0; i < n; ++i) {
    auto& now = held[i % kHeld];
    for (int p = 0; p < kPeriods; ++p) {
      const int period = kShortest + p;
      const auto at = static_cast<std::size_t>(p);
      // Each second counts alike, whatever the speed: a slow beat earns more than a fast one.
      const float weight = std::sqrt(static_cast<float>(period) / 50);
      const float own = weight * (onset[i] - kBias) + weight * favours[at];
      float most = 0;
      from[i][at] = kFirst;
      if (i >= static_cast<std::size_t>(period)) {
        const auto& before = held[(i - static_cast<std::size_t>(period)) % kHeld];
        const int low = std::max(0, p - kMostDrift);
        const int high = std::min(kPeriods - 1, p + kMostDrift);
        for (int q = low; q <= high; ++q) {
          const float change = static_cast<float>(p - q) / static_cast<float>(period);
          const float score = before[static_cast<std::size_t>(q)] - kDrift * change * change;
          if (score > most) {
            most = score;
            from[i][at] = static_cast<std::uint8_t>(q);
          }
        }
      }
      now[at] = own + most;
      if (i + static_cast<std::size_t>(kLongest) >= n && now[at] > best) {
        best = now[at];
        last = {i, p};
      }
    }
  }
  std::vector<std::size_t> beats;
  for (auto [i, p] = last;;) {
    beats.push_back(i);
    const std::uint8_t before = from[i][static_cast<std::size_t>(p)];
    if (before == kFirst) break;
    i -= static_cast<std::size_t>(kShortest + p);
    p = before;
  }
  std::reverse(beats.begin(), beats.end());
  return beats;
}

/// Beats before the first sound and after the last one are dropped.
void trimSilence(std::vector<std::size_t>& beats, const Curve& onset) {
  const auto sounds = [&](std::size_t beat) {
    float most = 0;
    for (std::size_t i = beat > 4 ? beat - 4 : 0; i < std::min(onset.size(), beat + 5); ++i)
      most = std::max(most, onset[i]);
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
  /// For each beat whether a bar begins on it.
  std::vector<bool> isFirst;
};

/// Bars by how the weight of beats repeats: for each metre the best course through its beats, which may begin
/// anew where a bar was cut or drawn out; the metre whose bars stand out more wins.
Metre findMetre(const std::vector<float>& weight) {
  constexpr double kBreak = 6;
  Metre best;
  double bestScore = -1e9;
  for (const int beats : {3, 4}) {
    const auto m = static_cast<std::size_t>(beats);
    std::vector<std::vector<double>> total(weight.size(), std::vector<double>(m));
    std::vector<std::vector<std::size_t>> from(weight.size(), std::vector<std::size_t>(m));
    for (std::size_t i = 0; i < weight.size(); ++i)
      for (std::size_t p = 0; p < m; ++p) {
        // Weights are centred, so that a first beat earns what the others of its bar lose.
        const double own = p == 0 ? static_cast<double>(weight[i])
                                  : -static_cast<double>(weight[i]) / static_cast<double>(m - 1);
        double most = i == 0 ? 0 : total[i - 1][(p + m - 1) % m];
        from[i][p] = (p + m - 1) % m;
        for (std::size_t q = 0; i > 0 && q < m; ++q)
          if (total[i - 1][q] - kBreak > most) {
            most = total[i - 1][q] - kBreak;
            from[i][p] = q;
          }
        total[i][p] = own + most;
      }
    const auto end = std::max_element(total.back().begin(), total.back().end());
    // A bar of four has more beats to lose on; per bar both count alike.
    const double score = *end * static_cast<double>(m - 1) / static_cast<double>(m);
    if (score <= bestScore) continue;
    bestScore = score;
    best.beats = beats;
    best.isFirst.assign(weight.size(), false);
    auto p = static_cast<std::size_t>(end - total.back().begin());
    for (std::size_t i = weight.size(); i-- > 0;) {
      best.isFirst[i] = p == 0;
      p = from[i][p];
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
  auto beats = trackBeats(onset);
  trimSilence(beats, onset);
  if (beats.size() < 2) return found;
  const Curve low = flattened(frames.lowOnset());
  std::vector<float> weight;
  for (const std::size_t beat : beats) {
    found.beats.push_back(refined(onset, beat));
    weight.push_back(peakNear(low, beat));
  }
  const float mean = std::accumulate(weight.begin(), weight.end(), 0.f) / static_cast<float>(weight.size());
  // Centred and at a common size, so that breaking a bar costs the same in every piece.
  double square = 0;
  for (float& w : weight) {
    w -= mean;
    square += static_cast<double>(w) * static_cast<double>(w);
  }
  const auto deviation = static_cast<float>(std::sqrt(square / static_cast<double>(weight.size())));
  if (deviation > 1e-6f)
    for (float& w : weight) w /= deviation;
  const Metre metre = findMetre(weight);
  found.beatsPerBar = metre.beats;
  for (std::size_t i = 0; i < found.beats.size(); ++i)
    if (metre.isFirst[i]) found.bars.push_back(found.beats[i]);
  const double span = seconds(found.beats.back() - found.beats.front());
  found.tempo_bpm = 60.0 * static_cast<double>(found.beats.size() - 1) / span;
  return found;
}

namespace {

using BarSound = std::array<double, kBands>;

/// The mean of each band over each bar, about the piece's own mean.
std::vector<BarSound> barSounds(const SpectralFrames& frames, const std::vector<Micros>& bars) {
  std::vector<BarSound> sounds;
  BarSound mean{};
  for (std::size_t bar = 0; bar + 1 < bars.size(); ++bar) {
    BarSound sound{};
    const auto from = std::min(frames.bands.size(), static_cast<std::size_t>(seconds(bars[bar]) * kRate));
    const auto to = std::min(frames.bands.size(), static_cast<std::size_t>(seconds(bars[bar + 1]) * kRate));
    for (std::size_t i = from; i < to; ++i)
      for (std::size_t b = 0; b < sound.size(); ++b)
        sound[b] += static_cast<double>(frames.bands[i][b]) / static_cast<double>(to - from);
    for (std::size_t b = 0; b < sound.size(); ++b) mean[b] += sound[b];
    sounds.push_back(sound);
  }
  for (BarSound& sound : sounds)
    for (std::size_t b = 0; b < sound.size(); ++b) sound[b] -= mean[b] / static_cast<double>(sounds.size());
  return sounds;
}

double likeness(const BarSound& a, const BarSound& b) {
  double ab = 0, aa = 1e-9, bb = 1e-9;
  for (std::size_t i = 0; i < a.size(); ++i) {
    ab += a[i] * b[i];
    aa += a[i] * a[i];
    bb += b[i] * b[i];
  }
  return ab / std::sqrt(aa * bb);
}

/// How much the four bars before `bar` differ from the four behind.
double noveltyAt(const std::vector<BarSound>& sounds, std::ptrdiff_t bar) {
  constexpr std::ptrdiff_t kReach = 4;
  double within = 0, across = 0;
  int withins = 0, acrosses = 0;
  for (std::ptrdiff_t i = std::max<std::ptrdiff_t>(0, bar - kReach);
       i < std::min(std::ssize(sounds), bar + kReach); ++i)
    for (std::ptrdiff_t j = i + 1; j < std::min(std::ssize(sounds), bar + kReach); ++j) {
      const bool isAcross = i < bar && j >= bar;
      (isAcross ? across : within) +=
          likeness(sounds[static_cast<std::size_t>(i)], sounds[static_cast<std::size_t>(j)]);
      ++(isAcross ? acrosses : withins);
    }
  return within / std::max(1, withins) - across / std::max(1, acrosses);
}

}  // namespace

std::vector<Micros> findSections(const SpectralFrames& frames, const std::vector<Micros>& bars) {
  constexpr std::ptrdiff_t kShortestSection = 4;
  constexpr double kLeastNovelty = 0.35;
  std::vector<Micros> found;
  if (bars.empty()) return found;
  found.push_back(bars.front());
  const auto sounds = barSounds(frames, bars);
  std::vector<double> novelty;
  for (std::ptrdiff_t bar = 0; bar < std::ssize(sounds); ++bar)
    novelty.push_back(bar < 2 || bar + 2 > std::ssize(sounds) ? 0 : noveltyAt(sounds, bar));
  std::ptrdiff_t last = 0;
  for (std::ptrdiff_t bar = 2; bar + 2 < std::ssize(novelty); ++bar) {
    const auto here = novelty.begin() + bar;
    const bool isPeak = *here >= *std::max_element(here - 2, here + 3);
    if (!isPeak || *here < kLeastNovelty || bar - last < kShortestSection) continue;
    found.push_back(bars[static_cast<std::size_t>(bar)]);
    last = bar;
  }
  return found;
}

std::vector<Micros> findOnsets(const std::vector<float>& curve) {
  constexpr float kLeast = 1.5f;
  constexpr float kShareOfLoudest = 0.25f;
  constexpr std::ptrdiff_t kApart = 5;
  const Curve onset = flattened(curve);
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
