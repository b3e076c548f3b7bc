// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <string>

#include "core/board/clipterms.h"
#include "core/live/scenelight.h"

namespace chispa::board {

/// One of a board's scenes, made ready: its light at any instant, and its clips where it has any to say.
class BoardScene {
 public:
  /// The show must live as long, and hold the score or the look.
  BoardScene(const Show& show, const CompiledShow& compiled, SceneId id);

  const std::string& name() const { return light_.name(); }
  bool isLook() const { return light_.look() != nullptr; }
  /// 0 for a look: it lasts.
  Micros length() const { return light_.length(); }
  const SceneTime& time() const { return time_; }
  /// Lanes of clips, the lowest first; empty for a look with steps.
  std::span<const CompiledStave> staves() const { return staves_; }
  /// A look's own fade from the dark and level, as a term; 1 for a score.
  Term presence(Graph& graph) const;
  /// The round of a look with steps; 0 for all else.
  Micros round() const { return isLook() && staves_.empty() ? light_.look()->round : Micros(0); }

  /// Light of all pixels at `t` since the scene began. `frame` is resized if need be.
  void render(Micros t, PixelFrame& frame) { light_.render(t, frame); }

 private:
  SceneLight light_;
  Evenness fades_;
  SceneTime time_;
  std::span<const CompiledStave> staves_;
};

}  // namespace chispa::board
