// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/powerforms.h"

#include "core/edit/planedits.h"
#include "core/show/limits.h"
#include "core/wire/powernet.h"
#include "core/wire/sizing.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

/// The show's power at full white, solved once for all rows that ask, and anew when what it follows from has
/// changed.
class FullWhite {
 public:
  const std::vector<PowerChain>& chainsOf(const Show& show) {
    follow(show);
    return chains_;
  }
  const PowerReading& readingOf(const Show& show) {
    follow(show);
    return reading_;
  }

 private:
  void follow(const Show& show) {
    // Items are shared between versions of a show: equal pointers are equal things.
    if (controllers_ == show.controllers && fixtures_ == show.fixtures && strips_ == show.stripTypes &&
        supplies_ == show.supplies)
      return;
    controllers_ = show.controllers;
    fixtures_ = show.fixtures;
    strips_ = show.stripTypes;
    supplies_ = show.supplies;
    chains_ = powerChains(show);
    reading_ = readFullWhite(chains_, show.supplies.size());
  }

  Items<Controller> controllers_;
  Items<Fixture> fixtures_;
  Items<StripType> strips_;
  Items<Supply> supplies_;
  std::vector<PowerChain> chains_;
  PowerReading reading_;
};

void addSupply(Form& form, const Session& session, SupplyId id, const std::shared_ptr<FullWhite>& fullWhite) {
  const auto get = [session, id] { return chispa::find(session.show().supplies, id); };
  const auto change = [session, id](const QString& name, std::function<void(Supply&)> set) {
    session.edit(
        name, [&](Show& show) { changeItem(show.supplies, id, set); }, name + QStringLiteral("-supply"));
  };
  const QString key = QStringLiteral("supply-%1-").arg(id.value);
  form.addText(
      key + "name", Form::tr("Supply"),
      [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
      [change](QString v) {
        change(Form::tr("name of a supply"), [v](Supply& s) { s.name = v.trimmed().toStdString(); });
      });
  form.addNumber(
      key + "volts", Form::tr("Voltage"), {"V", 1, 400, 1, 1},
      [get]() -> std::optional<double> { return get() ? get()->volts : 5; },
      [change](double v) { change(Form::tr("voltage"), [v](Supply& s) { s.volts = v; }); });
  form.addNumber(
      key + "limit", Form::tr("Budget"), {"A", 0, 10'000, 1, 1},
      [get]() -> std::optional<double> { return get() ? get()->limit_a : 0; },
      [change](double v) { change(Form::tr("power budget"), [v](Supply& s) { s.limit_a = v; }); });
  form.addFact(Form::tr("Draws now"), [session, id]() -> std::optional<QString> {
    for (const auto& state : session.stage.player().supplies())
      if (state.supply == id && session.stage.isLit())
        return state.level < 0.995
                   ? Form::tr("%1, limited to %2").arg(ampsText(state.amps), percentText(state.level))
                   : ampsText(state.amps);
    return Form::tr("light is off");
  });
  form.addFact(Form::tr("At full white"), [session, id, fullWhite]() -> std::optional<QString> {
    const PowerReading& full = fullWhite->readingOf(session.show());
    for (std::size_t i = 0; i < session.show().supplies.size(); ++i)
      if (session.show().supplies[i]->id == id) return ampsText(full.supply_a[i]);
    return QString();
  });
  form.addButton(key + "remove", Form::tr("Remove"), Form::tr("Removes the supply and its injection points"),
                 [session, id] {
                   session.edit(Form::tr("remove a supply"), [id](Show& show) { deleteSupply(show, id); });
                 });
}

void addInjection(Form& form, const Session& session, const ChainPlace& place, int index,
                  const std::shared_ptr<FullWhite>& fullWhite) {
  const auto get = [session, place, index]() -> const Injection* {
    const Bead* bead = beadAt(session.show(), place);
    return bead && index < std::ssize(bead->injections) ? &bead->injections[static_cast<std::size_t>(index)]
                                                        : nullptr;
  };
  const auto change = [session, place, index](const QString& name,
                                              const std::function<void(Injection&)>& set) {
    session.edit(
        name, [&](Show& show) { changeInjection(show, place, index, set); }, name + QString::number(index));
  };
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range,
                          double Injection::*member) {
    form.addNumber(
        QStringLiteral("pin%1%2").arg(index).arg(key), label, range,
        [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
        [change, label, member](double v) { change(label, [member, v](Injection& i) { i.*member = v; }); });
  };
  QStringList names;
  for (const auto& supply : session.show().supplies) names << text(supply->name);
  form.addNumber(
      QStringLiteral("pin%1Pixel").arg(index), Form::tr("Injected before pixel"),
      {{}, 1, limits::kMaxPixelsOfSegment, 1, 0},
      [get]() -> std::optional<double> { return get() ? get()->pixel + 1 : 1; },
      [change](double v) {
        change(Form::tr("place of an injection point"),
               [v](Injection& i) { i.pixel = static_cast<int>(v) - 1; });
      });
  form.addChoice(
      QStringLiteral("pin%1Supply").arg(index), Form::tr("Fed by"), names,
      [session, get]() -> std::optional<int> {
        for (std::size_t i = 0; get() && i < session.show().supplies.size(); ++i)
          if (session.show().supplies[i]->id == get()->supply) return static_cast<int>(i);
        return std::nullopt;
      },
      [session, change](int v) {
        const SupplyId id = session.show().supplies[static_cast<std::size_t>(v)]->id;
        change(Form::tr("supply of an injection point"), [id](Injection& i) { i.supply = id; });
      });
  number(QStringLiteral("Metres"), Form::tr("Wire length, one way"), {"m", 0, 1000, 0.5, 2},
         &Injection::wire_m);
  number(QStringLiteral("Mm2"), Form::tr("Cross-section"), {QStringLiteral("mm²"), 0.05, 100, 0.25, 2},
         &Injection::wire_mm2);
  number(QStringLiteral("Fuse"), Form::tr("Fuse"), {"A", 0, 1000, 1, 1}, &Injection::fuse_a);
  form.addFact(Form::tr("Current"), [session, place, index, fullWhite]() -> std::optional<QString> {
    const auto& chains = fullWhite->chainsOf(session.show());
    for (std::size_t c = 0; c < chains.size(); ++c) {
      const PowerChain& chain = chains[c];
      if (session.show().controllers[static_cast<std::size_t>(chain.controller)]->id != place.controller ||
          chain.port != place.port)
        continue;
      for (std::size_t f = 0; f < chain.feeds.size(); ++f) {
        if (chain.feeds[f].bead != place.bead || chain.feeds[f].index != index) continue;
        const double amps = fullWhite->readingOf(session.show()).states[c].feed_a[f];
        const Bead* bead = beadAt(session.show(), {place.controller, place.port, place.bead});
        const double wire_m = bead && index < std::ssize(bead->injections)
                                  ? bead->injections[static_cast<std::size_t>(index)].wire_m
                                  : 1;
        const Protection protection = protectionFor(amps, wire_m, chain.volts);
        if (!protection.isPossible())
          return Form::tr("%1 at full white: too much for one wire of that length; inject at one more point")
              .arg(ampsText(amps));
        return Form::tr("%1 at full white: fuse %2 A, wire %3 mm²")
            .arg(ampsText(amps))
            .arg(protection.fuse_a)
            .arg(protection.wire_mm2);
      }
    }
    return QString();
  });
  form.addButton(QStringLiteral("pin%1Remove").arg(index), Form::tr("Remove injection point"),
                 Form::tr("Removes this injection point"), [session, place, index] {
                   session.edit(Form::tr("remove an injection point"),
                                [&](Show& show) { removeInjection(show, place, index); });
                 });
}

}  // namespace

QString suppliesKey(const Show& show) {
  QString key;
  for (const auto& supply : show.supplies)
    key += QString::number(supply->id.value) + text(supply->name) + QLatin1Char('/');
  return key;
}

void addSupplies(Form& form, const Session& session) {
  form.addHeading(Form::tr("Power supplies"));
  if (session.show().supplies.empty())
    form.addNote([]() -> std::optional<QString> {
      return Form::tr(
          "None yet. With supplies, Wire shows the voltage along each strip, and a budget holds the light "
          "within what a supply can give.");
    });
  const auto fullWhite = std::make_shared<FullWhite>();
  for (const auto& supply : session.show().supplies) addSupply(form, session, supply->id, fullWhite);
  form.addButton(QStringLiteral("addSupply"), Form::tr("Add a supply"),
                 Form::tr("5 V to begin with; P on the loom adds injection points"), [session] {
                   session.edit(Form::tr("add a supply"), [](Show& show) { chispa::addSupply(show, 5); });
                 });
}

void addInjections(Form& form, const Session& session, const ChainPlace& place) {
  const Bead* bead = beadAt(session.show(), place);
  const auto fullWhite = std::make_shared<FullWhite>();
  for (int i = 0; bead && i < std::ssize(bead->injections); ++i)
    addInjection(form, session, place, i, fullWhite);
  form.addButtons({{QStringLiteral("pinFront"), Form::tr("Inject at the front"),
                    Form::tr("Power enters where data does (P on the loom injects anywhere)"),
                    [session, place] {
                      session.edit(Form::tr("add an injection point"),
                                   [&](Show& show) { inject(show, place, 0); });
                    }},
                   {QStringLiteral("pinEnd"), Form::tr("Inject at the end"),
                    Form::tr("Power enters behind the last pixel"), [session, place] {
                      session.edit(Form::tr("add an injection point"), [&](Show& show) {
                        if (const Bead* b = beadAt(show, place)) inject(show, place, b->count);
                      });
                    }}});
}

}  // namespace chispa::desk
