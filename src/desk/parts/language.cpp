// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/language.h"

#include <QCoreApplication>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLibraryInfo>
#include <QLocale>
#include <QSettings>

#include "desk/parts/resources.h"

namespace chispa::desk {
namespace {

const QString kLanguage = QStringLiteral("language");
const QString kNumbers = QStringLiteral("numbers");

QLocale& words() {
  static QLocale locale = QLocale::c();
  return locale;
}

QString codeOf(Language language) {
  switch (language) {
    case Language::English:
      return QStringLiteral("en");
    case Language::Spanish:
      return QStringLiteral("es");
    case Language::AsDesktop:
      break;
  }
  return QLocale::system().name().section(QLatin1Char('_'), 0, 0);
}

}  // namespace

Language chosenLanguage() {
  const QString code = QSettings().value(kLanguage).toString();
  if (code == codeOf(Language::English)) return Language::English;
  if (code == codeOf(Language::Spanish)) return Language::Spanish;
  return Language::AsDesktop;
}

void chooseLanguage(Language language) {
  if (language == Language::AsDesktop)
    QSettings().remove(kLanguage);
  else
    QSettings().setValue(kLanguage, codeOf(language));
}

bool WordCatalogue::take(const QString& code) {
  takeDeskResources();
  QFile file(QStringLiteral(":/words/%1.json").arg(code));
  if (!file.open(QIODevice::ReadOnly)) return false;
  const QJsonObject words = QJsonDocument::fromJson(file.readAll()).object();
  for (auto word = words.begin(); word != words.end(); ++word)
    words_.insert(word.key().toUtf8(), word->toString());
  return !words_.isEmpty();
}

QString WordCatalogue::translate(const char* context, const char* source, const char*, int) const {
  const auto own = words_.find(QByteArray(context) + '|' + source);
  return own == words_.end() ? words_.value(source) : *own;
}

QString chosenLanguageCode() {
  return codeOf(chosenLanguage());
}

void speak(const QString& code) {
  auto* words = new WordCatalogue;
  words->setParent(QCoreApplication::instance());
  if (!words->take(code)) return;
  QCoreApplication::installTranslator(words);
  desk::words() = QLocale(code);
  // Buttons of standard dialogs; without that package they stay English.
  auto* dialogs = new QTranslator(QCoreApplication::instance());
  if (dialogs->load(QStringLiteral("qtbase_") + code, QLibraryInfo::path(QLibraryInfo::TranslationsPath)))
    QCoreApplication::installTranslator(dialogs);
  if (codeOf(Language::AsDesktop) != code) QLocale::setDefault(QLocale(code));
}

Numbers chosenNumbers() {
  const QString kept = QSettings().value(kNumbers).toString();
  if (kept == QStringLiteral("point")) return Numbers::Point;
  return kept == QStringLiteral("comma") ? Numbers::Comma : Numbers::AsLanguage;
}

void chooseNumbers(Numbers numbers) {
  static const QStringList words{{}, QStringLiteral("point"), QStringLiteral("comma")};
  QSettings().setValue(kNumbers, words[static_cast<int>(numbers)]);
}

void writeNumbersAsChosen() {
  const Numbers numbers = chosenNumbers();
  if (numbers == Numbers::Point) QLocale::setDefault(QLocale(QLocale::English, QLocale::UnitedKingdom));
  if (numbers == Numbers::Comma) QLocale::setDefault(QLocale(QLocale::Spanish, QLocale::Spain));
}

QString said(const std::string& word) {
  return QCoreApplication::translate("core", word.c_str());
}

QString said(const Sentence& sentence) {
  Sentence own = sentence;
  for (Sentence::Arg& arg : own.args)
    if (arg.isWords) arg.text = said(arg.text).toStdString();
  return QString::fromStdString(own.filled(said(sentence.id).toStdString()));
}

QString said(const Failure& failure) {
  const QString what = said(failure.what);
  const QString where = QString::fromStdString(failure.where);
  QString all = where.isEmpty() ? what : where + QStringLiteral(": ") + what;
  if (!failure.cure.id.empty()) all += QLatin1Char('\n') + said(failure.cure);
  return all;
}

QString said(const std::vector<Sentence>& parts) {
  QStringList words;
  for (const Sentence& part : parts) words << said(part);
  return words.join(QStringLiteral(" · "));
}

QLocale wordLocale() {
  return words();
}

}  // namespace chispa::desk
