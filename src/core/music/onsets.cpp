// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/onsets.h"

#include <algorithm>
#include <cmath>

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

}  // namespace

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
