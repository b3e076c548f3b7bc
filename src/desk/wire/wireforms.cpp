// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/wireforms.h"

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/show/limits.h"
#include "core/wire/current.h"
#include "core/wire/patch.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

ThreadPlace threadPlace(const BeadPlace& place) { return {place.controller, place.port, place.bead}; }

/// The addresses of a bead's first and last channel: "2 : 1 → 2 : 390".
QString addressesOf(const Show& show, const BeadPlace& place) {
  const Patch patch = derivePatch(show);
  const PatchSpan* first = nullptr;
  const PatchSpan* last = nullptr;
  for (const PatchSpan& span : patch.spans) {
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id != place.controller || span.port != place.port || span.bead != place.bead) continue;
    if (!first) first = &span;
    last = &span;
  }
  if (!first) return Form::tr("none");
  return QStringLiteral("%1 → %2").arg(text(addressText(first->universe, first->channel)), text(addressText(last->universe, last->channelOf(last->count) - 1)));
}

}  // namespace

std::unique_ptr<Form> makeControllerForm(const Session& session, ControllerId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return chispa::find(session.show().controllers, id); };
  const auto change = [session, id](const QString& name, std::function<void(Controller&)> set) {
    session.edit(name, [&](Show& show) { changeItem(show.controllers, id, set); }, name + QStringLiteral("-field"));
  };
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range, int Controller::*member) {
    form->addNumber(key, label, range, [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
                    [change, label, member](double v) { change(label, [&](Controller& c) { c.*member = static_cast<int>(v); }); });
  };
  const auto words = [&](const QString& key, const QString& label, std::string Controller::*member) {
    form->addText(key, label, [get, member]() -> std::optional<QString> { return get() ? text(get()->*member) : QString(); },
                  [change, label, member](QString v) { change(label, [&](Controller& c) { c.*member = v.trimmed().toStdString(); }); });
  };
  form->addTitle(Form::tr("Controller"), [session, get]() -> std::optional<QString> {
    return get() ? counted(std::ssize(get()->ports), Form::tr("1 port"), Form::tr("%1 ports")) : QString();
  });
  words("controllerName", Form::tr("Name"), &Controller::name);
  form->addHeading(Form::tr("Reached by"));
  form->addChoice("protocol", Form::tr("Protocol"), {QStringLiteral("E1.31 (sACN)"), QStringLiteral("Art-Net 4")},
                  [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->protocol) : 0; },
                  [change](int v) { change(Form::tr("protocol"), [&](Controller& c) { c.protocol = static_cast<Protocol>(v); }); });
  words("host", Form::tr("Address"), &Controller::host);
  number("udpPort", Form::tr("UDP port"), {{}, 0, 65535, 1, 0}, &Controller::udpPort);
  number("setupPort", Form::tr("Set-up port"), {{}, 0, 65535, 1, 0}, &Controller::setupPort);
  form->addNote([]() -> std::optional<QString> { return Form::tr("UDP port 0 is the protocol's own; set-up port 0 means that it has none."); });
  form->addHeading(Form::tr("Addresses"));
  number("firstUniverse", Form::tr("First universe"), {{}, 0, 63999, 1, 0}, &Controller::firstUniverse);
  form->addChoice("portStart", Form::tr("Each port"), {Form::tr("starts a universe"), Form::tr("continues")},
                  [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->portStart) : 0; },
                  [change](int v) { change(Form::tr("port start"), [&](Controller& c) { c.portStart = static_cast<PortStart>(v); }); });
  form->addNumber("portCount", Form::tr("Ports"), {{}, 1, 48, 1, 0},
                  [get]() -> std::optional<double> { return get() ? static_cast<double>(get()->ports.size()) : 1; },
                  [session, id](double v) { session.edit(Form::tr("port count"), [&](Show& show) { setPortCount(show, id, static_cast<int>(v)); }); });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makePortForm(const Session& session, PortChoice port) {
  auto form = std::make_unique<Form>();
  const Controller* controller = chispa::find(session.show().controllers, port.controller);
  form->addTitle(Form::tr("Port %1").arg(port.port + 1), [name = controller ? text(controller->name) : QString()]() -> std::optional<QString> { return name; });
  form->addHeading(Form::tr("Hang on it"));
  const auto loose = loosePieces(session.show());
  if (loose.empty()) form->addNote([]() -> std::optional<QString> { return Form::tr("Everything is wired."); });
  for (const LoosePiece& piece : loose) {
    const Fixture* fixture = chispa::find(session.show().fixtures, piece.fixture);
    if (!fixture) continue;
    const QString label = QStringLiteral("%1 · %2–%3").arg(text(fixture->name)).arg(piece.first + 1).arg(piece.first + piece.count);
    form->addButton(QStringLiteral("hang-%1").arg(piece.fixture.value), label, Form::tr("Hangs it at the end of this port"), [session, piece, port] {
      session.edit(Form::tr("hang on port %1").arg(port.port + 1), [&](Show& show) { hang(show, piece, {port.controller, port.port, 1'000'000}); });
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
  form->addTitle(fixture ? text(fixture->name) : Form::tr("Bead"), [place, bead, name = controller ? text(controller->name) : QString()]() -> std::optional<QString> {
    if (!bead()) return QString();
    return Form::tr("pixels %1–%2 · %3, port %4").arg(bead()->first + 1).arg(bead()->first + bead()->count).arg(name).arg(place.port + 1);
  });
  form->addHeading(Form::tr("Where it is"));
  form->addFact(Form::tr("Addresses"), [session, place]() -> std::optional<QString> { return addressesOf(session.show(), place); });
  form->addSwitch("beadReversed", Form::tr("Data enters at the far end"), [bead]() -> std::optional<bool> { return bead() && bead()->reversed; },
                  [session, thread](bool) { session.edit(Form::tr("turn round"), [&](Show& show) { turnBead(show, thread); }); });
  form->addNumber("skippedBefore", Form::tr("Skipped before"), {"px", 0, limits::kMostSkipped, 1, 0},
                  [bead]() -> std::optional<double> { return bead() ? bead()->skippedBefore : 0; },
                  [session, thread](double v) { session.edit(Form::tr("skipped pixels"), [&](Show& show) { setSkipped(show, thread, static_cast<int>(v)); }, "skipped-field"); });
  form->addHeading(Form::tr("Power"));
  form->addFact(Form::tr("At full white"), [session, bead]() -> std::optional<QString> {
    const Fixture* f = bead() ? chispa::find(session.show().fixtures, bead()->fixture) : nullptr;
    if (!f) return QString();
    return ampsText(fullWhite_a(stripTypeOf(session.show(), *f), bead()->count));
  });
  form->addHeading(Form::tr("Change"));
  auto cutAfter = std::make_shared<int>(bead() ? bead()->count / 2 : 1);
  form->addNumber("cutAfter", Form::tr("Cut after pixel"), {{}, 1, std::max(1.0, bead() ? bead()->count - 1.0 : 1.0), 1, 0},
                  [cutAfter]() -> std::optional<double> { return *cutAfter; }, [cutAfter](double v) { *cutAfter = static_cast<int>(v); });
  form->addButton("cutBead", Form::tr("Cut"), Form::tr("Makes two beads of it (C on the loom cuts at the pointer)"), [session, thread, cutAfter] {
    session.edit(Form::tr("cut after %1").arg(*cutAfter), [&](Show& show) { cutBead(show, thread, *cutAfter); });
  });
  form->addButton("unhang", Form::tr("Take off the port"), Form::tr("Puts it back into the tray (Delete)"), [session, thread] {
    session.edit(Form::tr("take off a port"), [&](Show& show) { unhang(show, thread); });
  });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
