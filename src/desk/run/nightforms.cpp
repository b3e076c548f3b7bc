// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightforms.h"

#include <cmath>

#include <QHBoxLayout>
#include <QRegularExpression>
#include <QTime>
#include <QToolButton>

#include "core/almanac/nights.h"
#include "core/edit/setlistedits.h"
#include "core/setlist/setlistwalk.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/run/itemrows.h"

namespace chispa::desk {
namespace {

using ListRows = ItemRows<SetList, SetListId>;
using RuleRows = ItemRows<Rule, RuleId>;

QString namesKey(const Show& show) {
  QString key;
  for (const auto& one : show.setLists) key += text(one->name) + QLatin1Char('|');
  for (const auto& one : show.looks) key += text(one->name) + QLatin1Char('|');
  for (const auto& one : show.scores) key += text(one->name) + QLatin1Char('|');
  return key;
}

/// Rows over one line.
class LineRows {
 public:
  LineRows(const Session& session, const LineChoice& choice) : session_(session), choice_(choice) {}

  const SetListItem* line() const {
    const SetList* list = chispa::find(session_.show().setLists, choice_.list);
    return list && choice_.line < list->items.size() ? &list->items[choice_.line] : nullptr;
  }
  template <class V>
  Form::Get<V> get(std::function<V(const SetListItem&)> value) const {
    return [rows = *this, value]() -> std::optional<V> {
      const SetListItem* line = rows.line();
      return line ? std::optional<V>(value(*line)) : std::nullopt;
    };
  }
  template <class V>
  Form::Set<V> set(const QString& name, std::function<void(SetListItem&, V)> change) const {
    return [session = session_, choice = choice_, name, change](V value) {
      session.edit(
          name,
          [&](Show& show) {
            changeLine(show, choice.list, choice.line, [&](SetListItem& line) { change(line, value); });
          },
          name + QStringLiteral("-line"));
    };
  }

