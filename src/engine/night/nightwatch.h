// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/almanac/nights.h"
#include "engine/night/nightlog.h"
#include "engine/night/performer.h"
#include "engine/player.h"

namespace chispa::engine {

/// Plays the almanac: light goes on and off by its rules, whatever happens to the clock or the show
/// meanwhile.
///
/// What it does where things go wrong:
/// - the clock jumps: what plays goes on if its slot still runs, and changes or ends if not;
/// - the show is changed: what plays goes on, what follows is as the new one says;
/// - it was killed: what would play now begins at the right place of the right piece.
///
/// Time is what tick() says; nothing here reads a clock or waits. One thread.
class NightWatch {
 public:
  /// `log` may be null.
  NightWatch(Stagehand& hand, NightLog* log) : hand_(hand), log_(log), performer_(hand) {
    performer_.began = [this](const Piece& piece) { note("piece", nameOfPiece(show_, piece), {}); };
  }

  void setLog(NightLog* log) { log_ = log; }
  /// Why the almanac cannot be followed; none if it can.
  std::optional<Failure> setShow(const Show& show);
  void begin(WallTime now);
  /// Ends what plays. Light is left to whoever asked for it.
  void stop(WallTime now, const std::string& why);
  bool isWatching() const { return isWatching_; }
  /// Often, with both clocks at one moment.
  void tick(WallTime now, MonoTime mono);

  /// Tonight only: no light, until it is taken back or the next night comes.
  void hold(bool on);
  bool isHeld() const { return heldNight_.has_value(); }
  /// Tonight only: what plays goes on this much longer than its rule says.
  void playLonger(std::chrono::minutes by);

  const std::optional<Slot>& slot() const { return slot_; }
  const std::optional<Slot>& next() const { return next_; }
  Performer& performer() { return performer_; }
  const Performer& performer() const { return performer_; }
  const NightPlan* plan() const { return plan_ ? &*plan_ : nullptr; }

  /// Something for the log, at the time of the last tick.
  void note(const std::string& kind, const std::string& what, const std::string& detail);
  /// Figures of the night that the last tick fell into.
  void add(NightSum sum);

 private:
  void look(WallTime now, MonoTime mono);
  void enter(const Slot& slot, MonoTime mono);
  void leave(const std::string& why);
  void settleDark(MonoTime mono);
  MonoTime lastFade() const;
  Instant secondsOf(WallTime now) const { return std::chrono::floor<std::chrono::seconds>(now); }

  Stagehand& hand_;
  NightLog* log_;
  Performer performer_;
  Show show_;
  std::optional<NightPlan> plan_;
  bool isWatching_ = false;
  bool isShowNew_ = false;
  /// Asked for again once `checkAt_` is past, or the clock has jumped.
  Instant checkAt_{};
  std::optional<Slot> slot_;
  std::optional<Slot> next_;
  std::optional<Date> heldNight_;
  /// Until when a slot goes on beyond its end.
  std::optional<Instant> longerUntil_;
  WallTime now_{};
  MonoTime mono_{0};
  /// Light is taken back when this is past: it has faded out by then.
  std::optional<MonoTime> darkAt_;
  bool isBetween_ = false;
  bool isLit_ = false;
};

/// Adds up what a night used, and tells the watch of controllers that are lost and back. One thread.
class NightMeter {
 public:
  NightMeter(Player& player, NightWatch& watch) : player_(player), watch_(watch) {}
  /// About once a second.
  void tick(const Show& show, MonoTime mono);

 private:
  Player& player_;
  NightWatch& watch_;
  std::optional<MonoTime> last_;
  std::uint64_t frames_ = 0;
  std::uint64_t skipped_ = 0;
  std::map<ControllerId, bool> reached_;
};

}  // namespace chispa::engine
