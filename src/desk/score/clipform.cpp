// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/screencapture.h"
#include "core/effect/settings.h"
#include "core/render/compiled.h"
#include "core/show/limits.h"
#include "desk/parts/language.h"
#include "desk/parts/screenpicker.h"
#include "desk/score/cliprows.h"
#include "desk/score/scoreforms.h"

namespace chispa::desk {
namespace {

std::optional<std::string> commonEffect(const Session& session, const ClipAccess& clips) {
  std::optional<std::string> key;
  clips.each(session.show(), [&, isFirst = true](const Clip& clip) mutable {
    const bool isSame = isFirst || key == clip.effect;
    isFirst = false;
    key = isSame ? std::optional(clip.effect) : std::nullopt;
    return isSame;
  });
  return key;
}

void addColour(Form& form, ClipRows& rows, const Session& session) {
  QStringList effectNames;
  for (const Effect& effect : effects()) effectNames << said(effect.name);
  form.addChoice("effect", Form::tr("Effect"), effectNames, rows.common<int>([](const Clip& c) {
    const Effect* found = findEffect(c.effect);
    return found ? static_cast<int>(found - effects().data()) : -1;
  }),
                 rows.change<int>(Form::tr("effect"), [](Clip& c, int v) {
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
  }),
                 rows.change<int>(Form::tr("palette"), [palettes](Clip& c, int v) {
                   c.palette = palettes.at(static_cast<std::size_t>(v));
                 }));
  form.addNumber(
      "paletteShift", Form::tr("Palette shift"), {"%", -1000, 1000, 5, 0},
      rows.common<double>([](const Clip& c) { return c.paletteShift * 100; }),
      rows.change<double>(Form::tr("turn a palette"), [](Clip& c, double v) { c.paletteShift = v / 100; }));
  form.addNumber(
      "paletteTurns", Form::tr("Palette turns per bar"), {{}, -64, 64, 0.05, 2},
      rows.common<double>([](const Clip& c) { return c.paletteTurns; }),
      rows.change<double>(Form::tr("turning palette"), [](Clip& c, double v) { c.paletteTurns = v; }));
  form.addNumber("strength", Form::tr("Strength"), {"%", 0, 100, 5, 0},
                 rows.common<double>([](const Clip& c) { return c.strength * 100; }),
                 rows.change<double>(Form::tr("strength"), [](Clip& c, double v) { c.strength = v / 100; }));
}

void addTiming(Form& form, ClipRows& rows) {
  form.addHeading(Form::tr("Timing"));
  rows.time("clipStart", Form::tr("Starts at"), 0, &Clip::start);
  rows.time("clipLength", Form::tr("Length"), 0.02, &Clip::length);
  rows.time("fadeIn", Form::tr("Fade in"), 0, &Clip::fadeIn);
  rows.time("fadeOut", Form::tr("Fade out"), 0, &Clip::fadeOut);
  form.addChoice(
      "fadeShape", Form::tr("Fades"),
      {Form::tr("linear"), Form::tr("smooth"), Form::tr("ease in"), Form::tr("ease out")},
      rows.common<int>([](const Clip& c) { return static_cast<int>(c.fadeShape); }),
      rows.change<int>(Form::tr("fades"), [](Clip& c, int v) { c.fadeShape = static_cast<FadeShape>(v); }));
  form.addSwitch("givesWay", Form::tr("Crossfade to the next"),
                 rows.common<bool>([](const Clip& c) { return c.givesWay; }),
                 rows.change<bool>(Form::tr("crossfade"), [](Clip& c, bool on) { c.givesWay = on; }));
  form.addNumber("clipSpeed", Form::tr("Speed"),
                 {QStringLiteral("×"), limits::kSlowest, limits::kFastest, 0.1, 2},
                 rows.common<double>([](const Clip& c) { return c.speed; }),
                 rows.change<double>(Form::tr("speed"), [](Clip& c, double v) { c.speed = v; }));
  form.addNumber("clipSlip", Form::tr("Content offset"), {"s", -86'400, 86'400, 0.1, 3},
                 rows.common<double>([](const Clip& c) { return seconds(c.contentOffset); }),
                 rows.change<double>(Form::tr("content offset"),
                                     [](Clip& c, double v) { c.contentOffset = micros(v); }));
}

void addLayering(Form& form, ClipRows& rows) {
  form.addHeading(Form::tr("Blending"));
  form.addNumber(
      "layer", Form::tr("Layer"), {{}, 1, 20, 1, 0},
      rows.common<double>([](const Clip& c) { return c.layer + 1; }),
      rows.change<double>(Form::tr("layer"), [](Clip& c, double v) { c.layer = static_cast<int>(v) - 1; }));
  form.addChoice(
      "blend", Form::tr("Blend"),
      {Form::tr("normal"), Form::tr("add"), Form::tr("lighten"), Form::tr("multiply"), Form::tr("screen"),
       Form::tr("mask: dims what is below"), Form::tr("cut out by what is below")},
      rows.common<int>([](const Clip& c) { return static_cast<int>(c.blend); }),
      rows.change<int>(Form::tr("blend"), [](Clip& c, int v) { c.blend = static_cast<Blend>(v); }));
}

/// A parameter that counts only at one word of a choice is shown only then.
bool isShown(const Session& session, const ClipAccess& clips, const ParamSpec& spec) {
  if (spec.onlyIf.empty()) return true;
  bool isShown = false;
  clips.each(session.show(), [&](const Clip& clip) {
    const Effect* effect = findEffect(clip.effect);
    const auto index = effect ? paramIndex(*effect, spec.onlyIf) : std::nullopt;
    if (!index) return true;
    isShown = valueOf(effect->params[*index], clip.params) == ParamValue(spec.onlyIfWord);
    return !isShown;
  });
  return isShown;
}

bool isMovable(const ParamSpec& spec) {
  return spec.kind == ParamKind::Number && spec.canMove && spec.onlyIf.empty();
}

void addMotions(Form& form, ClipRows& rows, const Effect& effect) {
  form.addHeading(Form::tr("Modulation"));
  std::vector<std::pair<std::string, QString>> numbers;
  for (const ParamSpec& spec : effect.params)
    if (isMovable(spec)) numbers.emplace_back(spec.key, said(spec.label));
  rows.motion(kStrengthKey, Form::tr("Strength"), 0, 1, {});
  rows.motion(kPalettePlaceKey, Form::tr("Palette's place"), -1, 1, {});
  for (const ParamSpec& spec : effect.params)
    if (isMovable(spec)) rows.motion(spec.key, said(spec.label), spec.low, spec.high, numbers);
}

/// A spyhole's part of the screen is drawn on the screen itself.
void addScreenPart(Form& form, const Session& session, const std::shared_ptr<const ClipAccess>& clips) {
  form.addButton("spyholePick", Form::tr("Choose on the screen…"),
                 Form::tr("Draw a box around the part of the screen that is to be shown"), [session, clips] {
                   const Clip* clip = clips->first(session.show());
                   if (!clip) return;
                   auto* picker = new ScreenPicker(
                       screenPartOf(clip->params).screen,
                       Form::tr("Draw a box around what the zone is to show."),
                       [session, clips](const ScreenPart& part, const QImage&) {
                         session.edit(Form::tr("part of the screen"), [&](Show& show) {
                           clips->change(show, [&part](Clip& c) { setScreenPart(c.params, part); });
                         });
                       });
                   // It belongs to these clips, and goes with them.
                   const auto look = [session, picker, clips] {
                     if (!clips->first(session.show())) picker->close();
                   };
                   QObject::connect(&session.document, &Document::showChanged, picker, look);
                   QObject::connect(&session.document, &Document::opened, picker, &QWidget::close);
                   picker->show();
                 });
  form.addNote([session]() -> std::optional<QString> { return session.stage.screenTrouble(); });
  form.addNote([]() -> std::optional<QString> {
    return Form::tr(
        "It shows what is on the screen at that moment, in films of this window too. The command line leaves "
        "it clear.");
  });
}

/// The settings of the effect that all have.
void addSettings(Form& form, ClipRows& rows, const Effect& effect) {
  if (effect.settings.empty()) return;
  QStringList names{Form::tr("own values")};
  for (const EffectSetting& setting : effect.settings) names << said(setting.name);
  form.addChoice("setting", Form::tr("Setting"), names, rows.common<int>([&effect](const Clip& c) {
    const auto found = settingOf(effect, c.params);
    return found ? static_cast<int>(*found) + 1 : 0;
  }),
                 rows.change<int>(Form::tr("setting"), [&effect](Clip& c, int v) {
                   if (v > 0)
                     c.params =
                         withSetting(effect, effect.settings.at(static_cast<std::size_t>(v) - 1), c.params);
                 }));
}

/// Effect, colours and what the effect can be told; returns the effect that all have.
const Effect* addLight(Form& form, ClipRows& rows, const Session& session) {
  const ClipAccess& clips = *rows.clips();
  const auto key = commonEffect(session, clips);
  const Effect* effect = key ? findEffect(*key) : nullptr;
  form.addHeading(Form::tr("Colour"));
  addColour(form, rows, session);
  if (effect) {
    form.addHeading(Form::tr("Motion"));
    addSettings(form, rows, *effect);
    for (const ParamSpec& spec : effect->params)
      if (isShown(session, clips, spec)) rows.param(spec);
    if (*key == kScreenCapture) addScreenPart(form, session, rows.clips());
    form.addNumber("seed", Form::tr("Seed"), {{}, 0, 1'000'000, 1, 0},
                   rows.common<double>([](const Clip& c) { return c.seed; }),
                   rows.change<double>(Form::tr("seed"),
                                       [](Clip& c, double v) { c.seed = static_cast<std::uint32_t>(v); }));
  } else if (key) {
    form.addNote([key]() -> std::optional<QString> {
      return Form::tr("The effect “%1” is unknown to this version. It is kept; choose another to see light.")
          .arg(text(*key));
    });
  }
  return effect;
}

QString lightKey(const Session& session, const ClipAccess& clips) {
  QString key = text(commonEffect(session, clips).value_or("*"));
  if (const Effect* effect = findEffect(key.toStdString()))
    for (const ParamSpec& spec : effect->params)
      key += isShown(session, clips, spec) ? QLatin1Char('+') : QLatin1Char('-');
  if (const Clip* clip = clips.first(session.show()))
    for (const auto& [param, motion] : clip->motions)
      key += text(param) + QString::number(static_cast<int>(motion.driver));
  for (const auto& palette : session.show().palettes) key += QLatin1Char('|') + text(palette->name);
  return key;
}

}  // namespace

std::unique_ptr<Form> makeClipForm(const Session& session, const ClipIds& ids) {
  auto form = std::make_unique<Form>();
  ClipRows rows(*form, session, clipsOfScore(session, ids));
  const auto key = commonEffect(session, *rows.clips());
  const Effect* known = key ? findEffect(*key) : nullptr;
  const QString title = ids.size() > 1 ? Form::tr("%1 clips").arg(ids.size())
                        : known        ? said(known->name)
                                       : Form::tr("Clip");
  form->addTitle(title, [session, ids]() -> std::optional<QString> {
    const Score* score = session.stage.score();
    const Clip* clip = score && ids.size() == 1 ? findClip(*score, ids.front()) : nullptr;
    if (!clip) return QString();
    const Zone* zone = chispa::find(session.show().zones, clip->zone);
    const MusicGrid grid = gridOf(*score);
    return Form::tr("clip on %1 · bars %2–%3")
        .arg(zone ? text(zone->name) : QStringLiteral("?"))
        .arg(static_cast<int>(grid.barAt(clip->start) + 1.01))
        .arg(static_cast<int>(grid.barAt(clip->end()) + 0.99));
  });
  const Effect* effect = addLight(*form, rows, session);
  addTiming(*form, rows);
  addLayering(*form, rows);
  if (effect) addMotions(*form, rows, *effect);
  form->addStretch();
  return form;
}

QString clipFormKey(const Session& session, const ClipIds& ids) {
  return lightKey(session, *clipsOfScore(session, ids));
}

std::unique_ptr<Form> makeLayerForm(const Session& session, LookId look, ClipId layer) {
  auto form = std::make_unique<Form>();
  ClipRows rows(*form, session, layerOfLook(look, layer));
  const Clip* clip = rows.clips()->first(session.show());
  const Effect* known = clip ? findEffect(clip->effect) : nullptr;
  form->addTitle(known ? said(known->name) : Form::tr("Layer"),
                 [session, look, layer]() -> std::optional<QString> {
                   const Look* own = chispa::find(session.show().looks, look);
                   const Clip* one = own ? findLayer(*own, layer) : nullptr;
                   const Zone* zone = one ? chispa::find(session.show().zones, one->zone) : nullptr;
                   return Form::tr("%1 · on %2")
                       .arg(own ? text(own->name) : QString(), zone ? text(zone->name) : QStringLiteral("?"));
                 });
  form->addButton(QStringLiteral("backToLook"), Form::tr("Back to the look"),
                  Form::tr("Shows the look that this layer belongs to"),
                  [session, look] { session.selection.select(look); });
  const Effect* effect = addLight(*form, rows, session);
  form->addNumber("clipSpeed", Form::tr("Speed"),
                  {QStringLiteral("×"), limits::kSlowest, limits::kFastest, 0.1, 2},
                  rows.common<double>([](const Clip& c) { return c.speed; }),
                  rows.change<double>(Form::tr("speed"), [](Clip& c, double v) { c.speed = v; }));
  rows.time("layerRound", Form::tr("Round"), 0.05, &Clip::length);
  addLayering(*form, rows);
  if (effect) addMotions(*form, rows, *effect);
  form->addStretch();
  return form;
}

QString layerFormKey(const Session& session, LookId look, ClipId layer) {
  return lightKey(session, *layerOfLook(look, layer));
}

}  // namespace chispa::desk
