// SPDX-License-Identifier: GPL-3.0-or-later
#include <QFileDialog>
#include <QFontDatabase>

#include "core/base/relativepath.h"
#include "core/edit/curveedits.h"
#include "core/effect/textraster.h"
#include "core/media/shown.h"
#include "desk/parts/language.h"
#include "desk/score/cliprows.h"
#include "desk/score/drawingeditor.h"
#include "desk/score/formulafield.h"

namespace chispa::desk {
namespace {

/// A clip's own value of a parameter, or the effect's.
template <class T>
T valueAs(const Clip& clip, const ParamSpec& spec) {
  const T* own = std::get_if<T>(&valueOf(spec, clip.params));
  return own ? *own : T{};
}

/// Writes a value of the parameter into a clip.
auto setterOf(const ParamSpec& spec) {
  return [key = spec.key](Clip& c, ParamValue v) { c.params[key] = std::move(v); };
}

using Words = Form::Get<QString>;
using SetWords = Form::Set<QString>;

void addNumber(const ClipRows& rows, const ParamSpec& spec, const QString& key, const QString& label) {
  const auto set = setterOf(spec);
  const int decimals = spec.step >= 1 ? 0 : spec.step >= 0.1 ? 1 : spec.low < 0.01 && spec.low > 0 ? 3 : 2;
  rows.form().addNumber(key, label, {said(spec.unit), spec.low, spec.high, spec.step, decimals},
                        rows.common<double>([spec](const Clip& c) { return valueAs<double>(c, spec); }),
                        rows.change<double>(label, [set](Clip& c, double v) { set(c, v); }));
}

void addDrawing(const ClipRows& rows, const ParamSpec& spec, const QString& key, const Words& words,
                const SetWords& setWords) {
  rows.form().addButton(
      key, Form::tr("Draw…"), Form::tr("Opens the drawing, dot by dot and frame by frame"),
      [session = rows.session(), spec, clips = rows.clips(), words, setWords] {
        const Clip* clip = clips->first(session.show());
        const Palette* palette = clip ? chispa::find(session.show().palettes, clip->palette) : nullptr;
        if (!clip) return;
        auto* editor =
            new DrawingEditor(palette ? *palette : Palette{}, words().value_or(QString()), setWords);
        editor->setAttribute(Qt::WA_DeleteOnClose);
        // It belongs to this clip, and goes with it or with another score.
        const ScoreId own = session.stage.score() ? session.stage.score()->id : ScoreId{};
        const auto drawn = [session, spec, clips, own]() -> std::optional<QString> {
          const Score* open = session.stage.score();
          const Clip* one = (open ? open->id : ScoreId{}) == own ? clips->first(session.show()) : nullptr;
          return one ? std::optional(text(valueAs<std::string>(*one, spec))) : std::nullopt;
        };
        const auto follow = [editor, drawn] { editor->follow(drawn()); };
        QObject::connect(&session.document, &Document::showChanged, editor, follow);
        QObject::connect(&session.stage, &Stage::scoreChanged, editor, follow);
        QObject::connect(&session.document, &Document::opened, editor, &QWidget::close);
        editor->show();
      });
}

void addFile(const ClipRows& rows, const QString& key, const QString& label, const Words& words,
             const SetWords& setWords) {
  rows.form().addText(key, label, words, setWords);
  rows.form().addButton(key + QStringLiteral("-choose"), Form::tr("Choose…"),
                        Form::tr("A picture, an animated one or a video"),
                        [session = rows.session(), setWords] {
                          const QString file = QFileDialog::getOpenFileName(
                              nullptr, Form::tr("Picture or video"), {},
                              Form::tr("Pictures and videos (*.png *.jpg *.jpeg *.gif *.webp *.mp4 *.webm "
                                       "*.avi *.mkv *.rgb);;All files (*)"));
                          if (!file.isEmpty())
                            setWords(text(relativeName(session.document.path(), file.toStdString())));
                        });
  rows.form().addNote([session = rows.session(), words, clips = rows.clips()]() -> std::optional<QString> {
    const Clip* one = clips->first(session.show());
    return words() && one ? session.stage.mediaTrouble(mediaName(one->effect, words()->toStdString()))
                          : QString();
  });
}

void addFont(const ClipRows& rows, const QString& key, const QString& label, const Words& words,
             const SetWords& setWords) {
  QStringList fonts = QFontDatabase::families();
  fonts.prepend(QLatin1String(kDotFont));
  rows.form().addChoice(
      key, label, fonts,
      [words, fonts]() -> std::optional<int> {
        return words() ? std::optional(static_cast<int>(fonts.indexOf(*words()))) : std::nullopt;
      },
      [setWords, fonts](int v) { setWords(fonts.value(v)); });
}

void addZone(const ClipRows& rows, const ParamSpec& spec, const QString& key, const QString& label) {
  const auto set = setterOf(spec);
  QStringList names;
  std::vector<double> zones;
  for (const auto& zone : rows.session().show().zones) {
    names << text(zone->name);
    zones.push_back(zone->id.value);
  }
  rows.form().addChoice(key, label, names, rows.common<int>([spec, zones](const Clip& c) {
    const auto found = std::find(zones.begin(), zones.end(), valueAs<double>(c, spec));
    return found == zones.end() ? -1 : static_cast<int>(found - zones.begin());
  }),
                        rows.change<int>(label, [set, zones](Clip& c, int v) {
                          set(c, zones.at(static_cast<std::size_t>(v)));
                        }));
}

void addChoice(const ClipRows& rows, const ParamSpec& spec, const QString& key, const QString& label) {
  const auto set = setterOf(spec);
  QStringList choices;
  for (const ParamChoice& choice : spec.choices) choices << said(choice.label);
  rows.form().addChoice(key, label, choices, rows.common<int>([spec](const Clip& c) {
    const auto word = valueAs<std::string>(c, spec);
    const auto found = std::find_if(spec.choices.begin(), spec.choices.end(),
                                    [&](const ParamChoice& choice) { return word == choice.key; });
    return static_cast<int>(found - spec.choices.begin());
  }),
                        rows.change<int>(label, [set, spec](Clip& c, int v) {
                          set(c, spec.choices.at(static_cast<std::size_t>(v)).key);
                        }));
}

}  // namespace

void ClipRows::param(const ParamSpec& spec) {
  const QString key = QStringLiteral("param-") + text(spec.key);
  const QString label = said(spec.label);
  const auto set = setterOf(spec);
  const auto words = common<QString>([spec](const Clip& c) { return text(valueAs<std::string>(c, spec)); });
  const auto setWords = change<QString>(label, [set](Clip& c, const QString& v) { set(c, v.toStdString()); });
  switch (spec.kind) {
    case ParamKind::Number:
      return addNumber(*this, spec, key, label);
    case ParamKind::Switch:
      form_.addSwitch(key, label, common<bool>([spec](const Clip& c) { return valueAs<bool>(c, spec); }),
                      change<bool>(label, [set](Clip& c, bool v) { set(c, v); }));
      return;
    case ParamKind::Text:
      form_.addText(key, label, words, setWords);
      return;
    case ParamKind::Formula: {
      auto* field = new FormulaField(words, setWords);
      form_.addWidget(field, [field] { field->refresh(); });
      return;
    }
    case ParamKind::Drawing:
      return addDrawing(*this, spec, key, words, setWords);
    case ParamKind::File:
      return addFile(*this, key, label, words, setWords);
    case ParamKind::Font:
      return addFont(*this, key, label, words, setWords);
    case ParamKind::Zone:
      return addZone(*this, spec, key, label);
    case ParamKind::Choice:
      return addChoice(*this, spec, key, label);
  }
}

void ClipRows::motion(const std::string& key, const QString& label, double low, double high,
                      const std::vector<std::pair<std::string, QString>>& others) {
  const QString name = QStringLiteral("motion-") + text(key);
  const auto get = [key](const Clip& c) -> const Motion* {
    const auto found = c.motions.find(key);
    return found == c.motions.end() ? nullptr : &found->second;
  };
  // Curves first, then the music, then the other parameters.
  struct Choice {
    QString words;
    Motion motion;
  };
  std::vector<Choice> choices = {
      {Form::tr("stays as it is"), {}},
      {Form::tr("rises over the clip"), {Driver::Curve, low, high, {{0, 0}, {1, 1}}, 0, {}}},
      {Form::tr("falls over the clip"), {Driver::Curve, low, high, {{0, 1}, {1, 0}}, 0, {}}},
      {Form::tr("rises and falls"), {Driver::Curve, low, high, {{0, 0}, {0.5, 1}, {1, 0}}, 0, {}}},
      {Form::tr("follows the level"), {Driver::Level, low, high, {}, 0, {}}},
      {Form::tr("follows the low band"), {Driver::Band, low, high, {}, 1, {}}},
      {Form::tr("follows the middle band"), {Driver::Band, low, high, {}, kBands / 2, {}}},
      {Form::tr("follows the high band"), {Driver::Band, low, high, {}, kBands - 3, {}}},
      {Form::tr("jumps at low onsets"), {Driver::Onset, low, high, {}, 0, {}}},
      {Form::tr("jumps at high onsets"), {Driver::Onset, low, high, {}, 2, {}}},
      {Form::tr("runs through each beat"), {Driver::BeatPhase, low, high, {}, 0, {}}},
      {Form::tr("runs through each bar"), {Driver::BarPhase, low, high, {}, 0, {}}}};
  for (const auto& [other, words] : others)
    if (other != key)
      choices.push_back({Form::tr("follows “%1”").arg(words), {Driver::Parameter, low, high, {}, 0, other}});
  QStringList names;
  for (const Choice& choice : choices) names << choice.words;
  names << Form::tr("a curve of its own");
  form_.addChoice(name, label, names, common<int>([get, choices](const Clip& c) {
                    const Motion* motion = get(c);
                    if (!motion) return 0;
                    for (std::size_t i = 1; i < choices.size(); ++i) {
                      const Motion& one = choices[i].motion;
                      if (one.driver == motion->driver && one.points == motion->points &&
                          one.band == motion->band && one.parameter == motion->parameter)
                        return static_cast<int>(i);
                    }
                    return static_cast<int>(choices.size());
                  }),
                  change<int>(label, [key, choices](Clip& c, int v) {
                    if (v == 0) {
                      c.motions.erase(key);
                    } else if (static_cast<std::size_t>(v) < choices.size()) {
                      Motion next = choices[static_cast<std::size_t>(v)].motion;
                      // Limits that were set stay when only what drives it changes.
                      if (const auto was = c.motions.find(key); was != c.motions.end())
                        next.low = was->second.low, next.high = was->second.high;
                      c.motions[key] = next;
                    }
                  }));
  addMotionRows(key, label, low, high, get);
}

void ClipRows::addMotionRows(const std::string& key, const QString& label, double low, double high,
                             const std::function<const Motion*(const Clip&)>& get) {
  const Clip* first = clips_->first(session_.show());
  const Motion* motion = first ? get(*first) : nullptr;
  if (!motion) return;
  const auto limit = [&](const char* which, const QString& words, double Motion::*member) {
    form_.addNumber(QString::fromLatin1(which) + text(key), words, {{}, low, high, (high - low) / 100, 2},
                    common<double>([get, member](const Clip& c) { return get(c) ? get(c)->*member : 0.0; }),
                    change<double>(label, [key, member](Clip& c, double v) {
                      if (const auto found = c.motions.find(key); found != c.motions.end())
                        found->second.*member = v;
                    }));
  };
  limit("motionLow-", Form::tr("  from"), &Motion::low);
  limit("motionHigh-", Form::tr("  to"), &Motion::high);
  if (motion->driver != Driver::Curve) return;
  form_.addText(
      QStringLiteral("curve-") + text(key), Form::tr("  points"),
      common<QString>([get](const Clip& c) { return get(c) ? text(curveText(get(c)->points)) : QString(); }),
      change<QString>(label, [key](Clip& c, QString v) {
        const auto found = c.motions.find(key);
        const auto curve = parseCurve(v.toStdString());
        if (found != c.motions.end() && curve) found->second.points = *curve;
      }));
  form_.addNote([]() -> std::optional<QString> {
    return Form::tr(
        "Per cent of the clip : per cent of the way. Or drag the points on the clip; double click the curve "
        "for a new one, right click removes one.");
  });
}

}  // namespace chispa::desk
