// SPDX-License-Identifier: GPL-3.0-or-later
#include "waltz/tune.h"

#include <sstream>

namespace chispa::demo {
namespace {

/// Bars of "PITCH:BEATS" words; R is a rest.
constexpr const char* kOpening = "R:3 | G4:1 C5:1 E5:1 | R:3 | G4:1 B4:1 D5:1 |";
constexpr const char* kRound =
    "E5:2 G5:1 | C6:3 | B5:1 A5:1 G5:1 | F5:3 | D5:2 F5:1 | B5:3 | A5:1 G5:1 F5:1 | E5:3 |"
    "E5:2 G5:1 | C6:2 D6:1 | C6:2 A5:1 | A5:3 | G5:1 E5:1 C5:1 | D5:2 B4:1 | C5:3 | R:3 |";
constexpr const char* kTurn =
    "A5:1.5 B5:0.5 C6:1 | E6:2 C6:1 | B5:1.5 G#5:0.5 B5:1 | E5:3 |"
    "A5:1.5 B5:0.5 C6:1 | E6:2 D6:1 | C6:1 B5:1 G#5:1 | A5:3 |"
    "A5:1 C6:1 F6:1 | F6:2 E6:1 | E6:1 C6:1 G5:1 | G5:3 |"
    "F#5:1 A5:1 D6:1 | D6:2 C6:1 | B5:1 D6:1 G6:1 | G6:3 |";
constexpr const char* kClose = "A5:1 C6:1 F6:1 | G5:1 B5:1 D6:1 | E6:1 G6:1 C7:1 | C6:3 |";
constexpr const char* kBellTurns =
    "C6:0.5 E6:0.5 G6:2 | R:3 | D6:0.5 F6:0.5 B6:2 | R:3 | D6:0.5 G6:0.5 B6:2 | R:3 | E6:0.5 G6:0.5 C7:2 | "
    "R:3 |"
    "C6:0.5 E6:0.5 G6:2 | R:3 | F6:0.5 A6:0.5 C7:2 | R:3 | E6:0.5 G6:0.5 C7:2 | D6:0.5 G6:0.5 B6:2 | C6:0.5 "
    "E6:0.5 G6:0.5 C7:1.5 | R:3 |";

int pitchOf(const std::string& word) {
  static const std::string kSteps = "C D EF G A B";
  int pitch = static_cast<int>(kSteps.find(word[0]));
  std::size_t at = 1;
  if (word[at] == '#') {
    ++pitch;
    ++at;
  }
  return pitch + 12 * (word[at] - '0' + 1);
}

/// Reads bars from `firstBar` on.
void readBars(const std::string& text, int firstBar, std::vector<Note>& notes) {
  std::istringstream words(text);
  std::string word;
  double beat = firstBar * kBeatsPerBar;
  while (words >> word) {
    const auto colon = word.find(':');
    if (colon == std::string::npos) continue;
    const double beats = std::stod(word.substr(colon + 1));
    if (word[0] != 'R') notes.push_back({beat, beats, pitchOf(word)});
    beat += beats;
  }
}

const std::vector<int> kC = {36, 60, 64, 67};
const std::vector<int> kCInG = {43, 60, 64, 67};
const std::vector<int> kG7 = {43, 59, 62, 65};
const std::vector<int> kG7InD = {38, 59, 62, 65};
const std::vector<int> kF = {41, 60, 65, 69};
const std::vector<int> kAm = {45, 60, 64, 69};
const std::vector<int> kE7 = {40, 59, 62, 68};
const std::vector<int> kD7 = {38, 60, 66, 69};

}  // namespace

const std::vector<Section>& sections() {
  static const std::vector<Section> all = {
      {"Opening", 0, 4}, {"First round", 4, 16}, {"Turn", 20, 16}, {"Last round", 36, 16}, {"Close", 52, 4}};
  return all;
}

std::vector<Note> melody() {
  std::vector<Note> notes;
  const char* parts[] = {kOpening, kRound, kTurn, kRound, kClose};
  for (std::size_t i = 0; i < sections().size(); ++i) readBars(parts[i], sections()[i].firstBar, notes);
  return notes;
}

std::vector<Note> bells() {
  std::vector<Note> notes;
  readBars(kBellTurns, 36, notes);
  return notes;
}

std::vector<std::vector<int>> chords() {
  const std::vector<std::vector<int>> opening = {kC, kCInG, kG7, kG7InD};
  const std::vector<std::vector<int>> round = {kC, kCInG, kG7, kG7InD, kG7, kG7InD, kC, kCInG,
                                               kC, kCInG, kF,  kF,     kC,  kG7,    kC, kCInG};
  const std::vector<std::vector<int>> turn = {kAm, kAm, kE7, kE7,   kAm, kAm, kE7, kAm,
                                              kF,  kF,  kC,  kCInG, kD7, kD7, kG7, kG7InD};
  const std::vector<std::vector<int>> close = {kF, kG7, kC, kC};
  std::vector<std::vector<int>> all;
  for (const auto* part : {&opening, &round, &turn, &round, &close})
    all.insert(all.end(), part->begin(), part->end());
  return all;
}

Micros beatInstant(int beat) {
  return micros(kLeadIn_s + beat * kBeat_s);
}
Micros barInstant(int bar) {
  return beatInstant(bar * kBeatsPerBar);
}

}  // namespace chispa::demo
