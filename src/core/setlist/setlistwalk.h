// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// One thing that plays: never a set list.
struct Piece {
  PieceKind kind = PieceKind::Silence;
  ScoreId score;
  LookId look;
  /// How long; none: until someone goes on by hand.
  std::optional<Micros> length;
  Micros fade{0};
  /// The list that it stands in, its line there, and which of its repeats it is, from 0.
  SetListId list;
  std::size_t line = 0;
  int turn = 0;

  bool operator==(const Piece&) const = default;
};

/// Goes through a set list piece by piece: repeats, rounds, other lists in it, what follows what. A value;
/// the same list and seed give the same order. A line whose score, look or list is gone is left out, and so
/// is a list that stands in itself.
class SetListWalk {
 public:
  SetListWalk() = default;
  SetListWalk(std::shared_ptr<const Show> show, SetListId list, std::uint64_t seed);

  /// What plays now; none when the list has ended, or has nothing to play.
  const std::optional<Piece>& now() const { return now_; }
  /// The show was changed: what follows is as the new one says.
  void follow(std::shared_ptr<const Show> show) { show_ = std::move(show); }
  /// Goes on, as the present line says.
  void next();
  /// Goes on whatever it says: past repeats and "stay".
  void skip();
  /// To what played before; to the beginning of the first if nothing did.
  void back();
  /// To line `line` of the list that was begun with.
  void jump(std::size_t line);
  /// Line `line` of the list that was begun with plays after the present piece; then all goes on as it was.
  void playNext(std::size_t line);
  /// What would play next; none if the list would end.
  std::optional<Piece> coming() const;

  /// The walk as it is when `elapsed` has passed since its beginning, and how long its piece has played.
  struct Place;
  static Place at(std::shared_ptr<const Show> show, SetListId list, std::uint64_t seed, Micros elapsed);

 private:
  /// A list that is gone through.
  struct Level {
    SetListId list;
    std::vector<std::size_t> order;
    std::size_t at = 0;
    int round = 0;
    int turn = 0;
    /// A line has ended the list, whatever rounds are left.
    bool isStopped = false;
  };
  void enter(SetListId list);
  void settle();
  void remember();
  void leaveLine(bool mayRepeat);
  const SetListItem* lineOf(const Level& level) const;
  bool isPlayable(const SetListItem& item) const;
  std::optional<Piece> pieceOf(const Level& level) const;
  std::vector<std::size_t> orderOf(const SetList& list);
  std::uint64_t chance();

  std::shared_ptr<const Show> show_;
  std::vector<Level> levels_;
  std::optional<Piece> now_;
  std::uint64_t chance_ = 1;
  /// Where it was before, the last at the end; bounded.
  struct Before {
    std::vector<Level> levels;
    std::uint64_t chance;
  };
  std::vector<Before> before_;
};

struct SetListWalk::Place {
  SetListWalk walk;
  Micros played{0};
};

/// How long one round of a list takes, with all in it; none if something in it has no end, or the list holds
/// itself.
std::optional<Micros> roundLength(const Show& show, SetListId list);
/// The name of what plays, "silence" for nothing; empty if it is gone.
std::string nameOfPlayed(const Show& show, PieceKind kind, ScoreId score, LookId look, SetListId list);

}  // namespace chispa
