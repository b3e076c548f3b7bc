// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/music/chords.h"

namespace chispa::bench {

/// A section, and the letter that those have which sound alike.
struct LetteredSection {
  double from_s = 0;
  std::string letter;
};

/// What is known of a composed piece, from the JSON that tools/ear/compose.py writes beside it.
struct Truth {
  std::string style;
  bool isSwung = false;
  std::vector<double> beats_s;
  std::vector<double> bars_s;
  std::vector<LetteredSection> sections;
  /// None where it is neither major nor minor.
  struct SoundingChord {
    double from_s = 0;
    std::optional<Chord> chord;
  };
  std::vector<SoundingChord> chords;
  Chord key;
  double end_s = 0;
};

/// A recording and what is known of it.
struct CorpusPiece {
  std::filesystem::path recording;
  Truth truth;
};

/// All pieces of `folder` in the order of their names.
std::vector<CorpusPiece> readCorpus(const std::filesystem::path& folder);

}  // namespace chispa::bench
