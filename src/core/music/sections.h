// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/chromagram.h"
#include "core/music/spectrum.h"

namespace chispa {

/// How a section sounds beside the others, where that is plain.
enum class SectionMood { None, Quiet, Rise, Full, End };

/// A section of a piece. Those that sound alike have the same letter, numbered from 0 in the order in which
/// they are first heard.
struct FoundSection {
  Micros at{0};
  int letter = 0;
  SectionMood mood = SectionMood::None;
};

/// What sounds in each bar: how loud it is, and how much is struck, both 0–1 of the piece's most.
struct BarCurves {
  std::vector<float> level;
  std::vector<float> density;
};

/// Sections by self-similarity of harmony and sound, bar by bar: borders are where both sides differ
/// (checkerboard novelty, J. Foote, ICME 2000) or where a passage that is heard again begins or ends (J.
/// Serrà, M. Müller, P. Grosche, J. Ll. Arcos, IEEE Trans. Multimedia 16, 2014); of all ways to divide the
/// piece the best one is taken, in which sections of four, eight and sixteen bars are likelier. The first
/// begins with the first bar; empty if there are no bars.
std::vector<FoundSection> findSections(const SpectralFrames& frames, const Chromagram& harmony,
                                       const std::vector<Micros>& bars);

BarCurves barCurves(const SpectralFrames& frames, const std::vector<Micros>& bars);

}  // namespace chispa
