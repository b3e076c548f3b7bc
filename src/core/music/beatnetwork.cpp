// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/beatnetwork.h"

#include <algorithm>
#include <cmath>

namespace chispa {
namespace {

#include "core/music/beatweights.inc"

constexpr int kChannels = 32;
constexpr int kTaps = 5;
constexpr int kDilations[] = {1, 2, 4, 8, 16, 32, 64, 128, 256};
static_assert(std::size(kOffsets) == kChannels * (1 + 2 * std::size(kDilations)) + 2,
              "the table is of another network");

/// Numbers over time by channel.
using Channels = std::vector<std::vector<float>>;

/// Reads the table of weights layer after layer.
class Weights {
 public:
  /// The weights of one output of a layer of `inputs` numbers, [tap][input], and its offset.
  struct Output {
    const signed char* weights;
    float scale;
    float offset;
    float at(int i) const { return static_cast<float>(weights[i]) * scale; }
  };
  Output next(int inputs) {
    const Output output{kWeights + weight_, kScales[output_], kOffsets[output_]};
    weight_ += inputs;
    ++output_;
    return output;
  }

 private:
  int weight_ = 0;
  int output_ = 0;
};

/// Adds `weight` × `from`, moved by `shift` frames, to `to` between `first` and `end`; what lies outside is
/// 0.
void addMoved(const std::vector<float>& from, std::ptrdiff_t shift, float weight, std::vector<float>& to,
              std::ptrdiff_t first, std::ptrdiff_t end) {
  const std::ptrdiff_t low = std::max(first, -shift);
  const std::ptrdiff_t high = std::min(end, std::ssize(from) - shift);
  const float* source = from.data() + shift;
  float* target = to.data();
  for (std::ptrdiff_t i = low; i < high; ++i) target[i] += weight * source[i];
}

/// One layer: `taps` frames of `from`, `dilation` apart, give each of `outputs` channels. It goes through
/// time in stretches that stay in the cache.
void convolve(const Channels& from, int outputs, int taps, int dilation, Weights& weights, Channels& to) {
  constexpr std::ptrdiff_t kStretch = 2'048;
  const auto inputs = static_cast<int>(from.size());
  const auto count = std::ssize(from.front());
  std::vector<Weights::Output> rows;
  for (int o = 0; o < outputs; ++o) rows.push_back(weights.next(inputs * taps));
  to.resize(static_cast<std::size_t>(outputs));
  for (int o = 0; o < outputs; ++o)
    to[static_cast<std::size_t>(o)].assign(from.front().size(), rows[static_cast<std::size_t>(o)].offset);
  for (std::ptrdiff_t first = 0; first < count; first += kStretch)
    for (int o = 0; o < outputs; ++o)
      for (int tap = 0; tap < taps; ++tap)
        for (int i = 0; i < inputs; ++i)
          addMoved(from[static_cast<std::size_t>(i)], (tap - taps / 2) * dilation,
                   rows[static_cast<std::size_t>(o)].at(tap * inputs + i), to[static_cast<std::size_t>(o)],
                   first, std::min(count, first + kStretch));
}

/// Exponential linear units.
void bend(Channels& channels) {
  for (auto& channel : channels)
    for (float& v : channel) v = v > 0 ? v : std::expm1(v);
}

}  // namespace

BeatChances beatChances(const RhythmInput& input) {
  BeatChances chances;
  if (input.frames.empty()) return chances;
  Channels heard(RhythmInput::kNumbers, std::vector<float>(input.frames.size()));
  for (std::size_t n = 0; n < input.frames.size(); ++n)
    for (std::size_t k = 0; k < heard.size(); ++k) heard[k][n] = input.frames[n][k];
  Weights weights;
  Channels now, wide, mixed;
  convolve(heard, kChannels, 3, 1, weights, now);
  bend(now);
  for (const int dilation : kDilations) {
    convolve(now, kChannels, kTaps, dilation, weights, wide);
    bend(wide);
    convolve(wide, kChannels, 1, 1, weights, mixed);
    for (std::size_t k = 0; k < now.size(); ++k)
      for (std::size_t n = 0; n < now[k].size(); ++n) now[k][n] += mixed[k][n];
  }
  convolve(now, 2, 1, 1, weights, wide);
  for (auto& channel : wide)
    for (float& v : channel) v = 1 / (1 + std::exp(-v));
  chances.beat = std::move(wide[0]);
  chances.first = std::move(wide[1]);
  return chances;
}

}  // namespace chispa
