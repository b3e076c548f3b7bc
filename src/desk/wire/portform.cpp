// SPDX-License-Identifier: GPL-3.0-or-later
#include <set>

#include "core/edit/planedits.h"
#include "core/show/unwired.h"
#include "desk/parts/format.h"
#include "desk/parts/several.h"
#include "desk/wire/wireforms.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

/// Colours that wires are sold in.
struct LeadColour {
  const char* name;
  Srgb8 colour;
};
constexpr LeadColour kLeadColours[] = {{QT_TRANSLATE_NOOP("Form", "black"), {30, 30, 30}},
                                       {QT_TRANSLATE_NOOP("Form", "brown"), {125, 78, 45}},
                                       {QT_TRANSLATE_NOOP("Form", "red"), {205, 45, 40}},
                                       {QT_TRANSLATE_NOOP("Form", "orange"), {232, 126, 35}},
                                       {QT_TRANSLATE_NOOP("Form", "yellow"), {235, 205, 60}},
                                       {QT_TRANSLATE_NOOP("Form", "green"), {60, 150, 75}},
                                       {QT_TRANSLATE_NOOP("Form", "blue"), {50, 100, 190}},
                                       {QT_TRANSLATE_NOOP("Form", "violet"), {135, 75, 165}},
                                       {QT_TRANSLATE_NOOP("Form", "grey"), {140, 140, 140}},
                                       {QT_TRANSLATE_NOOP("Form", "white"), {240, 240, 240}}};

using PortsGet = std::function<std::vector<const Port*>()>;
using PortsChange = std::function<void(const QString&, const std::function<void(Port&)>&)>;

void addMark(Form& form, const PortsGet& get, const PortsChange& change) {
  QStringList names{Form::tr("none")};
  for (const LeadColour& lead : kLeadColours) names << Form::tr(lead.name);
  form.addChoice(
      "portMark", Form::tr("Lead colour"), names,
      [get]() -> std::optional<int> {
        const auto mark = sameOf(get(), [](const Port& port) { return port.mark; });
        if (!mark) return std::nullopt;
        if (!*mark) return 0;
        const auto found = std::find_if(std::begin(kLeadColours), std::end(kLeadColours),
                                        [&](const LeadColour& lead) { return lead.colour == **mark; });
        return found == std::end(kLeadColours)
                   ? std::nullopt
                   : std::optional(static_cast<int>(found - std::begin(kLeadColours)) + 1);
      },
      [change](int v) {
        change(Form::tr("lead colour"),
               [v](Port& p) { p.mark = v == 0 ? std::nullopt : std::optional(kLeadColours[v - 1].colour); });
      });
}

