// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/wireforms.h"

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/show/limits.h"
#include "core/wire/current.h"
#include "core/wire/patch.h"
#include "core/wire/wiresettings.h"
#include "desk/parts/format.h"
#include "desk/parts/responsefields.h"
#include "desk/wire/powerforms.h"

namespace chispa::desk {
namespace {

ThreadPlace threadPlace(const BeadPlace& place) {
  return {place.controller, place.port, place.bead};
}

/// The addresses of a bead's first and last channel: "2 : 1 → 2 : 390".
QString addressesOf(const Show& show, const BeadPlace& place) {
  const Patch patch = derivePatch(show);
  const PatchSpan* first = nullptr;
  const PatchSpan* last = nullptr;
  for (const PatchSpan& span : patch.spans) {
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id != place.controller ||
        span.port != place.port || span.bead != place.bead)
      continue;
    if (!first) first = &span;
    last = &span;
  }
  if (!first) return Form::tr("none");
  const Protocol protocol = show.controllers[static_cast<std::size_t>(first->controller)]->protocol;
  return QStringLiteral("%1 → %2").arg(
      text(addressText(protocol, first->universe, first->channel)),
      text(addressText(protocol, last->universe, last->channel + last->channelCount() - 1)));
}

using SettingsGet = std::function<const WireSettings*()>;
using SettingsChange = std::function<void(const QString& name, const std::function<void(WireSettings&)>&)>;

/// The dimming curve of a bead that has none of its own.
Response responseAbove(const Show& show, const WireSettings& port, const Bead& bead) {
  const Fixture* fixture = chispa::find(show.fixtures, bead.fixture);
  return fixture ? resolveWire(stripTypeOf(show, *fixture), *fixture, port, {}).response : Response{};
}

/// Rows of what a port or a bead says otherwise than its strip type; empty fields say nothing.
/// `otherwise` is the dimming curve of what stands above.
void addSettings(Form& form, const Session& session, const QString& prefix, const SettingsGet& get,
                 const SettingsChange& change, const std::function<Response()>& otherwise) {
  form.addHeading(Form::tr("Otherwise than the strip type"));
  form.addNumber(
      prefix + "Brightness", Form::tr("Brightness"), {"%", 0, 100, 5, 0},
      [get]() -> std::optional<double> { return get() ? get()->brightness.value_or(1) * 100 : 100; },
      [change](double v) {
        change(Form::tr("brightness"),
               [v](WireSettings& s) { s.brightness = v >= 100 ? std::nullopt : std::optional(v / 100); });
      });
  const auto words = [](const auto& value) { return value ? QString::number(*value) : QString(); };
  form.addText(
      prefix + "Order", Form::tr("Colour order"),
      [get]() -> std::optional<QString> { return get() && get()->order ? text(*get()->order) : QString(); },
      [change](QString v) {
        const std::string order = v.trimmed().toUpper().toStdString();
        if (order.empty() || isChannelOrder(order))
          change(Form::tr("colour order"),
                 [&](WireSettings& s) { s.order = order.empty() ? std::nullopt : std::optional(order); });
      });
  const auto whole = [&](const QString& key, const QString& label, std::optional<int> WireSettings::*member,
                         int low, int high) {
    form.addText(
        prefix + key, label,
        [get, member, words]() -> std::optional<QString> {
          return get() ? words(get()->*member) : QString();
        },
        [change, label, member, low, high](QString v) {
          bool good = false;
          const int value = v.trimmed().toInt(&good);
          if (v.trimmed().isEmpty() || (good && value >= low && value <= high))
            change(label, [&](WireSettings& s) {
              s.*member = v.trimmed().isEmpty() ? std::nullopt : std::optional(value);
            });
        });
  };
  whole("Grouping", Form::tr("Pixels a value"), &WireSettings::grouping, 1, limits::kMostGrouped);
  whole("Zigzag", Form::tr("Turns back every"), &WireSettings::zigzag, 0, limits::kMostPixelsOfSegment);
  addOwnResponse(form, prefix,
                 {[get] { return get() ? get()->response : std::nullopt; },
                  [change](const QString& what, const std::optional<Response>& response) {
                    change(what, [&](WireSettings& s) { s.response = response; });
                  },
                  [session] { session.document.seal(); }, otherwise});
  form.addNote(
      []() -> std::optional<QString> { return Form::tr("Empty: as the strip type, or the port, has it."); });
}

/// A start that is kept, and whether it is.
void addPin(Form& form, const QString& prefix, const std::function<std::optional<Pin>()>& get,
            const std::function<Pin()>& now, const std::function<void(std::optional<Pin>)>& set) {
  form.addSwitch(
      prefix + "Pinned", Form::tr("Start is pinned"),
      [get]() -> std::optional<bool> { return get().has_value(); },
      [set, now](bool on) { set(on ? std::optional(now()) : std::nullopt); });
  form.addNumber(
      prefix + "PinUniverse", Form::tr("Universe"), {{}, 0, 63999, 1, 0},
      [get, now]() -> std::optional<double> { return get().value_or(now()).universe; },
      [set, get, now](double v) {
        set(Pin{static_cast<int>(v), get().value_or(now()).channel});
      });
  form.addNumber(
      prefix + "PinChannel", Form::tr("Channel"), {{}, 1, 512, 1, 0},
      [get, now]() -> std::optional<double> { return get().value_or(now()).channel; },
      [set, get, now](double v) {
        set(Pin{get().value_or(now()).universe, static_cast<int>(v)});
      });
}

/// Where the first bead of a port, or a bead of it, begins now.
Pin startOf(const Show& show, ControllerId controller, int port, int bead) {
  for (const PatchSpan& span : derivePatch(show).spans)
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id == controller && span.port == port &&
        span.bead == bead)
      return {span.universe, span.channel};
  return {};
}

}  // namespace

