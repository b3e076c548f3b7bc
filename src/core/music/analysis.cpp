// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/analysis.h"
#include "core/files/besidefile.h"

namespace chispa {
namespace {

void putLane(Show& show, Score& score, LaneKind kind, const std::string& name, const std::vector<Micros>& instants, bool isLettered = false) {
  std::vector<Mark> marks;
  for (const Micros at : instants) {
    const Micros heard = at + score.audioStart;
    if (heard.count() < 0 || heard > score.length) continue;
    std::string words;
    if (isLettered) words = std::string(1, static_cast<char>('A' + marks.size() % 26));
    marks.push_back({show.newId<MarkId>(), heard, words, Micros(0)});
  }
  const auto lane = std::find_if(score.lanes.begin(), score.lanes.end(), [kind](const MarkLane& l) { return l.kind == kind; });
  if (lane != score.lanes.end())
    lane->marks = std::move(marks);
  else
    score.lanes.push_back({show.newId<LaneId>(), name, kind, std::move(marks)});
}

}  // namespace

Result<std::shared_ptr<const AnalysedAudio>> analyseAudio(const std::filesystem::path& path) {
  auto clip = decodeAudio(path);
  if (!clip) return clip.failure();
  auto analysed = std::make_shared<AnalysedAudio>();
  analysed->clip = *std::move(clip);
  analysed->peaks = WaveformPeaks(*analysed->clip);
  const SpectralFrames frames = analyseSpectrum(*analysed->clip);
  MusicFeatures features = featuresOf(frames);
  for (std::size_t range = 0; range < features.onsets.size(); ++range) features.onsets[range] = findOnsets(frames.rangeOnsets[range]);
  analysed->features = std::make_shared<const MusicFeatures>(std::move(features));
  analysed->beats = findBeats(frames);
  analysed->onsets = findOnsets(frames.onset);
  analysed->sections = findSections(frames, analysed->beats.bars);
  return std::shared_ptr<const AnalysedAudio>(std::move(analysed));
}

MusicLibrary loadMusic(const Show& show, const std::filesystem::path& showFile, std::vector<Failure>& failures) {
  MusicLibrary library;
  for (const auto& score : show.scores) {
    if (score->audio.empty() || library.contains(score->audio)) continue;
    const auto analysed = analyseAudio(besideFile(showFile, score->audio));
    if (analysed)
      library[score->audio] = (*analysed)->features;
    else
      failures.push_back(analysed.failure());
  }
  return library;
}

void putBeats(Show& show, Score& score, const AnalysedAudio& found) {
  putLane(show, score, LaneKind::Beats, "Beats", found.beats.beats);
  putLane(show, score, LaneKind::Bars, "Bars", found.beats.bars);
  putLane(show, score, LaneKind::Sections, "Sections", found.sections, true);
}

void putOnsets(Show& show, Score& score, const MusicFeatures& found) {
  putLane(show, score, LaneKind::LowOnsets, "Low onsets", found.onsets[0]);
  putLane(show, score, LaneKind::MiddleOnsets, "Middle onsets", found.onsets[1]);
  putLane(show, score, LaneKind::HighOnsets, "High onsets", found.onsets[2]);
}

}  // namespace chispa
