// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

// Edits of looks; see planedits.h.

/// Adds a look of one step with these layers, which get ids of their own, on the next free key.
LookId addLook(Show& show, const std::string& name, const std::vector<Clip>& layers);
/// A look of one effect on some zones.
LookId addLook(Show& show, const std::string& name, const std::vector<ZoneId>& zones,
               const std::string& effect, PaletteId palette);
/// Adds a look of what is lit: the clips that `score` plays at `at`, and on top of them the looks `lit`.
/// Without `withLevels` all are at full strength. None if nothing is lit.
LookId keepLook(Show& show, const std::string& name, ScoreId score, Micros at, std::span<const LookId> lit,
                bool withLevels = true);
/// The same of one clip.
LookId keepLook(Show& show, const std::string& name, const Clip& clip);
LookId duplicateLook(Show& show, LookId id);
/// Takes the look away, with what is bound to it.
void deleteLook(Show& show, LookId id);
/// Moves it to place `to` of the pads.
void moveLook(Show& show, LookId id, std::size_t to);

/// Adds a step behind step `after`, with copies of its layers.
void addStep(Show& show, LookId id, std::size_t after);
/// The last step stays.
void deleteStep(Show& show, LookId id, std::size_t step);
/// Changes the layer `layer` of the look by `change`.
template <class F>
void changeLayer(Show& show, LookId look, ClipId layer, F change);
ClipId addLayer(Show& show, LookId look, std::size_t step, ZoneId zone, const std::string& effect,
                PaletteId palette);
void deleteLayer(Show& show, LookId look, ClipId layer);

/// Keys of pads, in their order: the digits, then the upper row of letters.
const std::vector<std::string>& padKeys();
/// The first key that no look has; empty if all are taken.
std::string freePadKey(const Show& show);

template <class F>
void changeLayer(Show& show, LookId look, ClipId layer, F change) {
  const Look* found = find(show.looks, look);
  if (!found) return;
  Look changed = *found;
  for (LookStep& step : changed.steps)
    for (auto& one : step.layers)
      if (one->id == layer) {
        Clip clip = *one;
        change(clip);
        one = std::make_shared<const Clip>(std::move(clip));
      }
  put(show.looks, std::move(changed));
}

}  // namespace chispa
