// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/bandwaves.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace chispa {
namespace {

/// A second-order section with the slope of Butterworth's.
class Section {
 public:
  Section(double edge_hz, bool isHigh) {
    const double w = 2 * std::numbers::pi * edge_hz / AudioClip::kRate;
    const double alpha = std::sin(w) / std::numbers::sqrt2;
    const double c = std::cos(w);
    const double whole = 1 + alpha;
    const double edge = isHigh ? (1 + c) / 2 : (1 - c) / 2;
    b0_ = edge / whole;
    b1_ = (isHigh ? -2 : 2) * edge / whole;
    a1_ = -2 * c / whole;
    a2_ = (1 - alpha) / whole;
  }
  double operator()(double x) {
    const double y = b0_ * x + s1_;
    s1_ = b1_ * x - a1_ * y + s2_;
    s2_ = b0_ * x - a2_ * y;
    return y;
  }

 private:
  double b0_, b1_, a1_, a2_;
  double s1_ = 0;
  double s2_ = 0;
};

/// Twice the same section: half of the voltage at the edge.
struct Crossover {
  Crossover(double edge_hz, bool isHigh) : first(edge_hz, isHigh), second(edge_hz, isHigh) {}
  double operator()(double x) { return second(first(x)); }
  Section first, second;
};

}  // namespace

std::array<WaveformPeaks, 3> bandWaves(const AudioClip& clip) {
  Crossover low(kLowEnds_hz, false), aboveLow(kLowEnds_hz, true), belowHigh(kHighBegins_hz, false),
      high(kHighBegins_hz, true);
  std::array<std::vector<WaveformPeaks::Peak>, 3> finest;
  eachMonoBlock(clip, [&](std::span<const float> block, std::size_t) {
    for (std::size_t i = 0; i < block.size(); ++i) {
      if (i % WaveformPeaks::kFinest == 0)
        for (auto& band : finest) band.push_back({1, -1});
      const double x = static_cast<double>(block[i]);
      const std::array<double, 3> bands = {low(x), belowHigh(aboveLow(x)), high(x)};
      for (std::size_t b = 0; b < bands.size(); ++b) {
        WaveformPeaks::Peak& peak = finest[b].back();
        peak.low = std::min(peak.low, static_cast<float>(bands[b]));
        peak.high = std::max(peak.high, static_cast<float>(bands[b]));
      }
    }
  });
  return {WaveformPeaks(std::move(finest[0])), WaveformPeaks(std::move(finest[1])),
          WaveformPeaks(std::move(finest[2]))};
}

}  // namespace chispa
