// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setlist/setlistwalk.h"

#include <algorithm>
#include <numeric>
#include <utility>

namespace chispa {
namespace {

constexpr std::size_t kDeepest = 8;
constexpr std::size_t kMaxBefore = 100;
/// Lines in a row that have nothing to play before a list counts as empty.
constexpr int kMaxEmptyLines = 10'000;
/// Nothing plays for less: a list of empty scores would spin.
constexpr Micros kShortest{100'000};

}  // namespace

SetListWalk::SetListWalk(std::shared_ptr<const Show> show, SetListId list, std::uint64_t seed)
    : show_(std::move(show)), chance_(seed * 2 + 1) {
  enter(list);
  settle();
}

/// Steele, Lea and Flood 2014, "Fast splittable pseudorandom number generators": the same on every machine.
std::uint64_t SetListWalk::chance() {
  std::uint64_t z = (chance_ += 0x9e3779b97f4a7c15u);
  z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9u;
  z = (z ^ (z >> 27)) * 0x94d049bb133111ebu;
  return z ^ (z >> 31);
}

std::vector<std::size_t> SetListWalk::orderOf(const SetList& list) {
  std::vector<std::size_t> order(list.items.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  if (list.isShuffled)
    for (std::size_t i = order.size(); i > 1; --i) std::swap(order[i - 1], order[chance() % i]);
  return order;
}

void SetListWalk::enter(SetListId id) {
  if (const SetList* list = find(show_->setLists, id)) levels_.push_back({id, orderOf(*list)});
}

const SetListItem* SetListWalk::lineOf(const Level& level) const {
  const SetList* list = find(show_->setLists, level.list);
  if (!list || level.at >= level.order.size()) return nullptr;
  const std::size_t line = level.order[level.at];
  return line < list->items.size() ? &list->items[line] : nullptr;
}

bool SetListWalk::isPlayable(const SetListItem& item) const {
  switch (item.kind) {
    case PieceKind::Score:
      return find(show_->scores, item.score) != nullptr;
    case PieceKind::Look:
      return find(show_->looks, item.look) != nullptr;
    case PieceKind::Silence:
      return true;
    case PieceKind::SetList:
      return find(show_->setLists, item.list) && levels_.size() < kDeepest &&
             std::none_of(levels_.begin(), levels_.end(),
                          [&](const Level& level) { return level.list == item.list; });
  }
  return false;
}

std::optional<Piece> SetListWalk::pieceOf(const Level& level) const {
  const SetListItem* item = lineOf(level);
  if (!item || item->kind == PieceKind::SetList || !isPlayable(*item)) return std::nullopt;
  const Score* score = find(show_->scores, item->score);
  Piece piece{item->kind, {}, {}, item->length, item->fade, level.list, level.order[level.at], level.turn};
  if (item->kind == PieceKind::Score) {
    piece.score = item->score;
    piece.length = score->length;
  }
  if (item->kind == PieceKind::Look) piece.look = item->look;
  piece.length = std::max(*piece.length, kShortest);
  if (item->then == AfterPiece::Stay && level.turn + 1 >= item->repeats) piece.length.reset();
  return piece;
}

/// Goes down and on until something plays.
void SetListWalk::settle() {
  now_.reset();
  for (int empty = 0; !levels_.empty() && empty < kMaxEmptyLines; ++empty) {
    Level& level = levels_.back();
    const SetListItem* item = lineOf(level);
    if (!item) {
      // The round is over.
      const SetList* list = find(show_->setLists, level.list);
      ++level.round;
      const bool isRoundLeft = list && (list->rounds == 0 || level.round < list->rounds);
      if (isRoundLeft && !level.isStopped && !level.order.empty()) {
        level.order = orderOf(*list);
        level.at = 0;
        level.turn = 0;
        continue;
      }
      levels_.pop_back();
      if (!levels_.empty()) leaveLine(true);
      continue;
    }
    if (item->kind == PieceKind::SetList && isPlayable(*item)) {
      enter(item->list);
      continue;
    }
    if ((now_ = pieceOf(level))) return;
    leaveLine(false);
  }
  levels_.clear();
}

/// Past the line of the deepest list.
void SetListWalk::leaveLine(bool mayRepeat) {
  Level& level = levels_.back();
  const SetListItem* item = lineOf(level);
  if (!item) return;
  if (mayRepeat && ++level.turn < item->repeats) return;
  level.turn = 0;
  switch (item->then) {
    case AfterPiece::Stop:
      level.at = level.order.size();
      level.isStopped = true;
      break;
    case AfterPiece::Random:
      if (level.order.size() > 1) {
        const std::size_t step = 1 + chance() % (level.order.size() - 1);
        level.at = (level.at + step) % level.order.size();
      }
      break;
    case AfterPiece::Next:
    case AfterPiece::Stay:
      ++level.at;
      break;
  }
}

void SetListWalk::remember() {
  before_.push_back({levels_, chance_});
  if (before_.size() > kMaxBefore) before_.erase(before_.begin());
}

void SetListWalk::next() {
  if (levels_.empty()) return;
  remember();
  leaveLine(true);
  settle();
}

void SetListWalk::skip() {
  if (levels_.empty()) return;
  const SetListItem* item = lineOf(levels_.back());
  if (item) levels_.back().turn = item->repeats - 1;
  next();
}

void SetListWalk::back() {
  if (before_.empty()) return;
  levels_ = std::move(before_.back().levels);
  chance_ = before_.back().chance;
  before_.pop_back();
  now_ = levels_.empty() ? std::nullopt : pieceOf(levels_.back());
}

void SetListWalk::jump(std::size_t line) {
  if (levels_.empty()) return;
  remember();
  levels_.resize(1);
  Level& top = levels_.front();
  const auto found = std::find(top.order.begin(), top.order.end(), line);
  if (found == top.order.end()) return back();
  top.at = static_cast<std::size_t>(found - top.order.begin());
  top.turn = 0;
  settle();
}

void SetListWalk::playNext(std::size_t line) {
  if (levels_.empty()) return;
  Level& top = levels_.front();
  const SetList* list = find(show_->setLists, top.list);
  if (!list || line >= list->items.size()) return;
  top.order.insert(top.order.begin() + static_cast<std::ptrdiff_t>(std::min(top.at + 1, top.order.size())),
                   line);
}

std::optional<Piece> SetListWalk::coming() const {
  SetListWalk after = *this;
  after.next();
  return after.now_;
}

SetListWalk::Place SetListWalk::at(std::shared_ptr<const Show> show, SetListId list, std::uint64_t seed,
                                   Micros elapsed) {
  Place place{SetListWalk(std::move(show), list, seed), elapsed};
  while (place.walk.now() && place.walk.now()->length && place.played >= *place.walk.now()->length) {
    place.played -= *place.walk.now()->length;
    place.walk.next();
  }
  return place;
}

namespace {

std::optional<Micros> lengthOf(const Show& show, SetListId id, std::vector<SetListId>& above) {
  const SetList* list = find(show.setLists, id);
  if (!list || above.size() >= kDeepest || std::find(above.begin(), above.end(), id) != above.end())
    return std::nullopt;
  above.push_back(id);
  std::optional<Micros> sum = Micros(0);
  for (const SetListItem& item : list->items) {
    std::optional<Micros> one = item.length;
    if (item.kind == PieceKind::Score) {
      const Score* score = find(show.scores, item.score);
      one = score ? score->length : Micros(0);
    }
    if (item.kind == PieceKind::Look && !find(show.looks, item.look)) one = Micros(0);
    if (item.kind == PieceKind::SetList) {
      one = find(show.setLists, item.list) ? lengthOf(show, item.list, above) : Micros(0);
      const SetList* inner = find(show.setLists, item.list);
      if (one && inner) one = inner->rounds == 0 ? std::nullopt : std::optional(*one * inner->rounds);
    }
    if (item.then == AfterPiece::Stay || !one) sum.reset();
    if (!sum) break;
    *sum += *one * item.repeats;
    if (item.then == AfterPiece::Stop) break;
  }
  above.pop_back();
  return sum;
}

}  // namespace

std::optional<Micros> roundLength(const Show& show, SetListId list) {
  std::vector<SetListId> above;
  return lengthOf(show, list, above);
}

std::string nameOfPlayed(const Show& show, PieceKind kind, ScoreId score, LookId look, SetListId list) {
  const auto name = [](const auto* item) { return item ? item->name : std::string(); };
  switch (kind) {
    case PieceKind::Score:
      return name(find(show.scores, score));
    case PieceKind::Look:
      return name(find(show.looks, look));
    case PieceKind::SetList:
      return name(find(show.setLists, list));
    case PieceKind::Silence:
      return "silence";
  }
  return {};
}

}  // namespace chispa
