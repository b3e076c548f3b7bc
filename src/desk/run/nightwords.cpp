// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightwords.h"

#include <cstdlib>

#include <QCoreApplication>
#include <QDate>
#include <QLocale>
#include <QStringList>

#include "desk/parts/format.h"
#include "desk/parts/language.h"

namespace chispa::desk {
namespace {

/// "24 December", with the year of a day of one year.
QString dayWords(const std::string& day) {
  const auto parsed = parseDay(day);
  if (!parsed) return text(day);
  // A leap year, so that every day is there.
  constexpr int kAnyYear = 2024;
  const QDate date(parsed->year == 0 ? kAnyYear : parsed->year, parsed->month, parsed->day);
  const QString form = parsed->year == 0 ? QCoreApplication::translate("nights", "d MMMM")
                                         : QCoreApplication::translate("nights", "d MMMM yyyy");
  return wordLocale().toString(date, form);
}

QString listWords(const std::vector<std::string>& days) {
  QStringList words;
  for (const std::string& day : days) words << dayWords(day);
  return words.join(QStringLiteral(", "));
}

/// "Fri–Sun", "Mon, Wed": neighbours are drawn together.
QString weekdayWords(int mask) {
  const auto name = [](int day) { return wordLocale().standaloneDayName(day + 1, QLocale::ShortFormat); };
  QStringList words;
  for (int day = 0; day < 7; ++day) {
    if ((mask >> day & 1) == 0) continue;
    int last = day;
    while (last < 6 && (mask >> (last + 1) & 1) != 0) ++last;
    if (last > day + 1)
      words << name(day) + QStringLiteral("–") + name(last);
    else
      for (int one = day; one <= last; ++one) words << name(one);
    day = last;
  }
  return words.join(QStringLiteral(", "));
}

/// How far an instant is from one of the sun's, in the words for it, before it and after it.
QString awayWords(int minutes, const QString& event, const QString& before, const QString& after) {
  if (minutes == 0) return event;
  const int away = std::abs(minutes);
  const QString length =
      away % 60 == 0 ? QStringLiteral("%1 h").arg(away / 60) : QStringLiteral("%1 min").arg(away);
  return (minutes < 0 ? before : after).arg(length);
}

}  // namespace

QString daysText(const RuleDays& days) {
  constexpr int kEveryDay = 127;
  QString words = days.weekdays == kEveryDay ? QCoreApplication::translate("nights", "every day")
                                             : weekdayWords(days.weekdays);
  if (!days.only.empty())
    words = QCoreApplication::translate("nights", "on %1").arg(listWords(days.only));
  else if (!days.first.empty() && !days.last.empty())
    words = QCoreApplication::translate("nights", "%1, from %2 to %3")
                .arg(words, dayWords(days.first), dayWords(days.last));
  else if (!days.first.empty())
    words = QCoreApplication::translate("nights", "%1, from %2").arg(words, dayWords(days.first));
  else if (!days.last.empty())
    words = QCoreApplication::translate("nights", "%1, to %2").arg(words, dayWords(days.last));
  if (days.except.empty()) return words;
  return QCoreApplication::translate("nights", "%1, not on %2").arg(words, listWords(days.except));
}

QString nightTimeText(const NightTime& time) {
  const int minutes = time.minutes;
  switch (time.kind) {
    case NightTimeKind::Clock:
      return QStringLiteral("%1:%2")
          .arg(minutes / 60, 2, 10, QLatin1Char('0'))
          .arg(minutes % 60, 2, 10, QLatin1Char('0'));
    case NightTimeKind::Sunset:
      return awayWords(minutes, QCoreApplication::translate("nights", "sunset"),
                       QCoreApplication::translate("nights", "%1 before sunset"),
                       QCoreApplication::translate("nights", "%1 after sunset"));
    case NightTimeKind::Dusk:
      return awayWords(minutes, QCoreApplication::translate("nights", "dusk"),
                       QCoreApplication::translate("nights", "%1 before dusk"),
                       QCoreApplication::translate("nights", "%1 after dusk"));
    case NightTimeKind::Dawn:
      return awayWords(minutes, QCoreApplication::translate("nights", "dawn"),
                       QCoreApplication::translate("nights", "%1 before dawn"),
                       QCoreApplication::translate("nights", "%1 after dawn"));
    case NightTimeKind::Sunrise:
      return awayWords(minutes, QCoreApplication::translate("nights", "sunrise"),
                       QCoreApplication::translate("nights", "%1 before sunrise"),
                       QCoreApplication::translate("nights", "%1 after sunrise"));
  }
  return {};
}

QString startWords(const MemoryStart& start) {
  if (start.contact > 0) return QCoreApplication::translate("nights", "contact %1").arg(start.contact);
  const QString time = nightTimeText(start.at);
  const QString at =
      start.at.kind == NightTimeKind::Clock ? QCoreApplication::translate("nights", "at %1").arg(time) : time;
  return QStringLiteral("%1, %2").arg(at, daysText(start.days));
}

}  // namespace chispa::desk
