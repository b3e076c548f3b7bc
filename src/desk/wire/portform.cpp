// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/show/unwired.h"
#include "desk/parts/format.h"
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

void addMark(Form& form, const std::function<const Port*()>& get,
             const std::function<void(const QString&, const std::function<void(Port&)>&)>& change) {
  QStringList names{Form::tr("none")};
  for (const LeadColour& lead : kLeadColours) names << Form::tr(lead.name);
  form.addChoice(
      "portMark", Form::tr("Lead colour"), names,
      [get]() -> std::optional<int> {
        if (!get() || !get()->mark) return 0;
        const auto found = std::find_if(std::begin(kLeadColours), std::end(kLeadColours),
                                        [&](const LeadColour& lead) { return lead.colour == *get()->mark; });
        return found == std::end(kLeadColours)
                   ? std::nullopt
                   : std::optional(static_cast<int>(found - std::begin(kLeadColours)) + 1);
      },
      [change](int v) {
        change(Form::tr("lead colour"),
               [v](Port& p) { p.mark = v == 0 ? std::nullopt : std::optional(kLeadColours[v - 1].colour); });
      });
}

void addScreenArea(Form& form, const std::function<const Port*()>& get,
                   const std::function<void(const QString&, const std::function<void(Port&)>&)>& change) {
  form.addHeading(Form::tr("On the screen"));
  const auto number = [&](const QString& key, const QString& label, int low, int high,
                          int ScreenArea::*member) {
    form.addNumber(
        key, label, {{}, static_cast<double>(low), static_cast<double>(high), 1, 0},
        [get, member]() -> std::optional<double> { return get() ? get()->screen.*member : 0; },
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
      [get]() -> std::optional<bool> { return get() && get()->screen.isFullScreen; },
      [change](bool v) { change(Form::tr("full screen"), [v](Port& p) { p.screen.isFullScreen = v; }); });
}

}  // namespace

std::unique_ptr<Form> makePortForm(const Session& session, PortChoice port) {
  auto form = std::make_unique<Form>();
  const Controller* controller = chispa::find(session.show().controllers, port.controller);
  form->addTitle(
      Form::tr("Port %1").arg(port.port + 1),
      [name = controller ? text(controller->name) : QString()]() -> std::optional<QString> { return name; });
  addFixedStart(
      *form, "port",
      [session, port]() -> std::optional<FixedStart> {
        const Controller* c = chispa::find(session.show().controllers, port.controller);
        return c && port.port < std::ssize(c->ports)
                   ? c->ports[static_cast<std::size_t>(port.port)].fixedStart
                   : std::nullopt;
      },
      [session, port] { return startOf(session.show(), port.controller, port.port, 0); },
      [session, port](std::optional<FixedStart> fixedStart) {
        session.edit(
            Form::tr("fix a port's start"),
            [&](Show& show) { fixPortStart(show, port.controller, port.port, fixedStart); },
            QStringLiteral("port-pin"));
      });
  addSettings(
      *form, session, "port",
      [session, port]() -> const WireSettings* {
        const Controller* c = chispa::find(session.show().controllers, port.controller);
        return c && port.port < std::ssize(c->ports) ? &c->ports[static_cast<std::size_t>(port.port)].settings
                                                     : nullptr;
      },
      [session, port](const QString& name, const std::function<void(WireSettings&)>& set) {
        session.edit(
            name, [&](Show& show) { changePortSettings(show, port.controller, port.port, set); },
            name + QStringLiteral("-port"));
      },
      [session, port] {
        const Controller* c = chispa::find(session.show().controllers, port.controller);
        if (!c || port.port >= std::ssize(c->ports)) return Response{};
        const auto& run = c->ports[static_cast<std::size_t>(port.port)].run;
        return run.empty() ? Response{} : responseAbove(session.show(), {}, run.front());
      });
  const auto getPort = [session, port]() -> const Port* {
    const Controller* c = chispa::find(session.show().controllers, port.controller);
    return c && port.port < std::ssize(c->ports) ? &c->ports[static_cast<std::size_t>(port.port)] : nullptr;
  };
  const auto changePortBy = [session, port](const QString& name, const std::function<void(Port&)>& set) {
    session.edit(
        name, [&](Show& show) { changePort(show, port.controller, port.port, set); },
        name + QStringLiteral("-port"));
  };
  addMark(*form, getPort, changePortBy);
  if (controller && controller->protocol == Protocol::Screen) addScreenArea(*form, getPort, changePortBy);
  form->addHeading(Form::tr("Hang here"));
  const auto unwired = unwiredPieces(session.show());
  if (unwired.empty())
    form->addNote([]() -> std::optional<QString> { return Form::tr("Everything is wired."); });
  for (const UnwiredPiece& piece : unwired) {
    const Fixture* fixture = chispa::find(session.show().fixtures, piece.fixture);
    if (!fixture) continue;
    const QString label = QStringLiteral("%1 · %2–%3")
                              .arg(text(fixture->name))
                              .arg(piece.first + 1)
                              .arg(piece.first + piece.count);
    form->addButton(QStringLiteral("hang-%1").arg(piece.fixture.value), label,
                    Form::tr("Hangs it at the end of this port"), [session, piece, port] {
                      session.edit(Form::tr("hang on port %1").arg(port.port + 1), [&](Show& show) {
                        hang(show, piece, {port.controller, port.port, 1'000'000});
                      });
                    });
  }
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
