// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "core/board/clipterms.h"
#include "core/live/compiledlive.h"
#include "core/render/renderer.h"
#include "core/show/show.h"

namespace chispa::board {

/// What a board can play: a score, or a look.
using SceneId = std::variant<ScoreId, LookId>;

/// One of a board's scenes, made ready: its light at any instant, and its clips where it has any to say.
class BoardScene {
 public:
  /// The show must live as long, and hold the score or the look.
  BoardScene(const Show& show, const CompiledShow& compiled, SceneId id);

  const std::string& name() const { return name_; }
  bool isLook() const { return look_ != nullptr; }
  /// 0 for a look: it lasts.
  Micros length() const;
  const SceneTime& time() const { return time_; }
  /// Lanes of clips, the lowest first; empty for a look with steps.
  std::span<const CompiledStave> staves() const { return staves_; }
  /// A look's own fade from the dark and level, as a term; 1 for a score.
  Term presence(Graph& graph) const;
  /// The round of a look with steps; 0 for all else.
  Micros round() const { return look_ && staves_.empty() ? look_->round : Micros(0); }

  /// Light of all pixels at `t` since the scene began. `frame` is resized if need be.
  void render(Micros t, PixelFrame& frame);

 private:
  const CompiledShow& compiled_;
  std::string name_;
  const CompiledScore* score_ = nullptr;
  const CompiledLook* look_ = nullptr;
  SceneTime time_;
  std::span<const CompiledStave> staves_;
  Renderer renderer_;
  LiveState state_;
  /// Nobody plays on a board: no desk is heard.
  std::vector<DeskValues> noDesks_;
};

}  // namespace chispa::board
