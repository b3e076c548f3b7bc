// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "../report.h"
#include "lightreport.h"
#include "waltz/tune.h"

#include "core/check/flashes.h"
#include "core/files/showfile.h"
#include "core/music/analysis.h"
#include "core/render/renderer.h"

namespace chispa::bench {
namespace {

constexpr int kFps = 40;
const std::string kDemo = CHISPA_SOURCE_DIR "/demo/carousel.chispa";

double correlationOf(const std::vector<double>& a, const std::vector<double>& b) {
  const auto n = static_cast<double>(a.size());
  double meanA = 0, meanB = 0, both = 0, squaresA = 0, squaresB = 0;
  for (std::size_t i = 0; i < a.size(); ++i) {
    meanA += a[i] / n;
    meanB += b[i] / n;
  }
  for (std::size_t i = 0; i < a.size(); ++i) {
    both += (a[i] - meanA) * (b[i] - meanB);
    squaresA += (a[i] - meanA) * (a[i] - meanA);
    squaresB += (b[i] - meanB) * (b[i] - meanB);
  }
  return squaresA > 0 && squaresB > 0 ? both / std::sqrt(squaresA * squaresB) : 0;
}

/// Means over a second of a curve of kFps values a second.
std::vector<double> bySecond(const std::vector<double>& curve) {
  std::vector<double> means;
  for (std::size_t i = 0; i + kFps <= curve.size(); i += kFps) {
    double sum = 0;
    for (std::size_t k = 0; k < kFps; ++k) sum += curve[i + k] / kFps;
    means.push_back(sum);
  }
  return means;
}

double meanBetween(const std::vector<double>& curve, double from_s, double to_s) {
  const auto first = static_cast<std::size_t>(from_s * kFps);
  const auto last = std::min(curve.size(), static_cast<std::size_t>(to_s * kFps));
  double sum = 0;
  for (std::size_t i = first; i < last; ++i) sum += curve[i];
  return last > first ? sum / static_cast<double>(last - first) : 0;
}

/// How far the light swings with the beat in a part: the mean course of a beat, its height over its mean.
double beatDepth(const std::vector<double>& curve, double from_s, double to_s) {
  constexpr int kParts = 8;
  std::array<double, kParts> sums{};
  std::array<int, kParts> counts{};
  for (auto i = static_cast<std::size_t>(from_s * kFps);
       i < std::min(curve.size(), static_cast<std::size_t>(to_s * kFps)); ++i) {
    const double beat = (static_cast<double>(i) / kFps - demo::kLeadIn_s) / demo::kBeat_s;
    const auto part = static_cast<std::size_t>((beat - std::floor(beat)) * kParts);
    sums[part] += curve[i];
    ++counts[part];
  }
  double low = 1e9, high = 0, mean = 0;
  for (std::size_t p = 0; p < kParts; ++p) {
    const double value = sums[p] / std::max(1, counts[p]);
    low = std::min(low, value);
    high = std::max(high, value);
    mean += value / kParts;
  }
  return mean > 0 ? (high - low) / mean : 0;
}

}  // namespace

void reportDemo() {
  const auto read = loadShow(kDemo);
  if (!read) return void(std::fprintf(stderr, "%s\n", read.failure().text().c_str()));
  std::vector<Failure> failures;
  const MusicLibrary music = loadMusic(*read, kDemo, failures);
  const auto compiled = compile(*read, music);
  const CompiledScore& score = compiled->scores.front();
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled->map->count()));
  std::vector<double> light, loud;
  for (int f = 0; f * 25'000 < score.length.count(); ++f) {
    const Micros t(f * 25'000);
    renderer.render(score, t, frame);
    double sum = 0;
    for (std::size_t i = 0; i < frame.size(); ++i)
      sum += 0.2126 * static_cast<double>(frame.r[i]) + 0.7152 * static_cast<double>(frame.g[i]) +
             0.0722 * static_cast<double>(frame.b[i]);
    light.push_back(sum / static_cast<double>(frame.size()));
    loud.push_back(static_cast<double>(MusicFeatures::at(score.features->level, t - score.audioStart)));
  }
  const LightTable whole("The demo's score against its music", {"measure", "figure"});
  whole.row({"correlation of mean light and loudness, by second",
             format("%.2f", correlationOf(bySecond(light), bySecond(loud)))});
  int flashes = 0;
  for (const FlashRun& run : findFlashes(*compiled, score)) flashes = std::max(flashes, run.flashes);
  whole.row({"most flashes in a second, where more than three", std::to_string(flashes)});
  const LightTable parts("The demo's parts", {"part", "mean light", "loudness", "beat depth"});
  for (const demo::Section& part : demo::sections()) {
    const double from = seconds(demo::barInstant(part.firstBar));
    const double to = seconds(demo::barInstant(part.firstBar + part.bars));
    parts.row({part.name, format("%.3f", meanBetween(light, from, to)),
               format("%.2f", meanBetween(loud, from, to)),
               format("%.0f %%", beatDepth(light, from, to) * 100)});
  }
}

}  // namespace chispa::bench
