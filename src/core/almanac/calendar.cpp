// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/almanac/calendar.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <sstream>

#include <date/tz.h>

namespace chispa {
namespace {

using namespace std::chrono;

const date::time_zone& zoneOf(const void* zone) {
  return *static_cast<const date::time_zone*>(zone);
}

std::string padded(long long value) {
  return (value < 10 ? "0" : "") + std::to_string(value);
}

constexpr std::array<const char*, 12> kMonths{"January",   "February", "March",    "April",
                                              "May",       "June",     "July",     "August",
                                              "September", "October",  "November", "December"};

/// "+4024", "-034" or with seconds "+513030": degrees from ISO 6709, sign first.
double degreesOf(const std::string& text) {
  const std::size_t digits = text.size() - 1;
  // ±DDMM, ±DDDMM, ±DDMMSS, ±DDDMMSS
  const std::size_t degreeDigits = digits == 4 || digits == 6 ? 2 : 3;
  const auto number = [&](std::size_t at, std::size_t count) {
    int value = 0;
    std::from_chars(text.data() + at, text.data() + at + count, value);
    return value;
  };
  double degrees = number(1, degreeDigits) + number(1 + degreeDigits, 2) / 60.0;
  if (digits > degreeDigits + 2) degrees += number(3 + degreeDigits, 2) / 3600.0;
  return text[0] == '-' ? -degrees : degrees;
}

std::optional<City> cityOf(const std::string& line) {
  if (line.empty() || line[0] == '#') return std::nullopt;
  std::istringstream in(line);
  City city;
  std::string place;
  if (!(in >> city.country >> place >> city.zone)) return std::nullopt;
  const auto second = place.find_first_of("+-", 1);
  if (second == std::string::npos || second < 5 || place.size() - second < 5) return std::nullopt;
  city.latitude_deg = degreesOf(place.substr(0, second));
  city.longitude_deg = degreesOf(place.substr(second));
  city.name = city.zone.substr(city.zone.rfind('/') + 1);
  std::replace(city.name.begin(), city.name.end(), '_', ' ');
  return city;
}

}  // namespace

Result<TimeZone> TimeZone::named(const std::string& name) {
  try {
    return TimeZone(date::locate_zone(name));
  } catch (const std::exception&) {
    return Failure{sentence("The time zone “%1” is not known here.", name),
                   {},
                   "Choose the installation's place in Run, or install the package tzdata."};
  }
}

Result<std::string> posixZone(const std::string& zone, const std::string& folder) {
  // A name that is no zone's must lead to no file.
  if (const auto known = TimeZone::named(zone); !known) return known.failure();
  std::ifstream file(folder + "/" + zone, std::ios::binary);
  const std::string bytes{std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>()};
  const auto end = bytes.size() > 1 && bytes.back() == '\n' ? bytes.size() - 1 : std::string::npos;
  const auto begin = end == std::string::npos ? end : bytes.rfind('\n', end - 1);
  if (!bytes.starts_with("TZif") || begin == std::string::npos || begin + 1 == end)
    return Failure{sentence("The rule of the time zone “%1” cannot be read.", zone), folder,
                   "Install the package tzdata, or choose another place in Run."};
  return bytes.substr(begin + 1, end - begin - 1);
}

Instant TimeZone::instantOf(Date date, minutes sinceMidnight) const {
  if (!zone_) return Instant(date) + sinceMidnight;
  const date::local_seconds local{date.time_since_epoch() + sinceMidnight};
  const auto info = zoneOf(zone_).get_info(local);
  // In the missing hour `first` ends where the clocks are put forward.
  if (info.result == date::local_info::nonexistent) return floor<std::chrono::seconds>(info.first.end);
  return Instant(local.time_since_epoch() - info.first.offset);
}

std::chrono::seconds TimeZone::offsetAt(Instant at) const {
  return zone_ ? zoneOf(zone_).get_info(at).offset : std::chrono::seconds(0);
}

LocalTime TimeZone::localOf(Instant at) const {
  const Instant local = at + offsetAt(at);
  const Date date = floor<days>(local);
  return {date, local - date};
}

CalendarDay calendarDay(Date date) {
  const year_month_day day(date);
  return {static_cast<int>(day.year()), static_cast<int>(static_cast<unsigned>(day.month())),
          static_cast<int>(static_cast<unsigned>(day.day()))};
}

const char* monthName(int month) {
  return kMonths[static_cast<std::size_t>(month - 1)];
}

std::string dateText(Date date) {
  return dayText(calendarDay(date));
}

std::string rfc3339(Instant at, const TimeZone& zone) {
  const LocalTime local = zone.localOf(at);
  const hh_mm_ss time(local.time);
  const auto offset = zone.offsetAt(at);
  // RFC 3339 knows no seconds in an offset.
  const long long away = std::abs(duration_cast<minutes>(offset).count());
  return dateText(local.date) + "T" + padded(time.hours().count()) + ":" + padded(time.minutes().count()) +
         ":" + padded(time.seconds().count()) + (offset.count() < 0 ? "-" : "+") + padded(away / 60) + ":" +
         padded(away % 60);
}

std::string clockText(Instant at, const TimeZone& zone) {
  const hh_mm_ss time(zone.localOf(at).time);
  return padded(time.hours().count()) + ":" + padded(time.minutes().count());
}

std::optional<Date> parseDate(const std::string& text) {
  const auto day = parseDay(text);
  if (!day || day->year == 0) return std::nullopt;
  return Date(year_month_day(year(day->year), month(static_cast<unsigned>(day->month)),
                             std::chrono::day(static_cast<unsigned>(day->day))));
}

std::optional<Instant> parseLocal(const std::string& text, const TimeZone& zone) {
  int hour = 0, minute = 0, second = 0;
  char rest = 0;
  const auto date = parseDate(text.substr(0, 10));
  if (!date || text.size() < 16 || (text[10] != 'T' && text[10] != ' ')) return std::nullopt;
  const std::string time = text.substr(11);
  const int read = std::sscanf(time.c_str(), "%2d:%2d:%2d%c", &hour, &minute, &second, &rest);
  if ((read != 3 && !(read == 2 && time.size() == 5)) || hour < 0 || hour > 23 || minute < 0 || minute > 59 ||
      second < 0 || second > 59)
    return std::nullopt;
  return zone.instantOf(*date, hours(hour) + minutes(minute)) + std::chrono::seconds(second);
}

std::vector<City> citiesOfZoneTable(const std::string& path) {
  std::vector<City> cities;
  std::ifstream in(path);
  for (std::string line; std::getline(in, line);)
    if (auto city = cityOf(line)) cities.push_back(*std::move(city));
  std::sort(cities.begin(), cities.end(), [](const City& a, const City& b) { return a.name < b.name; });
  return cities;
}

}  // namespace chispa
