// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/format.h"

#include <cmath>

#include <QDate>
#include <QLocale>

#include "desk/parts/language.h"

namespace chispa::desk {

QString timeText(Micros t) {
  const auto hundredths = static_cast<long long>(t.count() / 10'000);
  return QStringLiteral("%1:%2.%3")
      .arg(hundredths / 6000)
      .arg(hundredths / 100 % 60, 2, 10, QLatin1Char('0'))
      .arg(hundredths % 100, 2, 10, QLatin1Char('0'));
}

QString lengthText(double metres) {
  const QLocale locale;
  if (std::abs(metres) >= 1 || metres == 0) return locale.toString(metres, 'f', 2) + QStringLiteral(" m");
  return locale.toString(metres * 1000, 'f', std::abs(metres) < 0.1 ? 1 : 0) + QStringLiteral(" mm");
}

QString wavelengthText(Chromaticity at) {
  const auto found = dominantWavelength(at);
  return found ? QCoreApplication::translate("format", "%1 nm").arg(*found, 0, 'f', 0)
               : QCoreApplication::translate("format", "none");
}

QString ampsText(double amps) {
  return QLocale().toString(amps, 'f', amps < 10 ? 2 : 1) + QStringLiteral(" A");
}

QString counted(qsizetype n, const QString& one, const QString& many) {
  return n == 1 ? one : many.arg(QLocale().toString(n));
}

QString dayText(std::chrono::sys_days date) {
  const std::chrono::year_month_day day(date);
  const QDate shown(static_cast<int>(day.year()), static_cast<int>(static_cast<unsigned>(day.month())),
                    static_cast<int>(static_cast<unsigned>(day.day())));
  return wordLocale().toString(shown, QCoreApplication::translate("format", "dddd d MMMM"));
}

QString percentText(double share) {
  return QStringLiteral("%1 %").arg(std::lround(share * 100));
}

}  // namespace chispa::desk
