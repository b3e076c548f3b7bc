// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightrows.h"

#include <QHBoxLayout>
#include <QRegularExpression>
#include <QTime>
#include <QToolButton>

#include "core/almanac/nights.h"
#include "desk/parts/format.h"
#include "desk/run/nightwords.h"

namespace chispa::desk {
namespace {

/// Seven buttons, a day of the week each.
void addWeekdays(Form& form, const QString& key, const PartAccess<RuleDays>& days) {
  auto* row = new QWidget;
  row->setObjectName(key + QStringLiteral("Weekdays"));
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(2);
  static const QStringList kDays{Form::tr("Mon"), Form::tr("Tue"), Form::tr("Wed"), Form::tr("Thu"),
                                 Form::tr("Fri"), Form::tr("Sat"), Form::tr("Sun")};
  const auto get = shows<int>(days, [](const RuleDays& d) { return d.weekdays; });
  const auto set =
      changes<int>(days, Form::tr("days of the week"), [](RuleDays& d, int mask) { d.weekdays = mask; });
  std::vector<QToolButton*> buttons;
  for (int day = 0; day < 7; ++day) {
    auto* button = new QToolButton;
    button->setObjectName(key + QStringLiteral("Weekday%1").arg(day));
    button->setText(kDays.at(day).left(1));
    button->setAccessibleName(kDays.at(day));
    button->setToolTip(
        Form::tr("%1: whether it plays on this day of the week; one day stays at least").arg(kDays.at(day)));
    button->setMinimumWidth(1);
    button->setCheckable(true);
    button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    QObject::connect(button, &QToolButton::clicked, row, [get, set, day, button](bool on) {
      const int before = get().value_or(127);
      const int mask = on ? before | 1 << day : before & ~(1 << day);
      if (mask == 0)
        button->setChecked(true);
      else
        set(mask);
    });
    line->addWidget(button);
    buttons.push_back(button);
  }
  form.addWidget(row, [get, buttons] {
    const int mask = get().value_or(127);
    for (int day = 0; day < 7; ++day)
      buttons[static_cast<std::size_t>(day)]->setChecked((mask >> day & 1) != 0);
  });
}

/// "06-12, 2027-12-24" and back; what is no day is left out.
QString daysText(const std::vector<std::string>& days) {
  QStringList all;
  for (const std::string& day : days) all << text(day);
  return all.join(QStringLiteral(", "));
}
std::vector<std::string> daysOf(const QString& words) {
  std::vector<std::string> days;
  static const QRegularExpression kBetween(QStringLiteral("[,;\\s]+"));
  for (const QString& word : words.split(kBetween, Qt::SkipEmptyParts))
    if (const auto day = parseDay(word.toStdString())) days.push_back(dayText(*day));
  return days;
}

}  // namespace

void addDays(Form& form, const QString& key, const PartAccess<RuleDays>& days) {
  form.addHeading(Form::tr("Days"));
  addWeekdays(form, key, days);
  const auto day = [&](const char* name, const QString& label, std::string RuleDays::*member) {
    form.addText(key + QLatin1String(name), label,
                 shows<QString>(days, [member](const RuleDays& d) { return text(d.*member); }),
                 changes<QString>(days, label, [member](RuleDays& d, const QString& v) {
                   const auto one = parseDay(v.trimmed().toStdString());
                   if (!one && !v.trimmed().isEmpty()) return;
                   std::string RuleDays::*other =
                       member == &RuleDays::first ? &RuleDays::last : &RuleDays::first;
                   d.*member = one ? dayText(*one) : std::string();
                   // Both of one year, or both of every year.
                   if ((d.*other).size() != (d.*member).size() && !(d.*member).empty() && !(d.*other).empty())
                     (d.*other).clear();
                 }));
  };
  day("First", Form::tr("From"), &RuleDays::first);
  day("Last", Form::tr("To"), &RuleDays::last);
  const auto several = [&](const char* name, const QString& label,
                           std::vector<std::string> RuleDays::*member) {
    form.addText(
        key + QLatin1String(name), label,
        shows<QString>(days, [member](const RuleDays& d) { return daysText(d.*member); }),
        changes<QString>(days, label, [member](RuleDays& d, const QString& v) { d.*member = daysOf(v); }));
  };
  several("Only", Form::tr("Only on"), &RuleDays::only);
  several("Except", Form::tr("Not on"), &RuleDays::except);
  form.addNote([]() -> std::optional<QString> {
    return Form::tr("Days are written 12-24 for every year, or 2026-12-24 for one.");
  });
}

void addNightTime(Form& form, const QString& key, const QString& label, const PartAccess<NightTime>& time,
                  bool isClock) {
  form.addChoice(
      key + QStringLiteral("Kind"), label,
      {Form::tr("clock time"), Form::tr("sunset"), Form::tr("dusk"), Form::tr("dawn"), Form::tr("sunrise")},
      shows<int>(time, [](const NightTime& t) { return static_cast<int>(t.kind); }),
      changes<int>(time, label, [](NightTime& t, int v) {
        const auto kind = static_cast<NightTimeKind>(v);
        constexpr int kNine_min = 21 * 60;
        const bool wasClock = t.kind == NightTimeKind::Clock, becomesClock = kind == NightTimeKind::Clock;
        if (wasClock != becomesClock) t.minutes = becomesClock ? kNine_min : 0;
        t.kind = kind;
      }));
  if (isClock)
    form.addText(key + QStringLiteral("Clock"), Form::tr("  at"),
                 shows<QString>(time, [](const NightTime& t) { return nightTimeText(t); }),
                 changes<QString>(time, label, [](NightTime& t, const QString& v) {
                   const QTime clock = QTime::fromString(v.trimmed(), QStringLiteral("H:mm"));
                   if (clock.isValid()) t.minutes = clock.hour() * 60 + clock.minute();
                 }));
  else
    form.addNumber(
        key + QStringLiteral("Minutes"), Form::tr("  later by"), {"min", -1439, 1439, 5, 0},
        shows<double>(time, [](const NightTime& t) { return t.minutes; }),
        changes<double>(time, label, [](NightTime& t, double v) { t.minutes = static_cast<int>(v); }));
}

}  // namespace chispa::desk
