// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightforms.h"

#include <cmath>

#include "core/almanac/nights.h"
#include "core/edit/setlistedits.h"
#include "core/setlist/setlistwalk.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/run/itemrows.h"
#include "desk/run/nightrows.h"
#include "desk/run/nightwords.h"

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

/// A part of a rule, for rows that others have too.
template <class T>
PartAccess<T> partOf(const Session& session, RuleId id, T Rule::*member) {
  return {[session, id, member]() -> std::optional<T> {
            const Rule* rule = chispa::find(session.show().rules, id);
            return rule ? std::optional<T>(rule->*member) : std::nullopt;
          },
          [session, id, member](const QString& name, const std::function<void(T&)>& change) {
            session.edit(
                name,
                [&](Show& show) { changeItem(show.rules, id, [&](Rule& rule) { change(rule.*member); }); },
                name + QStringLiteral("-item"));
          }};
}

}  // namespace

std::unique_ptr<Form> makeRuleForm(const Session& session, RuleId id) {
  auto form = std::make_unique<Form>();
  const Rule* own = chispa::find(session.show().rules, id);
  if (!own) return form;
  const RuleRows rows(session, &Show::rules, id);
  form->addTitle(Form::tr("Rule"), rows.get<QString>([](const Rule& r) {
    return Form::tr("%1: %2 to %3").arg(daysText(r.days), nightTimeText(r.from), nightTimeText(r.until));
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
  const auto addTime = [&](const char* key, const QString& label, NightTime Rule::*member) {
    addNightTime(*form, QLatin1String(key), label, partOf(session, id, member),
                 (own->*member).kind == NightTimeKind::Clock);
  };
  addTime("ruleFrom", Form::tr("From"), &Rule::from);
  addTime("ruleUntil", Form::tr("Until"), &Rule::until);
  addDays(*form, QStringLiteral("rule"), partOf(session, id, &Rule::days));
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
