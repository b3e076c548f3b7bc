// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/palette/paletteform.h"

#include <QColorDialog>
#include <QFileDialog>
#include <QMessageBox>
#include <QRandomGenerator>

#include "core/colour/oklch.h"
#include "core/colour/whitepoint.h"
#include "core/edit/palettestops.h"
#include "core/files/palettefile.h"
#include "core/files/showfile.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/palette/huewheel.h"
#include "desk/score/palette/palettebar.h"
#include "desk/score/palette/striplooks.h"

namespace chispa::desk {
namespace {

/// The rows of the editor, section by section.
class PaletteRows {
 public:
  PaletteRows(Form& form, const PaletteAccess& palette)
      : form_(form), palette_(palette), chosen_(*new ChosenStop(&form)) {
    QObject::connect(&chosen_, &ChosenStop::changed, &form, &Form::refresh);
  }

  void addAll() {
    addName();
    auto* bar = new PaletteBar(palette_, chosen_);
    form_.addWidget(bar, [bar] { bar->update(); });
    auto* wheel = new HueWheel(palette_, chosen_);
    form_.addWidget(wheel, [wheel] { wheel->update(); });
    addPath();
    addChosen();
    addHarmonies();
    addWhole();
    form_.addHeading(Form::tr("On your strips"));
    auto* looks = new StripLooks(palette_);
    form_.addWidget(looks, [looks] { looks->refresh(); });
    form_.addStretch();
  }

 private:
  void addName() {
    form_.addTitle(Form::tr("Palette"), [palette = palette_]() -> std::optional<QString> {
      int clips = 0;
      for (const auto& score : palette.session().show().scores)
        clips +=
            static_cast<int>(std::count_if(score->clips.begin(), score->clips.end(),
                                           [&](const auto& clip) { return clip->palette == palette.id(); }));
      return counted(clips, Form::tr("used by one clip"),
                     Form::tr("used by %1 clips; a change reaches all of them"));
    });
    form_.addText(
        "paletteName", Form::tr("Name"),
        [palette = palette_]() -> std::optional<QString> { return text(palette.get().name); },
        [palette = palette_](QString v) {
          if (!v.trimmed().isEmpty())
            palette.change(Form::tr("rename"), [&](Palette& p) { p.name = v.trimmed().toStdString(); });
        });
  }

  /// How it gets from colour to colour.
  void addPath() {
    form_.addChoice(
        "palettePath", Form::tr("Between colours"),
        {Form::tr("straight"), Form::tr("along the hue"), Form::tr("the long way round")},
        [palette = palette_]() -> std::optional<int> { return static_cast<int>(palette.get().path); },
        [palette = palette_](int v) {
          palette.change(Form::tr("way between colours"),
                         [v](Palette& p) { p.path = static_cast<PalettePath>(v); });
        });
    form_.addNote([palette = palette_]() -> std::optional<QString> {
      switch (palette.get().path) {
        case PalettePath::ShorterHue:
          return Form::tr("Opposite colours pass through the hues between them, and never grey.");
        case PalettePath::LongerHue:
          return Form::tr("Through all other hues, as a rainbow does.");
        default:
          return Form::tr("Smooth and calm; colours from opposite sides pass grey.");
      }
    });
  }

  ColourStop stop() const { return chosen_.in(palette_.get()); }
  void changeStop(const QString& name, const std::function<void(ColourStop&)>& edit) const {
    palette_.change(
        name,
        [&](Palette& p) {
          if (!p.stops.empty()) edit(p.stops[chosen_.of(p)]);
        },
        name);
  }

  /// One of the three numbers of OKLCH, in the unit that is shown.
  void addOkLch(const char* key, const QString& label, const Form::Number& number, double OkLch::*part,
                double scale) {
    form_.addNumber(
        QLatin1String(key), label, number,
        [rows = *this, part, scale]() -> std::optional<double> {
          return toOkLch(rows.stop().colour).*part * scale;
        },
        [rows = *this, part, scale, label](double v) {
          OkLch colour = toOkLch(rows.stop().colour);
          colour.*part = v / scale;
          rows.changeStop(label, [&](ColourStop& s) { s.colour = fromOkLch(colour); });
        });
  }

