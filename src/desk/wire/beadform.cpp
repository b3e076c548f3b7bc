// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/wire/current.h"
#include "desk/parts/format.h"
#include "desk/parts/several.h"
#include "desk/wire/powerforms.h"
#include "desk/wire/wireforms.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

/// The addresses of a bead's first and last channel: "2 : 1 → 2 : 390".
QString addressesOf(const Show& show, const BeadPlace& place) {
  const auto spans = spansOf(show, chainPlace(place));
  const Controller* controller = chispa::find(show.controllers, place.controller);
  if (spans.empty() || !controller) return Form::tr("none");
  const Protocol protocol = controller->protocol;
  const PatchSpan* first = &spans.front();
  const PatchSpan* last = &spans.back();
  return QStringLiteral("%1 → %2").arg(
      text(addressText(protocol, first->universe, first->channel)),
      text(addressText(protocol, last->universe, last->channel + last->channelCount() - 1)));
}

using BeadGet = std::function<const Bead*()>;

void addBeadTitle(Form& form, const Session& session, BeadPlace place, const BeadGet& bead) {
  const Fixture* fixture = bead() ? chispa::find(session.show().fixtures, bead()->fixture) : nullptr;
  const Controller* controller = chispa::find(session.show().controllers, place.controller);
  form.addTitle(
      fixture ? text(fixture->name) : Form::tr("Bead"),
      [place, bead, name = controller ? text(controller->name) : QString()]() -> std::optional<QString> {
        if (!bead()) return QString();
        return Form::tr("pixels %1–%2 · %3, port %4")
            .arg(bead()->first + 1)
            .arg(bead()->first + bead()->count)
            .arg(name)
            .arg(place.port + 1);
      });
}

void addPosition(Form& form, const Session& session, BeadPlace place, const BeadGet& bead) {
  const ChainPlace chain = chainPlace(place);
  form.addHeading(Form::tr("Position"));
  form.addFact(Form::tr("Addresses"),
               [session, place]() -> std::optional<QString> { return addressesOf(session.show(), place); });
  form.addSwitch(
      "beadReversed", Form::tr("Data enters at the far end"),
      [bead]() -> std::optional<bool> { return bead() && bead()->reversed; },
      [session, chain](bool) {
        session.edit(Form::tr("reverse"), [&](Show& show) { turnBead(show, chain); });
      });
  form.addNumber(
      "skippedBefore", Form::tr("Skipped pixels before"), {"px", 0, limits::kMaxSkipped, 1, 0},
      [bead]() -> std::optional<double> { return bead() ? bead()->skippedBefore : 0; },
      [session, chain](double v) {
        session.edit(
            Form::tr("skipped pixels"), [&](Show& show) { setSkipped(show, chain, static_cast<int>(v)); },
            "skipped-field");
      });
  addFixedStart(
      form, "bead",
      [bead]() -> std::optional<FixedStart> { return bead() ? bead()->fixedStart : std::nullopt; },
      [session, place] { return startOf(session.show(), place.controller, place.port, place.bead); },
      [session, chain](std::optional<FixedStart> fixedStart) {
        session.edit(
            Form::tr("fix a bead's start"), [&](Show& show) { fixBeadStart(show, chain, fixedStart); },
            QStringLiteral("bead-pin"));
      });
}

void addCutting(Form& form, const Session& session, ChainPlace chain, const BeadGet& bead) {
  form.addHeading(Form::tr("Change"));
  auto cutAfter = std::make_shared<int>(bead() ? bead()->count / 2 : 1);
  form.addNumber(
      "cutAfter", Form::tr("Cut after pixel"),
      {{}, 1, std::max(1.0, bead() ? bead()->count - 1.0 : 1.0), 1, 0},
      [cutAfter]() -> std::optional<double> { return *cutAfter; },
      [cutAfter](double v) { *cutAfter = static_cast<int>(v); });
  form.addButton("cutBead", Form::tr("Cut"),
                 Form::tr("Makes two beads of it (C on the loom cuts at the pointer)"),
                 [session, chain, cutAfter] {
                   session.edit(Form::tr("cut after %1").arg(*cutAfter),
                                [&](Show& show) { cutBead(show, chain, *cutAfter); });
                 });
  form.addButton("cutToNextPort", Form::tr("Cut, the rest to the next port"),
                 Form::tr("What hangs behind it goes along (Shift and C on the loom)"),
                 [session, chain, cutAfter] {
                   session.edit(Form::tr("cut after %1").arg(*cutAfter),
                                [&](Show& show) { cutToNextPort(show, chain, *cutAfter); });
                 });
}

