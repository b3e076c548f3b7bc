// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/scoreforms.h"

#include <QColorDialog>

#include "core/edit/scoreedits.h"
#include "core/effect/effect.h"
#include "desk/parts/format.h"
#include "desk/parts/gradientbar.h"

namespace chispa::desk {
namespace {

/// Rows over the selected clips of the open score.
class ClipRows {
 public:
  ClipRows(Form& form, const Session& session, ClipIds ids) : form_(form), session_(session), ids_(std::move(ids)) {}

  template <class T>
  Form::Get<T> common(std::function<T(const Clip&)> value) const {
    return [session = session_, ids = ids_, value]() -> std::optional<T> {
      const Score* score = session.stage.score();
      std::optional<T> all;
      for (const ClipId id : ids) {
        const Clip* clip = score ? findClip(*score, id) : nullptr;
        if (!clip) continue;
        const T one = value(*clip);
        if (all && *all != one) return std::nullopt;
        all = one;
      }
      return all;
    };
  }

  template <class T>
  Form::Set<T> change(const QString& name, std::function<void(Clip&, T)> set) const {
    return [session = session_, ids = ids_, name, set](T value) {
      const Score* score = session.stage.score();
      if (!score) return;
      session.edit(name, [&, id = score->id](Show& show) {
        for (const ClipId clip : ids) changeClip(show, id, clip, [&](Clip& c) { set(c, value); });
      }, name + QStringLiteral("-field"));
    };
  }

