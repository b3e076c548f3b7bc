// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "truth.h"

namespace chispa::bench {

/// How far a mark may lie from where it belongs, in seconds: as evaluations of beat tracking have it (M.
/// Davies, N. Degara, M. Plumbley, Evaluation Methods for Musical Audio Beat Tracking Algorithms, 2009,
/// §3.1).
inline constexpr double kTolerance_s = 0.07;

/// Harmonic mean of the shares of found marks that are right and of right ones that are found, each paired
/// once.
double fMeasure(const std::vector<double>& found_s, const std::vector<double>& right_s,
                double tolerance_s = kTolerance_s);

/// The best of fMeasure against the beats, twice as many, every second one, and what lies between them.
double fAtAnyLevel(const std::vector<double>& found_s, const std::vector<double>& right_s);

/// The share of found marks that lie on a right one.
double shareOn(const std::vector<double>& found_s, const std::vector<double>& right_s);

/// The mean distance between neighbours.
double meanGap(const std::vector<double>& marks_s);

/// fMeasure of the borders of sections, the beginning of the first one left out, that lie within `bar_s` of
/// each other.
double bordersF(const std::vector<LetteredSection>& found, const std::vector<LetteredSection>& right,
                double bar_s);

/// The share of sections whose letter was there before, that are found to be what an earlier one of the
/// letter was found to be: by what each is found to be for the most part. −1 where nothing returns.
double returnsRecognised(const std::vector<LetteredSection>& found, const std::vector<LetteredSection>& right,
                         double end_s);

}  // namespace chispa::bench