void addHanging(Form& form, const Session& session, BeadPlace place, const BeadGet& bead) {
  const ChainPlace chain = chainPlace(place);
  form.addButton("echoBead", Form::tr("Hang again (echo)"),
                 Form::tr("An echo: the same pixels behind the last bead of the next port"),
                 [session, place, bead, chain] {
                   if (!bead()) return;
                   session.edit(Form::tr("echo a bead"), [&](Show& show) {
                     const Controller* c = chispa::find(show.controllers, place.controller);
                     const int next =
                         c && place.port + 1 < std::ssize(c->ports) ? place.port + 1 : place.port;
                     echoBead(show, chain, {place.controller, next, 1'000'000});
                   });
                 });
  form.addButton("spreadBead", Form::tr("Spread over ports"),
                 Form::tr("Each string of the fixture on a port of its own, from this one on"),
                 [session, place, bead, chain] {
                   if (!bead()) return;
                   session.edit(Form::tr("spread over ports"), [&, id = bead()->fixture](Show& show) {
                     Show spread = show;
                     unhang(spread, chain);
                     if (spreadOverPorts(spread, id, place.controller, place.port) > 0) show = spread;
                   });
                 });
  form.addButton("unhang", Form::tr("Remove from port"), Form::tr("Puts it back into the tray (Delete)"),
                 [session, chain] {
                   session.edit(Form::tr("remove from a port"), [&](Show& show) { unhang(show, chain); });
                 });
}

/// What a bead draws at full white.
double amps_a(const Show& show, const Bead& bead) {
  const Fixture* fixture = chispa::find(show.fixtures, bead.fixture);
  return fixture ? fullWhite_a(stripTypeOf(show, *fixture), bead.count) : 0;
}

/// The dimming curve that a bead has from its port or its strip type.
Response curveAbove(const Show& show, const BeadPlace& place) {
  const Controller* controller = chispa::find(show.controllers, place.controller);
  const Bead* bead = beadAt(show, chainPlace(place));
  return controller && bead
             ? responseAbove(show, controller->ports[static_cast<std::size_t>(place.port)].settings, *bead)
             : Response{};
}

std::unique_ptr<Form> formOfOne(const Session& session, BeadPlace place) {
  auto form = std::make_unique<Form>();
  const ChainPlace chain = chainPlace(place);
  const auto bead = [session, chain] { return beadAt(session.show(), chain); };
  addBeadTitle(*form, session, place, bead);
  addPosition(*form, session, place, bead);
  addSettings(
      *form, session, "bead",
      [bead] {
        return bead() ? std::vector<const WireSettings*>{&bead()->settings}
                      : std::vector<const WireSettings*>{};
      },
      [session, chain](const QString& name, const std::function<void(WireSettings&)>& set) {
        session.edit(
            name, [&](Show& show) { changeBeadSettings(show, chain, set); }, name + QStringLiteral("-bead"));
      },
      [session, place] { return curveAbove(session.show(), place); });
  form->addHeading(Form::tr("Power"));
  form->addFact(Form::tr("At full white"), [session, bead]() -> std::optional<QString> {
    return bead() ? ampsText(amps_a(session.show(), *bead())) : QString();
  });
  addInjections(*form, session, chain);
  addCutting(*form, session, chain, bead);
  addHanging(*form, session, place, bead);
  form->addStretch();
  return form;
}

