// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/analysis.h"
#include "core/files/besidefile.h"

namespace chispa {
namespace {

std::vector<Mark> marksAt(Show& show, const std::vector<Micros>& instants) {
  std::vector<Mark> marks;
  for (const Micros at : instants) marks.push_back({show.newId<MarkId>(), at, {}});
  return marks;
}

void putLane(Show& show, Score& score, LaneKind kind, const std::string& name, const std::vector<Micros>& instants) {
  const auto lane =
      std::find_if(score.lanes.begin(), score.lanes.end(), [kind](const MarkLane& l) { return l.kind == kind; });
  if (lane != score.lanes.end())
    lane->marks = marksAt(show, instants);
  else
    score.lanes.push_back({show.newId<LaneId>(), name, kind, marksAt(show, instants)});
}

}  // namespace

Result<std::shared_ptr<const AnalysedAudio>> analyseAudio(const std::filesystem::path& path) {
  auto clip = decodeAudio(path);
  if (!clip) return clip.failure();
  auto analysed = std::make_shared<AnalysedAudio>();
  analysed->clip = *std::move(clip);
  analysed->peaks = WaveformPeaks(*analysed->clip);
  const SpectralFrames frames = analyseSpectrum(*analysed->clip);
  analysed->features = std::make_shared<const MusicFeatures>(featuresOf(frames));
  analysed->beats = findBeats(frames);
  analysed->onsets = findOnsets(frames);
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

void putBeats(Show& show, Score& score, const FoundBeats& found) {
  putLane(show, score, LaneKind::Beats, "Beats", found.beats);
  putLane(show, score, LaneKind::Bars, "Bars", found.bars);
}

}  // namespace chispa
