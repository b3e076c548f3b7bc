// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/planedits.h"
#include "core/live/scenelight.h"

namespace chispa {

/// Changes what a controller's memory shall hold.
template <class F>
void changeMemory(Show& show, ControllerId controller, F change) {
  changeItem(show.controllers, controller, [&](Controller& c) { change(c.memory); });
}

/// Adds a score or a look behind the scenes that are there.
void addMemoryScene(Show& show, ControllerId controller, SceneId source);
/// Scenes that name others by number go on naming the same ones; of one that is gone, the one behind it.
void removeMemoryScene(Show& show, ControllerId controller, std::size_t scene);
/// Moves a scene to where another is; names follow.
void moveMemoryScene(Show& show, ControllerId controller, std::size_t from, std::size_t to);

/// Where a start stands: in a scene, or among those that make it dark.
struct StartPlace {
  /// From 0; −1 for dark.
  int scene = -1;
  std::size_t start = 0;

  bool operator==(const StartPlace&) const = default;
};
/// The list that starts of `scene` (−1: dark) stand in; null if there is no such scene.
std::vector<MemoryStart>* startsOf(ControllerMemory& memory, int scene);
const std::vector<MemoryStart>* startsOf(const ControllerMemory& memory, int scene);

/// What the almanac plays as scenes with their starts, and dark when nothing of it holds any more: scores for
/// ever, looks as they are, set lists as a row of scenes that follow each other. Rules that are off, and
/// what is random or shuffled, are left out or taken in order.
ControllerMemory memoryOfAlmanac(const Show& show, const ControllerMemory& like);

}  // namespace chispa
