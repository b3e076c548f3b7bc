// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <unordered_set>
#include <vector>

#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa {

// Edits of many clips at once; see planedits.h. Ids that the score does not have are passed over.

using ClipList = std::vector<ClipId>;

/// Changes each of the clips `ids` of `score` by `change(clip)`; the score is copied once.
template <class F>
void changeClips(Show& show, ScoreId score, const ClipList& ids, F change);

/// Makes clips as long as `factor` times, beginning at `pivot`; their content goes slower or faster with
/// them.
void stretchClips(Show& show, ScoreId score, const ClipList& ids, Micros pivot, double factor);
/// Moves what clips show within them; later content comes first.
void shiftContent(Show& show, ScoreId score, const ClipList& ids, Micros by);
/// Cuts the clips that `at` lies in; both halves go on as one did. Returns the right halves.
ClipList splitClips(Show& show, ScoreId score, const ClipList& ids, Micros at);
/// Deletes a stretch of time: clips within it go, those that reach in are cut, all later ones, and marks,
/// move up.
void rippleDelete(Show& show, ScoreId score, TimeSpan span);
/// Opens a stretch of time at `span.from`: everything later moves back.
void rippleInsert(Show& show, ScoreId score, TimeSpan span);
/// Puts copies of the clips, taken together, one after the other until `end`; the last is cut there. Returns
/// the copies.
ClipList repeatUntil(Show& show, ScoreId score, const ClipList& ids, Micros end);
/// The copies' ids of clips placed so that the first of them begins at `at`, on `zone` if it is given (they
/// adapt to it).
ClipList pasteClips(Show& show, ScoreId score, const std::vector<Clip>& clips, Micros at, ZoneId zone);

/// Instants to fill, in order of time; each clip lasts until the next of them, the last until `end`.
struct Fill {
  std::vector<Micros> instants;
  Micros end{0};
  /// Zones that take turns, one an instant; at least one.
  std::vector<ZoneId> zones;
  /// Only every n-th instant gets a clip, which lasts until the next that does.
  int every = 1;
};
/// Puts a clip like `pattern` at the instants; chance differs from clip to clip. Returns them.
ClipList fillInstants(Show& show, ScoreId score, const Clip& pattern, const Fill& fill);

/// Gives clips numbers by chance, each within the part `share` 0–1 of its range around what it is now.
void randomise(Show& show, ScoreId score, const ClipList& ids, double share, std::uint32_t seed);
/// Replaces one effect by another, or one palette, in all clips that begin in `span`. Returns how many.
int replaceEffect(Show& show, ScoreId score, TimeSpan span, const std::string& from, const std::string& to);
int replacePalette(Show& show, ScoreId score, TimeSpan span, PaletteId from, PaletteId to);

/// Makes a block of clips, which it takes the place of; of clips of one stave one that can stand on any. With
/// `into` that block is made anew of them, and changes wherever it stands.
BlockId makeBlock(Show& show, ScoreId score, const ClipList& ids, const std::string& name, BlockId into = {});
/// Puts the block at `at`.
ClipId placeBlock(Show& show, ScoreId score, BlockId block, ZoneId zone, Micros at);
/// Puts the block's clips in the place of a clip that plays it. Returns them.
ClipList dissolveBlock(Show& show, ScoreId score, ClipId clip);

/// Keeps the effect and the values of a clip under a name of its own.
OwnEffectId saveOwnEffect(Show& show, const Clip& clip, const std::string& name);
/// Deletes a block that stands nowhere; false if it stands somewhere.
bool deleteBlock(Show& show, BlockId block);

/// The stretch that clips take together; empty if there are none.
TimeSpan spanOf(const Score& score, const ClipList& ids);
/// The section that `at` lies in: between marks of the lane of sections, or to the score's end.
TimeSpan sectionAt(const Score& score, Micros at);

/// Clips that are looked for in a score with thousands of them.
using ClipSet = std::unordered_set<ClipId>;
/// Calls `visit` for each of the clips `ids` that `score` has, in its order, until it returns false.
template <class F>
void eachClip(const Score& score, const ClipSet& ids, F visit) {
  if (ids.size() == 1) {
    if (const Clip* clip = findClip(score, *ids.begin())) visit(*clip);
    return;
  }
  for (const auto& clip : score.clips)
    if (ids.contains(clip->id) && !visit(*clip)) return;
}

template <class F>
void changeClips(Show& show, ScoreId score, const ClipList& ids, F change) {
  const ClipSet wanted(ids.begin(), ids.end());
  changeItem(show.scores, score, [&](Score& s) {
    for (auto& clip : s.clips) {
      if (!wanted.contains(clip->id)) continue;
      Clip changed = *clip;
      change(changed);
      clip = std::make_shared<const Clip>(std::move(changed));
    }
  });
}

}  // namespace chispa