 private:
  Session session_;
  LineChoice choice_;
};

}  // namespace

std::unique_ptr<Form> makeSetListForm(const Session& session, SetListId id) {
  auto form = std::make_unique<Form>();
  const ListRows rows(session, &Show::setLists, id);
  form->addTitle(Form::tr("Set list"), rows.get<QString>([session](const SetList& list) {
    const auto round = roundLength(session.show(), list.id);
    const QString lines =
        list.items.size() == 1 ? Form::tr("1 line") : Form::tr("%1 lines").arg(list.items.size());
    return round ? Form::tr("%1, %2 a round").arg(lines, timeText(*round)) : lines;
  }));
  form->addText("setListName", Form::tr("Name"),
                rows.get<QString>([](const SetList& l) { return text(l.name); }),
                rows.set<QString>(Form::tr("rename a set list"),
                                  [](SetList& l, QString v) { l.name = v.toStdString(); }));
  form->addNumber(
      "setListRounds", Form::tr("Rounds (0 = for ever)"), {{}, 0, 1'000'000, 1, 0},
      rows.get<double>([](const SetList& l) { return l.rounds; }),
      rows.set<double>(Form::tr("rounds"), [](SetList& l, double v) { l.rounds = static_cast<int>(v); }));
  form->addSwitch("setListShuffled", Form::tr("Another order in each round"),
                  rows.get<bool>([](const SetList& l) { return l.isShuffled; }),
                  rows.set<bool>(Form::tr("order"), [](SetList& l, bool v) { l.isShuffled = v; }));
  form->addNote([]() -> std::optional<QString> {
    return Form::tr("Drag the name of a pad into the list, or press + above it.");
  });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makeSetListLineForm(const Session& session, const LineChoice& choice) {
  auto form = std::make_unique<Form>();
  const LineRows rows(session, choice);
  const SetListItem* own = rows.line();
  if (!own) return form;
  form->addTitle(Form::tr("Line %1").arg(choice.line + 1),
                 rows.get<QString>(
                     [session](const SetListItem& line) { return text(nameOfLine(session.show(), line)); }));
  const auto choose = [&](const auto& named, auto SetListItem::*member) {
    form->addChoice(
        "lineWhat", Form::tr("Plays"), named.names,
        rows.get<int>([named, member](const SetListItem& line) { return named.placeOf(line.*member); }),
        rows.set<int>(Form::tr("what a line plays"),
                      [named, member](SetListItem& line, int v) { line.*member = named.idAt(v); }));
  };
  if (own->kind == PieceKind::Score) choose(NamedItems<Score>(session.show().scores), &SetListItem::score);
  if (own->kind == PieceKind::Look) choose(NamedItems<Look>(session.show().looks), &SetListItem::look);
  if (own->kind == PieceKind::SetList)
    choose(NamedItems<SetList>(session.show().setLists), &SetListItem::list);
  const auto time = [&](const char* key, const QString& label, double most, Micros SetListItem::*member) {
    form->addNumber(
        QLatin1String(key), label, {"s", 0, most, 1, 1},
        rows.get<double>([member](const SetListItem& line) { return seconds(line.*member); }),
        rows.set<double>(label, [member](SetListItem& line, double v) { line.*member = micros(v); }));
  };
  constexpr double kDay_s = 86'400;
  if (own->kind == PieceKind::Look || own->kind == PieceKind::Silence)
    time("lineLength", Form::tr("For"), kDay_s, &SetListItem::length);
  form->addNumber("lineRepeats", Form::tr("Times"), {{}, 1, 1'000'000, 1, 0},
                  rows.get<double>([](const SetListItem& line) { return line.repeats; }),
                  rows.set<double>(Form::tr("times"),
                                   [](SetListItem& line, double v) { line.repeats = static_cast<int>(v); }));
  time("lineFade", Form::tr("Fades into the next"), 600, &SetListItem::fade);
  form->addChoice("lineThen", Form::tr("Then"),
                  {Form::tr("the next line"), Form::tr("any other line"), Form::tr("it stays"),
                   Form::tr("the list ends")},
                  rows.get<int>([](const SetListItem& line) { return static_cast<int>(line.then); }),
                  rows.set<int>(Form::tr("what follows"),
                                [](SetListItem& line, int v) { line.then = static_cast<AfterPiece>(v); }));
  form->addStretch();
  return form;
}

QString setListLineFormKey(const Session& session, const LineChoice& choice) {
  const SetListItem* own = LineRows(session, choice).line();
  return own ? QStringLiteral("%1/").arg(static_cast<int>(own->kind)) + namesKey(session.show()) : QString();
}

namespace {

/// Seven buttons, a day of the week each.
void addWeekdays(Form& form, const RuleRows& rows) {
  auto* row = new QWidget;
  row->setObjectName(QStringLiteral("ruleWeekdays"));
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(2);
  static const QStringList kDays{Form::tr("Mon"), Form::tr("Tue"), Form::tr("Wed"), Form::tr("Thu"),
                                 Form::tr("Fri"), Form::tr("Sat"), Form::tr("Sun")};
  const auto get = rows.get<int>([](const Rule& r) { return r.days.weekdays; });
  const auto set =
      rows.set<int>(Form::tr("days of the week"), [](Rule& r, int mask) { r.days.weekdays = mask; });
  std::vector<QToolButton*> buttons;
  for (int day = 0; day < 7; ++day) {
    auto* button = new QToolButton;
    button->setObjectName(QStringLiteral("ruleWeekday%1").arg(day));
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

void addDays(Form& form, const RuleRows& rows) {
  form.addHeading(Form::tr("Days"));
  addWeekdays(form, rows);
  const auto day = [&](const char* key, const QString& label, std::string RuleDays::*member) {
    form.addText(QLatin1String(key), label,
                 rows.get<QString>([member](const Rule& r) { return text(r.days.*member); }),
                 rows.set<QString>(label, [member](Rule& r, QString v) {
                   const auto one = parseDay(v.trimmed().toStdString());
                   if (!one && !v.trimmed().isEmpty()) return;
                   std::string RuleDays::*other =
                       member == &RuleDays::first ? &RuleDays::last : &RuleDays::first;
                   r.days.*member = one ? dayText(*one) : std::string();
                   // Both of one year, or both of every year.
                   if ((r.days.*other).size() != (r.days.*member).size() && !(r.days.*member).empty() &&
                       !(r.days.*other).empty())
                     (r.days.*other).clear();
                 }));
  };
  day("ruleFirst", Form::tr("From"), &RuleDays::first);
  day("ruleLast", Form::tr("To"), &RuleDays::last);
  const auto several = [&](const char* key, const QString& label,
                           std::vector<std::string> RuleDays::*member) {
    form.addText(QLatin1String(key), label,
                 rows.get<QString>([member](const Rule& r) { return daysText(r.days.*member); }),
                 rows.set<QString>(label, [member](Rule& r, QString v) { r.days.*member = daysOf(v); }));
  };
  several("ruleOnly", Form::tr("Only on"), &RuleDays::only);
  several("ruleExcept", Form::tr("Not on"), &RuleDays::except);
  form.addNote([]() -> std::optional<QString> {
    return Form::tr("Days are written 12-24 for every year, or 2026-12-24 for one.");
  });
}

void addTime(Form& form, const RuleRows& rows, const QString& key, const QString& label,
             NightTime Rule::*member, const Rule& own) {
  form.addChoice(
      key + QStringLiteral("Kind"), label,
      {Form::tr("clock time"), Form::tr("sunset"), Form::tr("dusk"), Form::tr("dawn"), Form::tr("sunrise")},
      rows.get<int>([member](const Rule& r) { return static_cast<int>((r.*member).kind); }),
      rows.set<int>(label, [member](Rule& r, int v) {
        const auto kind = static_cast<NightTimeKind>(v);
        const bool wasClock = (r.*member).kind == NightTimeKind::Clock;
        const bool isClock = kind == NightTimeKind::Clock;
        constexpr int kNine_min = 21 * 60;
        if (wasClock != isClock) (r.*member).minutes = isClock ? kNine_min : 0;
        (r.*member).kind = kind;
      }));
  if ((own.*member).kind == NightTimeKind::Clock)
    form.addText(key + QStringLiteral("Clock"), Form::tr("  at"),
                 rows.get<QString>([member](const Rule& r) { return text(describeTime(r.*member)); }),
                 rows.set<QString>(label, [member](Rule& r, QString v) {
                   const QTime time = QTime::fromString(v.trimmed(), QStringLiteral("H:mm"));
                   if (time.isValid()) (r.*member).minutes = time.hour() * 60 + time.minute();
                 }));
  else
    form.addNumber(
        key + QStringLiteral("Minutes"), Form::tr("  later by"), {"min", -1439, 1439, 5, 0},
        rows.get<double>([member](const Rule& r) { return (r.*member).minutes; }),
        rows.set<double>(label, [member](Rule& r, double v) { (r.*member).minutes = static_cast<int>(v); }));
}

}  // namespace

std::unique_ptr<Form> makeRuleForm(const Session& session, RuleId id) {
  auto form = std::make_unique<Form>();
  const Rule* own = chispa::find(session.show().rules, id);
  if (!own) return form;
  const RuleRows rows(session, &Show::rules, id);
  form->addTitle(Form::tr("Rule"), rows.get<QString>([](const Rule& r) {
    return text(describeDays(r.days) + ": " + describeTime(r.from) + " to " + describeTime(r.until));
  }));
  form->addText(
      "ruleName", Form::tr("Name"), rows.get<QString>([](const Rule& r) { return text(r.name); }),
      rows.set<QString>(Form::tr("rename a rule"), [](Rule& r, QString v) { r.name = v.toStdString(); }));
  form->addChoice(
      "ruleKind", Form::tr("Plays"),
      {Form::tr("a score in a loop"), Form::tr("a look"), Form::tr("nothing: dark"), Form::tr("a set list")},
      rows.get<int>([](const Rule& r) { return static_cast<int>(r.kind); }),
      rows.set<int>(Form::tr("what a rule plays"), [session](Rule& r, int v) {
        r.kind = static_cast<PieceKind>(v);
        const Show& show = session.show();
        // The first of its kind, until another is chosen.
        if (!r.list && !show.setLists.empty()) r.list = show.setLists.front()->id;
        if (!r.look && !show.looks.empty()) r.look = show.looks.front()->id;
        if (!r.score && !show.scores.empty()) r.score = show.scores.front()->id;
      }));
  const auto choose = [&](const auto& named, auto Rule::*member) {
    form->addChoice("ruleWhat", Form::tr("Which"), named.names,
                    rows.get<int>([named, member](const Rule& r) { return named.placeOf(r.*member); }),
                    rows.set<int>(Form::tr("what a rule plays"),
                                  [named, member](Rule& r, int v) { r.*member = named.idAt(v); }));
  };
  if (own->kind == PieceKind::Score) choose(NamedItems<Score>(session.show().scores), &Rule::score);
  if (own->kind == PieceKind::Look) choose(NamedItems<Look>(session.show().looks), &Rule::look);
  if (own->kind == PieceKind::SetList) choose(NamedItems<SetList>(session.show().setLists), &Rule::list);
  form->addHeading(Form::tr("Night"));
  addTime(*form, rows, QStringLiteral("ruleFrom"), Form::tr("From"), &Rule::from, *own);
  addTime(*form, rows, QStringLiteral("ruleUntil"), Form::tr("Until"), &Rule::until, *own);
  addDays(*form, rows);
  form->addHeading(Form::tr("Where rules meet"));
  form->addNumber(
      "rulePriority", Form::tr("Priority"), {{}, -1000, 1000, 1, 0},
      rows.get<double>([](const Rule& r) { return r.priority; }),
      rows.set<double>(Form::tr("priority"), [](Rule& r, double v) { r.priority = static_cast<int>(v); }));
  form->addSwitch("ruleOff", Form::tr("Switched off"), rows.get<bool>([](const Rule& r) { return r.isOff; }),
                  rows.set<bool>(Form::tr("rule on and off"), [](Rule& r, bool v) { r.isOff = v; }));
  form->addStretch();
  return form;
}

QString ruleFormKey(const Session& session, RuleId id) {
  const Rule* own = chispa::find(session.show().rules, id);
  if (!own) return {};
  return QStringLiteral("%1/%2/%3/")
             .arg(static_cast<int>(own->kind))
             .arg(own->from.kind == NightTimeKind::Clock)
             .arg(own->until.kind == NightTimeKind::Clock) +
         namesKey(session.show());
}

std::unique_ptr<Form> makeAlmanacForm(const Session& session) {
  auto form = std::make_unique<Form>();
  const auto get = [session](auto value) {
    return [session, value]() { return std::optional(value(session.show().almanac)); };
  };
  const auto set = [session](const QString& name, auto change) {
    return [session, name, change](auto v) {
      session.edit(
          name, [&](Show& show) { change(show.almanac, v); }, name + QStringLiteral("-almanac"));
    };
  };
  form->addTitle(Form::tr("Almanac"), [session]() -> std::optional<QString> {
    return session.show().almanac.zone.empty() ? Form::tr("Choose where the installation stands.")
                                               : text(session.show().almanac.zone);
  });
  static const std::vector<City> kCities = citiesOfZoneTable();
  QStringList names{Form::tr("choose a city near it …")};
  for (const City& city : kCities)
    names << QStringLiteral("%1 (%2)").arg(text(city.name), text(city.country));
  form->addChoice(
      "almanacCity", Form::tr("Near"), names, [] { return std::optional(0); },
      set(Form::tr("place"), [](Almanac& a, int v) {
        if (v <= 0 || v > std::ssize(kCities)) return;
        const City& city = kCities[static_cast<std::size_t>(v - 1)];
        a.place = city.name;
        a.latitude_deg = std::round(city.latitude_deg * 100) / 100;
        a.longitude_deg = std::round(city.longitude_deg * 100) / 100;
        a.zone = city.zone;
      }));
  form->addText("almanacPlace", Form::tr("Place"), get([](const Almanac& a) { return text(a.place); }),
                set(Form::tr("place"), [](Almanac& a, const QString& v) { a.place = v.toStdString(); }));
  form->addNumber("almanacLatitude", Form::tr("North"), {"°", -90, 90, 0.1, 2},
                  get([](const Almanac& a) { return a.latitude_deg; }),
                  set(Form::tr("place"), [](Almanac& a, double v) { a.latitude_deg = v; }));
  form->addNumber("almanacLongitude", Form::tr("East"), {"°", -180, 180, 0.1, 2},
                  get([](const Almanac& a) { return a.longitude_deg; }),
                  set(Form::tr("place"), [](Almanac& a, double v) { a.longitude_deg = v; }));
  form->addText("almanacZone", Form::tr("Time zone"), get([](const Almanac& a) { return text(a.zone); }),
                set(Form::tr("time zone"), [](Almanac& a, const QString& v) {
                  if (v.trimmed().isEmpty() || TimeZone::named(v.trimmed().toStdString()))
                    a.zone = v.trimmed().toStdString();
                }));
  form->addHeading(Form::tr("Between the rules"));
  const NamedItems<Look> looks(session.show().looks, Form::tr("dark"));
  form->addChoice(
      "almanacBetween", Form::tr("Is lit"), looks.names,
      get([looks](const Almanac& a) { return looks.placeOf(a.between); }),
      set(Form::tr("light between the rules"), [looks](Almanac& a, int v) { a.between = looks.idAt(v); }));
  form->addStretch();
  return form;
}

QString almanacFormKey(const Session& session) {
  return namesKey(session.show());
}

}  // namespace chispa::desk
