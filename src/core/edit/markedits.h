// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/planedits.h"
#include "core/music/beatlevel.h"
#include "core/music/chords.h"
#include "core/show/show.h"

namespace chispa {

struct AnalysedAudio;
struct MusicFeatures;

// Edits of mark lanes, as functions on a show like those of planedits.h. Of a lane that the score does not
// have nothing changes; only putMarks() makes one.

/// Replaces the marks of the lane of `kind`, which is made if there is none; they get ids of their own.
LaneId putMarks(Show& show, ScoreId score, LaneKind kind, const std::string& name, std::vector<Mark> marks);
void deleteLane(Show& show, ScoreId score, LaneId lane);

/// Moves all marks of a lane; those that would fall before 0 go.
void shiftMarks(Show& show, ScoreId score, LaneKind kind, Micros by);
/// Counts beats and bars another way from the beat at or before `from` on.
void countBeats(Show& show, ScoreId score, BeatLevel level, Micros from);
/// Takes the beats of the bar that was tapped, its first beat to the next bar's, as certain, and decides all
/// others anew by what is heard. False, and nothing changes, if fewer than three were tapped or nothing
/// sounds.
bool settleBeats(Show& show, ScoreId score, const AnalysedAudio& heard, const std::vector<Micros>& tapped);
/// Puts another reading of the sound's beats in place of the score's.
void putReading(Show& show, ScoreId score, const BeatMarks& reading);
/// Bars begin at the beat nearest to `at`, and every `beatsPerBar` beats before and behind it.
void setDownBeat(Show& show, ScoreId score, Micros at, int beatsPerBar);
/// Beats at equal distances: `first` and `second` are two of them, `beats` apart, and the others follow up to
/// the ends; bars begin at `first`.
void makeGrid(Show& show, ScoreId score, Micros first, Micros second, int beats, int beatsPerBar);
/// A beat was tapped at `at`: the beat nearest to it moves there if it is nearer than two fifths of a beat,
/// else one is added.
void tapBeat(Show& show, ScoreId score, Micros at);
/// How many beats most bars of the score have; 4 if it has none.
int beatsPerBar(const Score& score);
/// The score's beats and bars.
BeatMarks beatMarksOf(const Score& score);

/// Puts the beats, bars and sections that were found in the score's sound into its lanes, in place of those
/// it has.
void putBeats(Show& show, ScoreId score, const AnalysedAudio& found);
/// Puts onsets, low, middle and high, into lanes of their own.
void putOnsets(Show& show, ScoreId score, const MusicFeatures& found);
/// Puts chords into a lane of their own, each with its name; where none is heard the mark says "–".
void putChords(Show& show, ScoreId score, const FoundHarmony& found);

}  // namespace chispa
