// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <mutex>

#include "core/almanac/sun.h"
#include "core/show/show.h"

namespace chispa {

/// A stretch of time in which one rule plays.
struct Slot {
  Instant start{};
  Instant end{};
  /// The day that the night is called by.
  Date night{};
  RuleId rule;

  bool operator==(const Slot&) const = default;
};

/// One night of the almanac: from the evening of `date` to the morning after it.
struct Night {
  Date date{};
  std::optional<Instant> sunset;
  std::optional<Instant> dusk;
  std::optional<Instant> dawn;
  std::optional<Instant> sunrise;
  /// In the order of time; none overlaps another. A rule that begins in the morning and goes on past noon is
  /// of the same day, so the first slot may lie before noon.
  std::vector<Slot> nightSlots;
  /// When each rule would play if it were alone, in the order of the rules.
  std::vector<Slot> alone;
};

/// What a rule says of one night.
struct Verdict {
  RuleId rule;
  /// When it would play if it were alone; both are 0 if it does not hold that night.
  Instant start{};
  Instant end{};
  /// It plays at the instant that was asked for.
  bool plays = false;
  /// In words: why it plays, or why not.
  std::string why;
};

/// What plays at an instant, and why.
struct Moment {
  std::optional<Slot> slot;
  /// When the next slot begins, this one not counted; none within two days.
  std::optional<Slot> next;
  std::vector<Verdict> verdicts;
};

/// The rules of a show laid on the calendar of its place. A function of the show alone: no clock is read. Any
/// thread.
class NightPlan {
 public:
  /// Fails if the show's time zone is unknown. A show without a place is taken to be at 0°, in UTC.
  static Result<NightPlan> of(const Show& show);

  const TimeZone& zone() const { return zone_; }
  /// Of `count` nights from `first` on.
  std::vector<Night> nights(Date first, int count) const;
  /// Slots of those nights, in the order of time.
  std::vector<Slot> slotsOf(Date first, int count) const;
  Moment at(Instant instant) const;
  /// The night to which an instant belongs: nights change at noon.
  Date nightOf(Instant instant) const;
  const Rule* rule(RuleId id) const { return find(rules_, id); }

 private:
  /// When a rule would play.
  struct Window {
    Instant start{};
    Instant end{};
    Date night{};
    std::size_t rule = 0;
    /// Why there is none; empty if there is.
    std::string why;
  };
  /// The sun of one place, each day worked out once: copies of a plan share it. Any thread.
  class SunTable {
   public:
    explicit SunTable(const Almanac& place)
        : latitude_deg_(place.latitude_deg), longitude_deg_(place.longitude_deg) {}
    SunTimes on(Date date);

   private:
    double latitude_deg_;
    double longitude_deg_;
    std::mutex mutex_;
    std::map<Date, SunTimes> days_;
  };
  NightPlan(const Show& show, TimeZone zone);
  std::optional<Instant> instantOf(const NightTime& time, Date date) const;
  Window windowOf(std::size_t rule, Date date) const;
  std::vector<Window> windows(Date first, int count) const;
  bool goesBefore(std::size_t a, std::size_t b) const;
  std::vector<Slot> laid(const std::vector<Window>& windows) const;

  Items<Rule> rules_;
  Almanac place_;
  TimeZone zone_;
  std::shared_ptr<SunTable> sun_;
};

/// True if the days of a rule have `date` among them.
bool holdsOn(const RuleDays& days, Date date);

/// What a rule plays: the name of its set list, look or score; empty if that is gone.
std::string whatOf(const Show& show, const Rule& rule);

}  // namespace chispa
