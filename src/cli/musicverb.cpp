// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/verbs.h"
#include "core/music/analysis.h"

namespace chispa::cli {
namespace {

nlohmann::ordered_json secondsOf(const std::vector<Micros>& instants) {
  auto list = nlohmann::ordered_json::array();
  for (const Micros at : instants) list.push_back(seconds(at));
  return list;
}

/// "A minor"; empty where no key is heard.
std::string keyText(const FoundHarmony& harmony) {
  return harmony.key ? keyName(*harmony.key).text() : "";
}

nlohmann::ordered_json chordsOf(const FoundHarmony& harmony) {
  auto list = nlohmann::ordered_json::array();
  for (const FoundChord& one : harmony.chords)
    list.push_back({{"at", seconds(one.at)}, {"chord", one.chord ? chordName(*one.chord) : ""}});
  return list;
}

}  // namespace

int music(const Words& words) {
  const auto analysed = analyseAudio(words.file);
  if (!analysed) return failed(analysed.failure());
  const FoundBeats& found = (*analysed)->beats;
  const double duration = seconds((*analysed)->clip->length());
  if (words.json) {
    const nlohmann::ordered_json root = {{"duration_s", duration},
                                         {"tempo_bpm", found.tempo_bpm},
                                         {"beats", secondsOf(found.beats)},
                                         {"bars", secondsOf(found.bars)},
                                         {"key", keyText((*analysed)->harmony)},
                                         {"chords", chordsOf((*analysed)->harmony)}};
    std::cout << root.dump(1) << "\n";
    return kDone;
  }
  std::cout << "duration  " << duration << " s\ntempo     " << found.tempo_bpm << " bpm\nbeats     "
            << found.beats.size() << "\nbars      " << found.bars.size() << " of " << found.beatsPerBar
            << " beats\nkey       " << keyText((*analysed)->harmony) << "\n";
  for (const Micros bar : found.bars) std::cout << seconds(bar) << "\n";
  return kDone;
}

}  // namespace chispa::cli
