// SPDX-License-Identifier: GPL-3.0-or-later
// Every word of the window is in the catalogue of languages, and the window fits in them.
#include "desk/parts/language.h"

#include <set>

#include "scenes.h"
#include <QGroupBox>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLabel>
#include <QMenu>
#include <QProcess>
#include <QRegularExpression>
#include <QScrollArea>
#include <QToolButton>
#include <QXmlStreamReader>

#include "core/effect/effect.h"

namespace chispa::desk {
namespace {

/// Words as they stand in the source: context and English.
using SourceWord = std::pair<QString, QString>;

/// All that the source translates, as Qt's own tool finds it.
std::vector<SourceWord> wordsOfTheSource() {
  const test::TemporaryFolder folder;
  const QString file = QString::fromStdString((folder.path() / "words.ts").string());
  QProcess lupdate;
  lupdate.setProgram(QStringLiteral("/usr/lib/qt6/bin/lupdate"));
  lupdate.setArguments({QStringLiteral("-silent"), QStringLiteral("-I"),
                        QStringLiteral(CHISPA_SOURCE_DIR "/src"),
                        QStringLiteral(CHISPA_SOURCE_DIR "/src/desk"), QStringLiteral("-ts"), file});
  lupdate.start();
  EXPECT_TRUE(lupdate.waitForFinished(120'000)) << "qt6-l10n-tools is needed";
  std::vector<SourceWord> words;
  QFile ts(file);
  EXPECT_TRUE(ts.open(QIODevice::ReadOnly));
  QXmlStreamReader reader(&ts);
  QString context;
  while (!reader.atEnd()) {
    if (reader.readNext() != QXmlStreamReader::StartElement) continue;
    if (reader.name() == QLatin1String("name")) context = reader.readElementText();
    if (reader.name() == QLatin1String("source")) words.emplace_back(context, reader.readElementText());
  }
  return words;
}

/// All that core says of its effects.
std::set<QString> wordsOfEffects() {
  std::set<QString> words;
  const auto add = [&](const std::string& word) {
    if (!word.empty()) words.insert(QString::fromStdString(word));
  };
  for (const Effect& effect : effects()) {
    for (const std::string* word : {&effect.name, &effect.summary, &effect.use}) add(*word);
    for (const EffectSetting& setting : effect.settings) add(setting.name);
    for (const ParamSpec& param : effect.params) {
      add(param.label);
      add(param.unit);
      for (const ParamChoice& choice : param.choices) add(choice.label);
    }
  }
  return words;
}

/// All that core says in sentences: the literals of more than a word in the files that say them.
std::set<QString> sentencesOfCore() {
  std::set<QString> sentences;
  for (const char* name : {"check/problems.cpp", "check/flashes.cpp", "edit/bindingedits.cpp"}) {
    QFile file(QStringLiteral(CHISPA_SOURCE_DIR "/src/core/") + QLatin1String(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    QString source = QString::fromUtf8(file.readAll());
    source.remove(QRegularExpression(QStringLiteral("//[^\n]*|#include[^\n]*")));
    source.remove(QRegularExpression(QStringLiteral("\"\\s*\\n\\s*\"")));
    // Of problems all have several words.
    const bool hasSingle = source.contains(QStringLiteral("describeTarget"));
    static const QRegularExpression literal(QStringLiteral("\"([^\"\\n]*[A-Za-z]{2}[^\"\\n]*)\""));
    for (auto match = literal.globalMatch(source); match.hasNext();) {
      const QString words = match.next().captured(1);
      if (words.contains(QLatin1Char(' ')) || (hasSingle && words.size() > 4)) sentences.insert(words);
    }
  }
  EXPECT_GT(sentences.size(), 50U);
  return sentences;
}

/// What must be the same in every language: the places of names and numbers, and spaces at the ends.
QString skeleton(const QString& words) {
  static const QRegularExpression places(QStringLiteral("%L?\\d+"));
  QStringList found;
  for (auto match = places.globalMatch(words); match.hasNext();) found << match.next().captured();
  found.sort();
  const bool begins = words.startsWith(QLatin1Char(' '));
  const bool ends = words.endsWith(QLatin1Char(' '));
  return found.join(QLatin1Char(' ')) + QLatin1String(begins ? "<" : "") + QLatin1String(ends ? ">" : "");
}

QString inSpanish(const WordCatalogue& spanish, const QString& context, const QString& word) {
  return spanish.translate(context.toUtf8().constData(), word.toUtf8().constData(), nullptr, -1);
}

TEST(Spanish, HasEveryWordOfTheWindow) {
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  const auto words = wordsOfTheSource();
  EXPECT_GT(words.size(), 2'000U);
  QStringList missing, broken;
  for (const auto& [context, word] : words) {
    const QString said = inSpanish(spanish, context, word);
    if (said.isEmpty()) missing << word;
    if (!said.isEmpty() && skeleton(said) != skeleton(word)) broken << word + QStringLiteral(" → ") + said;
  }
  EXPECT_TRUE(missing.isEmpty()) << missing.join(QLatin1Char('\n')).toStdString();
  EXPECT_TRUE(broken.isEmpty()) << broken.join(QLatin1Char('\n')).toStdString();
}

TEST(Spanish, HasEveryWordOfTheEffects) {
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  QStringList missing;
  for (const QString& word : wordsOfEffects())
    if (inSpanish(spanish, QStringLiteral("core"), word).isEmpty()) missing << word;
  EXPECT_TRUE(missing.isEmpty()) << missing.join(QLatin1Char('\n')).toStdString();
}

TEST(Spanish, HasEverySentenceOfCore) {
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  QStringList missing;
  for (const QString& sentence : sentencesOfCore()) {
    const QString said = inSpanish(spanish, QStringLiteral("core"), sentence);
    if (said.isEmpty() || skeleton(said) != skeleton(sentence)) missing << sentence;
  }
  EXPECT_TRUE(missing.isEmpty()) << missing.join(QLatin1Char('\n')).toStdString();
}

TEST(Spanish, HasNoWordThatNothingSays) {
  std::set<QString> said = wordsOfEffects();
  said.merge(sentencesOfCore());
  for (const auto& [context, word] : wordsOfTheSource()) said.insert(word);
  QFile file(QStringLiteral(CHISPA_SOURCE_DIR "/src/desk/words/es.json"));
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  QStringList idle;
  for (const QString& key : QJsonDocument::fromJson(file.readAll()).object().keys()) {
    const QString word = key.section(QLatin1Char('|'), -1);
    if (!said.contains(word)) idle << key;
  }
  EXPECT_TRUE(idle.isEmpty()) << idle.join(QLatin1Char('\n')).toStdString();
}

/// Installed before the window is made.
template <class Words>
struct Speaking {
  Speaking() { QCoreApplication::installTranslator(&words_); }
  ~Speaking() { QCoreApplication::removeTranslator(&words_); }

 private:
  Words words_;
};

struct SpanishWords : WordCatalogue {
  SpanishWords() { EXPECT_TRUE(take(QStringLiteral("es"))); }
};

/// Brackets about all that is translated: what stands without them is not.
struct Brackets : QTranslator {
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* source, const char*, int) const override {
    static const QRegularExpression keys(QStringLiteral("^(Ctrl|Alt|Shift|F\\d)"));
    const QString words = QString::fromUtf8(source);
    return keys.match(words).hasMatch() ? words : QStringLiteral("⟦") + words + QStringLiteral("⟧");
  }
};

class InSpanish : private Speaking<SpanishWords>, public DemoScenes {};
class InBrackets : private Speaking<Brackets>, public DemoScenes {};

/// What needs most room in a row.
QString widestOf(const QWidget& window) {
  QStringList wide;
  for (const QWidget* widget : window.findChildren<QWidget*>())
    if (widget->minimumSizeHint().width() > 440)
      wide << QStringLiteral("%1 %2 %3")
                  .arg(QLatin1String(widget->metaObject()->className()), widget->objectName())
                  .arg(widget->minimumSizeHint().width());
  return wide.join(QStringLiteral(", "));
}

class EmptyInSpanish : private Speaking<SpanishWords>, public WindowTest {};

TEST_F(EmptyInSpanish, TheWindowFits) {
  EXPECT_LE(window_.minimumSizeHint().width(), 1280) << widestOf(window_).toStdString();
}

TEST_F(InSpanish, TheWindowFits) {
  QStringList cut;
  for (const Scene& scene : scenes()) {
    go(scene);
    EXPECT_TRUE(window_.width() == 1280 && window_.height() == 800)
        << window_.width() << " × " << window_.height() << ": " << scene.name.toStdString()
        << " makes the window grow: " << widestOf(window_).toStdString();
    for (const QAbstractButton* button : cutButtons())
      // Pads shorten the names of looks with dots.
      if (!button->inherits("chispa::desk::LookPad"))
        cut << scene.name + QStringLiteral(": ") + button->text();
  }
  EXPECT_TRUE(cut.isEmpty()) << cut.join(QLatin1Char('\n')).toStdString();
}

/// Forms are not cut off at their right end.
TEST_F(InSpanish, TheInspectorFits) {
  QStringList cut;
  for (const Scene& scene : scenes()) {
    go(scene);
    for (const QScrollArea* area : window_.findChildren<QScrollArea*>()) {
      if (!area->isVisible() || !area->widget()) continue;
      const int wanted = area->widget()->minimumSizeHint().width();
      if (wanted <= area->viewport()->width()) continue;
      cut << QStringLiteral("%1: %2 wants %3 of %4: ")
                 .arg(scene.name, area->objectName())
                 .arg(wanted)
                 .arg(area->viewport()->width());
      for (const QWidget* widget : area->widget()->findChildren<QWidget*>())
        if (widget->isVisible() && widget->minimumSizeHint().width() > area->viewport()->width() - 30)
          cut << QLatin1String("  ") + QLatin1String(widget->metaObject()->className()) + QLatin1Char(' ') +
                     widget->objectName();
    }
  }
  EXPECT_TRUE(cut.isEmpty()) << cut.join(QLatin1Char('\n')).toStdString();
}

TEST_F(InSpanish, EffectsAreCalledByTheirSpanishNames) {
  window_.showWorkspace(Workspace::Score);
  QCoreApplication::processEvents();
  // Without the accent: keys of the test's hand are ASCII.
  type("effectSearch", QStringLiteral("nagas"));
  auto* shelf = the<QListWidget>("effectShelf");
  QStringList shown;
  for (int i = 0; i < shelf->count(); ++i)
    if (!shelf->item(i)->isHidden()) shown << shelf->item(i)->text();
  EXPECT_TRUE(shown.contains(QStringLiteral("Luciérnagas"))) << shown.join(QLatin1Char(',')).toStdString();
}

/// Words that a person reads in the window now, with who says them.
std::vector<std::pair<QString, QString>> wordsInSight(const QWidget& window) {
  std::vector<std::pair<QString, QString>> words;
  const auto add = [&](const QObject& who, const QString& said) {
    words.emplace_back(said,
                       QLatin1String(who.metaObject()->className()) + QLatin1Char(' ') + who.objectName());
  };
  for (const QWidget* widget : window.findChildren<QWidget*>()) {
    if (!widget->isVisible()) continue;
    add(*widget, widget->toolTip());
    if (const auto* label = qobject_cast<const QLabel*>(widget)) add(*widget, label->text());
    if (const auto* button = qobject_cast<const QAbstractButton*>(widget)) add(*widget, button->text());
    if (const auto* group = qobject_cast<const QGroupBox*>(widget)) add(*widget, group->title());
    if (const auto* line = qobject_cast<const QLineEdit*>(widget)) add(*widget, line->placeholderText());
  }
  for (const QAction* action : window.findChildren<QAction*>()) add(*action, action->text());
  return words;
}

/// Names of the show, of files, of devices and of time zones are the same in every language. What a rule of
/// the almanac says of its days is put together in core, and English so far.
bool isName(const QString& words, const Show& show) {
  static const QRegularExpression letters(QStringLiteral("\\p{L}{3,}"));
  static const QRegularExpression same(QStringLiteral(
      "^(/.*|#[0-9a-f]{6}|[0-9.]+ \\(\\w+\\)|\\w+/\\w+|<b [^>]*>—</b> &nbsp; [0-9:.]+|every day, .*)$"));
  if (!letters.match(words).hasMatch() || same.match(words).hasMatch()) return true;
  std::set<std::string> names{show.name};
  const auto add = [&](const auto& items) {
    for (const auto& item : items) names.insert(item->name);
  };
  add(show.fixtures);
  add(show.zones);
  add(show.controllers);
  add(show.palettes);
  add(show.looks);
  add(show.scores);
  add(show.setLists);
  add(show.rules);
  add(show.stripTypes);
  add(show.supplies);
  add(show.bindings);
  return std::any_of(names.begin(), names.end(), [&](const std::string& name) {
    return !name.empty() && words.contains(QString::fromStdString(name));
  });
}

TEST_F(InBrackets, EveryWordInSightIsTranslated) {
  std::set<QString> bare;
  for (const Scene& scene : scenes()) {
    go(scene);
    for (const auto& [words, who] : wordsInSight(window_))
      if (!words.contains(QStringLiteral("⟦")) && !isName(words, show()))
        bare.insert(words + QStringLiteral(" (") + who + QLatin1Char(')'));
  }
  QString told;
  for (const QString& words : bare) told += words + QLatin1Char('\n');
  EXPECT_TRUE(bare.empty()) << told.toStdString();
}

}  // namespace
}  // namespace chispa::desk
