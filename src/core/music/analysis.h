// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>

#include "core/base/result.h"
#include "core/media/audio.h"
#include "core/music/bandwaves.h"
#include "core/music/beats.h"
#include "core/music/chords.h"
#include "core/music/sections.h"
#include "core/music/spectrogram.h"
#include "core/show/show.h"

namespace chispa {

/// All that is known of an audio file.
struct AnalysedAudio {
  std::shared_ptr<const AudioClip> clip;
  std::shared_ptr<const MusicFeatures> features;
  WaveformPeaks peaks;
  /// Low, middle and high.
  std::array<WaveformPeaks, 3> bands;
  Spectrogram spectrum;
  FoundBeats beats;
  std::vector<Micros> onsets;
  std::vector<FoundSection> sections;
  FoundHarmony harmony;
  BarCurves bars;
  /// What beats were decided by; they can be decided anew.
  BeatChances chances;
};

/// Decodes and analyses; takes about a second for a minute of music. `progress` hears of the decoding, and
/// can cancel it.
Result<std::shared_ptr<const AnalysedAudio>> analyseAudio(const std::filesystem::path& path,
                                                          const Progress& progress = {});

/// Features of all audio files of `show`; why a file gives none is added to `failures`.
MusicLibrary loadMusic(const Show& show, const std::filesystem::path& showFile,
                       std::vector<Failure>& failures);

}  // namespace chispa
