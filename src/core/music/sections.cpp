// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/sections.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chispa {
namespace {

/// Chromagram is looked at in so many parts of a bar.
constexpr std::size_t kParts = 4;

/// What is heard in a bar.
struct BarSound {
  std::array<Chroma, kParts> middle{};
  Chroma bass{};
  /// Levels by band about the piece's own mean, in decibels.
  std::array<float, kBands> bands{};
  float level_db = 0;
};

/// The frames of a curve of `rate` a second from one instant to another, at least one.
std::pair<std::size_t, std::size_t> stretch(double rate, double from_s, double to_s, std::size_t count) {
  const auto from = std::min(count, static_cast<std::size_t>(std::max(0.0, from_s * rate)));
  const auto to =
      std::clamp(static_cast<std::size_t>(std::max(0.0, to_s * rate)), std::min(from + 1, count), count);
  return {from, to};
}

Chroma meanOf(const std::vector<Chroma>& chroma, double from_s, double to_s) {
  Chroma mean{};
  const auto [from, to] = stretch(Chromagram::kRate, from_s, to_s, chroma.size());
  for (std::size_t i = from; i < to; ++i)
    for (std::size_t k = 0; k < mean.size(); ++k) mean[k] += chroma[i][k];
  return mean;
}

std::vector<BarSound> barSounds(const SpectralFrames& frames, const Chromagram& harmony,
                                const std::vector<Micros>& bars) {
  std::vector<BarSound> sounds;
  std::array<float, kBands> mean{};
  for (std::size_t bar = 0; bar < bars.size(); ++bar) {
    BarSound sound;
    const double from_s = seconds(bars[bar]);
    // The last bar is as long as the one before it.
    const double to_s = bar + 1 < bars.size() ? seconds(bars[bar + 1])
                        : bar > 0             ? 2 * from_s - seconds(bars[bar - 1])
                                              : from_s + 2;
    for (std::size_t part = 0; part < kParts; ++part)
      sound.middle[part] =
          meanOf(harmony.middle, from_s + (to_s - from_s) * static_cast<double>(part) / kParts,
                 from_s + (to_s - from_s) * static_cast<double>(part + 1) / kParts);
    sound.bass = meanOf(harmony.bass, from_s, to_s);
    const auto [from, to] = stretch(MusicFeatures::kRate, from_s, to_s, frames.bands.size());
    for (std::size_t i = from; i < to; ++i)
      for (std::size_t b = 0; b < kBands; ++b)
        sound.bands[b] += frames.bands[i][b] / static_cast<float>(to - from);
    for (std::size_t b = 0; b < kBands; ++b) mean[b] += sound.bands[b] / static_cast<float>(bars.size());
    sound.level_db = std::accumulate(sound.bands.begin(), sound.bands.end(), 0.f) / kBands;
    sounds.push_back(sound);
  }
  for (BarSound& sound : sounds)
    for (std::size_t b = 0; b < kBands; ++b) sound.bands[b] -= mean[b];
  return sounds;
}

/// How alike two bars sound, 0–1.
float likeness(const BarSound& a, const BarSound& b) {
  float harmony = 0;
  for (std::size_t part = 0; part < kParts; ++part)
    harmony += cosineOf(a.middle[part], b.middle[part]) / kParts;
  float apart = 0;
  for (std::size_t k = 0; k < kBands; ++k)
    apart += (a.bands[k] - b.bands[k]) * (a.bands[k] - b.bands[k]) / kBands;
  constexpr float kUnlike_db = 7;
  const float sound = std::exp(-apart / (2 * kUnlike_db * kUnlike_db));
  return 0.45f * harmony + 0.2f * cosineOf(a.bass, b.bass) + 0.35f * sound;
}

/// Likeness of all bars with all, as deviations from its mean.
class Likenesses {
 public:
  explicit Likenesses(const std::vector<BarSound>& sounds) : count_(sounds.size()), values_(count_ * count_) {
    double sum = 0, square = 0;
    for (std::size_t i = 0; i < count_; ++i)
      for (std::size_t j = 0; j < count_; ++j) {
        const float value = likeness(sounds[i], sounds[j]);
        values_[i * count_ + j] = value;
        sum += static_cast<double>(value);
        square += static_cast<double>(value) * static_cast<double>(value);
      }
    const double cells = std::max<double>(1, static_cast<double>(values_.size()));
    const double mean = sum / cells;
    const double deviation = std::sqrt(std::max(1e-6, square / cells - mean * mean));
    for (float& value : values_) value = static_cast<float>((static_cast<double>(value) - mean) / deviation);
  }
  std::size_t count() const { return count_; }
  float at(std::size_t i, std::size_t j) const { return values_[i * count_ + j]; }

