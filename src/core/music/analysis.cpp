// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/analysis.h"

#include "core/base/relativepath.h"
#include "core/music/onsets.h"

namespace chispa {

Result<std::shared_ptr<const AnalysedAudio>> analyseAudio(const std::filesystem::path& path,
                                                          const Progress& progress) {
  auto clip = decodeAudio(path, progress);
  if (!clip) return clip.failure();
  // Whoever no longer waits for it is not kept by what follows the decoding either.
  const auto isWanted = [&progress] { return !progress || progress(1); };
  const Failure cancelled{"Reading it was cancelled.", path.string(), "Choose the file anew."};
  auto analysed = std::make_shared<AnalysedAudio>();
  analysed->clip = *std::move(clip);
  analysed->peaks = WaveformPeaks(*analysed->clip);
  analysed->bands = bandWaves(*analysed->clip);
  if (!isWanted()) return cancelled;
  SpectralFrames frames = analyseSpectrum(*analysed->clip);
  if (!isWanted()) return cancelled;
  MusicFeatures features = featuresOf(frames);
  for (std::size_t range = 0; range < features.onsets.size(); ++range)
    features.onsets[range] = findOnsets(frames.rangeOnsets[range]);
  analysed->features = std::make_shared<const MusicFeatures>(std::move(features));
  const Chromagram harmony = chromagramOf(*analysed->clip);
  if (!isWanted()) return cancelled;
  analysed->chances = hearBeats(frames, harmony);
  if (!isWanted()) return cancelled;
  analysed->beats = findBeats(analysed->chances);
  analysed->onsets = findOnsets(frames.onset);
  analysed->sections = findSections(frames, harmony, analysed->beats.bars);
  analysed->harmony = findHarmony(harmony, analysed->beats.beats, analysed->beats.bars);
  analysed->bars = barCurves(frames, analysed->beats.bars);
  analysed->spectrum = std::move(frames.picture);
  return std::shared_ptr<const AnalysedAudio>(std::move(analysed));
}

MusicLibrary loadMusic(const Show& show, const std::filesystem::path& showFile,
                       std::vector<Failure>& failures) {
  MusicLibrary library;
  for (const auto& score : show.scores) {
    if (score->audio.empty() || library.contains(score->audio)) continue;
    const auto analysed = analyseAudio(resolvedBeside(showFile, score->audio));
    if (analysed)
      library[score->audio] = (*analysed)->features;
    else
      failures.push_back(analysed.failure());
  }
  return library;
}

}  // namespace chispa
