// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/almanac.h"

namespace chispa {

/// An instant of UTC, to the second.
using Instant = std::chrono::sys_seconds;
/// A day of the calendar, as days since 1970-01-01; in no time zone.
using Date = std::chrono::sys_days;

/// Clock time on `date` at a place, in seconds after midnight; may be negative, or beyond the day.
struct LocalTime {
  Date date{};
  std::chrono::seconds time{0};
};

/// A time zone of the system's zone data. Any thread.
class TimeZone {
 public:
  /// By its name ("Europe/Madrid").
  static Result<TimeZone> named(const std::string& name);
  static TimeZone utc() { return TimeZone(nullptr); }

  /// The instant at which clocks there show this time. In the hour that comes twice, the first of both; in
  /// the hour that is missing, the instant at which it is left out.
  Instant instantOf(Date date, std::chrono::minutes sinceMidnight) const;
  LocalTime localOf(Instant at) const;
  Date dateOf(Instant at) const { return localOf(at).date; }
  /// What is added to UTC there then.
  std::chrono::seconds offsetAt(Instant at) const;

 private:
  explicit TimeZone(const void* zone) : zone_(zone) {}
  /// Of the date library, which lives as long as the program; null for UTC, which needs no zone data.
  const void* zone_;
};

/// A zone of the system's zone data as POSIX says it, for clocks without such data: what stands behind its
/// table (RFC 8536 §3.3), "CET-1CEST,M3.5.0,M10.5.0/3".
Result<std::string> posixZone(const std::string& zone, const std::string& folder = "/usr/share/zoneinfo");

/// RFC 3339 with the zone's offset: "2026-06-21T21:34:05+02:00".
std::string rfc3339(Instant at, const TimeZone& zone);
/// A day of one year, taken apart.
CalendarDay calendarDay(Date date);
/// "December" for 12.
const char* monthName(int month);
/// "21:34".
std::string clockText(Instant at, const TimeZone& zone);
/// "2026-06-21".
std::string dateText(Date date);
/// Reads "2026-06-21"; nothing if there is no such day.
std::optional<Date> parseDate(const std::string& text);
/// Reads "2026-06-21T21:34:05", seconds may be missing, as a time that clocks in `zone` show.
std::optional<Instant> parseLocal(const std::string& text, const TimeZone& zone);

/// A place of the system's zone table.
struct City {
  std::string name;
  std::string country;
  double latitude_deg = 0;
  double longitude_deg = 0;
  std::string zone;
};

/// All places of the system's table (tzdata's zone.tab), by name; empty if it is not there.
std::vector<City> citiesOfZoneTable(const std::string& path = "/usr/share/zoneinfo/zone.tab");

}  // namespace chispa