  void addChosen() {
    form_.addText(
        "stopColour", Form::tr("Colour"),
        [rows = *this]() -> std::optional<QString> { return text(hexText(rows.stop().colour)); },
        [rows = *this](QString v) {
          const auto colour = parseHex(v.trimmed().toStdString());
          if (colour) rows.changeStop(Form::tr("palette colour"), [&](ColourStop& s) { s.colour = *colour; });
        });
    form_.addNumber(
        "stopAt", Form::tr("Place"), {"%", 0, 100, 1, 1},
        [rows = *this]() -> std::optional<double> { return rows.stop().at * 100; },
        [rows = *this](double v) {
          std::size_t now = 0;
          rows.palette_.change(
              Form::tr("move a colour"),
              [&](Palette& p) {
                if (!p.stops.empty()) now = moveStop(p, rows.chosen_.of(p), v / 100);
              },
              QStringLiteral("stop-at"));
          rows.chosen_.choose(now);
        });
    addOkLch("stopLightness", Form::tr("Lightness"), {"%", 0, 100, 1, 0}, &OkLch::lightness, 100);
    addOkLch("stopChroma", Form::tr("Colourfulness"), {"%", 0, 100, 1, 0}, &OkLch::chroma, 100 / 0.33);
    addOkLch("stopHue", Form::tr("Hue"), {"°", 0, 360, 5, 0}, &OkLch::hue_deg, 1);
    form_.addNumber(
        "stopKelvin", Form::tr("White of"), {"K", 1'667, 25'000, 100, 0},
        [rows = *this]() -> std::optional<double> {
          const auto kelvin = temperatureOfWhite(toLinear(rows.stop().colour));
          return kelvin ? std::optional(std::round(*kelvin / 10) * 10) : std::nullopt;
        },
        [rows = *this](double kelvin) {
          rows.changeStop(Form::tr("colour temperature"),
                          [&](ColourStop& s) { s.colour = toSrgb8(whiteOfTemperature(kelvin)); });
        });
    form_.addButtons(
        {{"addStop", Form::tr("Add"), Form::tr("A new colour behind the chosen one"),
          [rows = *this] { rows.addBehind(); }},
         {"removeStop", Form::tr("Remove"), Form::tr("Removes the chosen colour; the last one stays"),
          [rows = *this] {
            rows.palette_.change(Form::tr("remove a colour"),
                                 [&](Palette& p) { removeStop(p, rows.chosen_.of(p)); });
            emit rows.chosen_.changed();
          }},
         {"stopPick", Form::tr("Choose…"), Form::tr("Choose the colour from a field"),
          [rows = *this] { rows.pick(); }}});
  }

  void addBehind() const {
    std::size_t made = 0;
    palette_.change(Form::tr("add a colour"), [&](Palette& p) {
      const std::size_t i = chosen_.of(p);
      const double at = p.stops.empty()          ? 0
                        : i + 1 < p.stops.size() ? (p.stops[i].at + p.stops[i + 1].at) / 2
                                                 : (p.stops[i].at + 1) / 2;
      made = addStop(p, at);
    });
    chosen_.choose(made);
  }

  void pick() const {
    const Srgb8 c = stop().colour;
    const QColor picked = QColorDialog::getColor(QColor(c.r, c.g, c.b), &form_);
    if (!picked.isValid()) return;
    const Srgb8 next{static_cast<std::uint8_t>(picked.red()), static_cast<std::uint8_t>(picked.green()),
                     static_cast<std::uint8_t>(picked.blue())};
    changeStop(Form::tr("palette colour"), [&](ColourStop& s) { s.colour = next; });
  }

