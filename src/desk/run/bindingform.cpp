// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/edit/bindingedits.h"
#include "core/edit/curveedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/effect/effect.h"
#include "desk/parts/curvefield.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/run/itemrows.h"
#include "desk/run/runforms.h"
#include "desk/run/valueplot.h"

namespace chispa::desk {
namespace {

using BindingRows = ItemRows<Binding, BindingId>;
using DeskRows = ItemRows<DeskInput, DeskInputId>;

void addSource(Form& form, const BindingRows& rows, const Binding& own) {
  form.addHeading(Form::tr("Source"));
  form.addChoice("sourceKind", Form::tr("From"),
                 {Form::tr("MIDI note"), Form::tr("MIDI control"), Form::tr("MIDI pitch bend"),
                  Form::tr("MIDI program"), Form::tr("MIDI pressure"), Form::tr("OSC"), Form::tr("key"),
                  Form::tr("desk"), Form::tr("fixed value"), Form::tr("MIDI time code")},
                 rows.get<int>([](const Binding& b) { return static_cast<int>(b.source.kind); }),
                 rows.set<int>(Form::tr("source"), [](Binding& b, int v) {
                   b.source.kind = static_cast<SourceKind>(v);
                   if (b.source.kind == SourceKind::Desk) b.source.number = std::max(1, b.source.number);
                   if (b.source.isMidi()) b.source.number = std::min(127, b.source.number);
                   if (b.source.kind == SourceKind::TimeCode) b.target.kind = TargetKind::Follow;
                 }));
  const auto whole = [&](const char* key, const QString& label, double low, double high,
                         int BindingSource::*member) {
    form.addNumber(
        QLatin1String(key), label, {{}, low, high, 1, 0},
        rows.get<double>([member](const Binding& b) { return b.source.*member; }),
        rows.set<double>(label, [member](Binding& b, double v) { b.source.*member = static_cast<int>(v); }));
  };
  if (own.source.isMidi()) {
    form.addText("sourceDevice", Form::tr("Device"),
                 rows.get<QString>([](const Binding& b) { return text(b.source.device); }),
                 rows.set<QString>(Form::tr("device"),
                                   [](Binding& b, QString v) { b.source.device = v.toStdString(); }));
    if (own.source.hasChannel())
      whole("sourceChannel", Form::tr("Channel (0 = any)"), 0, 16, &BindingSource::channel);
    if (own.source.hasNumber()) whole("sourceNumber", Form::tr("Number"), 0, 127, &BindingSource::number);
  }
  if (own.source.kind == SourceKind::Osc || own.source.kind == SourceKind::Key)
    form.addText("sourceAddress", own.source.kind == SourceKind::Key ? Form::tr("Key") : Form::tr("Address"),
                 rows.get<QString>([](const Binding& b) { return text(b.source.address); }),
                 rows.set<QString>(Form::tr("address"), [](Binding& b, QString v) {
                   b.source.address = (b.source.kind == SourceKind::Key ? v.toUpper() : v).toStdString();
                 }));
  if (own.source.kind == SourceKind::Desk) {
    whole("sourceUniverse", Form::tr("Universe"), 0, 63'999, &BindingSource::universe);
    whole("sourceNumber", Form::tr("Channel"), 1, 512, &BindingSource::number);
  }
  if (own.source.kind == SourceKind::Fixed)
    form.addNumber(
        "sourceValue", Form::tr("Value"), {"%", 0, 100, 1, 0},
        rows.get<double>([](const Binding& b) { return b.source.value * 100; }),
        rows.set<double>(Form::tr("value"), [](Binding& b, double v) { b.source.value = v / 100; }));
}

void addChannels(Form& form, const BindingRows& rows, const Session& session) {
  const NamedItems<Controller> controllers(session.show().controllers);
  form.addChoice(
      "targetController", Form::tr("Controller"), controllers.names,
      rows.get<int>([controllers](const Binding& b) { return controllers.placeOf(b.target.controller); }),
      rows.set<int>(Form::tr("controller"),
                    [controllers](Binding& b, int v) { b.target.controller = controllers.idAt(v); }));
  const auto whole = [&](const char* key, const QString& label, double low, double high,
                         int BindingTarget::*member) {
    form.addNumber(
        QLatin1String(key), label, {{}, low, high, 1, 0},
        rows.get<double>([member](const Binding& b) { return b.target.*member; }),
        rows.set<double>(label, [member](Binding& b, double v) { b.target.*member = static_cast<int>(v); }));
  };
  whole("targetUniverse", Form::tr("Universe"), 0, 63'999, &BindingTarget::universe);
  whole("targetChannel", Form::tr("First channel"), 1, 512, &BindingTarget::channel);
  whole("targetCount", Form::tr("Channels"), 1, 512, &BindingTarget::count);
  whole("targetEvery", Form::tr("Every n-th"), 1, 512, &BindingTarget::every);
}

/// Numbers that the layers of a look can be told.
std::vector<std::pair<std::string, QString>> numbersOf(const Show& show, LookId id) {
  std::vector<std::pair<std::string, QString>> numbers{{kStrengthKey, Form::tr("Strength")},
                                                       {kPalettePlaceKey, Form::tr("Palette's place")}};
  const Look* look = chispa::find(show.looks, id);
  if (!look) return numbers;
  for (const LookStep& step : look->steps)
    for (const auto& layer : step.layers) {
      const Effect* effect = findEffect(layer->effect);
      if (!effect) continue;
      for (const ParamSpec& spec : effect->params) {
        const bool isKnown = std::any_of(numbers.begin(), numbers.end(),
                                         [&](const auto& one) { return one.first == spec.key; });
        if (spec.kind == ParamKind::Number && spec.canMove && !isKnown)
          numbers.emplace_back(spec.key, said(spec.label));
      }
    }
  return numbers;
}

void addNumberOfLook(Form& form, const BindingRows& rows, const Binding& own, const Session& session) {
  const auto numbers = numbersOf(session.show(), own.target.look);
  QStringList names;
  for (const auto& [key, label] : numbers) names << label;
  form.addChoice("targetParameter", Form::tr("Number"), names, rows.get<int>([numbers](const Binding& b) {
    const auto found = std::find_if(numbers.begin(), numbers.end(),
                                    [&](const auto& one) { return one.first == b.target.parameter; });
    return found == numbers.end() ? -1 : static_cast<int>(found - numbers.begin());
  }),
                 rows.set<int>(Form::tr("number"), [numbers](Binding& b, int v) {
                   b.target.parameter = numbers.at(static_cast<std::size_t>(v)).first;
                 }));
}

/// Which look, zone, number or instant it is, by what is driven.
void addTargetItem(Form& form, const BindingRows& rows, const Binding& own, const Session& session) {
  const TargetKind kind = own.target.kind;
  if (kind == TargetKind::Look || kind == TargetKind::LookLevel || kind == TargetKind::Parameter ||
      kind == TargetKind::Speed) {
    const NamedItems<Look> looks(session.show().looks);
    form.addChoice(
        "targetLook", Form::tr("Look"), looks.names,
        rows.get<int>([looks](const Binding& b) { return looks.placeOf(b.target.look); }),
        rows.set<int>(Form::tr("look"), [looks](Binding& b, int v) { b.target.look = looks.idAt(v); }));
  }
  if (kind == TargetKind::Look)
    form.addChoice("targetMode", Form::tr("A press"),
                   {Form::tr("as its pad"), Form::tr("hold"), Form::tr("toggle"), Form::tr("flash"),
                    Form::tr("only this")},
                   rows.get<int>([](const Binding& b) {
                     return b.target.hasMode ? static_cast<int>(b.target.mode) + 1 : 0;
                   }),
                   rows.set<int>(Form::tr("press"), [](Binding& b, int v) {
                     b.target.hasMode = v > 0;
                     if (v > 0) b.target.mode = static_cast<PadMode>(v - 1);
                   }));
  if (kind == TargetKind::ZoneLevel) {
    const NamedItems<Zone> zones(session.show().zones);
    form.addChoice(
        "targetZone", Form::tr("Zone"), zones.names,
        rows.get<int>([zones](const Binding& b) { return zones.placeOf(b.target.zone); }),
        rows.set<int>(Form::tr("zone"), [zones](Binding& b, int v) { b.target.zone = zones.idAt(v); }));
  }
  if (kind == TargetKind::Parameter) addNumberOfLook(form, rows, own, session);
  if (kind == TargetKind::GoTo || kind == TargetKind::Follow)
    form.addNumber(
        "targetAt", kind == TargetKind::GoTo ? Form::tr("At") : Form::tr("Code at its beginning"),
        {"s", 0, 86'400, 0.1, 2}, rows.get<double>([](const Binding& b) { return seconds(b.target.at); }),
        rows.set<double>(Form::tr("instant"), [](Binding& b, double v) { b.target.at = micros(v); }));
  if (kind == TargetKind::Channels) addChannels(form, rows, session);
}

void addTarget(Form& form, const BindingRows& rows, const Binding& own, const Session& session) {
  form.addHeading(Form::tr("Drives"));
  form.addChoice("targetKind", Form::tr("What"),
                 {Form::tr("a look"), Form::tr("level of a look"), Form::tr("level of a zone"),
                  Form::tr("a number of a look"), Form::tr("speed of a look"), Form::tr("master"),
                  Form::tr("blackout"), Form::tr("light on and off"), Form::tr("play and pause"),
                  Form::tr("back to the beginning"), Form::tr("go to an instant"), Form::tr("tempo, tapped"),
                  Form::tr("reset"), Form::tr("channels"), Form::tr("on in the set list"),
                  Form::tr("back in the set list"), Form::tr("the score follows time code")},
                 rows.get<int>([](const Binding& b) { return static_cast<int>(b.target.kind); }),
                 rows.set<int>(Form::tr("what is driven"), [session](Binding& b, int v) {
                   b.target.kind = static_cast<TargetKind>(v);
                   const Show& show = session.show();
                   // The first of its kind, until another is chosen.
                   if (!b.target.look && !show.looks.empty()) b.target.look = show.looks.front()->id;
                   if (!b.target.zone && !show.zones.empty()) b.target.zone = show.zones.front()->id;
                   if (!b.target.controller && !show.controllers.empty())
                     b.target.controller = show.controllers.front()->id;
                   if (b.target.parameter.empty()) b.target.parameter = kStrengthKey;
                 }));
  addTargetItem(form, rows, own, session);
}

/// The response as one draws it, above its numbers.
void addDrawnResponse(Form& form, const BindingRows& rows, const Session& session, BindingId id) {
  auto* field = new CurveField;
  field->setObjectName(QStringLiteral("bindingCurve"));
  field->setAccessibleName(Form::tr("Response, drawn"));
  const auto set =
      rows.set<Curve>(Form::tr("response"), [](Binding& b, const Curve& drawn) { b.points = drawn; });
  QObject::connect(field, &CurveField::changed, field, set);
  QObject::connect(field, &CurveField::finished, field, [session] { session.document.seal(); });
  form.addWidget(field, [field, session, id] {
    if (const Binding* own = chispa::find(session.show().bindings, id)) field->showCurve(own->points);
  });
}

void addWay(Form& form, const BindingRows& rows, const Binding& own, const Session& session) {
  form.addHeading(Form::tr("How"));
  const auto share = [&](const char* key, const QString& label, double Binding::*member) {
    form.addNumber(QLatin1String(key), label, {"%", 0, 100, 1, 0},
                   rows.get<double>([member](const Binding& b) { return b.*member * 100; }),
                   rows.set<double>(label, [member](Binding& b, double v) { b.*member = v / 100; }));
  };
  share("bindingLow", Form::tr("At the bottom"), &Binding::low);
  share("bindingHigh", Form::tr("At the top"), &Binding::high);
  form.addChoice("bindingResponse", Form::tr("Response"),
                 {Form::tr("even"), Form::tr("in steps"), Form::tr("eased"), Form::tr("drawn")},
                 rows.get<int>([](const Binding& b) { return static_cast<int>(b.response); }),
                 rows.set<int>(Form::tr("response"), [](Binding& b, int v) {
                   b.response = static_cast<BindingResponse>(v);
                   if (b.response == BindingResponse::Drawn && b.points.empty())
                     b.points = {{0, 0}, {0.5, 0.2}, {1, 1}};
                 }));
  if (own.response == BindingResponse::Steps)
    form.addNumber(
        "bindingSteps", Form::tr("Steps"), {{}, 2, 128, 1, 0},
        rows.get<double>([](const Binding& b) { return b.steps; }),
        rows.set<double>(Form::tr("steps"), [](Binding& b, double v) { b.steps = static_cast<int>(v); }));
  if (own.response == BindingResponse::Drawn) {
    addDrawnResponse(form, rows, session, own.id);
    form.addText("bindingPoints", Form::tr("Points"),
                 rows.get<QString>([](const Binding& b) { return text(curveText(b.points)); }),
                 rows.set<QString>(Form::tr("response"), [](Binding& b, QString v) {
                   if (const auto curve = parseCurve(v.toStdString())) b.points = *curve;
                 }));
    form.addNote([]() -> std::optional<QString> {
      return Form::tr("Per cent of the control : per cent of the range, one after the other.");
    });
  }
  const auto ease = [&](const char* key, const QString& label, Micros Binding::*member) {
    form.addNumber(QLatin1String(key), label, {"ms", 0, 60'000, 50, 0},
                   rows.get<double>([member](const Binding& b) { return seconds(b.*member) * 1000; }),
                   rows.set<double>(label, [member](Binding& b, double v) { b.*member = micros(v / 1000); }));
  };
  ease("bindingEaseIn", Form::tr("Ease in"), &Binding::easeIn);
  ease("bindingEaseOut", Form::tr("Ease out"), &Binding::easeOut);
  form.addChoice(
      "bindingEase", Form::tr("Easing"),
      {Form::tr("linear"), Form::tr("smooth"), Form::tr("ease in"), Form::tr("ease out")},
      rows.get<int>([](const Binding& b) { return static_cast<int>(b.easeShape); }),
      rows.set<int>(Form::tr("easing"), [](Binding& b, int v) { b.easeShape = static_cast<FadeShape>(v); }));
  form.addSwitch("bindingTakesOver", Form::tr("Soft take-over"),
                 rows.get<bool>([](const Binding& b) { return b.takesOver; }),
                 rows.set<bool>(Form::tr("take-over"), [](Binding& b, bool v) { b.takesOver = v; }));
}

void addLamp(Form& form, const BindingRows& rows, const Binding& own) {
  if (own.source.kind != SourceKind::Note && own.source.kind != SourceKind::Control) return;
  form.addSwitch("lampSent", Form::tr("Light its button"),
                 rows.get<bool>([](const Binding& b) { return b.lamp.isSent; }),
                 rows.set<bool>(Form::tr("button light"), [](Binding& b, bool v) { b.lamp.isSent = v; }));
  if (!own.lamp.isSent) return;
  const auto value = [&](const char* key, const QString& label, int BindingLamp::*member) {
    form.addNumber(
        QLatin1String(key), label, {{}, 0, 127, 1, 0},
        rows.get<double>([member](const Binding& b) { return b.lamp.*member; }),
        rows.set<double>(label, [member](Binding& b, double v) { b.lamp.*member = static_cast<int>(v); }));
  };
  value("lampOff", Form::tr("  when off"), &BindingLamp::off);
  value("lampOn", Form::tr("  when it can be lit"), &BindingLamp::on);
  value("lampPlaying", Form::tr("  while lit"), &BindingLamp::playing);
}

}  // namespace

std::unique_ptr<Form> makeBindingForm(const Session& session, BindingId id) {
  auto form = std::make_unique<Form>();
  const Binding* own = chispa::find(session.show().bindings, id);
  if (!own) return form;
  const BindingRows rows(session, &Show::bindings, id);
  form->addTitle(Form::tr("Binding"), rows.get<QString>([session](const Binding& b) {
    return said(describeSource(b.source)) + QStringLiteral(" → ") +
           said(describeTarget(session.show(), b.target));
  }));
  form->addText("bindingName", Form::tr("Name"),
                rows.get<QString>([](const Binding& b) { return text(b.name); }),
                rows.set<QString>(Form::tr("rename a binding"),
                                  [](Binding& b, QString v) { b.name = v.toStdString(); }));
  form->addWidget(new ValuePlot(session, id));
  addSource(*form, rows, *own);
  addTarget(*form, rows, *own, session);
  addWay(*form, rows, *own, session);
  addLamp(*form, rows, *own);
  form->addStretch();
  return form;
}

QString bindingFormKey(const Session& session, BindingId id) {
  const Binding* own = chispa::find(session.show().bindings, id);
  if (!own) return {};
  QString key = QStringLiteral("%1/%2/%3/%4/%5/")
                    .arg(static_cast<int>(own->source.kind))
                    .arg(static_cast<int>(own->target.kind))
                    .arg(static_cast<int>(own->response))
                    .arg(own->lamp.isSent)
                    .arg(own->target.look.value);
  for (const auto& look : session.show().looks) key += text(look->name) + QLatin1Char('|');
  for (const auto& zone : session.show().zones) key += text(zone->name) + QLatin1Char('|');
  return key;
}

std::unique_ptr<Form> makeDeskInputForm(const Session& session, DeskInputId id) {
  auto form = std::make_unique<Form>();
  const DeskRows rows(session, &Show::deskInputs, id);
  form->addTitle(Form::tr("Listens to a desk"), rows.get<QString>([session](const DeskInput& d) {
    const Zone* zone = chispa::find(session.show().zones, d.zone);
    return zone ? text(zone->name) : QString();
  }));
  form->addText(
      "deskName", Form::tr("Name"), rows.get<QString>([](const DeskInput& d) { return text(d.name); }),
      rows.set<QString>(Form::tr("name"), [](DeskInput& d, QString v) { d.name = v.toStdString(); }));
  const NamedItems<Zone> zones(session.show().zones);
  form->addChoice("deskZone", Form::tr("Zone"), zones.names,
                  rows.get<int>([zones](const DeskInput& d) { return zones.placeOf(d.zone); }),
                  rows.set<int>(Form::tr("zone"), [zones](DeskInput& d, int v) { d.zone = zones.idAt(v); }));
  form->addChoice("deskProtocol", Form::tr("Protocol"), {QStringLiteral("E1.31"), QStringLiteral("Art-Net")},
                  rows.get<int>([](const DeskInput& d) { return static_cast<int>(d.protocol); }),
                  rows.set<int>(Form::tr("protocol"),
                                [](DeskInput& d, int v) { d.protocol = static_cast<Protocol>(v); }));
  const auto whole = [&](const char* key, const QString& label, double low, double high,
                         int DeskInput::*member) {
    form->addNumber(
        QLatin1String(key), label, {{}, low, high, 1, 0},
        rows.get<double>([member](const DeskInput& d) { return d.*member; }),
        rows.set<double>(label, [member](DeskInput& d, double v) { d.*member = static_cast<int>(v); }));
  };
  whole("deskUniverse", Form::tr("Universe"), 0, 63'999, &DeskInput::universe);
  whole("deskChannel", Form::tr("First channel"), 1, 512, &DeskInput::channel);
  static const QStringList kFormats{"I", "RGB", "RBG", "GRB", "GBR", "BRG", "BGR", "RGBW", "GRBW", "WRGB"};
  form->addChoice("deskFormat", Form::tr("Format"), kFormats, rows.get<int>([](const DeskInput& d) {
    return static_cast<int>(kFormats.indexOf(text(d.format)));
  }),
                  rows.set<int>(Form::tr("format"),
                                [](DeskInput& d, int v) { d.format = kFormats.at(v).toStdString(); }));
  form->addChoice("deskBits", Form::tr("Bit depth"), {Form::tr("8 bit"), Form::tr("16 bit, coarse first")},
                  rows.get<int>([](const DeskInput& d) { return d.bits == 16 ? 1 : 0; }),
                  rows.set<int>(Form::tr("bit depth"), [](DeskInput& d, int v) { d.bits = v ? 16 : 8; }));
  whole("deskCells", Form::tr("Cells (0 = each)"), 0, 10'000, &DeskInput::cells);
  form->addChoice(
      "deskUse", Form::tr("Mixing"),
      {Form::tr("replaces the show"), Form::tr("multiplies the show"), Form::tr("is added"),
       Form::tr("counts where it is higher")},
      rows.get<int>([](const DeskInput& d) { return static_cast<int>(d.use); }),
      rows.set<int>(Form::tr("use"), [](DeskInput& d, int v) { d.use = static_cast<DeskUse>(v); }));
  form->addChoice(
      "deskLoss", Form::tr("If the signal stops"),
      {Form::tr("hold the last values"), Form::tr("fade to the show"), Form::tr("go dark")},
      rows.get<int>([](const DeskInput& d) { return static_cast<int>(d.loss); }),
      rows.set<int>(Form::tr("loss"), [](DeskInput& d, int v) { d.loss = static_cast<DeskLoss>(v); }));
  form->addNumber("deskLossFade", Form::tr("Fade"), {"s", 0, 600, 0.5, 1},
                  rows.get<double>([](const DeskInput& d) { return seconds(d.lossFade); }),
                  rows.set<double>(Form::tr("fade"), [](DeskInput& d, double v) { d.lossFade = micros(v); }));
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