  /// How alike `length` bars from `a` and from `b` on are, bar by bar.
  float alike(std::size_t a, std::size_t b, std::size_t length) const {
    float sum = 0;
    for (std::size_t k = 0; k < length; ++k) sum += at(a + k, b + k);
    return sum / static_cast<float>(std::max<std::size_t>(1, length));
  }

 private:
  std::size_t count_;
  std::vector<float> values_;
};

/// How much the `reach` bars before `bar` differ from those behind.
float contrast(const Likenesses& like, std::size_t bar, std::size_t reach) {
  float within = 0, across = 0;
  int withins = 0, acrosses = 0;
  const std::size_t low = bar > reach ? bar - reach : 0;
  const std::size_t high = std::min(like.count(), bar + reach);
  for (std::size_t i = low; i < high; ++i)
    for (std::size_t j = i + 1; j < high; ++j) {
      const bool isAcross = i < bar && j >= bar;
      (isAcross ? across : within) += like.at(i, j);
      ++(isAcross ? acrosses : withins);
    }
  return within / static_cast<float>(std::max(1, withins)) -
         across / static_cast<float>(std::max(1, acrosses));
}

/// How much a passage that is heard elsewhere too begins or ends at `bar`.
float repeatEdge(const Likenesses& like, std::size_t bar) {
  constexpr std::size_t kReach = 4;
  if (bar < 1 || bar + 1 > like.count()) return 0;
  float most = 0;
  for (std::size_t other = 0; other < like.count(); ++other) {
    if (other + 2 > bar && bar + 2 > other) continue;
    const std::size_t back = std::min({kReach, bar, other});
    const std::size_t on = std::min({kReach, like.count() - bar, like.count() - other});
    // The piece's first bar has nothing before it.
    if ((back < 2 && other > 0) || on < 2) continue;
    const float before = back < 2 ? 0 : like.alike(bar - back, other - back, back);
    const float behind = like.alike(bar, other, on);
    most = std::max(most, std::abs(behind - before));
  }
  return most;
}

/// What a section of so many bars earns beside its borders.
float lengthFavour(std::size_t bars) {
  if (bars < 2) return -3;
  if (bars == 8 || bars == 16) return 0.25f;
  if (bars == 4 || bars == 12) return 0;
  if (bars % 4 == 0) return -0.1f;
  return bars % 2 == 0 ? -0.8f : -1.3f;
}

/// First bars of the sections of the best division of the piece.
std::vector<std::size_t> divide(const Likenesses& like) {
  constexpr std::size_t kLongest = 32;
  constexpr float kPrice = 0.85f;
  const std::size_t count = like.count();
  std::vector<float> border(count + 1, 0);
  for (std::size_t bar = 1; bar < count; ++bar)
    border[bar] =
        0.55f * contrast(like, bar, 4) + 0.45f * contrast(like, bar, 8) + 0.45f * repeatEdge(like, bar);
  std::vector<float> best(count + 1, -1e9f);
  std::vector<std::size_t> from(count + 1, 0);
  best[0] = 0;
  for (std::size_t end = 1; end <= count; ++end)
    for (std::size_t length = 1; length <= std::min(end, kLongest); ++length) {
      const std::size_t begin = end - length;
      const float score = best[begin] + lengthFavour(length) + (begin > 0 ? border[begin] - kPrice : 0);
      if (score <= best[end]) continue;
      best[end] = score;
      from[end] = begin;
    }
  std::vector<std::size_t> firsts;
  for (std::size_t end = count; end > 0; end = from[end]) firsts.push_back(from[end]);
  std::reverse(firsts.begin(), firsts.end());
  return firsts;
}

/// Letters of the sections that begin at `firsts`: alike are those whose bars go the same way, from their
/// beginnings on.
std::vector<int> lettersOf(const Likenesses& like, const std::vector<std::size_t>& firsts) {
  constexpr float kAlike = 0.75f;
  const auto lengthOf = [&](std::size_t n) {
    return (n + 1 < firsts.size() ? firsts[n + 1] : like.count()) - firsts[n];
  };
  std::vector<int> letters;
  std::vector<std::vector<std::size_t>> groups;
  for (std::size_t n = 0; n < firsts.size(); ++n) {
    float most = kAlike;
    std::size_t found = groups.size();
    for (std::size_t g = 0; g < groups.size(); ++g) {
      float sum = 0;
      for (const std::size_t other : groups[g]) {
        const std::size_t shorter = std::min(lengthOf(n), lengthOf(other));
        const std::size_t longer = std::max(lengthOf(n), lengthOf(other));
        // What is much longer is another section, though it may begin alike.
        const float fits = shorter * 2 < longer ? 0.5f : 0.f;
        sum += like.alike(firsts[n], firsts[other], shorter) - fits;
      }
      const float mean = sum / static_cast<float>(groups[g].size());
      if (mean > most) most = mean, found = g;
    }
    if (found == groups.size()) groups.emplace_back();
    groups[found].push_back(n);
    letters.push_back(static_cast<int>(found));
  }
  return letters;
}

/// Without borders between neighbours that are alike and together no longer than eight bars: a round of four
/// bars that is played twice is one section.
std::vector<std::size_t> joined(const Likenesses& like, std::vector<std::size_t> firsts) {
  constexpr std::size_t kOne = 8;
  auto letters = lettersOf(like, firsts);
  for (std::size_t n = 1; n < firsts.size();) {
    const std::size_t end = n + 1 < firsts.size() ? firsts[n + 1] : like.count();
    if (letters[n] != letters[n - 1] || end - firsts[n - 1] > kOne) {
      ++n;
      continue;
    }
    firsts.erase(firsts.begin() + static_cast<std::ptrdiff_t>(n));
    letters = lettersOf(like, firsts);
  }
  return firsts;
}

SectionMood moodOf(const std::vector<BarSound>& sounds, std::size_t first, std::size_t end, float quiet_db,
                   float full_db, bool isLast) {
  const auto level = [&](std::size_t from, std::size_t to) {
    float sum = 0;
    for (std::size_t bar = from; bar < to; ++bar) sum += sounds[bar].level_db;
    return sum / static_cast<float>(std::max<std::size_t>(1, to - from));
  };
  const std::size_t third = std::max<std::size_t>(1, (end - first) / 3);
  const float whole = level(first, end);
  constexpr float kRises_db = 5;
  if (isLast && whole < 0.5f * (quiet_db + full_db)) return SectionMood::End;
  if (end - first >= 3 && level(end - third, end) - level(first, first + third) > kRises_db)
    return SectionMood::Rise;
  if (full_db - quiet_db < 4) return SectionMood::None;
  if (whole <= quiet_db + 0.2f * (full_db - quiet_db)) return SectionMood::Quiet;
  if (whole >= full_db - 0.12f * (full_db - quiet_db)) return SectionMood::Full;
  return SectionMood::None;
}

}  // namespace

