// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <filesystem>
#include <memory>
#include <span>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/base/time.h"

namespace chispa {

/// Sound: two channels, interleaved, ±1, at kRate frames a second. Read from any thread.
class AudioClip {
 public:
  static constexpr int kRate = 48'000;
  static constexpr int kChannels = 2;
  /// Frames that are read at a time where a clip is gone through.
  static constexpr std::size_t kBlock = 8192;

  virtual ~AudioClip() = default;
  virtual std::size_t frames() const = 0;
  /// Fills `out` with the frames from `first` on, which may lie before the beginning; outside the clip there
  /// is silence.
  virtual void read(std::ptrdiff_t first, std::span<float> out) const = 0;

  Micros length() const { return Micros(static_cast<Micros::rep>(frames()) * 1'000'000 / kRate); }
};

/// The place of an instant in a clip.
constexpr std::ptrdiff_t framesOf(Micros time) {
  return static_cast<std::ptrdiff_t>(time.count() * AudioClip::kRate / 1'000'000);
}

/// A clip that lies in memory.
class AudioBuffer final : public AudioClip {
 public:
  std::vector<float> samples;

  std::size_t frames() const override { return samples.size() / kChannels; }
  void read(std::ptrdiff_t first, std::span<float> out) const override;
};

/// Calls `visit(block, first)` with the mean of both channels, block after block.
template <class F>
void eachMonoBlock(const AudioClip& clip, F visit) {
  std::vector<float> both(AudioClip::kBlock * AudioClip::kChannels), mono(AudioClip::kBlock);
  for (std::size_t first = 0; first < clip.frames(); first += AudioClip::kBlock) {
    const std::size_t count = std::min(AudioClip::kBlock, clip.frames() - first);
    clip.read(static_cast<std::ptrdiff_t>(first), std::span(both).first(count * AudioClip::kChannels));
    for (std::size_t i = 0; i < count; ++i) mono[i] = 0.5f * (both[2 * i] + both[2 * i + 1]);
    visit(std::span<const float>(mono).first(count), first);
  }
}

/// Adds a short click of `pitch_hz` at `at`; what would lie behind the end is left out.
void addClick(AudioBuffer& clip, Micros at, double pitch_hz);

/// Silence with a short click at each full second.
std::shared_ptr<const AudioClip> makeClicks(Micros length);

/// Decodes the first sound stream of any file that FFmpeg's libraries read; at most 24 hours. A piece of more
/// than some minutes is kept in a file without a name, so that its length needs no memory. Fails if it is
/// cancelled.
Result<std::shared_ptr<const AudioClip>> decodeAudio(const std::filesystem::path& path,
                                                     const Progress& progress = {});

/// The waveform at several zooms: level 0 has a lowest and highest value for each kFinest frames, and each
/// level above for four times as many.
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
