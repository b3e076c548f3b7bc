// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/scoreforms.h"

#include <QColorDialog>
#include <QFileDialog>
#include <QMessageBox>
#include <QRandomGenerator>

#include "core/colour/oklch.h"
#include "core/colour/palettefile.h"
#include "core/edit/scoreedits.h"
#include "core/files/showfile.h"
#include "desk/parts/format.h"
#include "desk/parts/gradientbar.h"

namespace chispa::desk {

std::unique_ptr<Form> makeScoreForm(const Session& session, ScoreId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return find(session.show().scores, id); };
  const auto change = [session, id](const QString& name, std::function<void(Score&)> set) {
    session.edit(name, [&](Show& show) { changeItem(show.scores, id, set); }, name + QStringLiteral("-field"));
  };
  form->addTitle(Form::tr("Score"), [get]() -> std::optional<QString> {
    return get() ? counted(std::ssize(get()->clips), Form::tr("one clip"), Form::tr("%1 clips")) : QString();
  });
  form->addText("scoreName", Form::tr("Name"), [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
                [change](QString v) { if (!v.trimmed().isEmpty()) change(Form::tr("rename"), [&](Score& s) { s.name = v.trimmed().toStdString(); }); });
  form->addText("scoreAudio", Form::tr("Audio file"), [get]() -> std::optional<QString> { return get() ? text(get()->audio) : QString(); },
                [change](QString v) { change(Form::tr("audio file"), [&](Score& s) { s.audio = v.trimmed().toStdString(); }); });
  form->addNumber("audioStart", Form::tr("Sound begins at"), {"s", -86'400, 86'400, 0.01, 3}, [get]() -> std::optional<double> { return get() ? seconds(get()->audioStart) : 0; },
                  [change](double v) { change(Form::tr("sound's beginning"), [&](Score& s) { s.audioStart = micros(v); }); });
  form->addNumber("scoreLength", Form::tr("Length"), {"s", 0.1, 86'400, 1, 2}, [get]() -> std::optional<double> { return get() ? seconds(get()->length) : 1; },
                  [change](double v) { change(Form::tr("length"), [&](Score& s) { s.length = micros(v); }); });
  for (std::size_t i = 0; get() && i < get()->lanes.size(); ++i)
    form->addFact(text(get()->lanes[i].name), [get, i]() -> std::optional<QString> {
      return get() && i < get()->lanes.size() ? counted(std::ssize(get()->lanes[i].marks), Form::tr("one mark"), Form::tr("%1 marks")) : QString();
    });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makePaletteForm(const Session& session, PaletteId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return chispa::find(session.show().palettes, id); };
  const auto change = [session, id](const QString& name, std::function<void(Palette&)> set) {
    session.edit(name, [&](Show& show) {
      changeItem(show.palettes, id, [&](Palette& palette) {
        set(palette);
        std::stable_sort(palette.stops.begin(), palette.stops.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
      });
    }, name + QStringLiteral("-field"));
  };
  form->addTitle(Form::tr("Palette"), [session, id]() -> std::optional<QString> {
    int clips = 0;
    for (const auto& score : session.show().scores)
      clips += static_cast<int>(std::count_if(score->clips.begin(), score->clips.end(), [id](const auto& clip) { return clip->palette == id; }));
    return counted(clips, Form::tr("used by one clip"), Form::tr("used by %1 clips; a change reaches all of them"));
  });
  form->addText("paletteName", Form::tr("Name"), [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
                [change](QString v) { if (!v.trimmed().isEmpty()) change(Form::tr("rename"), [&](Palette& p) { p.name = v.trimmed().toStdString(); }); });
  form->addWidget(new GradientBar([get]() -> Palette { return get() ? *get() : Palette{}; }));
  const std::size_t count = get() ? get()->stops.size() : 0;
  for (std::size_t i = 0; i < count; ++i) {
    const auto stop = [get, i]() -> ColourStop { return get() && i < get()->stops.size() ? get()->stops[i] : ColourStop{}; };
    form->addHeading(Form::tr("Colour %1").arg(i + 1));
    form->addText(QStringLiteral("stopColour-%1").arg(i), Form::tr("Colour"), [stop]() -> std::optional<QString> { return text(hexText(stop().colour)); },
                  [change, i](QString v) {
                    const auto colour = parseHex(v.trimmed().toStdString());
                    if (colour) change(Form::tr("palette colour"), [&](Palette& p) { if (i < p.stops.size()) p.stops[i].colour = *colour; });
                  });
    form->addNumber(QStringLiteral("stopAt-%1").arg(i), Form::tr("Place"), {"%", 0, 100, 1, 1}, [stop]() -> std::optional<double> { return stop().at * 100; },
                    [change, i](double v) { change(Form::tr("palette place"), [&](Palette& p) { if (i < p.stops.size()) p.stops[i].at = v / 100; }); });
    form->addButton(QStringLiteral("stopPick-%1").arg(i), Form::tr("Choose…"), Form::tr("Choose the colour from a field"), [stop, change, i] {
      const Srgb8 c = stop().colour;
      const QColor chosen = QColorDialog::getColor(QColor(c.r, c.g, c.b));
      if (!chosen.isValid()) return;
      const Srgb8 next{static_cast<std::uint8_t>(chosen.red()), static_cast<std::uint8_t>(chosen.green()), static_cast<std::uint8_t>(chosen.blue())};
      change(Form::tr("palette colour"), [&](Palette& p) { if (i < p.stops.size()) p.stops[i].colour = next; });
    });
  }
  form->addHeading(Form::tr("Colours that go with the first"));
  const auto harmonise = [get, change](Harmony harmony) {
    return [get, change, harmony] {
      if (!get() || get()->stops.empty()) return;
      change(Form::tr("harmony"), [&](Palette& p) { p.stops = harmonyOf(p.stops.front().colour, harmony); });
    };
  };
  form->addButtons({{"harmonyOneHue", Form::tr("One hue"), Form::tr("Its hue from dark to light"), harmonise(Harmony::OneHue)},
                    {"harmonyNeighbours", Form::tr("Neighbours"), Form::tr("Hues beside it"), harmonise(Harmony::Neighbours)},
                    {"harmonyOpposites", Form::tr("Opposite"), Form::tr("The hue across the wheel"), harmonise(Harmony::Opposites)}});
  form->addButtons({{"harmonyTriad", Form::tr("Three"), Form::tr("Three hues at equal distances"), harmonise(Harmony::Triad)},
                    {"harmonySquare", Form::tr("Four"), Form::tr("Four hues at equal distances"), harmonise(Harmony::Square)},
                    {"paletteChance", Form::tr("By chance"), Form::tr("Five hues near the first, by chance; once more gives others"), [get, change] {
                       if (!get()) return;
                       const double hue = get()->stops.empty() ? 30 : toOkLch(get()->stops.front().colour).hue_deg;
                       change(Form::tr("colours by chance"), [&](Palette& p) { p.stops = randomStops(hue, 90, 5, QRandomGenerator::global()->generate()); });
                     }}});
  form->addHeading(Form::tr("All of it"));
  form->addButtons({{"mirrorPalette", Form::tr("Mirror"), Form::tr("There and back again"), [change] {
                       change(Form::tr("mirror the palette"), [](Palette& p) {
                         std::vector<ColourStop> both;
                         for (const ColourStop& stop : p.stops) both.push_back({stop.at / 2, stop.colour});
                         for (auto stop = p.stops.rbegin(); stop != p.stops.rend(); ++stop)
                           if (stop->at < 1) both.push_back({1 - stop->at / 2, stop->colour});
                         p.stops = std::move(both);
                       });
                     }},
                    {"turnPalette", Form::tr("Reverse"), Form::tr("The last colour first"), [change] {
                       change(Form::tr("reverse the palette"), [](Palette& p) {
                         std::reverse(p.stops.begin(), p.stops.end());
                         for (ColourStop& stop : p.stops) stop.at = 1 - stop.at;
                       });
                     }},
                    {"exportPalette", Form::tr("Export…"), Form::tr("As .gpl, .ggr, .cpt, .svg or .css"), [get] {
                       if (!get()) return;
                       const QString file = QFileDialog::getSaveFileName(nullptr, Form::tr("Export the palette"), text(get()->name) + QStringLiteral(".gpl"), Form::tr("Palettes (*.gpl *.ggr *.cpt *.svg *.css)"));
                       const std::filesystem::path path = file.toStdString();
                       const auto format = paletteFormatOf(path);
                       if (!format) return;
                       const Outcome written = writeFileAtomically(path, paletteText(*get(), *format));
                       if (!written) QMessageBox::warning(nullptr, Form::tr("Export the palette"), text(written.failure().text()));
                     }}});
  form->addHeading(Form::tr("Stops"));
  form->addButton("addStop", Form::tr("Add a colour"), Form::tr("A new last colour"), [change] {
    change(Form::tr("add a colour"), [](Palette& p) { p.stops.push_back({1, p.stops.empty() ? Srgb8{255, 255, 255} : p.stops.back().colour}); });
  });
  if (count > 1)
    form->addButton("removeStop", Form::tr("Take the last colour away"), Form::tr("Takes the last colour away"), [change] {
      change(Form::tr("take a colour away"), [](Palette& p) { if (!p.stops.empty()) p.stops.pop_back(); });
    });
  form->addStretch();
  return form;
}

QString paletteFormKey(const Session& session, PaletteId id) {
  const Palette* palette = chispa::find(session.show().palettes, id);
  return QString::number(palette ? palette->stops.size() : 0);
}

}  // namespace chispa::desk
