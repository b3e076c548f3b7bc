// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/scenes.h"

#include "core/live/lookplays.h"

namespace chispa::board {

BoardScene::BoardScene(const Show& show, const CompiledShow& compiled, SceneId id)
    : compiled_(compiled), noDesks_(compiled.live->deskUniverses.size()) {
  renderer_.prepare(compiled);
  if (const auto* score = std::get_if<ScoreId>(&id)) {
    name_ = find(show.scores, *score)->name;
    score_ = compiled.scoreOf(*score);
    staves_ = score_->staves;
    time_.grid = score_->grid;
    return;
  }
  const LookId look = std::get<LookId>(id);
  name_ = find(show.looks, look)->name;
  look_ = compiled.live->lookOf(look);
  time_.isLook = true;
  time_.beat_s = state_.tempo.beat_s;
  time_.beatsOfBar = LiveState::kBeatsPerBar;
  if (look_->steps.size() == 1) staves_ = look_->steps.front().staves;
  LookPlay play = freshPlay(look, 0, tempoInstant(state_.tempo, Micros(0)));
  play.presence.go(1, Micros(0), look_->fadeIn, look_->fadeShape);
  state_.plays.tryAdd(play);
}

Micros BoardScene::length() const {
  return score_ ? score_->length : Micros(0);
}

Term BoardScene::presence(Graph& graph) const {
  if (!look_) return graph.constant(1);
  const double fade_s = seconds(look_->fadeIn);
  const auto level = static_cast<double>(look_->level);
  if (fade_s <= 0) return graph.constant(level);
  return shapedTerm(look_->fadeShape, clamped(graph.ramp(0, 1 / fade_s))) * level;
}

void BoardScene::render(Micros t, PixelFrame& frame) {
  const auto pixels = static_cast<std::size_t>(compiled_.map.count());
  if (frame.size() != pixels) frame.resize(pixels);
  if (score_) return renderer_.render(*score_, t, frame);
  frame.clear();
  const LiveInstant now = tempoInstant(state_.tempo, t);
  renderer_.renderLive(compiled_, nullptr, t, state_, now, noDesks_, frame);
}

}  // namespace chispa::board
