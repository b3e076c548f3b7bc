// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <cstdio>
#include <cstdlib>

#include "core/almanac/nights.h"

namespace chispa {
namespace {

constexpr std::array<const char*, 7> kDays{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"};
constexpr int kEveryDay = 127;

/// "24 December", with the year of a day of one year.
std::string spoken(const std::string& text) {
  const auto day = parseDay(text);
  if (!day) return text;
  std::string words = std::to_string(day->day) + " " + monthName(day->month);
  if (day->year != 0) words += " " + std::to_string(day->year);
  return words;
}

std::string spokenList(const std::vector<std::string>& texts) {
  std::string words;
  for (const std::string& text : texts) words += (words.empty() ? "" : ", ") + spoken(text);
  return words;
}

/// "Fri–Sun", "Mon, Wed": neighbours are drawn together.
std::string weekdayText(int mask) {
  std::string words;
  for (int day = 0; day < 7; ++day) {
    if ((mask >> day & 1) == 0) continue;
    int last = day;
    while (last < 6 && (mask >> (last + 1) & 1) != 0) ++last;
    words += (words.empty() ? "" : ", ") + std::string(kDays[static_cast<std::size_t>(day)]);
    if (last > day)
      words += (last > day + 1 ? "–" : ", ") + std::string(kDays[static_cast<std::size_t>(last)]);
    day = last;
  }
  return words;
}

std::string afterOrBefore(int minutes, const std::string& event) {
  if (minutes == 0) return event;
  const int away = std::abs(minutes);
  const std::string length =
      away % 60 == 0 ? std::to_string(away / 60) + " h" : std::to_string(away) + " min";
  return length + (minutes < 0 ? " before " : " after ") + event;
}

}  // namespace

std::string describeDays(const RuleDays& days) {
  std::string words;
  if (!days.only.empty()) {
    words = "on " + spokenList(days.only);
  } else {
    words = days.weekdays == kEveryDay ? "every day" : weekdayText(days.weekdays);
    if (!days.first.empty()) words += ", from " + spoken(days.first);
    if (!days.last.empty()) words += (days.first.empty() ? ", to " : " to ") + spoken(days.last);
  }
  if (!days.except.empty()) words += ", not on " + spokenList(days.except);
  return words;
}

std::string describeTime(const NightTime& time) {
  switch (time.kind) {
    case NightTimeKind::Clock: {
      char text[24];
      std::snprintf(text, sizeof text, "%02d:%02d", time.minutes / 60, time.minutes % 60);
      return text;
    }
    case NightTimeKind::Sunset:
      return afterOrBefore(time.minutes, "sunset");
    case NightTimeKind::Dusk:
      return afterOrBefore(time.minutes, "dusk");
    case NightTimeKind::Dawn:
      return afterOrBefore(time.minutes, "dawn");
    case NightTimeKind::Sunrise:
      return afterOrBefore(time.minutes, "sunrise");
  }
  return {};
}

}  // namespace chispa
