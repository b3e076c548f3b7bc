// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/rhythminput.h"

#include <algorithm>

#include "core/music/spectrum.h"

namespace chispa {
namespace {

constexpr std::size_t kColumnsPerFrame = MusicFeatures::kRate / RhythmInput::kRate;
/// What is this much below the loudest is not heard, in decibels.
constexpr float kRange_db = 60;

/// The loudness that only a few columns pass, in steps of the picture.
std::uint8_t loudestOf(const Spectrogram& picture) {
  std::array<std::size_t, 256> counts{};
  for (std::size_t column = 0; column < picture.columns(); ++column) {
    const auto rows = picture.column(column);
    ++counts[*std::max_element(rows.begin(), rows.end())];
  }
  std::size_t above = 0;
  for (std::size_t level = counts.size(); level-- > 1;) {
    above += counts[level];
    if (above * 200 > picture.columns()) return static_cast<std::uint8_t>(level);
  }
  return 0;
}

/// Levels of one column, 0–1, `rows` of the picture's rows together.
class Levels {
 public:
  Levels(const Spectrogram& picture, std::uint8_t loudest)
      : picture_(picture),
        floor_(static_cast<float>(loudest) - kRange_db * kSteps),
        scale_(1 / (kRange_db * kSteps)) {}

  float at(std::size_t column, std::size_t row, std::size_t rows) const {
    const auto values = picture_.column(column);
    float sum = 0;
    for (std::size_t k = 0; k < rows; ++k)
      sum += std::clamp((static_cast<float>(values[row * rows + k]) - floor_) * scale_, 0.f, 1.2f);
    return sum / static_cast<float>(rows);
  }

 private:
  static constexpr float kSteps = 255 / -kSpectrumFloor_db;
  const Spectrogram& picture_;
  float floor_;
  float scale_;
};

}  // namespace

RhythmInput rhythmInput(const Spectrogram& picture, const Chromagram& harmony) {
  RhythmInput input;
  const Levels levels(picture, loudestOf(picture));
  // Attacks last about two columns.
  constexpr std::size_t kBack = 2;
  constexpr float kRiseGain = 3;
  const std::size_t count = picture.columns() / kColumnsPerFrame;
  for (std::size_t n = 0; n < count; ++n) {
    auto& frame = input.frames.emplace_back();
    const std::size_t first = n * kColumnsPerFrame;
    for (std::size_t band = 0; band < RhythmInput::kRises; ++band) {
      float rise = 0;
      for (std::size_t column = std::max(first, kBack); column < first + kColumnsPerFrame; ++column) {
        constexpr std::size_t kRows = Spectrogram::kRows / RhythmInput::kRises;
        rise = std::max(rise, levels.at(column, band, kRows) - levels.at(column - kBack, band, kRows));
      }
      frame[band] = std::min(1.5f, kRiseGain * rise);
    }
    for (std::size_t band = 0; band < RhythmInput::kLevels; ++band)
      frame[RhythmInput::kRises + band] = levels.at(first, band, Spectrogram::kRows / RhythmInput::kLevels);
    const double at_s = static_cast<double>(n) / RhythmInput::kRate;
    float* changes = frame.data() + RhythmInput::kRises + RhythmInput::kLevels;
    constexpr double kShort_s = 0.25, kLong_s = 1;
    changes[0] = harmonicChange(harmony.middle, at_s, kShort_s);
    changes[1] = harmonicChange(harmony.middle, at_s, kLong_s);
    changes[2] = harmonicChange(harmony.bass, at_s, kShort_s);
    changes[3] = harmonicChange(harmony.bass, at_s, kLong_s);
  }
  return input;
}

}  // namespace chispa
