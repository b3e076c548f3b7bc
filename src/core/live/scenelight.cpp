// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/live/scenelight.h"

#include "core/live/lookplays.h"

namespace chispa {

SceneLight::SceneLight(const Show& show, const CompiledShow& compiled, SceneId id)
    : compiled_(compiled), noDesks_(compiled.live->deskUniverses.size()) {
  renderer_.prepare(compiled);
  if (const auto* score = std::get_if<ScoreId>(&id)) {
    name_ = find(show.scores, *score)->name;
    score_ = compiled.scoreOf(*score);
    return;
  }
  const LookId look = std::get<LookId>(id);
  name_ = find(show.looks, look)->name;
  look_ = compiled.live->lookOf(look);
  LookPlay play = freshPlay(look, 0, tempoInstant(state_.tempo, Micros(0)));
  play.presence.go(1, Micros(0), look_->fadeIn, look_->fadeShape);
  state_.plays.tryAdd(play);
}

void SceneLight::render(Micros t, PixelFrame& frame) {
  const auto pixels = static_cast<std::size_t>(compiled_.map->count());
  if (frame.size() != pixels) frame.resize(pixels);
  if (score_) return renderer_.render(*score_, t, frame);
  frame.clear();
  renderer_.renderLive(compiled_, nullptr, t, state_, tempoInstant(state_.tempo, t), noDesks_, frame);
}

}  // namespace chispa