void addScreenArea(Form& form, const PortsGet& get, const PortsChange& change) {
  form.addHeading(Form::tr("On the screen"));
  const auto number = [&](const QString& key, const QString& label, int low, int high,
                          int ScreenArea::*member) {
    form.addNumber(
        key, label, {{}, static_cast<double>(low), static_cast<double>(high), 1, 0},
        [get, member] {
          return sameOf(get(), [&](const Port& p) { return static_cast<double>(p.screen.*member); });
        },
        [change, label, member](double v) {
          change(label, [member, v](Port& p) { p.screen.*member = static_cast<int>(v); });
        });
  };
  number("screenColumns", Form::tr("Pixels per row"), 1, 10'000, &ScreenArea::columns);
  number("screenDots", Form::tr("Dots per pixel"), 1, 1000, &ScreenArea::dots);
  number("screenDisplay", Form::tr("Display"), 0, 64, &ScreenArea::display);
  number("screenLeft", Form::tr("Left"), -100'000, 100'000, &ScreenArea::left);
  number("screenTop", Form::tr("Top"), -100'000, 100'000, &ScreenArea::top);
  form.addSwitch(
      "screenFull", Form::tr("Full screen"),
      [get] { return sameOf(get(), [](const Port& p) { return p.screen.isFullScreen; }); },
      [change](bool v) { change(Form::tr("full screen"), [v](Port& p) { p.screen.isFullScreen = v; }); });
}

const Port* portOf(const Show& show, const PortChoice& choice) {
  const Controller* controller = chispa::find(show.controllers, choice.controller);
  if (!controller || choice.port >= std::ssize(controller->ports)) return nullptr;
  return &controller->ports[static_cast<std::size_t>(choice.port)];
}

void addPortTitle(Form& form, const Session& session, const PortChoices& ports) {
  std::set<ControllerId> ids;
  for (const PortChoice& port : ports) ids.insert(port.controller);
  QStringList names;
  for (const ControllerId id : ids)
    if (const Controller* one = chispa::find(session.show().controllers, id)) names << text(one->name);
  form.addTitle(ports.size() == 1 ? Form::tr("Port %1").arg(ports.front().port + 1)
                                  : Form::tr("%1 ports").arg(ports.size()),
                [words = names.join(QStringLiteral(", "))]() -> std::optional<QString> { return words; });
}

void addFixedStart(Form& form, const Session& session, PortChoice port) {
  addFixedStart(
      form, "port",
      [session, port]() -> std::optional<FixedStart> {
        const Port* own = portOf(session.show(), port);
        return own ? own->fixedStart : std::nullopt;
      },
      [session, port] { return startOf(session.show(), port.controller, port.port, 0); },
      [session, port](std::optional<FixedStart> fixedStart) {
        session.edit(
            Form::tr("fix a port's start"),
            [&](Show& show) { fixPortStart(show, port.controller, port.port, fixedStart); },
            QStringLiteral("port-pin"));
      });
}

void addHanging(Form& form, const Session& session, PortChoice port) {
  form.addHeading(Form::tr("Hang here"));
  const auto unwired = unwiredPieces(session.show());
  if (unwired.empty())
    form.addNote([]() -> std::optional<QString> { return Form::tr("Everything is wired."); });
  for (const UnwiredPiece& piece : unwired) {
    const Fixture* fixture = chispa::find(session.show().fixtures, piece.fixture);
    if (!fixture) continue;
    const QString label = QStringLiteral("%1 · %2–%3")
                              .arg(text(fixture->name))
                              .arg(piece.first + 1)
                              .arg(piece.first + piece.count);
    form.addButton(QStringLiteral("hang-%1").arg(piece.fixture.value), label,
                   Form::tr("Hangs it at the end of this port"), [session, piece, port] {
                     session.edit(Form::tr("hang on port %1").arg(port.port + 1), [&](Show& show) {
                       hang(show, piece, {port.controller, port.port, 1'000'000});
                     });
                   });
  }
}

}  // namespace

std::unique_ptr<Form> makePortForm(const Session& session, const PortChoices& ports) {
  auto form = std::make_unique<Form>();
  const bool isOne = ports.size() == 1;
  const PortsGet get = [session, ports] {
    std::vector<const Port*> all;
    for (const PortChoice& port : ports)
      if (const Port* one = portOf(session.show(), port)) all.push_back(one);
    return all;
  };
  const PortsChange change = [session, ports](const QString& name, const std::function<void(Port&)>& set) {
    session.edit(
        name,
        [&](Show& show) {
          for (const PortChoice& port : ports) changePort(show, port.controller, port.port, set);
        },
        name + QStringLiteral("-port"));
  };
  addPortTitle(*form, session, ports);
  if (isOne) addFixedStart(*form, session, ports.front());
  addSettings(
      *form, session, "port",
      [get] {
        std::vector<const WireSettings*> all;
        for (const Port* port : get()) all.push_back(&port->settings);
        return all;
      },
      [session, ports](const QString& name, const std::function<void(WireSettings&)>& set) {
        session.edit(
            name,
            [&](Show& show) {
              for (const PortChoice& port : ports) changePortSettings(show, port.controller, port.port, set);
            },
            name + QStringLiteral("-port"));
      },
      [session, get] {
        const auto all = get();
        return all.empty() || all.front()->run.empty()
                   ? Response{}
                   : responseAbove(session.show(), {}, all.front()->run.front());
      });
  addMark(*form, get, change);
  const bool areScreens = std::all_of(ports.begin(), ports.end(), [&](const PortChoice& port) {
    const Controller* one = chispa::find(session.show().controllers, port.controller);
    return one && one->protocol == Protocol::Screen;
  });
  if (areScreens) addScreenArea(*form, get, change);
  if (isOne) addHanging(*form, session, ports.front());
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