QString controllerFormKey(const Session& session, ControllerId id) {
  const Controller* controller = chispa::find(session.show().controllers, id);
  return controller ? QString::number(static_cast<int>(controller->protocol)) : QString();
}

namespace {

/// What the controller has been sent, and how it fares.
void addStatistics(Form& form, const Session& session, ControllerId id) {
  const auto state = [session, id]() -> std::optional<engine::LineState> {
    for (auto& line : session.stage.player().lines())
      if (line.controller == id) return line;
    return std::nullopt;
  };
  form.addHeading(Form::tr("Sent"));
  form.addFact(Form::tr("Frames"), [state]() -> std::optional<QString> {
    return state() ? QString::number(state()->frames) : QStringLiteral("0");
  });
  form.addFact(Form::tr("Packets"), [state]() -> std::optional<QString> {
    return state() ? QString::number(state()->packets) : QStringLiteral("0");
  });
  form.addFact(Form::tr("Data"), [state]() -> std::optional<QString> {
    return state() ? QStringLiteral("%1 MB").arg(static_cast<double>(state()->bytes) * 1e-6, 0, 'f', 1)
                   : QString();
  });
  form.addFact(Form::tr("Not taken"), [state]() -> std::optional<QString> {
    return state() ? QString::number(state()->errors) : QString();
  });
  form.addNote([session, state]() -> std::optional<QString> {
    if (!session.stage.isLit()) return Form::tr("Light is off: nothing is sent.");
    return state() && !state()->reached ? Form::tr("! %1").arg(text(state()->trouble))
                                        : Form::tr("It takes what is sent.");
  });
}

/// How data reaches a controller over the network.
void addDelivery(Form& form, const std::function<const Controller*()>& get,
                 const std::function<void(const QString&, std::function<void(Controller&)>)>& change) {
  form.addChoice(
      "delivery", Form::tr("Data goes"),
      {Form::tr("to its address"), Form::tr("by multicast (E1.31)"), Form::tr("by broadcast (Art-Net)")},
      [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->delivery) : 0; },
      [change](int v) {
        change(Form::tr("delivery"), [v](Controller& c) { c.delivery = static_cast<Delivery>(v); });
      });
}

}  // namespace

