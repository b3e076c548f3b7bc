// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/chromagram.h"

#include <algorithm>
#include <cmath>

#include "core/music/transform.h"

namespace chispa {
namespace {

constexpr double kTuning_hz = 440;

}  // namespace

ChromaAnalyser::PitchBins ChromaAnalyser::pitchBins(double low_hz, double high_hz) {
  // Bins are narrow enough to tell semitones apart from about 100 Hz up.
  constexpr double kBinWidth_hz = static_cast<double>(AudioClip::kRate) / kChromaWindow;
  PitchBins bins;
  bins.first = static_cast<std::size_t>(std::ceil(low_hz / kBinWidth_hz));
  for (std::size_t i = bins.first; static_cast<double>(i) * kBinWidth_hz < high_hz; ++i) {
    const long fromA = std::lround(12 * std::log2(static_cast<double>(i) * kBinWidth_hz / kTuning_hz));
    // A is the ninth above C.
    bins.classes.push_back(static_cast<std::uint8_t>(((fromA + 9) % 12 + 12) % 12));
  }
  return bins;
}

Chroma ChromaAnalyser::chromaOf(const std::vector<float>& power, const PitchBins& bins) {
  Chroma chroma{};
  for (std::size_t k = 0; k < bins.classes.size(); ++k) {
    const std::size_t i = bins.first + k;
    // Tones stand out of their neighbours; what lies between does not count.
    if (power[i] > power[i - 1] && power[i] >= power[i + 1]) chroma[bins.classes[k]] += std::sqrt(power[i]);
  }
  float square = 0;
  for (const float v : chroma) square += v * v;
  constexpr float kSilent = 1e-4f;
  const float scale = square > kSilent * kSilent ? 1 / std::sqrt(square) : 0;
  for (float& v : chroma) v *= scale;
  return chroma;
}

ChromaAnalyser::ChromaAnalyser() : middle_(pitchBins(190, 2'200)), bass_(pitchBins(50, 260)) {}

std::pair<Chroma, Chroma> ChromaAnalyser::next(const std::vector<float>& power) const {
  return {chromaOf(power, middle_), chromaOf(power, bass_)};
}

Chromagram chromagramOf(const AudioClip& clip) {
  Transform transform(kChromaWindow);
  const ChromaAnalyser analyser;
  constexpr auto kHop = static_cast<std::size_t>(AudioClip::kRate / Chromagram::kRate);
  Chromagram chromagram;
  for (std::size_t at = 0; at < clip.frames() + kHop; at += kHop) {
    const auto [middle, bass] = analyser.next(transform.power(clip, static_cast<std::ptrdiff_t>(at)));
    chromagram.middle.push_back(middle);
    chromagram.bass.push_back(bass);
  }
  return chromagram;
}

float cosineOf(const Chroma& a, const Chroma& b) {
  float dot = 0, squareA = 0, squareB = 0;
  for (std::size_t k = 0; k < a.size(); ++k) {
    dot += a[k] * b[k];
    squareA += a[k] * a[k];
    squareB += b[k] * b[k];
  }
  return squareA > 0 && squareB > 0 ? dot / std::sqrt(squareA * squareB) : 0;
}

float harmonicChange(const std::vector<Chroma>& chroma, double at_s, double reach_s) {
  const auto count = std::ssize(chroma);
  const auto sum = [&](double from_s, double to_s) {
    Chroma total{};
    const auto from = std::max<std::ptrdiff_t>(0, std::lround(from_s * Chromagram::kRate));
    const auto to = std::min<std::ptrdiff_t>(count, std::lround(to_s * Chromagram::kRate) + 1);
    for (std::ptrdiff_t i = from; i < to; ++i)
      for (std::size_t k = 0; k < total.size(); ++k) total[k] += chroma[static_cast<std::size_t>(i)][k];
    return total;
  };
  // Half a window lies on the other side of the instant: it is left out.
  constexpr double kHalf_s = 0.08;
  const Chroma before = sum(at_s - reach_s - kHalf_s, at_s - kHalf_s);
  const Chroma after = sum(at_s + kHalf_s, at_s + reach_s + kHalf_s);
  const auto isSilent = [](const Chroma& c) {
    return std::all_of(c.begin(), c.end(), [](float v) { return v == 0; });
  };
  return isSilent(before) || isSilent(after) ? 0 : 1 - cosineOf(before, after);
}

}  // namespace chispa