  Form::Button harmony(const char* key, const QString& label, const QString& tip, Harmony harmony) const {
    return {QLatin1String(key), label, tip, [rows = *this, harmony] {
              const Srgb8 own = rows.stop().colour;
              rows.palette_.change(Form::tr("harmony"),
                                   [&](Palette& p) { p.stops = harmonyOf(own, harmony); });
              rows.chosen_.choose(0);
            }};
  }

  void addHarmonies() {
    form_.addHeading(Form::tr("Colours that go with it"));
    form_.addButtons({harmony("harmonyOneHue", Form::tr("One hue"), Form::tr("Its hue from dark to light"),
                              Harmony::OneHue),
                      harmony("harmonyNeighbours", Form::tr("Neighbours"), Form::tr("Hues beside it"),
                              Harmony::Neighbours),
                      harmony("harmonyOpposites", Form::tr("Opposite"), Form::tr("The hue across the wheel"),
                              Harmony::Opposites)});
    form_.addButtons({harmony("harmonyTriad", Form::tr("Three"), Form::tr("Three hues at equal distances"),
                              Harmony::Triad),
                      harmony("harmonySquare", Form::tr("Four"), Form::tr("Four hues at equal distances"),
                              Harmony::Square),
                      {"paletteChance", Form::tr("Random"),
                       Form::tr("Five random hues near it; press again for others"), [rows = *this] {
                         constexpr double kSpread_deg = 90;
                         constexpr int kColours = 5;
                         const double hue = toOkLch(rows.stop().colour).hue_deg;
                         rows.palette_.change(Form::tr("random colours"), [&](Palette& p) {
                           p.stops = randomStops(hue, kSpread_deg, kColours,
                                                 QRandomGenerator::global()->generate());
                         });
                         emit rows.chosen_.changed();
                       }}});
  }

  Form::Button whole(const char* key, const QString& label, const QString& tip, const QString& name,
                     void (*edit)(Palette&)) const {
    return {QLatin1String(key), label, tip, [rows = *this, name, edit] {
              rows.palette_.change(name, edit);
              emit rows.chosen_.changed();
            }};
  }

  void addWhole() {
    form_.addHeading(Form::tr("Whole palette"));
    form_.addButtons({whole("mirrorPalette", Form::tr("Mirror"), Form::tr("There and back again"),
                            Form::tr("mirror the palette"), mirrorStops),
                      whole("turnPalette", Form::tr("Reverse"), Form::tr("The last colour first"),
                            Form::tr("reverse the palette"), reverseStops),
                      whole("closePalette", Form::tr("Make seamless"),
                            Form::tr("Ends in its first colour, so that it runs round without a seam"),
                            Form::tr("make a palette seamless"), closeLoop)});
    form_.addButton("exportPalette", Form::tr("Export…"), Form::tr("As .gpl, .ggr, .cpt, .svg or .css"),
                    [rows = *this] { rows.exportIt(); });
  }

  void exportIt() const {
    const Palette palette = palette_.get();
    const QString file = QFileDialog::getSaveFileName(&form_, Form::tr("Export the palette"),
                                                      text(palette.name) + QStringLiteral(".gpl"),
                                                      Form::tr("Palettes (*.gpl *.ggr *.cpt *.svg *.css)"));
    if (file.isEmpty()) return;
    const std::filesystem::path path = file.toStdString();
    const auto format = paletteFormatOf(path);
    if (!format)
      return void(QMessageBox::warning(
          &form_, Form::tr("Export the palette"),
          Form::tr("“%1” names no kind of palette file.\nLet its name end in .gpl, .ggr, .cpt, .svg or .css.")
              .arg(file)));
    const Outcome written = writeFileAtomically(path, paletteText(palette, *format));
    if (!written) QMessageBox::warning(&form_, Form::tr("Export the palette"), said(written.failure()));
  }

  Form& form_;
  PaletteAccess palette_;
  ChosenStop& chosen_;
};

}  // namespace

std::unique_ptr<Form> makePaletteForm(const Session& session, PaletteId id) {
  auto form = std::make_unique<Form>();
  PaletteRows(*form, PaletteAccess(session, id)).addAll();
  return form;
}

}  // namespace chispa::desk
