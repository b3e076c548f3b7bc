// SPDX-License-Identifier: GPL-3.0-or-later
// Every word of the window is in the catalogue of languages, and the window fits in them.
#include "desk/parts/language.h"

#include <set>

#include "scenes.h"
#include <QDirIterator>
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

#include "core/almanac/nightwords.h"
#include "core/effect/effect.h"
#include "desk/run/nightwords.h"

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
  for (const char* name : {"check/problems.cpp", "check/wireproblems.cpp", "check/liveproblems.cpp",
                           "check/flashes.cpp", "edit/bindingedits.cpp", "almanac/nightwords.cpp"}) {
    QFile file(QStringLiteral(CHISPA_SOURCE_DIR "/src/core/") + QLatin1String(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    QString source = QString::fromUtf8(file.readAll());
    source.remove(QRegularExpression(QStringLiteral("//[^\n]*|#include[^\n]*")));
    source.remove(QRegularExpression(QStringLiteral("\"\\s*\\n\\s*\"")));
    // Of problems all have several words.
    const bool hasSingle =
        source.contains(QStringLiteral("describeTarget")) || source.contains(QStringLiteral("sunset"));
    static const QRegularExpression literal(QStringLiteral("\"([^\"\\n]*[A-Za-z]{2}[^\"\\n]*)\""));
    for (auto match = literal.globalMatch(source); match.hasNext();) {
      const QString words = match.next().captured(1);
      if (words.contains(QLatin1Char(' ')) || (hasSingle && words.size() > 3)) sentences.insert(words);
    }
  }
  EXPECT_GT(sentences.size(), 50U);
  return sentences;
}

/// The source of `name` from the bracket at `from` to the one that closes it.
QString bracketed(const QString& source, qsizetype from) {
  int depth = 0;
  bool isLiteral = false;
  for (qsizetype i = from; i < source.size(); ++i) {
    const QChar c = source[i];
    if (c == QLatin1Char('"') && source[i - 1] != QLatin1Char('\\')) isLiteral = !isLiteral;
    if (isLiteral) continue;
    depth += c == QLatin1Char('{') || c == QLatin1Char('(');
    depth -= c == QLatin1Char('}') || c == QLatin1Char(')');
    if (depth == 0) return source.mid(from, i - from);
  }
  return source.mid(from);
}

/// All that failures say, of every layer that has words for the window: literals of more than a word where
/// failures are made.
std::set<QString> wordsOfFailures() {
  static const QRegularExpression makes(QStringLiteral(
      R"(\bFailure\{|\bFailure (?:\w+::)?\w+\([^;{}]*\)(?: const)? \{|-> Failure \{|\bk\w*Cure =|)"
      R"(\bsentence\(|\b(?:fail|unreadable|pictureFailure|damaged|cannot|systemFailure|)"
      R"(wrongLine|parseJson|return failure|cannotListen)\()"));
  static const QRegularExpression literal(QStringLiteral(R"re("((?:[^"\\\n]|\\.)*)")re"));
  static const QRegularExpression letters(QStringLiteral("[A-Za-z]{2}"));
  std::set<QString> words;
  for (const char* layer : {"core", "link", "engine", "desk", "phone"}) {
    QDirIterator files(QStringLiteral(CHISPA_SOURCE_DIR "/src/") + QLatin1String(layer),
                       {QStringLiteral("*.cpp"), QStringLiteral("*.h")}, QDir::Files,
                       QDirIterator::Subdirectories);
    while (files.hasNext()) {
      QFile file(files.next());
      EXPECT_TRUE(file.open(QIODevice::ReadOnly));
      QString source = QString::fromUtf8(file.readAll());
      source.remove(QRegularExpression(QStringLiteral("//[^\n]*")));
      source.remove(QRegularExpression(QStringLiteral("\"\\s*\\n\\s*\"")));
      for (auto made = makes.globalMatch(source); made.hasNext();) {
        const auto place = made.next();
        // The cure of many failures stands alone, as a constant.
        const bool isConstant = place.captured().endsWith(QLatin1Char('='));
        const qsizetype end = place.capturedEnd();
        const QString inside = isConstant
                                   ? source.mid(end, source.indexOf(QStringLiteral("\";"), end) + 1 - end)
                                   : bracketed(source, end - 1);
        for (auto match = literal.globalMatch(inside); match.hasNext();) {
          const QString word = match.next().captured(1).replace(QStringLiteral("\\\""), QStringLiteral("\""));
          if (word.contains(QLatin1Char(' ')) && word.contains(letters)) words.insert(word);
        }
      }
    }
  }
  EXPECT_GT(words.size(), 200U);
  return words;
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

TEST(Spanish, HasEveryWordOfFailures) {
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  QStringList missing;
  for (const QString& words : wordsOfFailures()) {
    const QString said = inSpanish(spanish, QStringLiteral("core"), words);
    if (said.isEmpty() || skeleton(said) != skeleton(words)) missing << words;
  }
  EXPECT_TRUE(missing.isEmpty()) << missing.join(QLatin1Char('\n')).toStdString();
}

/// A failure is said in the window's language: its sentence, the words and the names in it, and the cure.
TEST(Spanish, SaysFailures) {
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  QCoreApplication::installTranslator(&spanish);
  const Failure failure{sentence("%1 is damaged at byte %2 of %3.", "The show", 12, 40), "fair.chispa",
                        "Open a backup."};
  EXPECT_EQ(said(failure).toStdString(),
            "fair.chispa: El espectáculo está dañado en el byte 12 de 40.\nAbre una copia de seguridad.");
  EXPECT_EQ(failure.text(), "fair.chispa: The show is damaged at byte 12 of 40.\nOpen a backup.");
  // A name stays what it is, be it a word of the program too.
  EXPECT_EQ(said(sentence("No pixels hang on “%1”.", std::string("The show"))).toStdString(),
            "De «The show» no cuelga ningún píxel.");
  QCoreApplication::removeTranslator(&spanish);
}

/// The phone page has its own catalogue, as it is served as it stands: all that it says is in it.
TEST(Spanish, HasEveryWordOfThePhonePage) {
  const auto read = [](const char* name) {
    QFile file(QStringLiteral(CHISPA_SOURCE_DIR "/src/phone/page/") + QLatin1String(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return QString::fromUtf8(file.readAll());
  };
  const auto all = [](const QString& source, const char* pattern) {
    QStringList found;
    const QRegularExpression expression(QString::fromUtf8(pattern));
    for (auto match = expression.globalMatch(source); match.hasNext();) found << match.next().captured(1);
    return found;
  };
  const QString page = read("index.html").section(QStringLiteral("<body>"), 1);
  const QString script = read("page.js");
  QStringList words = all(page, R"re(>([^<>\n]*[A-Za-z]{2}[^<>\n]*)<)re");
  words << all(page, R"re((?:alt|aria-label)="([^"]+)")re") << all(script, R"re(\bsay\('([^']+)')re");
  words.removeAll(QStringLiteral("Chispa"));
  EXPECT_GT(words.size(), 30);
  const QString catalogue =
      script.section(QStringLiteral("const kWords"), 1).section(QStringLiteral("};"), 0, 0);
  for (const QString& word : words)
    EXPECT_TRUE(catalogue.contains(QLatin1Char('\'') + word + QStringLiteral("':"))) << word.toStdString();
  for (const QString& word : all(catalogue, R"re((?m)^    '([^']+)':)re"))
    EXPECT_TRUE(words.contains(word)) << "nothing says " << word.toStdString();
}

/// The window's own words for rules are, in English, those of the command line; in Spanish they are Spanish.
TEST(Nights, AreSaidInTheLanguageOfTheWindow) {
  std::vector<RuleDays> all(5);
  all[0].weekdays = 0b1110000;
  all[0].first = "11-27";
  all[0].last = "01-06";
  all[0].except = {"12-24"};
  all[1].only = {"2026-12-24", "2026-12-31"};
  all[2].weekdays = 0b0000101;
  all[2].first = "03-01";
  all[3].last = "2027-02-01";
  for (const RuleDays& days : all) EXPECT_EQ(daysText(days).toStdString(), describeDays(days));
  std::vector<NightTime> times{{NightTimeKind::Clock, 5 * 60 + 7}};
  for (const auto kind :
       {NightTimeKind::Sunset, NightTimeKind::Dusk, NightTimeKind::Dawn, NightTimeKind::Sunrise})
    for (const int minutes : {0, 20, -120}) times.push_back({kind, minutes});
  for (const NightTime& time : times) EXPECT_EQ(nightTimeText(time).toStdString(), describeTime(time));
  WordCatalogue spanish;
  ASSERT_TRUE(spanish.take(QStringLiteral("es")));
  QCoreApplication::installTranslator(&spanish);
  EXPECT_EQ(nightTimeText({NightTimeKind::Dusk, -20}).toStdString(), "20 min antes del anochecer");
  EXPECT_EQ(daysText({}).toStdString(), "todos los días");
  QCoreApplication::removeTranslator(&spanish);
}

TEST(Spanish, HasNoWordThatNothingSays) {
  std::set<QString> said = wordsOfEffects();
  said.merge(sentencesOfCore());
  said.merge(wordsOfFailures());
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
