// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/forms/chipfields.h"

#include <cmath>

#include "core/show/stripwhite.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

QString wordsOf(Chromaticity at) {
  return QStringLiteral("%1 %2").arg(at.x, 0, 'f', 4).arg(at.y, 0, 'f', 4);
}

void addChip(Form& form, const char* key, const QString& label, Chromaticity ChipColours::*chip,
             const StripGet& get, const StripChange& change) {
  form.addText(
      QLatin1String(key), label,
      [get, chip]() -> std::optional<QString> {
        return get() && get()->chips ? wordsOf((*get()->chips).*chip) : QString();
      },
      [get, change, label, chip](QString typed) {
        const auto at = readChromaticity(typed.trimmed().toStdString());
        if (!get() || !at) return;
        ChipColours changed = get()->chips.value_or(usualChips());
        changed.*chip = *at;
        if (spanWhite(changed)) change(label, [&](StripType& s) { s.chips = changed; });
      });
}

}  // namespace

void addChips(Form& form, const StripGet& get, const StripChange& change) {
  form.addHeading(Form::tr("Chips"));
  form.addSwitch(
      QStringLiteral("stripChips"), Form::tr("Colours are known"),
      [get]() -> std::optional<bool> { return get() && get()->chips.has_value(); },
      [change](bool on) {
        change(Form::tr("colours of chips"),
               [on](StripType& s) { s.chips = on ? std::optional(usualChips()) : std::nullopt; });
      });
  addChip(form, "stripRed", Form::tr("Red chip"), &ChipColours::red, get, change);
  addChip(form, "stripGreen", Form::tr("Green chip"), &ChipColours::green, get, change);
  addChip(form, "stripBlue", Form::tr("Blue chip"), &ChipColours::blue, get, change);
  addChip(form, "stripWhite", Form::tr("White chip"), &ChipColours::white, get, change);
  addChip(form, "stripAmber", Form::tr("Fifth chip"), &ChipColours::amber, get, change);
  const auto addLight = [&](const char* key, const QString& label, double ChipColours::*light) {
    form.addNumber(
        QLatin1String(key), label, {"%", 1, 1000, 5, 0},
        [get, light]() -> std::optional<double> {
          return get() && get()->chips ? std::optional((*get()->chips).*light * 100) : std::nullopt;
        },
        [get, change, label, light](double percent) {
          if (get() && get()->chips) change(label, [&](StripType& s) { (*s.chips).*light = percent / 100; });
        });
  };
  addLight("stripWhiteLight", Form::tr("Light of the white chip"), &ChipColours::whiteLight);
  addLight("stripAmberLight", Form::tr("Light of the fifth chip"), &ChipColours::amberLight);
  form.addNote([get]() -> std::optional<QString> {
    if (!get() || !get()->chips)
      return Form::tr(
          "Without them red, green and blue are taken as a screen’s, and colours on the strip differ from "
          "those that were chosen.");
    return Form::
        tr("Type a dominant wavelength (622 nm), a temperature (3000 K) or x and y. Now red %1, green %2, "
           "blue %3. The white chip is counted against the other three together.")
            .arg(wavelengthText(get()->chips->red), wavelengthText(get()->chips->green),
                 wavelengthText(get()->chips->blue));
  });
}

}  // namespace chispa::desk
