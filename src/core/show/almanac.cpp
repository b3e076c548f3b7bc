// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/almanac.h"

#include <charconv>
#include <chrono>
#include <cstdio>

namespace chispa {

std::string dayText(const CalendarDay& day) {
  char text[48];
  if (day.year == 0)
    std::snprintf(text, sizeof text, "%02d-%02d", day.month, day.day);
  else
    std::snprintf(text, sizeof text, "%04d-%02d-%02d", day.year, day.month, day.day);
  return text;
}

std::optional<CalendarDay> parseDay(const std::string& text) {
  const bool hasYear = text.size() == 10;
  if (!hasYear && text.size() != 5) return std::nullopt;
  const std::size_t shift = hasYear ? 5 : 0;
  if (text[shift + 2] != '-' || (hasYear && text[4] != '-')) return std::nullopt;
  const auto number = [&](std::size_t at, std::size_t digits) {
    int value = -1;
    const char* end = text.data() + at + digits;
    return std::from_chars(text.data() + at, end, value).ptr == end ? value : -1;
  };
  const CalendarDay day{hasYear ? number(0, 4) : 0, number(shift, 2), number(shift + 3, 2)};
  if (day.year < (hasYear ? 1 : 0) || day.month < 1 || day.day < 1) return std::nullopt;
  // Of every year: of a leap year too.
  constexpr int kLeapYear = 2000;
  const std::chrono::year_month_day date{std::chrono::year(hasYear ? day.year : kLeapYear),
                                         std::chrono::month(static_cast<unsigned>(day.month)),
                                         std::chrono::day(static_cast<unsigned>(day.day))};
  return date.ok() ? std::optional(day) : std::nullopt;
}

}  // namespace chispa