std::unique_ptr<Form> makeControllerForm(const Session& session, ControllerId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return chispa::find(session.show().controllers, id); };
  const auto change = [session, id](const QString& name, std::function<void(Controller&)> set) {
    session.edit(
        name, [&](Show& show) { changeItem(show.controllers, id, set); }, name + QStringLiteral("-field"));
  };
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range,
                          int Controller::*member) {
    form->addNumber(
        key, label, range, [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
        [change, label, member](double v) {
          change(label, [&](Controller& c) { c.*member = static_cast<int>(v); });
        });
  };
  const auto words = [&](const QString& key, const QString& label, std::string Controller::*member) {
    form->addText(
        key, label,
        [get, member]() -> std::optional<QString> { return get() ? text(get()->*member) : QString(); },
        [change, label, member](QString v) {
          change(label, [&](Controller& c) { c.*member = v.trimmed().toStdString(); });
        });
  };
  form->addTitle(Form::tr("Controller"), [session, get]() -> std::optional<QString> {
    return get() ? counted(std::ssize(get()->ports), Form::tr("1 port"), Form::tr("%1 ports")) : QString();
  });
  words("controllerName", Form::tr("Name"), &Controller::name);
  form->addHeading(Form::tr("Reached by"));
  form->addChoice(
      "protocol", Form::tr("Protocol"),
      {QStringLiteral("E1.31 (sACN)"), QStringLiteral("Art-Net 4"), QStringLiteral("DDP"),
       QStringLiteral("Open Pixel Control"), Form::tr("DMX512, serial"), Form::tr("A screen")},
      [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->protocol) : 0; },
      [change](int v) {
        change(Form::tr("protocol"), [&](Controller& c) { c.protocol = static_cast<Protocol>(v); });
      });
  const Protocol protocol = get() ? get()->protocol : Protocol::E131;
  if (protocol == Protocol::SerialDmx) {
    words("host", Form::tr("Adapter"), &Controller::host);
    form->addNote([]() -> std::optional<QString> {
      return Form::tr("The RS-485 adapter's path, such as /dev/ttyUSB0: 250 kbit/s, one universe.");
    });
  } else if (protocol == Protocol::Screen) {
    form->addNote([]() -> std::optional<QString> {
      return Form::tr(
          "Each port is a window, or a full screen, that shows its pixels as a matrix while light is on. "
          "Select a port to place it.");
    });
  } else {
    words("host", Form::tr("Address"), &Controller::host);
    number("udpPort", protocol == Protocol::Opc ? Form::tr("TCP port") : Form::tr("UDP port"),
           {{}, 0, 65535, 1, 0}, &Controller::udpPort);
    number("setupPort", Form::tr("Set-up port"), {{}, 0, 65535, 1, 0}, &Controller::setupPort);
    form->addNote([]() -> std::optional<QString> {
      return Form::tr("Port 0 is the protocol's own; set-up port 0 means that it has none.");
    });
    if (!isRow(protocol)) addDelivery(*form, get, change);
  }
  if (!isRow(protocol) && isNetworked(protocol))
    words("localAddress", Form::tr("By this interface"), &Controller::localAddress);
  if (protocol == Protocol::E131)
    number("priority", Form::tr("Priority (E1.31)"), {{}, 0, 200, 10, 0}, &Controller::priority);
  const auto toggle = [&](const QString& key, const QString& label, bool Controller::*member) {
    form->addSwitch(
        key, label, [get, member]() -> std::optional<bool> { return get() && get()->*member; },
        [change, label, member](bool v) { change(label, [&](Controller& c) { c.*member = v; }); });
  };
  if (!isRow(protocol) && isNetworked(protocol))
    toggle("sendsSync", Form::tr("Sync after each frame"), &Controller::sendsSync);
  const auto decimal = [&](const QString& key, const QString& label, const Form::Number& range,
                           double Controller::*member) {
    form->addNumber(
        key, label, range, [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
        [change, label, member](double v) { change(label, [&](Controller& c) { c.*member = v; }); });
  };
  decimal("delay", Form::tr("Delay (below 0: ahead)"),
          {"ms", -limits::kMostDelay_ms, limits::kMostDelay_ms, 5, 0}, &Controller::delay_ms);
  decimal("mostFrames", Form::tr("Most frames a second"), {{}, 0, 1000, 5, 1},
          &Controller::mostFramesPerSecond);
  form->addNote([session, get]() -> std::optional<QString> {
    if (!get()) return std::nullopt;
    const double rate = frameRateOf(session.show(), *get()).framesPerSecond();
    return Form::tr(
               "It is sent %1 frames a second. 0 is the usual 40; up to 120 where it and the chips on its "
               "longest port have the time.")
        .arg(QLocale().toString(rate, 'g', 3));
  });
  if (protocol != Protocol::Screen)
    toggle("dithers", Form::tr("Dim light finer than its values"), &Controller::dithers);
  form->addHeading(Form::tr("Addresses"));
  if (!isRow(protocol) || protocol == Protocol::Opc)
    number("firstUniverse", protocol == Protocol::Opc ? Form::tr("OPC channel") : Form::tr("First universe"),
           {{}, 0, 63999, 1, 0}, &Controller::firstUniverse);
  form->addChoice(
      "portStart", Form::tr("Each port"), {Form::tr("starts a universe"), Form::tr("continues")},
      [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->portStart) : 0; },
      [change](int v) {
        change(Form::tr("port start"), [&](Controller& c) { c.portStart = static_cast<PortStart>(v); });
      });
  form->addChoice(
      "channelsPerUniverse", Form::tr("A universe has"), {Form::tr("510 channels"), Form::tr("512 channels")},
      [get]() -> std::optional<int> { return get() && get()->channelsPerUniverse == 510 ? 0 : 1; },
      [change](int v) {
        change(Form::tr("channels of a universe"),
               [v](Controller& c) { c.channelsPerUniverse = v == 0 ? 510 : 512; });
      });
  toggle("isPacked", Form::tr("Pixels may be split"), &Controller::isPacked);
  toggle("insertsSkipped", Form::tr("It inserts skipped pixels"), &Controller::insertsSkipped);
  number("mostPixels", Form::tr("Most pixels of a port"), {{}, 0, limits::kMostPixelsOfSegment, 10, 0},
         &Controller::mostPixelsOfPort);
  form->addNumber(
      "portCount", Form::tr("Ports"), {{}, 1, 48, 1, 0},
      [get]() -> std::optional<double> { return get() ? static_cast<double>(get()->ports.size()) : 1; },
      [session, id](double v) {
        session.edit(Form::tr("port count"),
                     [&](Show& show) { setPortCount(show, id, static_cast<int>(v)); });
      });
  if (protocol != Protocol::Screen) addStatistics(*form, session, id);
  form->addStretch();
  return form;
}

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
  number("screenColumns", Form::tr("Pixels of a row"), 1, 10'000, &ScreenArea::columns);
  number("screenDots", Form::tr("Dots of a pixel"), 1, 1000, &ScreenArea::dots);
  number("screenDisplay", Form::tr("Display"), 0, 64, &ScreenArea::display);
  number("screenLeft", Form::tr("From the left"), -100'000, 100'000, &ScreenArea::left);
  number("screenTop", Form::tr("From the top"), -100'000, 100'000, &ScreenArea::top);
  form.addSwitch(
      "screenFull", Form::tr("Fills the display"),
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
  addPin(
      *form, "port",
      [session, port]() -> std::optional<Pin> {
        const Controller* c = chispa::find(session.show().controllers, port.controller);
        return c && port.port < std::ssize(c->ports) ? c->ports[static_cast<std::size_t>(port.port)].pin
                                                     : std::nullopt;
      },
      [session, port] { return startOf(session.show(), port.controller, port.port, 0); },
      [session, port](std::optional<Pin> pin) {
        session.edit(
            Form::tr("pin a port"), [&](Show& show) { pinPort(show, port.controller, port.port, pin); },
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
  form->addHeading(Form::tr("Hang on it"));
  const auto loose = loosePieces(session.show());
  if (loose.empty())
    form->addNote([]() -> std::optional<QString> { return Form::tr("Everything is wired."); });
  for (const LoosePiece& piece : loose) {
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

std::unique_ptr<Form> makeBeadForm(const Session& session, BeadPlace place) {
  auto form = std::make_unique<Form>();
  const ThreadPlace thread = threadPlace(place);
  const auto bead = [session, thread] { return beadAt(session.show(), thread); };
  const Fixture* fixture = bead() ? chispa::find(session.show().fixtures, bead()->fixture) : nullptr;
  const Controller* controller = chispa::find(session.show().controllers, place.controller);
  form->addTitle(
      fixture ? text(fixture->name) : Form::tr("Bead"),
      [place, bead, name = controller ? text(controller->name) : QString()]() -> std::optional<QString> {
        if (!bead()) return QString();
        return Form::tr("pixels %1–%2 · %3, port %4")
            .arg(bead()->first + 1)
            .arg(bead()->first + bead()->count)
            .arg(name)
            .arg(place.port + 1);
      });
  form->addHeading(Form::tr("Where it is"));
  form->addFact(Form::tr("Addresses"),
                [session, place]() -> std::optional<QString> { return addressesOf(session.show(), place); });
  form->addSwitch(
      "beadReversed", Form::tr("Data enters at the far end"),
      [bead]() -> std::optional<bool> { return bead() && bead()->reversed; },
      [session, thread](bool) {
        session.edit(Form::tr("turn round"), [&](Show& show) { turnBead(show, thread); });
      });
  form->addNumber(
      "skippedBefore", Form::tr("Skipped before"), {"px", 0, limits::kMostSkipped, 1, 0},
      [bead]() -> std::optional<double> { return bead() ? bead()->skippedBefore : 0; },
      [session, thread](double v) {
        session.edit(
            Form::tr("skipped pixels"), [&](Show& show) { setSkipped(show, thread, static_cast<int>(v)); },
            "skipped-field");
      });
  addPin(
      *form, "bead", [bead]() -> std::optional<Pin> { return bead() ? bead()->pin : std::nullopt; },
      [session, place] { return startOf(session.show(), place.controller, place.port, place.bead); },
      [session, thread](std::optional<Pin> pin) {
        session.edit(
            Form::tr("pin a bead"), [&](Show& show) { pinBead(show, thread, pin); },
            QStringLiteral("bead-pin"));
      });
  addSettings(
      *form, session, "bead",
      [bead]() -> const WireSettings* { return bead() ? &bead()->settings : nullptr; },
      [session, thread](const QString& name, const std::function<void(WireSettings&)>& set) {
        session.edit(
            name, [&](Show& show) { changeBeadSettings(show, thread, set); }, name + QStringLiteral("-bead"));
      },
      [session, place, bead] {
        const Controller* c = chispa::find(session.show().controllers, place.controller);
        return c && bead() ? responseAbove(session.show(),
                                           c->ports[static_cast<std::size_t>(place.port)].settings, *bead())
                           : Response{};
      });
  form->addHeading(Form::tr("Power"));
  form->addFact(Form::tr("At full white"), [session, bead]() -> std::optional<QString> {
    const Fixture* f = bead() ? chispa::find(session.show().fixtures, bead()->fixture) : nullptr;
    if (!f) return QString();
    return ampsText(fullWhite_a(stripTypeOf(session.show(), *f), bead()->count));
  });
  addInjections(*form, session, thread);
  form->addHeading(Form::tr("Change"));
  auto cutAfter = std::make_shared<int>(bead() ? bead()->count / 2 : 1);
  form->addNumber(
      "cutAfter", Form::tr("Cut after pixel"),
      {{}, 1, std::max(1.0, bead() ? bead()->count - 1.0 : 1.0), 1, 0},
      [cutAfter]() -> std::optional<double> { return *cutAfter; },
      [cutAfter](double v) { *cutAfter = static_cast<int>(v); });
  form->addButton("cutBead", Form::tr("Cut"),
                  Form::tr("Makes two beads of it (C on the loom cuts at the pointer)"),
                  [session, thread, cutAfter] {
                    session.edit(Form::tr("cut after %1").arg(*cutAfter),
                                 [&](Show& show) { cutBead(show, thread, *cutAfter); });
                  });
  form->addButton("echoBead", Form::tr("Hang it once more"),
                  Form::tr("An echo: the same pixels behind the last bead of the next port"),
                  [session, place, bead, thread] {
                    if (!bead()) return;
                    session.edit(Form::tr("echo a bead"), [&](Show& show) {
                      const Controller* c = chispa::find(show.controllers, place.controller);
                      const int next =
                          c && place.port + 1 < std::ssize(c->ports) ? place.port + 1 : place.port;
                      echoBead(show, thread, {place.controller, next, 1'000'000});
                    });
                  });
  form->addButton("spreadBead", Form::tr("Spread over the ports"),
                  Form::tr("Each string of the fixture on a port of its own, from this one on"),
                  [session, place, bead, thread] {
                    if (!bead()) return;
                    session.edit(Form::tr("spread over ports"), [&, id = bead()->fixture](Show& show) {
                      Show spread = show;
                      unhang(spread, thread);
                      if (spreadOverPorts(spread, id, place.controller, place.port) > 0) show = spread;
                    });
                  });
  form->addButton("unhang", Form::tr("Take off the port"), Form::tr("Puts it back into the tray (Delete)"),
                  [session, thread] {
                    session.edit(Form::tr("take off a port"), [&](Show& show) { unhang(show, thread); });
                  });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
