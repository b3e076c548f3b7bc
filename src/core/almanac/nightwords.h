// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <string>

#include "core/almanac/calendar.h"
#include "core/base/sentence.h"
#include "core/show/controllermemory.h"

namespace chispa {

/// How the rules of nights are told in one language.
struct NightLanguage {
  /// A phrase with its places filled.
  std::function<std::string(const Sentence&)> say;
  /// "Mon" for 0, "Sun" for 6.
  std::function<std::string(int)> weekday;
  /// "24 December", with the year of a day of one year.
  std::function<std::string(const CalendarDay&)> day;
};

/// That of the command line.
const NightLanguage& englishNights();

/// "every day", "Fri–Sun, from 1 June to 31 August, not on 15 August".
std::string describeDays(const RuleDays& days, const NightLanguage& language = englishNights());
/// "20 min before sunset", "22:30".
std::string describeTime(const NightTime& time, const NightLanguage& language = englishNights());
/// "at 21:30, every day"; "contact 2".
std::string describeStart(const MemoryStart& start, const NightLanguage& language = englishNights());

}  // namespace chispa
