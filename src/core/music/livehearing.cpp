// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/livehearing.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chispa {
namespace {

constexpr auto kColumns = static_cast<std::size_t>(HeardMusic::kWindow_s * MusicFeatures::kRate);
constexpr std::size_t kColumnsPerChroma = 8;
constexpr std::size_t kChromas = kColumns / kColumnsPerChroma;
/// Beats are decided anew this often, once so much was heard.
constexpr std::size_t kColumnsPerDecision = 40;
constexpr std::size_t kColumnsToBegin = 400;
/// The middle of the window that a column is made of lies so far back.
constexpr double kBehind_s = 0.5 * SpectrumAnalyser::kWindow / AudioClip::kRate;

void shiftIn(std::vector<float>& curve, float value) {
  std::move(curve.begin() + 1, curve.end(), curve.begin());
  curve.back() = value;
}

}  // namespace

void HeardMusic::resize(std::size_t) {
  features.level.assign(kColumns, 0.f);
  for (auto& band : features.bands) band.assign(kColumns, 0.f);
  // No onset follows another within 50 ms.
  for (auto& onsets : features.onsets) onsets.reserve(kColumns / 5 + 1);
}

float LiveHearing::Scale::scaled(float level) {
  constexpr float kLeast_db = 12;
  // A second makes them follow by a decibel, so that a pause does not make noise loud; in the first seconds
  // by more.
  constexpr int kFirst = 3 * MusicFeatures::kRate;
  const float pace = heard < kFirst ? 0.1f : 0.01f;
  if (heard++ == 0) quiet = loud = level;
  loud = level > loud ? loud + 0.3f * (level - loud) : loud - pace;
  quiet = level < quiet ? quiet + 0.1f * (level - quiet) : quiet + pace;
  loud = std::max(loud, quiet + kLeast_db);
  return std::clamp((level - quiet) / (loud - quiet), 0.f, 1.f);
}

bool LiveHearing::Rises::isOnset(float rise) {
  constexpr std::size_t kAround = MusicFeatures::kRate;
  constexpr float kLeast_db = 1.5f;
  const float mean =
      recent.empty() ? 0
                     : std::accumulate(recent.begin(), recent.end(), 0.f) / static_cast<float>(recent.size());
  const bool stands = recent.size() > 5 && rise > kLeast_db && rise > 3 * mean &&
                      rise >= *std::max_element(recent.end() - 5, recent.end());
  recent.push_back(rise);
  if (recent.size() > kAround) recent.pop_front();
  constexpr int kApart = 6;
  if (waiting > 0) --waiting;
  if (!stands || waiting > 0) return false;
  waiting = kApart;
  return true;
}

LiveHearing::LiveHearing() : recent_(kChromaWindow, 0.f) {
  heard_.resize(0);
  heard_.now = micros(HeardMusic::kWindow_s);
}

void LiveHearing::hear(std::span<const float> mono) {
  while (!mono.empty()) {
    const std::size_t due = SpectrumAnalyser::kHop - taken_ % SpectrumAnalyser::kHop;
    const std::size_t count = std::min(due, mono.size());
    std::move(recent_.begin() + static_cast<std::ptrdiff_t>(count), recent_.end(), recent_.begin());
    std::copy(mono.begin(), mono.begin() + static_cast<std::ptrdiff_t>(count),
              recent_.end() - static_cast<std::ptrdiff_t>(count));
    mono = mono.subspan(count);
    taken_ += count;
    if (count == due) step();
  }
}

void LiveHearing::step() {
  append(spectrum_.next(near_.power(std::span(recent_).last(SpectrumAnalyser::kWindow))));
  if (steps_ % kColumnsPerChroma == 0) {
    chromas_.push_back(chroma_.next(far_.power(recent_)));
    if (chromas_.size() > kChromas) chromas_.pop_front();
  }
  ++steps_;
  if (heard_.beat_s > 0) heard_.beat += 1.0 / MusicFeatures::kRate / heard_.beat_s;
  if (steps_ >= kColumnsToBegin && steps_ % kColumnsPerDecision == 0) decide();
}

