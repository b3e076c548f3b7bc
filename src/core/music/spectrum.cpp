// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/spectrum.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <mutex>
#include <numbers>

#include <fftw3.h>

namespace chispa {
namespace {

constexpr int kWindow = 2048;
constexpr int kHop = AudioClip::kRate / MusicFeatures::kRate;
constexpr int kBins = kWindow / 2 + 1;
/// Finer bands than effects see: onsets of one instrument must not drown in another's sound.
constexpr int kFluxBands = Spectrogram::kRows;

/// Edges of `count` bands, equally wide in logarithm of frequency, as bins of the transform.
std::vector<int> bandEdges(int count) {
  std::vector<int> edges;
  for (int i = 0; i <= count; ++i) {
    const double hz =
        kSpectrumLow_hz * std::pow(kSpectrumHigh_hz / kSpectrumLow_hz, static_cast<double>(i) / count);
    const int bin = static_cast<int>(std::lround(hz * kWindow / AudioClip::kRate));
    edges.push_back(edges.empty() ? bin : std::max(bin, edges.back() + 1));
  }
  return edges;
}

/// A windowed transform of a fixed length; FFTW's plans are made under a lock, as its manual asks (§5.4).
class Transform {
 public:
  Transform() : in_(fftwf_alloc_real(kWindow)), out_(fftwf_alloc_complex(kBins)) {
    const std::scoped_lock lock(planning());
    plan_ = fftwf_plan_dft_r2c_1d(kWindow, in_, out_, FFTW_ESTIMATE);
    for (int i = 0; i < kWindow; ++i)
      hann_[static_cast<std::size_t>(i)] =
          0.5f - 0.5f * static_cast<float>(std::cos(2 * std::numbers::pi * i / kWindow));
  }
  ~Transform() {
    const std::scoped_lock lock(planning());
    fftwf_destroy_plan(plan_);
    fftwf_free(in_);
    fftwf_free(out_);
  }
  Transform(const Transform&) = delete;
  Transform& operator=(const Transform&) = delete;

  /// Power of each bin of the window centred on frame `centre` of the clip.
  const std::vector<float>& power(const AudioClip& clip, std::ptrdiff_t centre) {
    clip.read(centre - kWindow / 2, both_);
    for (std::size_t i = 0; i < kWindow; ++i) in_[i] = 0.5f * (both_[2 * i] + both_[2 * i + 1]) * hann_[i];
    fftwf_execute(plan_);
    for (int i = 0; i < kBins; ++i)
      power_[static_cast<std::size_t>(i)] =
          (out_[i][0] * out_[i][0] + out_[i][1] * out_[i][1]) / (kWindow * kWindow / 16);
    return power_;
  }

 private:
  static std::mutex& planning() {
    static std::mutex mutex;
    return mutex;
  }
  float* in_;
  fftwf_complex* out_;
  fftwf_plan plan_;
  std::array<float, kWindow> hann_{};
  std::array<float, std::size_t{kWindow} * AudioClip::kChannels> both_{};
  std::vector<float> power_ = std::vector<float>(kBins);
};

std::vector<float> bandLevels(const std::vector<float>& power, const std::vector<int>& edges) {
  std::vector<float> levels(edges.size() - 1);
  for (std::size_t b = 0; b < levels.size(); ++b) {
    float sum = 0;
    for (int i = edges[b]; i < edges[b + 1] && i < kBins; ++i) sum += power[static_cast<std::size_t>(i)];
    levels[b] = std::max(kSpectrumFloor_db, 10 * std::log10(sum + 1e-12f)) - kSpectrumFloor_db;
  }
  return levels;
}

float riseOf(const std::vector<float>& now, const std::vector<float>& before, std::size_t from,
             std::size_t to) {
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
    edges.push_back(static_cast<double>(bin) * AudioClip::kRate / kWindow);
  return edges;
}

SpectralFrames analyseSpectrum(const AudioClip& clip) {
  SpectralFrames out;
  Transform transform;
  const auto fine = bandEdges(kFluxBands);
  const auto coarse = bandEdges(kBands);
  // Attacks of struck notes last about two frames: compare with the frame before the last.
  constexpr std::size_t kBack = 2;
  std::vector<std::vector<float>> history(kBack, std::vector<float>(kFluxBands, 0.f));
  const std::size_t count = clip.frames() / kHop + 1;
  for (std::size_t frame = 0; frame < count; ++frame) {
    const auto& power = transform.power(clip, static_cast<std::ptrdiff_t>(frame) * kHop);
    std::vector<float> levels = bandLevels(power, fine);
    auto& before = history[frame % kBack];
    out.onset.push_back(frame < kBack ? 0 : riseOf(levels, before, 0, kFluxBands));
    for (std::size_t range = 0; range < out.rangeOnsets.size(); ++range)
      out.rangeOnsets[range].push_back(
          frame < kBack ? 0 : riseOf(levels, before, kRangeEdges[range], kRangeEdges[range + 1]));
    out.picture.append(levels);
    before = std::move(levels);
    const auto wide = bandLevels(power, coarse);
    std::copy(wide.begin(), wide.end(), out.bands.emplace_back().begin());
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
