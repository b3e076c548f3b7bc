// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/base/sentence.h"
#include "core/base/time.h"
#include "core/music/chromagram.h"

namespace chispa {

/// A triad, or a key: its root or tonic is a pitch class, 0 for C.
struct Chord {
  int root = 0;
  bool isMinor = false;

  bool operator==(const Chord&) const = default;
};

/// The chord that sounds from an instant of the sound on; none where no harmony is heard.
struct FoundChord {
  Micros at{};
  std::optional<Chord> chord;
};

struct FoundHarmony {
  /// In order of time; each differs from the one before it.
  std::vector<FoundChord> chords;
  /// None where nothing is heard.
  std::optional<Chord> key;
};

/// "F♯".
std::string pitchName(int pitchClass);
/// "F♯", "Am".
std::string chordName(const Chord& chord);
/// "A minor".
Sentence keyName(const Chord& key);

/// Chords from beat to beat: major and minor triads compared with the chroma (T. Fujishima, ICMC 1999),
/// decided over the whole piece by Viterbi's algorithm (A. Sheh and D. Ellis, ISMIR 2003); they change the
/// likelier where a bar begins. The key is the one whose profile of pitch classes (C. Krumhansl and E.
/// Kessler, Psych. Rev. 89, 1982) is nearest to all that sounds, and whose triad sounds long. Any thread.
FoundHarmony findHarmony(const Chromagram& harmony, const std::vector<Micros>& beats,
                         const std::vector<Micros>& bars);

}  // namespace chispa