void LiveHearing::append(const SpectralFrame& frame) {
  rows_.push_back(frame.rows);
  if (rows_.size() > kColumns) rows_.pop_front();
  float square = 0;
  for (const float v : std::span(recent_).last(SpectrumAnalyser::kHop)) square += v * v;
  constexpr float kFloor_db = 60;
  const float power = square / static_cast<float>(SpectrumAnalyser::kHop);
  heard_.loudness = std::clamp(1 + 10 * std::log10(power + 1e-12f) / kFloor_db, 0.f, 1.f);
  const bool isSilent = heard_.loudness <= 0;
  float sum = 0;
  for (std::size_t band = 0; band < kBands; ++band) {
    sum += frame.bands[band] / kBands;
    shiftIn(heard_.features.bands[band], isSilent ? 0 : bandScales_[band].scaled(frame.bands[band]));
  }
  shiftIn(heard_.features.level, isSilent ? 0 : levelScale_.scaled(sum));
  constexpr Micros kStep{1'000'000 / MusicFeatures::kRate};
  for (std::size_t range = 0; range < rises_.size(); ++range) {
    auto& onsets = heard_.features.onsets[range];
    for (Micros& at : onsets) at -= kStep;
    heard_.features.onsetsBefore[range] += std::erase_if(onsets, [](Micros at) { return at.count() < 0; });
    if (rises_[range].isOnset(frame.rangeOnsets[range]) && !isSilent)
      onsets.push_back(heard_.now - micros(kBehind_s));
  }
}

void LiveHearing::decide() {
  Spectrogram picture;
  for (const auto& rows : rows_) picture.append(rows);
  Chromagram harmony;
  // A chroma's window is longer: its middle lies two of them further back than a column's.
  constexpr std::ptrdiff_t kLate = 2;
  for (auto at = chromas_.begin() + std::min<std::ptrdiff_t>(kLate, std::ssize(chromas_));
       at != chromas_.end(); ++at) {
    harmony.middle.push_back(at->first);
    harmony.bass.push_back(at->second);
  }
  if (harmony.middle.empty()) return;
  for (std::ptrdiff_t n = 0; n < kLate; ++n) {
    harmony.middle.push_back(harmony.middle.back());
    harmony.bass.push_back(harmony.bass.back());
  }
  const double begins_s =
      seconds() - kBehind_s - static_cast<double>(rows_.size() - 1) / MusicFeatures::kRate;
  follow(findBeats(beatChances(rhythmInput(picture, harmony))), begins_s);
}

void LiveHearing::follow(const FoundBeats& found, double begins_s) {
  constexpr std::size_t kFitted = 8;
  constexpr float kLeastSure = 0.3f;
  // What is heard at the very end is not sure yet.
  constexpr double kOpen_s = 0.3;
  std::size_t count = found.beats.size();
  while (count > 0 && begins_s + chispa::seconds(found.beats[count - 1]) > seconds() - kOpen_s) --count;
  heard_.sureness = count > 0 ? found.sureness[count - 1] : 0;
  if (count < kFitted || heard_.sureness < kLeastSure) return;
  // A line through the last beats (least squares): when they fall, and how long they are.
  double meanTime = 0, slope = 0;
  constexpr double kMiddle = (kFitted - 1) / 2.0;
  for (std::size_t k = 0; k < kFitted; ++k) {
    const double at_s = begins_s + chispa::seconds(found.beats[count - kFitted + k]);
    meanTime += at_s / kFitted;
    slope += (static_cast<double>(k) - kMiddle) * at_s;
  }
  constexpr double kSquares = kFitted * (kFitted * kFitted - 1.0) / 12;
  const double beat_s = slope / kSquares;
  if (beat_s < 0.2 || beat_s > 2) return;
  // How many beats after the last of them it is now.
  const double since = (seconds() - meanTime) / beat_s - kMiddle;
  const bool isFirst = heard_.beat_s == 0;
  double off = since - heard_.beat;
  off -= std::round(off);
  // What is a little off is drawn near, so that nothing jumps; a beat that was wrong is put right.
  constexpr double kLittle = 0.12;
  heard_.beat += isFirst || std::abs(off) > kLittle ? off : 0.5 * off;
  heard_.beat_s = beat_s;
  heard_.beatsPerBar = std::max(1, found.beatsPerBar);
  const Micros last = found.beats[count - 1];
  const auto bar = std::upper_bound(found.bars.begin(), found.bars.end(), last);
  if (bar == found.bars.begin()) return;
  const auto inBar = std::lower_bound(found.beats.begin(), found.beats.end(), last) -
                     std::lower_bound(found.beats.begin(), found.beats.end(), *std::prev(bar));
  heard_.barBegins = std::round(heard_.beat - since) - static_cast<double>(inBar);
}

}  // namespace chispa
