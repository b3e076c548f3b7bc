// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/spectrum.h"

#include <algorithm>
#include <cmath>

#include "core/music/transform.h"

namespace chispa {
namespace {

constexpr int kSpectrumWindow = static_cast<int>(SpectrumAnalyser::kWindow);
constexpr int kBins = kSpectrumWindow / 2 + 1;
/// Finer bands than effects see: onsets of one instrument must not drown in another's sound.
constexpr int kFluxBands = Spectrogram::kRows;

/// Edges of `count` bands, equally wide in logarithm of frequency, as bins of the transform.
std::vector<int> bandEdges(int count) {
  std::vector<int> edges;
  for (int i = 0; i <= count; ++i) {
    const double hz =
        kSpectrumLow_hz * std::pow(kSpectrumHigh_hz / kSpectrumLow_hz, static_cast<double>(i) / count);
    const int bin = static_cast<int>(std::lround(hz * kSpectrumWindow / AudioClip::kRate));
    edges.push_back(edges.empty() ? bin : std::max(bin, edges.back() + 1));
  }
  return edges;
}

template <std::size_t Count>
std::array<float, Count> bandLevels(const std::vector<float>& power, const std::vector<int>& edges) {
  std::array<float, Count> levels;
  for (std::size_t b = 0; b < Count; ++b) {
    float sum = 0;
    for (int i = edges[b]; i < edges[b + 1] && i < kBins; ++i) sum += power[static_cast<std::size_t>(i)];
    levels[b] = std::max(kSpectrumFloor_db, 10 * std::log10(sum + 1e-12f)) - kSpectrumFloor_db;
  }
  return levels;
}

float riseOf(std::span<const float> now, std::span<const float> before, std::size_t from, std::size_t to) {
  float rise = 0;
  for (std::size_t b = from; b < to; ++b) rise += std::max(0.f, now[b] - before[b]);
  return rise / static_cast<float>(to - from);
}

/// Where low, middle and high begin and end among the fine bands: about 40–108 Hz, 108–2,000 Hz and above.
constexpr std::array<std::size_t, MusicFeatures::kRanges + 1> kRangeEdges = {0, kFluxBands / 6,
                                                                             kFluxBands * 2 / 3, kFluxBands};

}  // namespace

std::vector<double> bandEdges_hz(int count) {
  std::vector<double> edges;
  for (const int bin : bandEdges(count))
    edges.push_back(static_cast<double>(bin) * AudioClip::kRate / kSpectrumWindow);
  return edges;
}

SpectrumAnalyser::SpectrumAnalyser() : fine_(bandEdges(kFluxBands)), coarse_(bandEdges(kBands)) {}

SpectralFrame SpectrumAnalyser::next(const std::vector<float>& power) {
  SpectralFrame frame;
  frame.rows = bandLevels<Spectrogram::kRows>(power, fine_);
  frame.bands = bandLevels<kBands>(power, coarse_);
  auto& before = history_[count_ % kBack];
  if (count_ >= kBack) {
    frame.onset = riseOf(frame.rows, before, 0, kFluxBands);
    for (std::size_t range = 0; range < frame.rangeOnsets.size(); ++range)
      frame.rangeOnsets[range] = riseOf(frame.rows, before, kRangeEdges[range], kRangeEdges[range + 1]);
  }
  before = frame.rows;
  ++count_;
  return frame;
}

SpectralFrames analyseSpectrum(const AudioClip& clip) {
  SpectralFrames out;
  Transform transform(SpectrumAnalyser::kWindow);
  SpectrumAnalyser analyser;
  const std::size_t count = clip.frames() / SpectrumAnalyser::kHop + 1;
  for (std::size_t n = 0; n < count; ++n) {
    const SpectralFrame frame =
        analyser.next(transform.power(clip, static_cast<std::ptrdiff_t>(n * SpectrumAnalyser::kHop)));
    out.onset.push_back(frame.onset);
    for (std::size_t range = 0; range < frame.rangeOnsets.size(); ++range)
      out.rangeOnsets[range].push_back(frame.rangeOnsets[range]);
    out.picture.append(frame.rows);
    out.bands.push_back(frame.bands);
  }
  return out;
}

MusicFeatures featuresOf(const SpectralFrames& frames) {
  MusicFeatures features;
  const std::size_t count = frames.bands.size();
  const auto scaled = [count](std::vector<float> curve) {
    if (count == 0) return curve;
    std::vector<float> sorted = curve;
    std::sort(sorted.begin(), sorted.end());
    const float quiet = sorted[count / 20];
    const float loud = std::max(sorted[count - 1 - count / 10], quiet + 6);
    for (float& v : curve) v = std::clamp((v - quiet) / (loud - quiet), 0.f, 1.f);
    return curve;
  };
  std::vector<float> sum(count, 0.f);
  for (std::size_t band = 0; band < features.bands.size(); ++band) {
    std::vector<float> curve(count);
    for (std::size_t i = 0; i < count; ++i) {
      curve[i] = frames.bands[i][band];
      sum[i] += curve[i] / kBands;
    }
    features.bands[band] = scaled(std::move(curve));
  }
  features.level = scaled(std::move(sum));
  return features;
}

}  // namespace chispa