std::vector<FoundSection> findSections(const SpectralFrames& frames, const Chromagram& harmony,
                                       const std::vector<Micros>& bars) {
  std::vector<FoundSection> found;
  if (bars.empty()) return found;
  const auto sounds = barSounds(frames, harmony, bars);
  const Likenesses like(sounds);
  const auto firsts = joined(like, divide(like));
  const auto letters = lettersOf(like, firsts);
  std::vector<float> means;
  for (std::size_t n = 0; n < firsts.size(); ++n) {
    const std::size_t end = n + 1 < firsts.size() ? firsts[n + 1] : bars.size();
    float sum = 0;
    for (std::size_t bar = firsts[n]; bar < end; ++bar) sum += sounds[bar].level_db;
    means.push_back(sum / static_cast<float>(end - firsts[n]));
  }
  const auto [quiet, full] = std::minmax_element(means.begin(), means.end());
  for (std::size_t n = 0; n < firsts.size(); ++n) {
    const bool isLast = n + 1 == firsts.size();
    found.push_back(
        {bars[firsts[n]], letters[n],
         moodOf(sounds, firsts[n], isLast ? bars.size() : firsts[n + 1], *quiet, *full, isLast && n > 0)});
  }
  return found;
}

BarCurves barCurves(const SpectralFrames& frames, const std::vector<Micros>& bars) {
  BarCurves curves;
  const auto mean = [&](double from_s, double to_s, auto of) {
    const auto [from, to] = stretch(MusicFeatures::kRate, from_s, to_s, frames.bands.size());
    float sum = 0;
    for (std::size_t i = from; i < to; ++i) sum += of(i);
    return sum / static_cast<float>(std::max<std::size_t>(1, to - from));
  };
  for (std::size_t bar = 0; bar + 1 < bars.size(); ++bar) {
    const double from_s = seconds(bars[bar]), to_s = seconds(bars[bar + 1]);
    curves.level.push_back(mean(from_s, to_s, [&](std::size_t i) {
      return std::accumulate(frames.bands[i].begin(), frames.bands[i].end(), 0.f) / kBands;
    }));
    curves.density.push_back(mean(from_s, to_s, [&](std::size_t i) { return frames.onset[i]; }));
  }
  if (curves.level.empty()) return curves;
  // So much below the loudest bar a bar has no height left.
  constexpr float kRange_db = 24;
  const float loudest = *std::max_element(curves.level.begin(), curves.level.end());
  for (float& level : curves.level) level = std::clamp(1 - (loudest - level) / kRange_db, 0.f, 1.f);
  const float densest = std::max(1e-6f, *std::max_element(curves.density.begin(), curves.density.end()));
  for (float& density : curves.density) density /= densest;
  return curves;
}

}  // namespace chispa
