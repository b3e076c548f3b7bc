// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <string>

#include "core/setlist/setlistwalk.h"
#include "engine/clock.h"
#include "engine/night/stagehand.h"

namespace chispa::engine {

/// What is to be performed: a set list, one score for ever, or one look.
struct Programme {
  PieceKind kind = PieceKind::SetList;
  SetListId list = {};
  ScoreId score = {};
  LookId look = {};

  static Programme of(const Rule& rule) { return {rule.kind, rule.list, rule.score, rule.look}; }
  bool operator==(const Programme&) const = default;
};

/// Plays a set list piece by piece through a stagehand. Time is what tick() says; nothing here reads a clock
/// or waits. One thread.
class Performer {
 public:
  explicit Performer(Stagehand& hand) : hand_(hand) {}

  /// Begins, as far along as if it had begun `elapsed` ago. The same seed gives the same order.
  void begin(const Show& show, const Programme& programme, std::uint64_t seed, Micros elapsed, MonoTime now);
  /// Ends what plays; its light fades away.
  void end(Micros fade);
  /// The show was changed: what plays goes on, what follows is as the new one says.
  void follow(const Show& show);
  /// Goes on to the next piece when it is time; often.
  void tick(MonoTime now);

  void skip(MonoTime now);
  void back(MonoTime now);
  void jump(std::size_t line, MonoTime now);
  void playNext(std::size_t line);

  /// Times as fast, from the next piece on: to try a list.
  void setSpeed(double speed) { speed_ = speed; }
  double speed() const { return speed_; }
  bool isPerforming() const { return isPerforming_; }
  const Programme& programme() const { return programme_; }
  /// What plays; none if nothing does.
  const std::optional<Piece>& piece() const { return piece_; }
  /// What plays next, as the list stands; none if it would end.
  const std::optional<Piece>& coming() const { return coming_; }
  /// How long the present piece has played.
  Micros played(MonoTime now) const;
  /// Told when a piece begins.
  std::function<void(const Piece&)> began;

 private:
  void start(const std::optional<Piece>& next, Micros from, MonoTime now);
  bool isOver(MonoTime now);
  void prepareNext();

  Stagehand& hand_;
  std::shared_ptr<const Show> show_;
  Programme programme_;
  SetListWalk walk_;
  std::optional<Piece> piece_;
  std::optional<Piece> coming_;
  MonoTime begun_{0};
  Micros from_{0};
  double speed_ = 1;
  bool isPerforming_ = false;
};

/// The name of what a piece plays.
std::string nameOfPiece(const Show& show, const Piece& piece);

}  // namespace chispa::engine
