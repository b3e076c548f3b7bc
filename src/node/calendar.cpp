// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/calendar.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numbers>

#include <QDateTime>
#include <QRegularExpression>
#include <QTimeZone>

namespace chispa::node {
namespace {

using std::chrono::days;
using std::chrono::milliseconds;
using std::chrono::sys_days;

constexpr double kDay_ms = 86'400'000;
/// The Julian date of 1970-01-01 00:00 UTC, and that of the epoch J2000.
constexpr double kJulian1970 = 2'440'587.5;
constexpr double kJ2000 = 2'451'545.0;

double radiansOf(double degrees) {
  return degrees * std::numbers::pi / 180;
}

/// A date as it is written, with its year or without.
std::string dayText(sys_days date, bool hasYear) {
  const std::chrono::year_month_day day{date};
  char text[32];
  const auto month = static_cast<unsigned>(day.month()), number = static_cast<unsigned>(day.day());
  if (hasYear)
    std::snprintf(text, sizeof text, "%04d-%02u-%02u", static_cast<int>(day.year()), month, number);
  else
    std::snprintf(text, sizeof text, "%02u-%02u", month, number);
  return text;
}

bool isAmong(const std::vector<std::string>& texts, sys_days date) {
  return std::any_of(texts.begin(), texts.end(), [date](const std::string& text) {
    return text == dayText(date, true) || text == dayText(date, false);
  });
}

bool isWithin(const NightlyTime& time, sys_days date) {
  const std::string& limit = time.first.empty() ? time.last : time.first;
  if (limit.empty()) return true;
  // Days that are written alike are in order as texts.
  const std::string own = dayText(date, limit.size() > 5);
  const bool isAfter = time.first.empty() || own >= time.first;
  const bool isBefore = time.last.empty() || own <= time.last;
  const bool isOverNewYear = !time.first.empty() && !time.last.empty() && time.last < time.first;
  return isOverNewYear ? isAfter || isBefore : isAfter && isBefore;
}

bool holdsOn(const NightlyTime& time, sys_days date) {
  if (isAmong(time.except, date)) return false;
  if (!time.only.empty()) return isAmong(time.only, date);
  const unsigned weekday = std::chrono::weekday{date}.iso_encoding() - 1;
  return (time.weekdays >> weekday & 1) != 0 && isWithin(time, date);
}

UtcMillis millisOf(double julian) {
  return static_cast<UtcMillis>(std::llround((julian - kJulian1970) * kDay_ms));
}

/// The instant of the night of `date`; nothing if the sun does not pass.
std::optional<UtcMillis> instantOf(const NightlyTime& time, const Place& place, sys_days date) {
  constexpr int kNoon_min = 12 * 60;
  constexpr double kHorizon_deg = -0.833, kTwilight_deg = -6;
  if (time.kind == "clock") {
    const sys_days day = time.minutes < kNoon_min ? date + days(1) : date;
    constexpr int kMinute_ms = 60'000;
    const QDate qday = QDate(1970, 1, 1).addDays(day.time_since_epoch().count());
    const QTimeZone zone(QByteArray::fromStdString(place.timeZone));
    return QDateTime(qday, QTime::fromMSecsSinceStartOfDay(time.minutes * kMinute_ms), zone)
        .toMSecsSinceEpoch();
  }
  const bool isRising = time.kind == "dawn" || time.kind == "sunrise";
  const bool isTwilight = time.kind == "dawn" || time.kind == "dusk";
  const auto passes =
      sunPasses(isRising ? date + days(1) : date, place, isTwilight ? kTwilight_deg : kHorizon_deg, isRising);
  if (!passes) return std::nullopt;
  return *passes + std::int64_t{time.minutes} * 60'000;
}

}  // namespace

std::string utcText(UtcMillis at) {
  const std::chrono::sys_time<milliseconds> instant{milliseconds(at)};
  const auto day = std::chrono::floor<days>(instant);
  const std::chrono::hh_mm_ss clock{std::chrono::floor<std::chrono::seconds>(instant - day)};
  char text[48];
  std::snprintf(text, sizeof text, "%sT%02d:%02d:%02dZ", dayText(day, true).c_str(),
                static_cast<int>(clock.hours().count()), static_cast<int>(clock.minutes().count()),
                static_cast<int>(clock.seconds().count()));
  return text;
}

std::optional<UtcMillis> parseUtc(const std::string& text) {
  int year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0, end = 0;
  if (std::sscanf(text.c_str(), "%4d-%2d-%2dT%2d:%2d:%2dZ%n", &year, &month, &day, &hour, &minute, &second,
                  &end) != 6 ||
      end != static_cast<int>(text.size()))
    return std::nullopt;
  const std::chrono::year_month_day date{std::chrono::year(year),
                                         std::chrono::month(static_cast<unsigned>(month)),
                                         std::chrono::day(static_cast<unsigned>(day))};
  if (!date.ok() || hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 60)
    return std::nullopt;
  const auto instant =
      sys_days(date) + std::chrono::hours(hour) + std::chrono::minutes(minute) + std::chrono::seconds(second);
  return std::chrono::duration_cast<milliseconds>(instant.time_since_epoch()).count();
}

bool isPosixZone(const std::string& text) {
  // std offset [dst [offset] [,start[/time],end[/time]]]
  static const QRegularExpression kZone(QRegularExpression::anchoredPattern(QStringLiteral(
      "(<[A-Za-z0-9+-]{3,}>|[A-Za-z]{3,})[+-]?\\d{1,2}(:\\d\\d){0,2}((<[A-Za-z0-9+-]{3,}>|[A-Za-z]{3,})"
      "([+-]?\\d{1,2}(:\\d\\d){0,2})?(,[JM0-9./:+-]+,[JM0-9./:+-]+)?)?")));
  const QString zone = QString::fromStdString(text);
  return kZone.match(zone).hasMatch() && QTimeZone(zone.toUtf8()).isValid();
}

std::optional<UtcMillis> lastOf(const NightlyTime& time, const Place& place, UtcMillis now) {
  const auto today = std::chrono::floor<days>(std::chrono::sys_time<milliseconds>(milliseconds(now)));
  std::optional<UtcMillis> last;
  constexpr int kPastDays = 9;
  for (int back = -1; back <= kPastDays; ++back) {
    const sys_days date = today - days(back);
    if (!holdsOn(time, date)) continue;
    const auto at = instantOf(time, place, date);
    if (at && *at <= now && (!last || *at > *last)) last = at;
  }
  return last;
}

std::optional<UtcMillis> sunPasses(sys_days date, const Place& place, double height_deg, bool isRising) {
  constexpr double kObliquity_deg = 23.4397;
  // The perihelion moves on, seen from the equinox.
  constexpr double kPerihelion_deg = 102.9372, kPerihelionADay_deg = 1.7195 / 36'525;
  const double noon =
      std::round(static_cast<double>(date.time_since_epoch().count()) + kJulian1970 + 0.5 - kJ2000) -
      place.longitude_deg / 360;
  const double latitude = radiansOf(place.latitude_deg);
  // The sun moves on until it passes: where it stands then is found in a few turns.
  constexpr int kTurns = 3;
  double passes = noon;
  for (int turn = 0; turn < kTurns; ++turn) {
    const double anomaly = radiansOf(std::fmod(357.5291 + 0.98560028 * passes, 360));
    const double centre_deg =
        1.9148 * std::sin(anomaly) + 0.02 * std::sin(2 * anomaly) + 0.0003 * std::sin(3 * anomaly);
    const double longitude =
        anomaly + radiansOf(centre_deg + 180 + kPerihelion_deg + kPerihelionADay_deg * passes);
    const double transit = noon + 0.0053 * std::sin(anomaly) - 0.0069 * std::sin(2 * longitude);
    const double sineOfDeclination = std::sin(longitude) * std::sin(radiansOf(kObliquity_deg));
    const double cosine = (std::sin(radiansOf(height_deg)) - std::sin(latitude) * sineOfDeclination) /
                          (std::cos(latitude) * std::cos(std::asin(sineOfDeclination)));
    if (!(cosine >= -1 && cosine <= 1)) return std::nullopt;
    const double away = std::acos(cosine) / (2 * std::numbers::pi);
    passes = transit + (isRising ? -away : away);
  }
  return millisOf(kJ2000 + passes);
}

}  // namespace chispa::node
