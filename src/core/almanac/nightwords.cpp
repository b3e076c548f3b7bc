// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/almanac/nightwords.h"

#include <array>
#include <cstdio>
#include <cstdlib>

namespace chispa {
namespace {

constexpr int kDays = 7;
constexpr int kEveryDay = (1 << kDays) - 1;

std::string englishDay(const CalendarDay& day) {
  const std::string words = std::to_string(day.day) + " " + monthName(day.month);
  return day.year == 0 ? words : words + " " + std::to_string(day.year);
}

std::string spoken(const std::string& text, const NightLanguage& language) {
  const auto day = parseDay(text);
  return day ? language.day(*day) : text;
}

std::string listed(const std::vector<std::string>& days, const NightLanguage& language) {
  std::string words;
  for (const std::string& day : days) words += (words.empty() ? "" : ", ") + spoken(day, language);
  return words;
}

/// "Fri–Sun", "Mon, Wed": neighbours are drawn together.
std::string weekdays(int mask, const NightLanguage& language) {
  std::string words;
  for (int day = 0; day < kDays; ++day) {
    if ((mask >> day & 1) == 0) continue;
    int last = day;
    while (last + 1 < kDays && (mask >> (last + 1) & 1) != 0) ++last;
    words += (words.empty() ? "" : ", ") + language.weekday(day);
    if (last > day) words += (last > day + 1 ? "–" : ", ") + language.weekday(last);
    day = last;
  }
  return words;
}

/// An instant of the sun's, and how far another lies from it, in phrases.
struct SunPhrases {
  const char* at;
  const char* before;
  const char* after;
};

SunPhrases phrasesOf(NightTimeKind kind) {
  switch (kind) {
    case NightTimeKind::Clock:
      break;
    case NightTimeKind::Sunset:
      return {"sunset", "%1 before sunset", "%1 after sunset"};
    case NightTimeKind::Dusk:
      return {"dusk", "%1 before dusk", "%1 after dusk"};
    case NightTimeKind::Dawn:
      return {"dawn", "%1 before dawn", "%1 after dawn"};
    case NightTimeKind::Sunrise:
      return {"sunrise", "%1 before sunrise", "%1 after sunrise"};
  }
  return {};
}

}  // namespace

const NightLanguage& englishNights() {
  static constexpr std::array<const char*, kDays> kNames{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"};
  static const NightLanguage english{
      [](const Sentence& sentence) { return sentence.text(); },
      [](int day) { return std::string(kNames.at(static_cast<std::size_t>(day))); }, englishDay};
  return english;
}

std::string describeDays(const RuleDays& days, const NightLanguage& language) {
  const auto day = [&](const std::string& text) { return spoken(text, language); };
  std::string words =
      days.weekdays == kEveryDay ? language.say("every day") : weekdays(days.weekdays, language);
  if (!days.only.empty())
    words = language.say(sentence("on %1", listed(days.only, language)));
  else if (!days.first.empty() && !days.last.empty())
    words = language.say(sentence("%1, from %2 to %3", words, day(days.first), day(days.last)));
  else if (!days.first.empty())
    words = language.say(sentence("%1, from %2", words, day(days.first)));
  else if (!days.last.empty())
    words = language.say(sentence("%1, to %2", words, day(days.last)));
  if (days.except.empty()) return words;
  return language.say(sentence("%1, not on %2", words, listed(days.except, language)));
}

std::string describeTime(const NightTime& time, const NightLanguage& language) {
  if (time.kind == NightTimeKind::Clock) {
    char text[24];
    std::snprintf(text, sizeof text, "%02d:%02d", time.minutes / 60, time.minutes % 60);
    return text;
  }
  const SunPhrases phrases = phrasesOf(time.kind);
  if (time.minutes == 0) return language.say(phrases.at);
  const int away = std::abs(time.minutes);
  std::string length = language.say(sentence("%1 min", away));
  if (away % 60 == 0) length = language.say(sentence("%1 h", away / 60));
  return language.say(sentence(time.minutes < 0 ? phrases.before : phrases.after, length));
}

std::string describeStart(const MemoryStart& start, const NightLanguage& language) {
  if (start.contact > 0) return language.say(sentence("contact %1", start.contact));
  const std::string time = describeTime(start.at, language);
  const std::string at = start.at.kind == NightTimeKind::Clock ? language.say(sentence("at %1", time)) : time;
  return at + ", " + describeDays(start.days, language);
}

}  // namespace chispa
