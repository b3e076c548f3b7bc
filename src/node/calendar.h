// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace chispa::node {

/// Milliseconds of UTC since 1970.
using UtcMillis = std::int64_t;

/// "2026-12-24T16:30:00Z".
std::string utcText(UtcMillis at);
/// Reads it; nothing if it is no instant.
std::optional<UtcMillis> parseUtc(const std::string& text);

/// True if `text` is a time zone as POSIX says it (IEEE Std 1003.1, §8.3).
bool isPosixZone(const std::string& text);

/// Where a node stands.
struct Place {
  double latitude_deg = 0;
  double longitude_deg = 0;
  /// As isPosixZone() takes it.
  std::string timeZone = "UTC0";
};

/// When something begins: on which nights, and when in the night. A night goes from noon to noon and has the
/// date of its evening.
struct NightlyTime {
  /// "clock", "sunset", "dusk", "dawn" or "sunrise".
  std::string kind = "clock";
  /// After midnight, or after the sun's event; negative before it.
  int minutes = 0;
  /// Monday is bit 0.
  int weekdays = 127;
  /// "12-24" of every year, or "2026-12-24"; "" is no limit.
  std::string first;
  std::string last;
  /// If there are any: these nights only.
  std::vector<std::string> only;
  std::vector<std::string> except;
};

/// The last instant of `time` that is not after `now`, of those of the past eight days; nothing if there is
/// none.
std::optional<UtcMillis> lastOf(const NightlyTime& time, const Place& place, UtcMillis now);

/// When the sun's centre passes `height_deg` on its way up or down on `date`; nothing if it does not. By the
/// sunrise equation with the equation of the centre to three terms (J. Meeus, Astronomical Algorithms, 1998,
/// ch. 25, low accuracy): right to a minute or two.
std::optional<UtcMillis> sunPasses(std::chrono::sys_days date, const Place& place, double height_deg,
                                   bool isRising);

}  // namespace chispa::node
