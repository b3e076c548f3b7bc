// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/features.h"

#include <algorithm>
#include <cmath>

namespace chispa {
namespace {

constexpr Micros kPlainBeat{500'000};
constexpr int kPlainBeatsPerBar = 3;

std::vector<Micros> plainGrid(Micros step) {
  return {Micros(0), step};
}

}  // namespace

float MusicFeatures::at(const std::vector<float>& curve, Micros t) {
  const double x = seconds(t) * kRate;
  if (x < 0 || curve.empty() || x >= static_cast<double>(curve.size() - 1)) return 0;
  const auto i = static_cast<std::size_t>(x);
  const auto share = static_cast<float>(x - static_cast<double>(i));
  return curve[i] + (curve[i + 1] - curve[i]) * share;
}

float MusicFeatures::onsetAt(std::size_t range, Micros t) const {
  const auto& all = onsets[std::min(range, kRanges - 1)];
  const auto after = std::upper_bound(all.begin(), all.end(), t);
  if (after == all.begin()) return 0;
  constexpr double kFades_s = 0.5;
  const double age = seconds(t - *std::prev(after)) / kFades_s;
  return age >= 1 ? 0 : static_cast<float>((1 - age) * (1 - age));
}

MusicGrid::MusicGrid(std::vector<Micros> beats, std::vector<Micros> bars)
    : beats_(std::move(beats)), bars_(std::move(bars)) {
  if (beats_.size() < 2) beats_ = plainGrid(kPlainBeat);
  if (bars_.size() < 2) bars_ = plainGrid(kPlainBeat * kPlainBeatsPerBar);
}

double MusicGrid::position(const std::vector<Micros>& marks, Micros t) {
  if (marks.size() < 2) return seconds(t);
  // Outside the marks the nearest gap goes on.
  const auto above = std::upper_bound(marks.begin(), marks.end(), t);
  const auto next = std::clamp<std::ptrdiff_t>(above - marks.begin(), 1, std::ssize(marks) - 1);
  const auto from = marks[static_cast<std::size_t>(next - 1)];
  const auto gap = std::max(marks[static_cast<std::size_t>(next)] - from, Micros(1));
  return static_cast<double>(next - 1) + seconds(t - from) / seconds(gap);
}

Micros MusicGrid::instant(const std::vector<Micros>& marks, double position) {
  if (marks.size() < 2) return micros(position);
  const auto gap =
      std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(std::floor(position)), 0, std::ssize(marks) - 2);
  const Micros from = marks[static_cast<std::size_t>(gap)];
  return from + micros((position - static_cast<double>(gap)) *
                       seconds(marks[static_cast<std::size_t>(gap + 1)] - from));
}

Micros MusicGrid::beatLength(Micros t) const {
  const double beat = std::floor(beatAt(t) + 1e-6);
  return std::max(Micros(1000), instant(beats_, beat + 1) - instant(beats_, beat));
}

double MusicGrid::beatInBarAt(Micros t) const {
  if (bars_.size() < 2) return 0;
  const double bar = std::floor(barAt(t) + 1e-6);
  const auto index = static_cast<std::ptrdiff_t>(bar);
  if (index < 0 || index >= std::ssize(bars_)) return std::fmod(std::max(0.0, beatAt(t)), kPlainBeatsPerBar);
  return std::max(0.0, beatAt(t) - beatAt(bars_[static_cast<std::size_t>(index)]));
}

double MusicGrid::beatsOfBarAt(Micros t) const {
  if (bars_.size() < 2) return kPlainBeatsPerBar;
  const double bar = std::floor(barAt(t) + 1e-6);
  return std::max(1.0, beatAt(barStart(bar + 1)) - beatAt(barStart(bar)));
}

}  // namespace chispa
