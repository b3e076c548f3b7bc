// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <compare>
#include <optional>
#include <string>
#include <vector>

#include "core/show/setlist.h"

namespace chispa {

/// A day of one year, or of every year where `year` is 0.
struct CalendarDay {
  int year = 0;
  int month = 1;
  int day = 1;

  auto operator<=>(const CalendarDay&) const = default;
};

/// "2026-12-24", or "12-24" for a day of every year.
std::string dayText(const CalendarDay& day);
/// Reads it; nothing if there is no such day. The 29th of February is a day of every year that has one.
std::optional<CalendarDay> parseDay(const std::string& text);

/// On which days a rule holds. A night is called by the day on which its evening lies.
struct RuleDays {
  /// Monday is bit 0; 127 is every day.
  int weekdays = 127;
  /// From day to day, both with it; over the new year if `first` lies behind `last`. "" is no limit. Both of
  /// one year, or both of every year.
  std::string first;
  std::string last;
  /// If there are any: these days only.
  std::vector<std::string> only;
  std::vector<std::string> except;

  bool operator==(const RuleDays&) const = default;
};

/// What an instant of a night is told by.
enum class NightTimeKind {
  Clock,
  Sunset,   ///< the sun's centre passes −0.833° on its way down
  Dusk,     ///< −6°: the end of civil twilight
  Dawn,     ///< −6° on its way up
  Sunrise,  ///< −0.833° on its way up
};

struct NightTime {
  NightTimeKind kind = NightTimeKind::Clock;
  /// Of a clock time: minutes after midnight, 0–1439. Of the sun: minutes after it, or before it if negative.
  int minutes = 0;

  bool operator==(const NightTime&) const = default;
};

/// A line of the almanac: what plays, on which days, from when until when.
struct Rule {
  RuleId id;
  std::string name;
  PieceKind kind = PieceKind::SetList;
  SetListId list = {};
  LookId look = {};
  ScoreId score = {};
  RuleDays days;
  NightTime from{NightTimeKind::Dusk, 0};
  NightTime until{NightTimeKind::Clock, 22 * 60};
  /// Where rules meet the higher one plays; of two alike, the one that stands first.
  int priority = 0;
  bool isOff = false;

  bool operator==(const Rule&) const = default;
};

/// Where the installation stands, and what is lit while no rule holds.
struct Almanac {
  std::string place;
  /// Degrees, north and east of Greenwich positive.
  double latitude_deg = 0;
  double longitude_deg = 0;
  /// As in the system's zone data ("Europe/Madrid"); empty if no place was chosen yet.
  std::string zone;
  /// Lit between the rules; none is dark.
  LookId between;

  bool operator==(const Almanac&) const = default;
};

}  // namespace chispa
