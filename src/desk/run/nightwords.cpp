// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightwords.h"

#include <QCoreApplication>
#include <QDate>
#include <QLocale>

#include "core/almanac/nightwords.h"
#include "desk/parts/language.h"

namespace chispa::desk {
namespace {

std::string dayWords(const CalendarDay& day) {
  // A leap year, so that every day is there.
  constexpr int kAnyYear = 2024;
  const QDate date(day.year == 0 ? kAnyYear : day.year, day.month, day.day);
  const QString form = day.year == 0 ? QCoreApplication::translate("nights", "d MMMM")
                                     : QCoreApplication::translate("nights", "d MMMM yyyy");
  return wordLocale().toString(date, form).toStdString();
}

const NightLanguage& windowNights() {
  static const NightLanguage language{
      [](const Sentence& sentence) { return said(sentence).toStdString(); },
      [](int day) { return wordLocale().standaloneDayName(day + 1, QLocale::ShortFormat).toStdString(); },
      dayWords};
  return language;
}

}  // namespace

QString daysText(const RuleDays& days) {
  return QString::fromStdString(describeDays(days, windowNights()));
}

QString nightTimeText(const NightTime& time) {
  return QString::fromStdString(describeTime(time, windowNights()));
}

QString startWords(const MemoryStart& start) {
  return QString::fromStdString(describeStart(start, windowNights()));
}

}  // namespace chispa::desk
