// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/scenes.h"

namespace chispa::board {

BoardScene::BoardScene(const Show& show, const CompiledShow& compiled, SceneId id)
    : light_(show, compiled, id), fades_(compiled.light.fades) {
  if (const CompiledScore* score = light_.score()) {
    staves_ = score->staves;
    time_.grid = score->grid;
    return;
  }
  time_.isLook = true;
  time_.beat_s = light_.tempo().beat_s;
  time_.beatsOfBar = LiveState::kBeatsPerBar;
  const auto& steps = light_.look()->steps;
  if (steps.size() == 1) staves_ = steps.front().staves;
}

Term BoardScene::presence(Graph& graph) const {
  if (!isLook()) return graph.constant(1);
  const CompiledLook& look = *light_.look();
  const double fade_s = seconds(look.fadeIn);
  const auto level = static_cast<double>(look.level);
  if (fade_s <= 0) return graph.constant(level);
  return fadeTerm(look.fadeShape, fades_, false, clamped(graph.ramp(0, 1 / fade_s))) * level;
}

}  // namespace chispa::board
