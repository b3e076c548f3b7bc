// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <variant>
#include <vector>

#include "core/render/compiledlive.h"
#include "core/render/livestate.h"
#include "core/render/renderer.h"
#include "core/show/show.h"

namespace chispa {

/// What is taken away as one scene: a score, or a look.
using SceneId = std::variant<ScoreId, LookId>;

/// A score's light, or that of a look by itself, from the instant at which it begins; nobody plays along. One
/// thread at a time.
class SceneLight {
 public:
  /// All must live as long, and the show must hold the score or the look.
  SceneLight(const Show& show, const CompiledShow& compiled, SceneId id);

  const std::string& name() const { return name_; }
  /// Null for a look.
  const CompiledScore* score() const { return score_; }
  /// Null for a score.
  const CompiledLook* look() const { return look_; }
  /// 0 for a look: it lasts.
  Micros length() const { return score_ ? score_->length : Micros(0); }
  const Tempo& tempo() const { return state_.tempo; }

  /// Light of all pixels at `t` since the scene began. `frame` is resized if need be.
  void render(Micros t, PixelFrame& frame);

 private:
  const CompiledShow& compiled_;
  std::string name_;
  const CompiledScore* score_ = nullptr;
  const CompiledLook* look_ = nullptr;
  Renderer renderer_;
  LiveState state_;
  /// No desk is heard.
  std::vector<DeskValues> noDesks_;
};

}  // namespace chispa
