// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <vector>

#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa {

// Edits of scores; see planedits.h.

/// Adds a score with a stave for each zone; `audio` may be empty.
ScoreId addScore(Show& show, const std::string& name, const std::string& audio, Micros length);
/// Gives a score the length of so many bars, and lanes of their beats and bars.
void setSilentLength(Show& show, ScoreId score, double beatsPerMinute, int beatsPerBar, int bars);
/// How long so many bars of a tempo last.
Micros silentLength(double beatsPerMinute, int beatsPerBar, int bars);
/// Adds a score without music, with lanes of its beats and bars.
ScoreId addSilentScore(Show& show, const std::string& name, double beatsPerMinute, int beatsPerBar, int bars);
/// Changes the clip `id` of `score` by `change`.
template <class F>
void changeClip(Show& show, ScoreId score, ClipId id, F change);

/// Adds a clip of `effect` on the lowest layer that is free there; the palette may be none.
ClipId addClip(Show& show, ScoreId score, ZoneId zone, const std::string& effect, PaletteId palette,
               Micros start, Micros length);
void deleteClips(Show& show, ScoreId score, const std::vector<ClipId>& ids);
/// Copies clips to just behind where they end; returns the copies.
std::vector<ClipId> duplicateClips(Show& show, ScoreId score, const std::vector<ClipId>& ids);
/// Moves clips in time; none begins before 0.
void moveClips(Show& show, ScoreId score, const std::vector<ClipId>& ids, Micros by);

/// Puts a mark on the lane of `kind`, which is made if there is none. Returns its id.
MarkId addMark(Show& show, ScoreId score, LaneKind kind, const std::string& laneName, Micros at,
               const std::string& text);
void deleteMark(Show& show, ScoreId score, MarkId id);
/// Changes the mark by `change`; the lane stays in order of time, which begins at 0.
void changeMark(Show& show, ScoreId score, MarkId id, const std::function<void(Mark&)>& change);
void moveMark(Show& show, ScoreId score, MarkId id, Micros to);
/// The mark, and the lane that it is on; null if there is none.
struct MarkPlace {
  const MarkLane* lane = nullptr;
  const Mark* mark = nullptr;
};
MarkPlace findMark(const Score& score, MarkId id);

PaletteId addPalette(Show& show, const std::string& name, std::vector<ColourStop> stops);

/// Instants that clips snap to: all marks, and both ends of clips other than `without`.
std::vector<Micros> snapPoints(const Score& score, const std::vector<ClipId>& without);
/// The nearest of `points` to `at` within `reach`, or nothing.
std::optional<Micros> snapped(const std::vector<Micros>& points, Micros at, Micros reach);

template <class F>
void changeClip(Show& show, ScoreId score, ClipId id, F change) {
  changeItem(show.scores, score, [&](Score& s) { changeItem(s.clips, id, change); });
}

}  // namespace chispa
