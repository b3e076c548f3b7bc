// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <functional>
#include <memory>
#include <vector>

#include "core/base/result.h"
#include "core/base/time.h"

namespace chispa {

/// Decoded sound: two channels, interleaved, ±1, at kRate frames a second.
struct AudioClip {
  static constexpr int kRate = 48'000;
  static constexpr int kChannels = 2;

  std::vector<float> samples;

  std::size_t frames() const { return samples.size() / kChannels; }
  Micros length() const { return Micros(static_cast<Micros::rep>(frames()) * 1'000'000 / kRate); }
  /// Mean of both channels of frame `i`.
  float mono(std::size_t i) const { return 0.5f * (samples[2 * i] + samples[2 * i + 1]); }
};

/// Adds a short click of `pitch_hz` at `at`; what would lie behind the end is left out.
void addClick(AudioClip& clip, Micros at, double pitch_hz);

/// Silence with a short click at each full second.
std::shared_ptr<const AudioClip> makeClicks(Micros length);

/// Decodes the first sound stream of any file that FFmpeg's libraries read; at most four hours.
Result<std::shared_ptr<const AudioClip>> decodeAudio(const std::filesystem::path& path);

/// The waveform at several zooms: level 0 has a lowest and highest value for each kFinest frames, and each level
/// above for four times as many.
class WaveformPeaks {
 public:
  static constexpr std::size_t kFinest = 128;
  static constexpr std::size_t kCoarser = 4;

  struct Peak {
    float low = 0;
    float high = 0;
  };

  WaveformPeaks() = default;
  explicit WaveformPeaks(const AudioClip& clip);
  /// Of peaks of kFinest frames each.
  explicit WaveformPeaks(std::vector<Peak> finest);

  /// Extremes between two instants, from the level whose bins are just fine enough.
  Peak between(Micros from, Micros to) const;
  std::size_t levels() const { return levels_.size(); }

 private:
  std::vector<std::vector<Peak>> levels_;
};

}  // namespace chispa