/// The form of several beads: what they have in common, and what can be done to all of them at once.
class BeadsForm {
 public:
  BeadsForm(Form& form, const Session& session, BeadPlaces places)
      : form_(form), session_(session), places_(std::move(places)) {}

  void build() {
    addTitle();
    addPosition();
    addOverrides();
    addPower();
    form_.addButton("unhang", Form::tr("Remove from port"), Form::tr("Puts them back into the tray (Delete)"),
                    [session = session_, places = places_] {
                      session.edit(Form::tr("remove from a port"),
                                   [&](Show& show) { unhang(show, chainPlaces(places)); });
                    });
    form_.addStretch();
  }

 private:
  std::function<std::vector<const Bead*>()> all() const {
    return [session = session_, places = places_] {
      std::vector<const Bead*> found;
      for (const BeadPlace& place : places)
        if (const Bead* bead = beadAt(session.show(), chainPlace(place))) found.push_back(bead);
      return found;
    };
  }
  /// One edit of all of them.
  void edit(const QString& name, const std::function<void(Show&, const ChainPlace&)>& change,
            const QString& mergeKey = {}) const {
    session_.edit(
        name,
        [&](Show& show) {
          for (const BeadPlace& place : places_) change(show, chainPlace(place));
        },
        mergeKey);
  }

  void addTitle() {
    form_.addTitle(Form::tr("%1 beads").arg(places_.size()), [all = all()]() -> std::optional<QString> {
      int pixels = 0;
      for (const Bead* bead : all()) pixels += bead->count;
      return counted(pixels, Form::tr("one pixel"), Form::tr("%1 pixels"));
    });
  }

  void addPosition() {
    form_.addHeading(Form::tr("Position"));
    form_.addSwitch(
        "beadReversed", Form::tr("Data enters at the far end"),
        [all = all()] { return sameOf(all(), [](const Bead& bead) { return bead.reversed; }); },
        [self = *this](bool on) {
          self.edit(Form::tr("reverse"), [on](Show& show, const ChainPlace& place) {
            const Bead* bead = beadAt(show, place);
            if (bead && bead->reversed != on) turnBead(show, place);
          });
        });
    form_.addNumber(
        "skippedBefore", Form::tr("Skipped pixels before"), {"px", 0, limits::kMaxSkipped, 1, 0},
        [all = all()] {
          return sameOf(all(), [](const Bead& bead) { return static_cast<double>(bead.skippedBefore); });
        },
        [self = *this](double v) {
          self.edit(
              Form::tr("skipped pixels"),
              [v](Show& show, const ChainPlace& place) { setSkipped(show, place, static_cast<int>(v)); },
              QStringLiteral("skipped-field"));
        });
  }

  void addOverrides() {
    addSettings(
        form_, session_, "bead",
        [all = all()] {
          std::vector<const WireSettings*> settings;
          for (const Bead* bead : all()) settings.push_back(&bead->settings);
          return settings;
        },
        [self = *this](const QString& name, const std::function<void(WireSettings&)>& set) {
          self.edit(
              name, [&](Show& show, const ChainPlace& place) { changeBeadSettings(show, place, set); },
              name + QStringLiteral("-bead"));
        },
        [session = session_, place = places_.front()] { return curveAbove(session.show(), place); });
  }

  void addPower() {
    form_.addHeading(Form::tr("Power"));
    form_.addFact(Form::tr("At full white"), [session = session_, all = all()]() -> std::optional<QString> {
      double amps = 0;
      for (const Bead* bead : all()) amps += amps_a(session.show(), *bead);
      return ampsText(amps);
    });
  }

  Form& form_;
  Session session_;
  BeadPlaces places_;
};

}  // namespace

std::unique_ptr<Form> makeBeadForm(const Session& session, const BeadPlaces& places) {
  if (places.size() == 1) return formOfOne(session, places.front());
  auto form = std::make_unique<Form>();
  BeadsForm(*form, session, places).build();
  return form;
}

}  // namespace chispa::desk
