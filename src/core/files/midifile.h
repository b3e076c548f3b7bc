// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/show/score.h"

namespace chispa {

/// What a standard MIDI file (MIDI 1.0, "Standard MIDI Files", 1996) says of time: marks in order of time,
/// without ids.
struct MidiMarks {
  /// By the tempo map and the time signatures; a beat is what a signature counts in.
  std::vector<Mark> beats;
  std::vector<Mark> bars;
  /// Notes of all tracks, named as "C4" for 60, as long as they sound.
  std::vector<Mark> notes;
  /// Lyrics, and markers.
  std::vector<Mark> words;
  std::vector<Mark> markers;
};

/// Reads formats 0 and 1. Fails if it is no such file, or counts in film frames; `where` names it.
Result<MidiMarks> parseMidi(std::string_view bytes, const std::string& where);
Result<MidiMarks> readMidi(const std::filesystem::path& path);

/// Writes the marks of `score`: beats as the tempo map, bars as time signatures, lanes of words as lyrics,
/// notes and onsets as notes (low, middle and high as 36, 38 and 42), all others as markers.
Outcome writeMidi(const std::filesystem::path& path, const Score& score);

/// "C4" for 60, "A#3" for 58; and back, 60 for what is no note's name.
std::string noteName(int note);
int noteOf(const std::string& name);

}  // namespace chispa
