// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/listlight.h"

#include "core/live/lookplays.h"
#include "core/render/laying.h"

namespace chispa {

ListLight::ListLight(const Show& show, const CompiledShow& compiled, SetListId list, std::uint64_t seed)
    : compiled_(compiled),
      walk_(std::make_shared<const Show>(show), list, seed),
      noDesks_(compiled.live->deskUniverses.size()) {
  renderer_.prepare(compiled);
  fading_.resize(static_cast<std::size_t>(compiled.map->count()));
  begin(Micros(0));
}

const CompiledScore* ListLight::score() const {
  const auto& piece = walk_.now();
  return piece && piece->kind == PieceKind::Score ? compiled_.scoreOf(piece->score) : nullptr;
}

void ListLight::begin(Micros at) {
  begun_ = at;
  const auto& piece = walk_.now();
  const CompiledLook* look =
      piece && piece->kind == PieceKind::Look ? compiled_.live->lookOf(piece->look) : nullptr;
  if (!look) return;
  noteReplaced(state_, at);
  LookPlay play = freshPlay(look->id, state_.nextSerial++, tempoInstant(state_.tempo, at));
  play.presence.go(1, at, look->fadeIn, look->fadeShape);
  state_.plays.tryAdd(play);
}

void ListLight::end(Micros at) {
  const Piece piece = *walk_.now();
  // What it showed last fades into what comes.
  fade_ = piece.fade;
  if (const CompiledScore* last = score(); last && fade_.count() > 0)
    renderer_.render(*last, std::max(Micros(0), at - begun_ - Micros(1)), fading_);
  else
    fading_.clear();
  for (LookPlay& play : state_.plays) {
    const CompiledLook* look = compiled_.live->lookOf(play.look);
    if (play.isEnding || piece.kind != PieceKind::Look || play.look != piece.look || !look) continue;
    play.isEnding = true;
    play.presence.go(0, at, look->fadeOut, look->fadeShape);
  }
}

bool ListLight::render(Micros t, PixelFrame& frame) {
  while (walk_.now() && walk_.now()->length && t - begun_ >= *walk_.now()->length) {
    const Micros over = begun_ + *walk_.now()->length;
    end(over);
    walk_.next();
    begin(over);
  }
  state_.plays.removeIf([t](const LookPlay& play) { return play.isEnding && play.presence.hasArrived(t); });
  const CompiledScore* playing = score();
  const Micros position = t - begun_;
  if (playing)
    renderer_.render(*playing, position, frame);
  else
    frame.clear();
  // Before the first piece there is nothing to fade from.
  if (begun_.count() > 0 && position < fade_)
    mixFrames(fading_, static_cast<float>(seconds(position) / seconds(fade_)), compiled_.light.fades, frame);
  const LiveInstant now = tempoInstant(state_.tempo, t);
  renderer_.renderLive(compiled_, playing, position, state_, now, noDesks_, frame);
  return walk_.now().has_value();
}

}  // namespace chispa
