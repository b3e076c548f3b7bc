// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "core/edit/planedits.h"
#include "core/files/striplibrary.h"
#include "core/show/stripwhite.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/responsefields.h"
#include "desk/plan/forms/chipfields.h"
#include "desk/plan/forms/planforms.h"
#include "link/userfolders.h"

namespace chispa::desk {

namespace {

/// What the strip's white is made of, and what that costs in light.
void addWhite(Form& form, const StripGet& get, const StripChange& change) {
  form.addHeading(Form::tr("White"));
  form.addNumber(
      "stripKelvin", Form::tr("Colour temperature"), {"K", 1'667, 25'000, 100, 0},
      [get]() -> std::optional<double> {
        const auto kelvin = get() ? whiteTemperature(*get()) : std::nullopt;
        return kelvin ? std::optional(std::round(*kelvin / 10) * 10) : std::nullopt;
      },
      [change](double kelvin) {
        change(Form::tr("colour temperature"), [kelvin](StripType& s) { s.white = whiteShares(s, kelvin); });
      });
  const auto share = [&](const char* key, const QString& label, float Rgb::*channel) {
    form.addNumber(
        QLatin1String(key), label, {"%", 2, 100, 1, 1},
        [get, channel]() -> std::optional<double> {
          return get() ? static_cast<double>(get()->white.*channel) * 100 : 100;
        },
        [change, label, channel](double percent) {
          change(label, [&](StripType& s) { s.white.*channel = static_cast<float>(percent / 100); });
        });
  };
  share("stripWhiteRed", Form::tr("Red"), &Rgb::r);
  share("stripWhiteGreen", Form::tr("Green"), &Rgb::g);
  share("stripWhiteBlue", Form::tr("Blue"), &Rgb::b);
  form.addNote([get]() -> std::optional<QString> {
    if (!get()) return std::nullopt;
    return Form::tr("White is made of these shares; that leaves %1 % of the light.")
        .arg(std::lround(lightLeft(*get()) * 100));
  });
}

/// The type for all shows, or away with it.
void addKeeping(Form& form, const Session& session, StripTypeId id) {
  auto said = std::make_shared<QString>();
  form.addButtons(
      {{"keepStrip", Form::tr("Keep for all shows"),
        Form::tr("Keeps it among your own strip types, under its name"),
        [session, id, said, &form] {
          const StripType* strip = chispa::find(session.show().stripTypes, id);
          if (!strip) return;
          const Outcome kept = StripLibrary(link::stripLibraryFile()).keep(*strip);
          *said = kept ? Form::tr("✓ kept: “%1” is offered in every show").arg(text(strip->name))
                       : desk::said(kept.failure());
          form.refresh();
        }},
       {"deleteStrip", Form::tr("Delete"), Form::tr("Removes it from the show, if no fixture uses it"),
        [session, id, said, &form] {
          const auto& all = session.show().fixtures;
          const auto used =
              std::count_if(all.begin(), all.end(), [id](const auto& f) { return f->stripType == id; });
          if (used > 0 || session.show().stripTypes.size() < 2) {
            *said = used > 0 ? counted(used, Form::tr("One fixture uses it: give that another type first."),
                                       Form::tr("%1 fixtures use it: give them another type first."))
                             : Form::tr("A show needs at least one strip type.");
            return form.refresh();
          }
          session.edit(Form::tr("delete a strip type"), [id](Show& show) { remove(show.stripTypes, id); });
          session.selection.clear();
        }}});
  form.addNote(
      [said]() -> std::optional<QString> { return said->isEmpty() ? std::nullopt : std::optional(*said); });
}

void addNameAndOrder(Form& form, const StripGet& get, const StripChange& change) {
  form.addText(
      "stripName", Form::tr("Name"),
      [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
      [change](QString v) {
        if (!v.trimmed().isEmpty())
          change(Form::tr("rename"), [&](StripType& s) { s.name = v.trimmed().toStdString(); });
      });
  form.addText(
      "stripOrder", Form::tr("Colour order"),
      [get]() -> std::optional<QString> { return get() ? text(get()->order) : QString(); },
      [change](QString v) {
        if (isChannelOrder(v.trimmed().toUpper().toStdString()))
          change(Form::tr("colour order"),
                 [&](StripType& s) { s.order = v.trimmed().toUpper().toStdString(); });
      });
  form.addNote([]() -> std::optional<QString> {
    return Form::tr(
        "The letters R, G, B, W and A, each once, as the strip takes them: GRB, RGBW, W … A is a fifth chip: "
        "amber, or a second white (WA: warm and cold; RGBWA).");
  });
}

void addElectric(Form& form, const StripGet& get, const StripChange& change) {
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range,
                          double StripType::*member) {
    form.addNumber(
        key, label, range, [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
        [change, label, member](double v) { change(label, [&](StripType& s) { s.*member = v; }); });
  };
  number("stripPerMetre", Form::tr("Pixels per metre"), {{}, 0.01, 10'000, 1, 2}, &StripType::pixelsPerMetre);
  number("stripVolts", Form::tr("Volts"), {"V", 0.1, 400, 1, 1}, &StripType::volts);
  number("stripCurrent", Form::tr("Current per channel"), {"mA", 0, 100'000, 1, 1}, &StripType::channel_ma);
  number("stripOhms", Form::tr("Resistance, both conductors"), {QStringLiteral("Ω/m"), 0, 100, 0.01, 3},
         &StripType::ohmsPerMetre);
  number("stripFades", Form::tr("Dims below"), {"V", 0, 400, 0.1, 1}, &StripType::fadesBelow_v);
  form.addNote([get]() -> std::optional<QString> {
    return get() ? Form::tr(
                       "Voltage drop follows from the resistance. Colours dim below %1 V (0: four fifths of "
                       "the volts).")
                       .arg(get()->leastVolts())
                 : QString();
  });
}

void addConstruction(Form& form, const StripGet& get, const StripChange& change) {
  form.addHeading(Form::tr("Construction"));
  form.addChoice(
      "stripBuild", Form::tr("Mounting"),
      {Form::tr("on a reel"), Form::tr("single, with wire between"), Form::tr("on panels")},
      [get]() -> std::optional<int> { return get() ? static_cast<int>(get()->build) : 0; },
      [change](int v) {
        change(Form::tr("build"), [v](StripType& s) { s.build = static_cast<StripBuild>(v); });
      });
  form.addChoice(
      "stripBits", Form::tr("Bit depth"),
      {Form::tr("8 bit (one channel)"), Form::tr("16 bit (two channels)")},
      [get]() -> std::optional<int> { return get() && get()->channelBits == 16 ? 1 : 0; },
      [change](int v) {
        change(Form::tr("bit depth"), [v](StripType& s) { s.channelBits = v == 1 ? 16 : 8; });
      });
  const auto whole = [&](const QString& key, const QString& label, int StripType::*member) {
    form.addNumber(
        key, label, {{}, 1, 1000, 1, 0},
        [get, member]() -> std::optional<double> { return get() ? get()->*member : 1; },
        [change, label, member](double v) {
          change(label, [&](StripType& s) { s.*member = static_cast<int>(v); });
        });
  };
  whole("stripLeds", Form::tr("LEDs per pixel"), &StripType::ledsPerPixel);
  whole("stripCut", Form::tr("Cut every (pixels)"), &StripType::pixelsPerCut);
  form.addNote([]() -> std::optional<QString> {
    return Form::tr(
        "A plain RGB strip or a flood is one pixel whatever its length: draw it as a line of one pixel, with "
        "all its LEDs in it.");
  });
}

}  // namespace

std::unique_ptr<Form> makeStripTypeForm(const Session& session, StripTypeId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return chispa::find(session.show().stripTypes, id); };
  const auto change = [session, id](const QString& name, std::function<void(StripType&)> set) {
    session.edit(
        name, [&](Show& show) { changeItem(show.stripTypes, id, set); }, name + QStringLiteral("-field"));
  };
  form->addTitle(Form::tr("Strip type"), [session, id]() -> std::optional<QString> {
    const auto& all = session.show().fixtures;
    const auto used =
        std::count_if(all.begin(), all.end(), [id](const auto& f) { return f->stripType == id; });
    return counted(used, Form::tr("used by one fixture"), Form::tr("used by %1 fixtures"));
  });
  addNameAndOrder(*form, get, change);
  addElectric(*form, get, change);
  addResponse(*form, QStringLiteral("strip"),
              {[get] { return get() ? std::optional(get()->response) : std::nullopt; },
               [change](const QString& what, const std::optional<Response>& response) {
                 if (response) change(what, [&](StripType& s) { s.response = *response; });
               },
               [session] { session.document.seal(); }});
  form->addNote([]() -> std::optional<QString> {
    return Form::tr(
        "1: light in proportion to the value, as plain strips do. 2.2: the controller already corrects it. "
        "Or draw it: value to the right, light upward.");
  });
  addWhite(*form, get, change);
  form->addSwitch(
      "stripBrightest", Form::tr("As bright as it can"),
      [get]() -> std::optional<bool> { return get() && get()->isBrightest; },
      [change](bool on) {
        change(Form::tr("brightness of colours"), [on](StripType& s) { s.isBrightest = on; });
      });
  form->addNote([]() -> std::optional<QString> {
    return Form::tr(
        "Off: no colour outshines the balanced white, so that all keep their proportions. On: each colour "
        "has all that its chips can give, and the proportions go.");
  });
  addChips(*form, get, change);
  addConstruction(*form, get, change);
  addKeeping(*form, session, id);
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
