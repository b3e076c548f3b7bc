// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/rhythminput.h"

namespace chispa {

/// How likely a beat, and the first beat of a bar, falls on each frame of RhythmInput, 0–1.
struct BeatChances {
  std::vector<float> beat;
  std::vector<float> first;
};

/// A temporal convolutional network (M. Davies and S. Böck, "Temporal convolutional networks for musical
/// audio beat tracking", EUSIPCO 2019) that hears about twenty seconds to either side. Its weights are learnt
/// from composed pieces; how to make them anew stands in docs/ear.md.
BeatChances beatChances(const RhythmInput& input);

}  // namespace chispa
