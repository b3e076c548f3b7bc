// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/performer.h"

#include <utility>

namespace chispa::engine {

std::string nameOfPiece(const Show& show, const Piece& piece) {
  return nameOfPlayed(show, piece.kind, piece.score, piece.look, {});
}

void Performer::begin(const Show& show, const Programme& programme, std::uint64_t seed, Micros elapsed,
                      MonoTime now) {
  show_ = std::make_shared<const Show>(show);
  programme_ = programme;
  isPerforming_ = true;
  walk_ = {};
  Piece only{programme.kind, programme.score, programme.look, {}, {}, {}, 0, 0};
  if (programme.kind == PieceKind::SetList) {
    auto place = SetListWalk::at(show_, programme.list, seed, elapsed);
    walk_ = std::move(place.walk);
    return start(walk_.now(), place.played, now);
  }
  // One score goes round and round.
  if (const Score* score = find(show.scores, programme.score); score && score->length.count() > 0)
    elapsed = Micros(elapsed.count() % score->length.count());
  start(only, elapsed, now);
}

void Performer::end(Micros fade) {
  isPerforming_ = false;
  walk_ = {};
  if (piece_ && piece_->kind == PieceKind::Look) hand_.endLook(piece_->look);
  if (piece_ && piece_->kind == PieceKind::Score) hand_.stopScore(fade);
  piece_.reset();
  coming_.reset();
}

void Performer::follow(const Show& show) {
  show_ = std::make_shared<const Show>(show);
  walk_.follow(show_);
  prepareNext();
}

Micros Performer::played(MonoTime now) const {
  const auto passed = std::chrono::duration_cast<Micros>(now - begun_);
  return from_ + Micros(static_cast<std::int64_t>(static_cast<double>(passed.count()) * speed_));
}

/// A score ends with its sound; everything else by the clock.
bool Performer::isOver(MonoTime now) {
  if (!piece_ || !piece_->length) return false;
  const Micros length = *piece_->length;
  const Micros passed = played(now);
  if (piece_->kind != PieceKind::Score) return passed >= length;
  // Stopped by hand, it waits.
  const auto position = hand_.scorePosition();
  return !position || *position >= length;
}

void Performer::tick(MonoTime now) {
  if (!isPerforming_ || !isOver(now)) return;
  // What is late by less than a piece does not push what follows.
  const Micros length = *piece_->length;
  const Micros late = piece_->kind == PieceKind::Score ? Micros(0) : played(now) - length;
  walk_.next();
  const bool isShort = !walk_.now() || !walk_.now()->length || late < *walk_.now()->length;
  start(walk_.now(), isShort && walk_.now() ? late : Micros(0), now);
}

void Performer::start(const std::optional<Piece>& next, Micros from, MonoTime now) {
  const std::optional<Piece> before = std::exchange(piece_, next);
  begun_ = now;
  from_ = from;
  const Micros fade = before ? before->fade : Micros(0);
  const bool sameLook = before && next && before->kind == PieceKind::Look && next->kind == PieceKind::Look &&
                        before->look == next->look;
  if (before && before->kind == PieceKind::Look && !sameLook) hand_.endLook(before->look);
  if (next && next->kind == PieceKind::Score)
    hand_.playScore({next->score, from, fade, !next->length, speed_});
  else if (before && before->kind == PieceKind::Score)
    hand_.stopScore(fade);
  if (!next) {
    isPerforming_ = false;
    coming_.reset();
    return;
  }
  if (next->kind == PieceKind::Look && !sameLook) hand_.lightLook(next->look);
  prepareNext();
  if (began) began(*next);
}

void Performer::prepareNext() {
  coming_.reset();
  if (!piece_) return;
  if (programme_.kind == PieceKind::SetList) coming_ = walk_.coming();
  const bool isScore = coming_ && coming_->kind == PieceKind::Score;
  hand_.prepare(isScore ? coming_->score : ScoreId{}, piece_->fade);
}

void Performer::skip(MonoTime now) {
  if (!isPerforming_ || programme_.kind != PieceKind::SetList) return;
  walk_.skip();
  start(walk_.now(), Micros(0), now);
}

void Performer::back(MonoTime now) {
  if (!isPerforming_ || programme_.kind != PieceKind::SetList) return;
  // A piece that has played for a while begins anew; a second time goes to the one before it.
  constexpr Micros kJustBegun{3'000'000};
  if (played(now) < kJustBegun) walk_.back();
  start(walk_.now(), Micros(0), now);
}

void Performer::jump(std::size_t line, MonoTime now) {
  if (!isPerforming_ || programme_.kind != PieceKind::SetList) return;
  walk_.jump(line);
  start(walk_.now(), Micros(0), now);
}

void Performer::playNext(std::size_t line) {
  walk_.playNext(line);
  prepareNext();
}

}  // namespace chispa::engine
