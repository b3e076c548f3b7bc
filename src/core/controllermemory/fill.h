// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/controllermemory/stepfinder.h"
#include "core/live/scenelight.h"

namespace chispa {

/// A scene that was made ready for a memory, and how near it comes to the full light.
struct FilledScene {
  SceneId source;
  /// Of a pixel against what Chispa would send, at instants of a whole round.
  LightError error;
  std::int64_t bytes = 0;
};

/// What shall go into a controller's memory.
struct MemoryFill {
  MemoryContent content;
  /// As many as the content has scenes.
  std::vector<FilledScene> scenes;
};

/// Turns what `memory` says into steps for a controller of the show. A look's fade from the dark is a
/// straight line, and its round begins again with it. Fails if a scene's source is gone, if the controller is
/// not there or has no pixels, or if the sun shall start something and the show has no place; a cancelled one
/// fails without a text.
Result<MemoryFill> fillMemory(const Show& show, const CompiledShow& compiled, ControllerId controller,
                              const ControllerMemory& memory, const MemoryLimits& limits,
                              const Progress& progress);

/// The least tolerance of a ladder from `from` on with which steps and bytes fit into `limits`, and its fill;
/// fails as fillMemory() does, or if nothing of the ladder fits.
struct FittingFill {
  double tolerance = 0;
  MemoryFill fill;
};
Result<FittingFill> fitMemory(const Show& show, const CompiledShow& compiled, ControllerId controller,
                              const ControllerMemory& memory, const MemoryLimits& limits,
                              const Progress& progress);

/// Values of all channels of the `controller`th for a scene's channels; those that the scene has none for are
/// dark. The order is that of ValueLight.
std::vector<std::uint8_t> spreadValues(const Patch& patch, int controller, const SceneContent& scene,
                                       std::span<const std::uint8_t> values);

}  // namespace chispa
