// SPDX-License-Identifier: GPL-3.0-or-later
#include "truth.h"

#include <algorithm>
#include <fstream>

#include <nlohmann/json.hpp>

namespace chispa::bench {
namespace {

Truth readTruth(const std::filesystem::path& path) {
  std::ifstream file(path);
  const auto json = nlohmann::json::parse(file);
  Truth truth;
  truth.style = json.at("style");
  truth.isSwung = json.at("is_swung");
  truth.end_s = json.at("end");
  for (const auto& beat : json.at("beats")) {
    truth.beats_s.push_back(beat.at(0));
    if (beat.at(1) == 1) truth.bars_s.push_back(beat.at(0));
  }
  for (const auto& chord : json.at("chords"))
    truth.chords.push_back({chord.at(0), chord.at(2) == "other"
                                             ? std::nullopt
                                             : std::optional(Chord{chord.at(1), chord.at(2) == "minor"})});
  truth.key = {json.at("key").at(0), json.at("key").at(1) == "minor"};
  for (const auto& section : json.at("sections")) truth.sections.push_back({section.at(0), section.at(1)});
  return truth;
}

}  // namespace

std::vector<CorpusPiece> readCorpus(const std::filesystem::path& folder) {
  std::vector<CorpusPiece> pieces;
  for (const auto& entry : std::filesystem::directory_iterator(folder)) {
    if (entry.path().extension() != ".json") continue;
    for (const char* ending : {".flac", ".ogg", ".mp3", ".wav"})
      if (auto recording = entry.path(); std::filesystem::exists(recording.replace_extension(ending)))
        pieces.push_back({recording, readTruth(entry.path())});
  }
  std::sort(pieces.begin(), pieces.end(),
            [](const auto& a, const auto& b) { return a.recording < b.recording; });
  return pieces;
}

}  // namespace chispa::bench