  void time(const QString& key, const QString& label, double low_s, Micros Clip::*member) {
    form_.addNumber(key, label, {"s", low_s, 86'400, 0.1, 3}, common<double>([member](const Clip& c) { return seconds(c.*member); }),
                    change<double>(label, [member](Clip& c, double v) { c.*member = micros(v); }));
  }

  void param(const ParamSpec& spec) {
    const QString key = QStringLiteral("param-") + text(spec.key);
    const QString label = Form::tr(spec.label.c_str());
    const auto value = [spec](const Clip& c) {
      const auto given = c.params.find(spec.key);
      return given == c.params.end() ? spec.fallback : given->second;
    };
    const auto set = [spec](Clip& c, ParamValue v) { c.params[spec.key] = std::move(v); };
    switch (spec.kind) {
      case ParamKind::Number: {
        const int decimals = spec.step >= 1 ? 0 : spec.step >= 0.1 ? 1 : spec.low < 0.01 && spec.low > 0 ? 3 : 2;
        form_.addNumber(key, label, {text(spec.unit), spec.low, spec.high, spec.step, decimals},
                        common<double>([value](const Clip& c) { const auto v = value(c); const auto* n = std::get_if<double>(&v); return n ? *n : 0; }),
                        change<double>(label, [set](Clip& c, double v) { set(c, v); }));
        return;
      }
      case ParamKind::Switch:
        form_.addSwitch(key, label, common<bool>([value](const Clip& c) { const auto v = value(c); const auto* b = std::get_if<bool>(&v); return b && *b; }),
                        change<bool>(label, [set](Clip& c, bool v) { set(c, v); }));
        return;
      case ParamKind::Text:
        form_.addText(key, label, common<QString>([value](const Clip& c) { const auto v = value(c); const auto* s = std::get_if<std::string>(&v); return s ? text(*s) : QString(); }),
                      change<QString>(label, [set](Clip& c, QString v) { set(c, v.toStdString()); }));
        return;
      case ParamKind::Choice: {
        QStringList words;
        for (const ParamChoice& choice : spec.choices) words << Form::tr(choice.label.c_str());
        form_.addChoice(key, label, words, common<int>([value, spec](const Clip& c) {
          const auto v = value(c);
          const auto* s = std::get_if<std::string>(&v);
          const auto found = std::find_if(spec.choices.begin(), spec.choices.end(), [&](const ParamChoice& choice) { return s && choice.key == *s; });
          return static_cast<int>(found - spec.choices.begin());
        }), change<int>(label, [set, spec](Clip& c, int v) { set(c, spec.choices.at(static_cast<std::size_t>(v)).key); }));
        return;
      }
    }
  }

 private:
  Form& form_;
  Session session_;
  ClipIds ids_;
};

std::optional<std::string> commonEffect(const Session& session, const ClipIds& ids) {
  const Score* score = session.stage.score();
  std::optional<std::string> key;
  for (const ClipId id : ids) {
    const Clip* clip = score ? findClip(*score, id) : nullptr;
    if (!clip) continue;
    if (key && *key != clip->effect) return std::nullopt;
    key = clip->effect;
  }
  return key;
}

void addLook(Form& form, ClipRows& rows, const Session& session) {
  QStringList effectNames;
  for (const Effect& effect : effects()) effectNames << text(effect.name);
  form.addChoice("effect", Form::tr("Effect"), effectNames, rows.common<int>([](const Clip& c) {
    const Effect* found = findEffect(c.effect);
    return found ? static_cast<int>(found - effects().data()) : -1;
  }), rows.change<int>(Form::tr("effect"), [](Clip& c, int v) {
    c.effect = effects().at(static_cast<std::size_t>(v)).key;
  }));
  QStringList paletteNames;
  std::vector<PaletteId> palettes;
  for (const auto& palette : session.show().palettes) {
    paletteNames << text(palette->name);
    palettes.push_back(palette->id);
  }
  form.addChoice("palette", Form::tr("Palette"), paletteNames, rows.common<int>([palettes](const Clip& c) {
    const auto found = std::find(palettes.begin(), palettes.end(), c.palette);
    return found == palettes.end() ? -1 : static_cast<int>(found - palettes.begin());
  }), rows.change<int>(Form::tr("palette"), [palettes](Clip& c, int v) { c.palette = palettes.at(static_cast<std::size_t>(v)); }));
  form.addNumber("strength", Form::tr("Strength"), {"%", 0, 100, 5, 0}, rows.common<double>([](const Clip& c) { return c.strength * 100; }),
                 rows.change<double>(Form::tr("strength"), [](Clip& c, double v) { c.strength = v / 100; }));
}

void addTiming(Form& form, ClipRows& rows) {
  form.addHeading(Form::tr("In time"));
  rows.time("clipStart", Form::tr("Starts at"), 0, &Clip::start);
  rows.time("clipLength", Form::tr("Lasts"), 0.02, &Clip::length);
  rows.time("fadeIn", Form::tr("Fade in"), 0, &Clip::fadeIn);
  rows.time("fadeOut", Form::tr("Fade out"), 0, &Clip::fadeOut);
  form.addHeading(Form::tr("With the layers below"));
  form.addNumber("layer", Form::tr("Layer"), {{}, 1, 20, 1, 0}, rows.common<double>([](const Clip& c) { return c.layer + 1; }),
                 rows.change<double>(Form::tr("layer"), [](Clip& c, double v) { c.layer = static_cast<int>(v) - 1; }));
  form.addChoice("blend", Form::tr("Blend"), {Form::tr("normal"), Form::tr("add"), Form::tr("lighten"), Form::tr("multiply"), Form::tr("screen"), Form::tr("mask")},
                 rows.common<int>([](const Clip& c) { return static_cast<int>(c.blend); }),
                 rows.change<int>(Form::tr("blend"), [](Clip& c, int v) { c.blend = static_cast<Blend>(v); }));
}

}  // namespace

std::unique_ptr<Form> makeClipForm(const Session& session, const ClipIds& ids) {
  auto form = std::make_unique<Form>();
  ClipRows rows(*form, session, ids);
  const auto key = commonEffect(session, ids);
  const Effect* effect = key ? findEffect(*key) : nullptr;
  const QString title = ids.size() > 1 ? Form::tr("%1 clips").arg(ids.size()) : effect ? text(effect->name) : Form::tr("Clip");
  form->addTitle(title, [session, ids]() -> std::optional<QString> {
    const Score* score = session.stage.score();
    const Clip* clip = score && ids.size() == 1 ? findClip(*score, ids.front()) : nullptr;
    if (!clip) return QString();
    const Zone* zone = chispa::find(session.show().zones, clip->zone);
    const MusicGrid grid = gridOf(*score);
    return Form::tr("clip on %1 · bars %2–%3").arg(zone ? text(zone->name) : QStringLiteral("?")).arg(static_cast<int>(grid.barAt(clip->start) + 1.01)).arg(static_cast<int>(grid.barAt(clip->end()) + 0.99));
  });
  form->addHeading(Form::tr("Colour"));
  addLook(*form, rows, session);
  if (effect) {
    form->addHeading(Form::tr("Motion"));
    for (const ParamSpec& spec : effect->params) rows.param(spec);
    form->addNumber("seed", Form::tr("Chance"), {{}, 0, 1'000'000, 1, 0}, rows.common<double>([](const Clip& c) { return c.seed; }),
                    rows.change<double>(Form::tr("chance"), [](Clip& c, double v) { c.seed = static_cast<std::uint32_t>(v); }));
  } else if (key) {
    form->addNote([key]() -> std::optional<QString> { return Form::tr("The effect “%1” is unknown to this version. It is kept; choose another to see light.").arg(text(*key)); });
  }
  addTiming(*form, rows);
  form->addStretch();
  return form;
}

QString clipFormKey(const Session& session, const ClipIds& ids) {
  QString key = text(commonEffect(session, ids).value_or("*"));
  for (const auto& palette : session.show().palettes) key += QLatin1Char('|') + text(palette->name);
  return key;
}

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
